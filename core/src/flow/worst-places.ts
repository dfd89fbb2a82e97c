import { ampFor, riseOf, wallOf } from "./copper-facts.ts";
import type { CopperSheet, Flowing } from "./sheet.ts";

/** A track with what flows through it: all stretches of one width that carry the same, at the longest of them. */
export interface FlowStretch {
  readonly layer: string;
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
  readonly widthMm: number;
  /** Of all its stretches. */
  readonly lengthMm: number;
  readonly ma: number;
  readonly riseK: number;
  /** What warms it by 10 K. */
  readonly takesMa: number;
}
/** A plated hole with what goes through it from layer to layer. */
export interface FlowHole {
  readonly x: number;
  readonly y: number;
  readonly diameterMm: number;
  readonly ma: number;
  readonly riseK: number;
  readonly takesMa: number;
}

/** How warm a picture is at each cell: 0 no copper, 1 no current to speak of … 255 as much as `fullMaPerMm`. */
export interface FlowPicture {
  readonly x0: number;
  readonly y0: number;
  readonly cellMm: number;
  readonly nx: number;
  readonly ny: number;
  readonly fullMaPerMm: number;
  readonly layers: readonly { readonly name: string; readonly heat: Uint8Array }[];
}

/** Less than this through a stretch or a hole is told nowhere: mA, and as a share of what the net carries. */
const [LEAST_MA, LEAST_SHARE] = [0.01, 0.02];

/**
 * Tracks by how warm what flows makes them. A stretch is cut across its middle and what crosses there counted; within a
 * filled area that is what flows in its own width.
 */
export function stretchesOf(sheet: CopperSheet, flowing: Flowing, allMa: number): FlowStretch[] {
  const { grid, layers, ground } = sheet;
  const out = new Map<string, FlowStretch>();
  layers.forEach((l, at) => {
    const { solids: s } = ground.copper[l.index]!;
    const e = s.edges;
    for (const k of l.pieces) {
      const r = s.radius[k]!;
      if (r <= 0) continue;
      for (let o = s.firstEdge[k]! * 4; o < s.firstEdge[k + 1]! * 4; o += 4) {
        const [x1, y1, x2, y2] = [e[o]!, e[o + 1]!, e[o + 2]!, e[o + 3]!];
        const length = Math.hypot(x2 - x1, y2 - y1);
        if (length < Math.max(2 * r, 2 * grid.h)) continue;
        const ma = 1000 * Math.abs(crossing(sheet, flowing, at, [x1, y1, x2, y2], r));
        if (ma < Math.max(LEAST_MA, LEAST_SHARE * allMa)) continue;
        const section = { mm2: 2 * r * l.thickMm, isInner: l.isInner };
        const stretch: FlowStretch = {
          layer: l.name,
          x1,
          y1,
          x2,
          y2,
          widthMm: 2 * r,
          lengthMm: length,
          ma,
          riseK: riseOf(section, ma / 1000),
          takesMa: 1000 * ampFor(section),
        };
        // the same stroke drawn twice is one
        out.set(
          [l.name, ...[x1 + x2, y1 + y2].map((v) => Math.round(v * 50)), Math.round(r * 1000)].join(" "),
          stretch,
        );
      }
    }
  });
  return together([...out.values()]).sort((a, b) => b.riseK - a.riseK);
}

/** Currents that differ by less than this share are one. */
const SAME_SHARE = 0.01;

function together(list: readonly FlowStretch[]): FlowStretch[] {
  const tracks = new Map<string, FlowStretch>();
  const longest = new Map<string, number>();
  for (const s of list) {
    const key = [s.layer, Math.round(s.widthMm * 1000), Math.round(Math.log(s.ma) / SAME_SHARE)].join(" ");
    const was = tracks.get(key);
    const lengthMm = s.lengthMm + (was?.lengthMm ?? 0);
    const isLongest = s.lengthMm > (longest.get(key) ?? 0);
    if (isLongest) longest.set(key, s.lengthMm);
    tracks.set(key, { ...(was && !isLongest ? was : s), lengthMm });
  }
  return [...tracks.values()];
}

/** A that crosses the middle of a stretch, from its beginning to its end. */
function crossing(
  { grid: g }: CopperSheet,
  { right, up }: Flowing,
  layer: number,
  [x1, y1, x2, y2]: readonly [number, number, number, number],
  r: number,
): number {
  const length = Math.hypot(x2 - x1, y2 - y1);
  const [dx, dy] = [(x2 - x1) / length, (y2 - y1) / length];
  const [mx, my] = [(x1 + x2) / 2, (y1 + y2) / 2];
  const reach = r + 2 * g.h;
  const across = r + 0.75 * g.h;
  /** Behind the cut or before it. */
  const isPast = (i: number, j: number) =>
    (g.x0 + (i + 0.5) * g.h - mx) * dx + (g.y0 + (j + 0.5) * g.h - my) * dy >= 0;
  const isNear = (x: number, y: number) => Math.abs((y - my) * dx - (x - mx) * dy) <= across;
  let sum = 0;
  const [i1, i2] = [Math.floor((mx - reach - g.x0) / g.h), Math.floor((mx + reach - g.x0) / g.h)];
  const [j1, j2] = [Math.floor((my - reach - g.y0) / g.h), Math.floor((my + reach - g.y0) / g.h)];
  for (let j = Math.max(0, j1); j <= Math.min(g.ny - 2, j2); j++)
    for (let i = Math.max(0, i1); i <= Math.min(g.nx - 2, i2); i++) {
      const c = j * g.nx + i;
      const here = isPast(i, j);
      const there = isPast(i + 1, j);
      if (here !== there && isNear(g.x0 + (i + 1) * g.h, g.y0 + (j + 0.5) * g.h))
        sum += (there ? 1 : -1) * right[layer]![c]!;
      const above = isPast(i, j + 1);
      if (here !== above && isNear(g.x0 + (i + 0.5) * g.h, g.y0 + (j + 1) * g.h))
        sum += (above ? 1 : -1) * up[layer]![c]!;
    }
  return sum;
}

/** Plated holes by how warm what goes through makes their walls; a wall is judged as copper within the board. */
export function holesOf(sheet: CopperSheet, volts: Float64Array, allMa: number): FlowHole[] {
  const most = new Map<(typeof sheet.walls)[number]["body"], number>();
  for (const w of sheet.walls) {
    const [a, b] = [sheet.nodeOf(w.from), sheet.nodeOf(w.to)];
    if (a < 0 || b < 0) continue;
    const ma = 1000 * Math.abs((volts[a]! - volts[b]!) * w.siemens);
    most.set(w.body, Math.max(most.get(w.body) ?? 0, ma));
  }
  return [...most]
    .filter(([, ma]) => ma >= Math.max(LEAST_MA, LEAST_SHARE * allMa))
    .map(([body, ma]): FlowHole => {
      const [p, q] = [body.points[0]!, body.points.at(-1)!];
      const section = {
        mm2: wallOf(2 * body.r, Math.hypot(q[0] - p[0], q[1] - p[1])),
        isInner: true,
      };
      return {
        x: (p[0] + q[0]) / 2,
        y: (p[1] + q[1]) / 2,
        diameterMm: 2 * body.r,
        ma,
        riseK: riseOf(section, ma / 1000),
        takesMa: 1000 * ampFor(section),
      };
    })
    .sort((a, b) => b.riseK - a.riseK);
}

/** So much of the copper may be warmer than the warmest colour: corners and the rims of pads. */
const WARMEST_SHARE = 0.01;

/** How much flows through each millimetre of copper, for a picture. */
export function densityOf({ grid, layers }: CopperSheet, { right, up }: Flowing): FlowPicture {
  const perMm = layers.map(({ faces }, l) => {
    const out = new Float32Array(grid.nx * grid.ny).fill(-1);
    for (let c = 0; c < out.length; c++) {
      const left = c > 0 ? c - 1 : c;
      const below = c >= grid.nx ? c - grid.nx : c;
      const isCopper =
        faces.right[c]! > 0 || faces.up[c]! > 0 || faces.right[left]! > 0 || faces.up[below]! > 0;
      if (!isCopper) continue;
      const x = (right[l]![c]! + right[l]![left]!) / 2;
      const y = (up[l]![c]! + up[l]![below]!) / 2;
      out[c] = (1000 * Math.hypot(x, y)) / grid.h;
    }
    return out;
  });
  const flows = new Float32Array(perMm.reduce((n, p) => n + p.length, 0));
  let n = 0;
  for (const p of perMm) for (const v of p) if (v > 0) flows[n++] = v;
  const all = flows.subarray(0, n).sort();
  const fullMaPerMm = all[Math.max(0, Math.floor(all.length * (1 - WARMEST_SHARE)) - 1)] ?? 0;
  return {
    x0: grid.x0,
    y0: grid.y0,
    cellMm: grid.h,
    nx: grid.nx,
    ny: grid.ny,
    fullMaPerMm,
    layers: layers.map(({ name }, l) => ({
      name,
      heat: Uint8Array.from(perMm[l]!, (v) =>
        v < 0 ? 0 : fullMaPerMm > 0 ? 1 + Math.min(254, Math.round((254 * v) / fullMaPerMm)) : 1,
      ),
    })),
  };
}
