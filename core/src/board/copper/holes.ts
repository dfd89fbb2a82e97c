import { pointSegment2, segmentSegment2 } from "../../geometry/segment.ts";
import type { Work } from "../../geometry/work.ts";
import {
  distanceTo,
  distanceWithin,
  edgeDistance2,
  insideSolid,
  ringsOfSolid,
  type Solids,
  solidCovers,
} from "../../gerber/solids.ts";
import type { BoardFile } from "../board-file.ts";
import type { Hole, Measure, Slot } from "../measure-document.ts";
import { r6, type Worst } from "../worst.ts";
import type { LayerSolids } from "./copper.ts";

/** Round holes of all drill files; where nothing says it, a hole with copper around it on any layer is plated. */
export function settlePlating(drills: readonly BoardFile[], copper: readonly LayerSolids[]): Hole[] {
  return drills.flatMap((f) =>
    f.drill!.hits.map((h): Hole => {
      const told = h.plated ?? (typeof f.plated === "boolean" ? f.plated : undefined);
      const plated = told ?? copper.some((l) => (ringAround(l, h.x, h.y, h.diameterMm / 2)?.mm ?? -1) > 0);
      return { x: h.x, y: h.y, diameterMm: h.diameterMm, plated, ...(f.span ? { span: f.span } : {}) };
    }),
  );
}

/** Slots and routed paths of all drill files; where nothing says it, one with copper around both ends is plated. */
export function settleSlots(drills: readonly BoardFile[], copper: readonly LayerSolids[]): Slot[] {
  return drills.flatMap((f) =>
    f.drill!.routs.map((s): Slot => {
      const told = s.plated ?? (typeof f.plated === "boolean" ? f.plated : undefined);
      const ends = [s.points[0]!, s.points.at(-1)!];
      const plated =
        told ??
        copper.some((l) => ends.every(([x, y]) => (ringAround(l, x, y, s.widthMm / 2)?.mm ?? -1) > 0));
      return { ...s, plated, ...(f.span ? { span: f.span } : {}) };
    }),
  );
}

export function groupHoles(holes: readonly Hole[]): Measure["holes"] {
  const groups = new Map<string, { diameterMm: number; plated: boolean; count: number }>();
  for (const h of holes) {
    const key = `${Math.round(h.diameterMm * 1e4)} ${h.plated}`;
    const g = groups.get(key);
    if (g) g.count++;
    else groups.set(key, { diameterMm: r6(h.diameterMm), plated: h.plated, count: 1 });
  }
  return [...groups.values()].sort(
    (a, b) => a.diameterMm - b.diameterMm || Number(b.plated) - Number(a.plated),
  );
}

/**
 * Copper left around a hole: the best of the single pieces that cover its centre, distance to the piece's edge − r.
 *
 * A drawn hole inside the pad (donut) is passed over. Taking the best single piece never claims more ring than the pad
 * alone has.
 *
 * @returns undefined where the hole meets no copper on this layer
 */
export function ringAround(
  layer: LayerSolids,
  x: number,
  y: number,
  r: number,
): { mm: number; piece: number } | undefined {
  const s = layer.solids;
  let best: { mm: number; piece: number } | undefined;
  layer.find(x, y, 0, (k) => {
    let d: number;
    if (!s.isArea[k]) {
      d = s.radius[k]! - Math.sqrt(edgeDistance2(s, k, x, y));
      if (d < 0) return;
    } else if (insideSolid(s, k, x, y)) d = Math.sqrt(edgeDistance2(s, k, x, y));
    else {
      const outer = donut(s, k, x, y, r);
      if (!outer) return;
      d = Math.sqrt(ringDistance2(outer, x, y));
    }
    if (!best || d - r > best.mm) best = { mm: d - r, piece: k };
  });
  return best;
}

/** An area's outer ring, and the boxes of its inner ones: a pour is asked about at each of its holes. */
interface RingBoxes {
  readonly outer: number[] | undefined;
  readonly inner: readonly (readonly [number, number, number, number])[];
}
const BOXES = new WeakMap<Solids, Map<number, RingBoxes>>();

function ringBoxes(s: Solids, k: number): RingBoxes {
  let known = BOXES.get(s);
  if (!known) {
    known = new Map();
    BOXES.set(s, known);
  }
  let found = known.get(k);
  if (!found) {
    const [outer, ...inner] = ringsOfSolid(s, k);
    found = { outer, inner: inner.map(boxOf) };
    known.set(k, found);
  }
  return found;
}

/** The outer ring of a pad drawn with its hole left open: one of its inner rings lies around the drill and is about as large. */
function donut(s: Solids, k: number, x: number, y: number, r: number): number[] | undefined {
  const { outer, inner } = ringBoxes(s, k);
  for (const [x0, y0, x1, y1] of inner)
    if (x > x0 && x < x1 && y > y0 && y < y1 && Math.max(x1 - x0, y1 - y0) / 2 < r + 0.01) return outer;
  return undefined;
}

function boxOf(ring: readonly number[]): [number, number, number, number] {
  let [x0, y0, x1, y1] = [ring[0]!, ring[1]!, ring[0]!, ring[1]!];
  for (let i = 2; i < ring.length; i += 2) {
    x0 = Math.min(x0, ring[i]!);
    y0 = Math.min(y0, ring[i + 1]!);
    x1 = Math.max(x1, ring[i]!);
    y1 = Math.max(y1, ring[i + 1]!);
  }
  return [x0, y0, x1, y1];
}

function ringDistance2(ring: readonly number[], x: number, y: number): number {
  let best = Number.POSITIVE_INFINITY;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    best = Math.min(best, pointSegment2(x, y, ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!));
  return best;
}

/** Distance from a point to a ring's edges, mm. */
export const ringDistance = (ring: readonly number[], x: number, y: number) =>
  Math.sqrt(ringDistance2(ring, x, y));

/** A drilled or routed body: the points within `r` of its path. */
export interface Body {
  readonly points: readonly (readonly [number, number])[];
  readonly r: number;
  readonly plated: boolean;
  readonly isRound: boolean;
  readonly span?: readonly [number, number];
}

/** Holes and slots alike, as bodies. */
export const bodiesOf = (holes: readonly Hole[], slots: readonly Slot[]): Body[] => [
  ...holes.map(
    (h): Body => ({
      points: [[h.x, h.y]],
      r: h.diameterMm / 2,
      plated: h.plated,
      isRound: true,
      ...(h.span ? { span: h.span } : {}),
    }),
  ),
  ...slots.map(
    (s): Body => ({
      points: s.points,
      r: s.widthMm / 2,
      plated: s.plated,
      isRound: false,
      ...(s.span ? { span: s.span } : {}),
    }),
  ),
];

/** Whether a body passes through copper layer `i` of `n` (from 0); a body without a span passes through all. */
export const passes = (b: { readonly span?: readonly [number, number] }, i: number): boolean =>
  !b.span || (i + 1 >= Math.min(...b.span) && i + 1 <= Math.max(...b.span));

/** Distance from a body's path to a piece, mm, the body's own radius left aside; 0 where it runs inside. */
export function pathDistance(s: Solids, k: number, b: Body): number {
  const [first] = b.points;
  if (b.points.length === 1) return distanceTo(s, k, first![0], first![1]);
  if (b.points.some(([x, y]) => solidCovers(s, k, x, y))) return 0;
  let best = Number.POSITIVE_INFINITY;
  const e = s.edges;
  s.work.spend(2 * b.points.length * (s.firstEdge[k + 1]! - s.firstEdge[k]!));
  for (let p = 0; p + 1 < b.points.length; p++) {
    const [[ax, ay], [bx, by]] = [b.points[p]!, b.points[p + 1]!];
    for (let i = s.firstEdge[k]! * 4; i < s.firstEdge[k + 1]! * 4; i += 4)
      best = Math.min(best, segmentSegment2(ax, ay, bx, by, e[i]!, e[i + 1]!, e[i + 2]!, e[i + 3]!));
  }
  return Math.max(0, Math.sqrt(best) - s.radius[k]!);
}

/** Visits the pieces of a layer that come within `reach` of a body's wall, with the distance wall to copper (negative inside). */
export function nearBody(
  layer: LayerSolids,
  b: Body,
  reach: number,
  visit: (piece: number, mm: number, x: number, y: number) => void,
): void {
  if (b.points.length === 1) {
    const x = b.points[0]![0];
    const y = b.points[0]![1];
    layer.find(x, y, b.r + reach, (k) => {
      const d = distanceWithin(layer.solids, k, x, y, b.r + reach) - b.r;
      if (d <= reach) visit(k, d, x, y);
    });
    return;
  }
  const seen = new Set<number>();
  for (let p = 0; p < b.points.length; p++) {
    const [x, y] = b.points[p]!;
    const [qx, qy] = b.points[p + 1] ?? b.points[p]!;
    const half = Math.hypot(qx - x, qy - y) / 2;
    layer.find((x + qx) / 2, (y + qy) / 2, half + b.r + reach, (k) => {
      if (seen.has(k)) return;
      seen.add(k);
      const d = pathDistance(layer.solids, k, b) - b.r;
      if (d <= reach) visit(k, d, x, y);
    });
  }
}

/** How far neighbours of a hole are looked for in turn, mm: most boards have them near, a large one may not. */
const HOLE_REACHES_MM = [0.5, 3, 18, 108, 650];

/**
 * Adds the distances wall to wall between all bodies, those drilled twice at one place left out.
 *
 * @throws OverBudget where more holes lie in one place than on any board
 */
export function addHoleToHole(
  worst: Worst,
  bodies: readonly Body[],
  work: Work,
): { doubled: readonly Body[] } {
  let doubled: readonly Body[] = [];
  for (const reach of HOLE_REACHES_MM) {
    doubled = holesWithin(worst, bodies, reach, work);
    // near ones alone do not tell the worst places apart before there are enough of them
    if (Number.isFinite(worst.limit) || (reach >= 3 && worst.least !== undefined)) break;
  }
  return { doubled };
}

function holesWithin(worst: Worst, bodies: readonly Body[], reach: number, work: Work): readonly Body[] {
  // wide enough that what is within reach of a step along a path lies in that step's cell or one beside it
  const cell = 1.5 * bodies.reduce((c, b) => Math.max(c, 2 * b.r + reach), 1);
  const grid = new Map<number, number[]>();
  const keyOf = (x: number, y: number) => (x + 32768) * 65536 + y + 32768;
  const walk = (b: Body, visit: (x: number, y: number) => void) => {
    for (let p = 0; p < b.points.length; p++) {
      const [x, y] = b.points[p]!;
      const [u, v] = b.points[p + 1] ?? b.points[p]!;
      const steps = Math.ceil(Math.hypot(u - x, v - y) / (cell / 4));
      work.spend(20 * (steps + 1));
      for (let k = 0; k <= steps; k++) {
        const t = k / (steps || 1);
        visit(Math.floor((x + (u - x) * t) / cell), Math.floor((y + (v - y) * t) / cell));
      }
    }
  };
  const doubled: Body[] = [];
  const known = new Set<string>();
  const seen = new Int32Array(bodies.length).fill(-1);
  bodies.forEach((b, i) => {
    work.at(i, bodies.length);
    const [x, y] = b.points[0]!;
    if (b.isRound) {
      // holes drilled twice are told by their place before any are compared
      const key = `${Math.round(x * 100)} ${Math.round(y * 100)} ${Math.round(b.r * 100)}`;
      if (known.has(key)) {
        doubled.push(b);
        return;
      }
      known.add(key);
    }
    const own = new Set<number>();
    walk(b, (cx, cy) => {
      if (own.has(keyOf(cx, cy))) return;
      own.add(keyOf(cx, cy));
      for (let c = cx - 1; c <= cx + 1; c++)
        for (let r = cy - 1; r <= cy + 1; r++) {
          const list = grid.get(keyOf(c, r)) ?? [];
          work.spend(10 + 2 * list.length);
          for (const j of list) {
            if (seen[j] === i) continue;
            seen[j] = i;
            const o = bodies[j]!;
            if (b.points.length + o.points.length > 2) work.spend(10 * b.points.length * o.points.length);
            const d = pathToPath(b, o);
            if (d - b.r - o.r >= worst.limit || (b.isRound && o.isRound && d < 0.01)) continue;
            const [ox, oy] = o.points[0]!;
            worst.add(Math.max(0, d - b.r - o.r), "drill", (x + ox) / 2, (y + oy) / 2);
          }
        }
    });
    for (const key of own) {
      const list = grid.get(key);
      if (list) list.push(i);
      else grid.set(key, [i]);
    }
  });
  return doubled;
}

function pathToPath(a: Body, b: Body): number {
  if (a.points.length === 1 && b.points.length === 1)
    return Math.hypot(a.points[0]![0] - b.points[0]![0], a.points[0]![1] - b.points[0]![1]);
  let best = Number.POSITIVE_INFINITY;
  for (let i = 0; i < Math.max(1, a.points.length - 1); i++)
    for (let j = 0; j < Math.max(1, b.points.length - 1); j++) {
      const [p, q] = [a.points[i]!, a.points[i + 1] ?? a.points[i]!];
      const [u, v] = [b.points[j]!, b.points[j + 1] ?? b.points[j]!];
      best = Math.min(best, segmentSegment2(p[0], p[1], q[0], q[1], u[0], u[1], v[0], v[1]));
    }
  return Math.sqrt(best);
}
