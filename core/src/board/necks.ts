import { segmentSegment2 } from "../geometry/segment.ts";
import { KIND } from "../gerber/image.ts";
import { distanceTo, insideSolid, type Solids, SolidsBuilder } from "../gerber/solids.ts";
import type { LayerSolids } from "./copper.ts";
import type { Worst } from "./worst.ts";

/**
 * Adds the narrow places inside filled areas: where the copper between two edges of one area is narrowest.
 *
 * A neck is a local least distance between two edges across the inside: between a corner that points inward and an edge,
 * between two such corners, or between parallel edges that face each other over at least twice their distance (the rule
 * for strokes). Pads and small fills of a few edges count as drawn; a neck that other copper of the layer covers on a
 * side is none. O(edges) with a grid; only filled areas that were drawn as areas or cut by clear objects are searched.
 *
 * @param reach mm, wider necks are not looked for
 */
export function addNecks(worst: Worst, layer: LayerSolids, reach: number): void {
  const { solids: s, image } = layer;
  for (let k = 0; k < s.count; k++) {
    if (!s.isArea[k] || image.kind[s.object[k]!] !== KIND.region) continue;
    const [w, h] = [s.box[k * 4 + 2]! - s.box[k * 4]!, s.box[k * 4 + 3]! - s.box[k * 4 + 1]!];
    // a fill as small as a pad is judged as a pad, not as a track
    if (Math.max(w, h) < 2 * Math.min(w, h) && Math.max(w, h) < 2) continue;
    necksOf(
      s,
      k,
      reach,
      () => worst.limit,
      (mm, x, y, ux, uy) => {
        // just beyond both edges there must be no copper of another piece
        for (const side of [-1, 1]) {
          const [px, py] = [x + side * ux * (mm / 2 + 0.002), y + side * uy * (mm / 2 + 0.002)];
          let isCovered = false;
          layer.find(px, py, 0.002, (other) => {
            isCovered = other !== k && distanceTo(s, other, px, py) === 0;
            return isCovered;
          });
          if (isCovered) return;
        }
        worst.add(mm, layer.name, x, y);
      },
    );
  }
}

/**
 * Adds the narrow places of the board itself: between two edges of the outline, or of the outline and a cut-out, across
 * the material. A house's handling, a score line or a hot tool breaks a board there.
 *
 * @param rings the outline and its cut-outs, flattened
 * @param reach mm, wider places are not looked for
 */
export function addOutlineNecks(worst: Worst, rings: readonly (readonly number[])[], reach: number): void {
  const b = new SolidsBuilder(1, 1024);
  for (const ring of rings) b.ring(ring);
  b.close(0, 0, true);
  const s = b.done();
  if (s.count === 0) return;
  necksOf(
    s,
    0,
    reach,
    () => worst.limit,
    (mm, x, y) => worst.add(mm, "profile", x, y),
  );
}

type Found = (mm: number, x: number, y: number, ux: number, uy: number) => void;

function necksOf(s: Solids, k: number, reach: number, limit: () => number, found: Found): void {
  const [from, to] = [s.firstEdge[k]!, s.firstEdge[k + 1]!];
  const e = s.edges;
  const cell = Math.max(reach, 0.1);
  const grid = new Map<number, number[]>();
  // long edges are walked in stretches, or a slanted one would fill its whole box
  const each = (i: number, grow: number, visit: (key: number) => void) => {
    const o = i * 4;
    const [ax, ay, bx, by] = [e[o]!, e[o + 1]!, e[o + 2]!, e[o + 3]!];
    const n = Math.ceil(Math.max(Math.abs(bx - ax), Math.abs(by - ay)) / (4 * cell)) || 1;
    for (let k = 0; k < n; k++) {
      const [px, py] = [ax + ((bx - ax) * k) / n, ay + ((by - ay) * k) / n];
      const [qx, qy] = [ax + ((bx - ax) * (k + 1)) / n, ay + ((by - ay) * (k + 1)) / n];
      const x1 = Math.floor((Math.max(px, qx) + grow) / cell);
      const y1 = Math.floor((Math.max(py, qy) + grow) / cell);
      for (let x = Math.floor((Math.min(px, qx) - grow) / cell); x <= x1; x++)
        for (let y = Math.floor((Math.min(py, qy) - grow) / cell); y <= y1; y++)
          visit((x + 1_000_000) * 4_000_000 + y + 1_000_000);
    }
  };
  for (let i = from; i < to; i++)
    each(i, 0, (key) => {
      const list = grid.get(key);
      if (list) list.push(i);
      else grid.set(key, [i]);
    });
  const stamp = new Int32Array(to - from).fill(-1);
  for (let i = from; i < to; i++)
    each(i, reach, (key) => {
      for (const j of grid.get(key) ?? []) {
        if (j <= i || stamp[j - from] === i) continue;
        stamp[j - from] = i;
        const [a, b] = [i * 4, j * 4];
        const d2 = segmentSegment2(
          e[a]!,
          e[a + 1]!,
          e[a + 2]!,
          e[a + 3]!,
          e[b]!,
          e[b + 1]!,
          e[b + 2]!,
          e[b + 3]!,
        );
        const d = Math.sqrt(d2);
        if (d > reach || d < 1e-4 || d >= limit()) continue;
        const across = facing(e, a, b, d);
        if (!across) continue;
        const [x, y, ux, uy] = across;
        // copper on both sides of the way across: a way along the edge itself is none
        const off = Math.min(0.001, d / 10);
        if (insideSolid(s, k, x - uy * off, y + ux * off) && insideSolid(s, k, x + uy * off, y - ux * off))
          found(d, x, y, ux, uy);
      }
    });
}

/**
 * The middle and direction of the shortest way between two edges, if that way is a local least: each end lies within its
 * edge with the way square to it, or on a corner.
 */
function facing(
  e: Float64Array,
  a: number,
  b: number,
  d: number,
): [number, number, number, number] | undefined {
  const [ax, ay, bx, by] = [e[a]!, e[a + 1]!, e[a + 2]!, e[a + 3]!];
  const [cx, cy, dx, dy] = [e[b]!, e[b + 1]!, e[b + 2]!, e[b + 3]!];
  const [la, lb] = [Math.hypot(bx - ax, by - ay), Math.hypot(dx - cx, dy - cy)];
  const [ux, uy] = [(bx - ax) / la, (by - ay) / la];
  const [vx, vy] = [(dx - cx) / lb, (dy - cy) / lb];
  const sine = ux * vy - uy * vx;
  if (Math.abs(sine) < 0.02) {
    // opposite walls of a strip, as far as they face each other
    const along = (x: number, y: number) => (x - ax) * ux + (y - ay) * uy;
    const [p, q] = [along(cx, cy), along(dx, dy)];
    const from = Math.max(0, Math.min(p, q));
    const until = Math.min(la, Math.max(p, q));
    if (until - from >= 2 * d) {
      const m = (from + until) / 2;
      const [x, y] = [ax + ux * m, ay + uy * m];
      const off = (cx - x) * -uy + (cy - y) * ux;
      const sign = Math.sign(off) || 1;
      return [x - (uy * sign * d) / 2, y + (ux * sign * d) / 2, -uy * sign, ux * sign];
    }
    if (until - from > 1e-9) return undefined;
  }
  // corner against edge: the corner's foot must fall inside the edge
  const foot = (px: number, py: number, qx: number, qy: number, wx: number, wy: number, l: number) => {
    const t = (px - qx) * wx + (py - qy) * wy;
    if (t <= 1e-9 || t >= l - 1e-9) return undefined;
    const [fx, fy] = [qx + wx * t, qy + wy * t];
    const far = Math.hypot(fx - px, fy - py);
    if (Math.abs(far - d) > 1e-7) return undefined;
    return [(fx + px) / 2, (fy + py) / 2, (fx - px) / far, (fy - py) / far] as [
      number,
      number,
      number,
      number,
    ];
  };
  return (
    foot(cx, cy, ax, ay, ux, uy, la) ??
    foot(dx, dy, ax, ay, ux, uy, la) ??
    foot(ax, ay, cx, cy, vx, vy, lb) ??
    foot(bx, by, cx, cy, vx, vy, lb) ??
    corners(
      [
        [ax, ay],
        [bx, by],
      ],
      [
        [cx, cy],
        [dx, dy],
      ],
      d,
    )
  );
}

function corners(
  p: readonly (readonly [number, number])[],
  q: readonly (readonly [number, number])[],
  d: number,
): [number, number, number, number] | undefined {
  for (const [x, y] of p)
    for (const [u, v] of q)
      if (Math.abs(Math.hypot(u - x, v - y) - d) < 1e-9)
        return [(x + u) / 2, (y + v) / 2, (u - x) / d, (v - y) / d];
  return undefined;
}
