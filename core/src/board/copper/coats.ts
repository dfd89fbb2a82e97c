import { nearestPoints, segmentSegment2 } from "../../geometry/segment.ts";
import { edgeDistance2, insideSolid, ringsOfSolid, type Solids, solidCovers } from "../../gerber/solids.ts";
import { r6, type Worst } from "../worst.ts";
import type { LayerSolids } from "./copper.ts";
import type { Pad } from "./nets.ts";

/** A pad with the mask opening over it: index of the opening's piece, −1 where the mask covers it. */
export interface OpenPad extends Pad {
  readonly opening: number;
}

/** For each pad the mask opening over its middle. */
export function openPads(pads: readonly Pad[], mask: LayerSolids | undefined): OpenPad[] {
  return pads.map((p) => {
    let opening = -1;
    if (mask)
      mask.find(p.x, p.y, 0, (k) => {
        if (!solidCovers(mask.solids, k, p.x, p.y)) return;
        // of several openings the largest is the one that frees the pad
        if (opening < 0 || sizeOf(mask.solids, k) > sizeOf(mask.solids, opening)) opening = k;
      });
    return { ...p, opening };
  });
}

/** True when a piece of the layer covers the point. */
export function isIn(l: LayerSolids, x: number, y: number): boolean {
  let found = false;
  l.find(x, y, 0, (k) => {
    found = solidCovers(l.solids, k, x, y);
    return found;
  });
  return found;
}

const sizeOf = (s: Solids, k: number) =>
  (s.box[k * 4 + 2]! - s.box[k * 4]!) * (s.box[k * 4 + 3]! - s.box[k * 4 + 1]!);

/**
 * Adds by how much openings outgrow their pads, (opening − pad) / 2; negative where the mask lies on the pad. The least
 * way from the pad's outline to the opening's, exact for openings without corners that point inward.
 */
export function addExpansions(
  worst: Worst,
  copper: LayerSolids,
  mask: LayerSolids,
  pads: readonly OpenPad[],
): void {
  const known = new Map<string, number>();
  for (const p of pads) {
    if (p.opening < 0 || p.fn === "ViaPad") continue;
    const [a, b] = [copper.image.aperture[p.object]!, mask.image.aperture[mask.solids.object[p.opening]!]!];
    const s = mask.solids;
    const [ox, oy] = [s.box[p.opening * 4]! - p.x, s.box[p.opening * 4 + 1]! - p.y];
    const key = `${a} ${b} ${Math.round(ox * 1e5)} ${Math.round(oy * 1e5)}`;
    let mm = a >= 0 && b >= 0 ? known.get(key) : undefined;
    if (mm === undefined) {
      mm = expansion(copper.solids, p.piece, s, p.opening);
      known.set(key, mm);
    }
    // an opening made for a neighbour may cut a via's or pad's rim: that is no opening of its own
    const isOwn =
      Math.hypot(
        s.box[p.opening * 4 + 2]! + s.box[p.opening * 4]! - 2 * p.x,
        s.box[p.opening * 4 + 3]! + s.box[p.opening * 4 + 1]! - 2 * p.y,
      ) < 0.2;
    if (mm < 0 && !isOwn) continue;
    worst.add(mm, `mask ${copper.name}`, p.x, p.y);
  }
}

function expansion(pad: Solids, k: number, open: Solids, m: number): number {
  let best = Number.POSITIVE_INFINITY;
  if (!pad.isArea[k] && !open.isArea[m]) {
    // two round shapes: exact from spine to spine
    const e = pad.edges;
    for (let i = pad.firstEdge[k]! * 4; i < pad.firstEdge[k + 1]! * 4; i += 2)
      best = Math.min(
        best,
        open.radius[m]! - Math.sqrt(edgeDistance2(open, m, e[i]!, e[i + 1]!)) - pad.radius[k]!,
      );
    return best;
  }
  if (!pad.isArea[k]) {
    // a round pad in an area: from its spine, less its radius
    const e = pad.edges;
    for (let i = pad.firstEdge[k]! * 4; i < pad.firstEdge[k + 1]! * 4; i += 2) {
      const d = Math.sqrt(edgeDistance2(open, m, e[i]!, e[i + 1]!));
      best = Math.min(best, (insideSolid(open, m, e[i]!, e[i + 1]!) ? d : -d) - pad.radius[k]!);
    }
    return best;
  }
  for (const ring of ringsOfSolid(pad, k).slice(0, 1))
    for (let i = 0; i < ring.length; i += 2) {
      const [x, y] = [ring[i]!, ring[i + 1]!];
      const d = Math.sqrt(edgeDistance2(open, m, x, y));
      best = Math.min(best, open.isArea[m] ? (insideSolid(open, m, x, y) ? d : -d) : open.radius[m]! - d);
    }
  return best;
}

/** Calls `visit` with the least distance between pieces of two layers that come within `reach`, 0 or less where they overlap. */
export function nearAcross(
  a: LayerSolids,
  b: LayerSolids,
  reach: number,
  visit: (ka: number, kb: number, mm: number, x: number, y: number) => void,
  isOfInterest: (ka: number, kb: number) => boolean = () => true,
): void {
  const [s, t] = [a.solids, b.solids];
  for (let k = 0; k < s.count; k++) {
    const o = k * 4;
    const [x0, y0, x1, y1] = [s.box[o]!, s.box[o + 1]!, s.box[o + 2]!, s.box[o + 3]!];
    const half = Math.max(x1 - x0, y1 - y0) / 2;
    b.find((x0 + x1) / 2, (y0 + y1) / 2, half + reach, (m) => {
      const q = m * 4;
      if (
        t.box[q]! > x1 + reach ||
        t.box[q + 2]! < x0 - reach ||
        t.box[q + 1]! > y1 + reach ||
        t.box[q + 3]! < y0 - reach
      )
        return;
      if (!isOfInterest(k, m)) return;
      const [e, f] = [s.edges, t.edges];
      let best = Number.POSITIVE_INFINITY;
      let at = [0, 0];
      const far = s.radius[k]! + t.radius[m]!;
      const r = far + reach;
      s.work.spend((t.firstEdge[m + 1]! - t.firstEdge[m]!) >> 2);
      for (let j = t.firstEdge[m]! * 4; j < t.firstEdge[m + 1]! * 4; j += 4) {
        // of a large fill most edges lie elsewhere
        if (Math.max(f[j]!, f[j + 2]!) < x0 - r || Math.min(f[j]!, f[j + 2]!) > x1 + r) continue;
        if (Math.max(f[j + 1]!, f[j + 3]!) < y0 - r || Math.min(f[j + 1]!, f[j + 3]!) > y1 + r) continue;
        s.work.spend(2 * (s.firstEdge[k + 1]! - s.firstEdge[k]!));
        for (let i = s.firstEdge[k]! * 4; i < s.firstEdge[k + 1]! * 4; i += 4) {
          const d2 = segmentSegment2(
            e[i]!,
            e[i + 1]!,
            e[i + 2]!,
            e[i + 3]!,
            f[j]!,
            f[j + 1]!,
            f[j + 2]!,
            f[j + 3]!,
          );
          if (d2 >= best) continue;
          best = d2;
          const n = nearestPoints(
            e[i]!,
            e[i + 1]!,
            e[i + 2]!,
            e[i + 3]!,
            f[j]!,
            f[j + 1]!,
            f[j + 2]!,
            f[j + 3]!,
          );
          at = [(n[0] + n[2]) / 2, (n[1] + n[3]) / 2];
        }
      }
      let mm = Math.sqrt(best) - far;
      if (mm > 0 && t.isArea[m] && insideSolid(t, m, e[s.firstEdge[k]! * 4]!, e[s.firstEdge[k]! * 4 + 1]!))
        mm = -far;
      if (mm > 0 && s.isArea[k] && insideSolid(s, k, f[t.firstEdge[m]! * 4]!, f[t.firstEdge[m]! * 4 + 1]!))
        mm = -far;
      if (mm <= reach) visit(k, m, mm, at[0]!, at[1]!);
    });
  }
}

/**
 * Copper of other nets near the openings of pads: adds its least distances to the openings, and returns the places
 * where an opening bares it, one an opening. There solder may bridge two nets.
 *
 * @param netOf net of a piece of the copper
 */
export function foreignInOpenings(
  worst: Worst,
  mask: LayerSolids,
  copper: LayerSolids,
  pads: readonly OpenPad[],
  netOf: (piece: number) => number,
): { x: number; y: number; pad: OpenPad }[] {
  const opened = new Map<number, { pad: OpenPad; nets: Set<number> }>();
  for (const p of pads) {
    if (p.opening < 0) continue;
    const g = mask.islands.groups.find(p.opening);
    const o = opened.get(g);
    if (o) o.nets.add(netOf(p.piece));
    else opened.set(g, { pad: p, nets: new Set([netOf(p.piece)]) });
  }
  const bared = new Map<number, { x: number; y: number; pad: OpenPad }>();
  const of = (m: number) => opened.get(mask.islands.groups.find(m));
  nearAcross(
    mask,
    copper,
    OPENING_REACH_MM,
    (m, _, mm, x, y) => {
      const { pad } = of(m)!;
      worst.add(Math.max(0, mm), `mask ${copper.name}`, x, y);
      const g = mask.islands.groups.find(m);
      if (mm < 1e-6 && !bared.has(g)) bared.set(g, { x, y, pad });
    },
    (m, k) => of(m) !== undefined && !of(m)!.nets.has(netOf(k)),
  );
  return [...bared.values()];
}

/** Distances beyond this do not matter to any mask. */
const OPENING_REACH_MM = 0.2;

/** What the silkscreen does near openings: the least distance ink to opening, and the pads it prints over. */
export function legendOverPads(
  worst: Worst,
  legend: LayerSolids,
  mask: LayerSolids,
  pads: readonly OpenPad[],
): { x: number; y: number; pad: OpenPad }[] {
  const padOf = new Map<number, OpenPad>();
  for (const p of pads) if (p.opening >= 0) padOf.set(p.opening, p);
  const over = new Map<OpenPad, { x: number; y: number; pad: OpenPad }>();
  nearAcross(legend, mask, 0.3, (_, m, mm, x, y) => {
    const pad = padOf.get(m);
    if (!pad) return;
    worst.add(Math.max(0, mm), legend.name, x, y);
    if (mm < -1e-6 && !over.has(pad)) over.set(pad, { x, y, pad });
  });
  return [...over.values()];
}

/**
 * Heights of printed text: islands of the silkscreen of one height within 5 %, at least five of them, taller than wide,
 * 0.3 to 3 mm. A guess at letters and digits, which layers do not tell from drawings.
 */
export function textHeights(legend: LayerSolids): { mm: number; x: number; y: number; count: number }[] {
  const { solids: s, islands } = legend;
  const boxes = new Map<number, [number, number, number, number, number]>();
  for (let k = 0; k < s.count; k++) {
    const g = islands.groups.find(k);
    const o = k * 4;
    const r = s.radius[k]!;
    const b = boxes.get(g);
    // heights are stated along the pen's middle, as layout programs state them
    const own = [s.box[o]! + r, s.box[o + 1]! + r, s.box[o + 2]! - r, s.box[o + 3]! - r] as const;
    if (!b) boxes.set(g, [...own, 1]);
    else {
      b[0] = Math.min(b[0], own[0]);
      b[1] = Math.min(b[1], own[1]);
      b[2] = Math.max(b[2], own[2]);
      b[3] = Math.max(b[3], own[3]);
      b[4]++;
    }
  }
  const byHeight = new Map<number, { mm: number; x: number; y: number; count: number }>();
  for (const [x0, y0, x1, y1, n] of boxes.values()) {
    const [w, h] = [Math.min(x1 - x0, y1 - y0), Math.max(x1 - x0, y1 - y0)];
    if (h < 0.3 || h > 3 || n < 2 || w > 0.95 * h || w < 0.25 * h) continue;
    const key = Math.round(h * 20);
    const g = byHeight.get(key);
    if (g) g.count++;
    else byHeight.set(key, { mm: r6(h), x: (x0 + x1) / 2, y: (y0 + y1) / 2, count: 1 });
  }
  return [...byHeight.values()].filter((g) => g.count >= 5).sort((a, b) => a.mm - b.mm);
}

/** Least distance between middles of neighbouring pads of one shape: the finest pitch parts stand at. */
export function addPitches(worst: Worst, copper: LayerSolids, pads: readonly OpenPad[]): void {
  const cell = 2.6;
  const grid = new Map<string, OpenPad[]>();
  for (const p of pads) {
    if (p.body >= 0 || p.opening < 0 || p.fn === "FiducialPad") continue;
    const a = copper.image.aperture[p.object]!;
    const [cx, cy] = [Math.floor(p.x / cell), Math.floor(p.y / cell)];
    for (let c = cx - 1; c <= cx + 1; c++)
      for (let r = cy - 1; r <= cy + 1; r++)
        for (const q of grid.get(`${a} ${c} ${r}`) ?? []) {
          const d = Math.hypot(p.x - q.x, p.y - q.y);
          if (d > 0.05 && d <= cell) worst.add(d, copper.name, (p.x + q.x) / 2, (p.y + q.y) / 2);
        }
    const key = `${a} ${cx} ${cy}`;
    const list = grid.get(key);
    if (list) list.push(p);
    else grid.set(key, [p]);
  }
}
