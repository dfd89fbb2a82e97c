import type { DrillData } from "../../drill/data.ts";
import { Work } from "../../geometry/work.ts";
import type { RawPlace } from "./diff-places.ts";
import { NOISE_MM, type Shift } from "./diff-shift.ts";

/** A hole or slot: its ends and its width, mm; the ends in a fixed order, whichever way it was routed. */
type Bore = readonly [number, number, number, number, number];

/** Pairs looked at: holes lie side by side, not a thousand on one spot. */
const MOST_PAIRS = 2_000_000;
/** A bore that lies no farther from where it was is the same one, moved, mm. */
const MOVED_MM = 2;

/** Holes and slots that are new, gone, moved or of another size. Those drilled twice at one place count as often. */
export function drillPlaces(now: DrillData, was: DrillData, shift: Shift): RawPlace[] {
  const [a, b] = [boresOf(now, [0, 0]), boresOf(was, shift)];
  const left = unmatched(a, b, (p, q) => p.every((v, k) => Math.abs(v - q[k]!) <= NOISE_MM), 2 * NOISE_MM);
  const places: RawPlace[] = [];
  // one of another size at its place
  const resized = unmatched(
    left.a,
    left.b,
    (p, q) => p.slice(0, 4).every((v, k) => Math.abs(v - q[k]!) <= NOISE_MM),
    2 * NOISE_MM,
    (p, q) => places.push({ box: boxOf(p, q), kind: "resized", wasMm: q[4], nowMm: p[4] }),
  );
  // one of the same size and length nearby
  const moved = unmatched(
    resized.a,
    resized.b,
    (p, q) =>
      Math.abs(p[4] - q[4]) <= NOISE_MM &&
      Math.abs(p[2] - p[0] - q[2] + q[0]) <= NOISE_MM &&
      Math.abs(p[3] - p[1] - q[3] + q[1]) <= NOISE_MM,
    MOVED_MM,
    (p, q) => places.push({ box: boxOf(p, q), kind: "moved", byMm: Math.hypot(p[0] - q[0], p[1] - q[1]) }),
  );
  for (const p of moved.a) places.push({ box: boxOf(p), kind: "added", nowMm: p[4] });
  for (const q of moved.b) places.push({ box: boxOf(q), kind: "gone", wasMm: q[4] });
  return places;
}

function boresOf(d: DrillData, [dx, dy]: Shift): Bore[] {
  return [
    ...d.hits.map((h): Bore => [h.x + dx, h.y + dy, h.x + dx, h.y + dy, h.diameterMm]),
    ...d.routs.map((r): Bore => {
      const [p, q] = [r.points[0]!, r.points.at(-1)!].sort((u, v) => u[0] - v[0] || u[1] - v[1]);
      return [p![0] + dx, p![1] + dy, q![0] + dx, q![1] + dy, r.widthMm];
    }),
  ];
}

const boxOf = (...bores: readonly Bore[]): RawPlace["box"] => [
  Math.min(...bores.map((b) => Math.min(b[0], b[2]) - b[4] / 2)),
  Math.min(...bores.map((b) => Math.min(b[1], b[3]) - b[4] / 2)),
  Math.max(...bores.map((b) => Math.max(b[0], b[2]) + b[4] / 2)),
  Math.max(...bores.map((b) => Math.max(b[1], b[3]) + b[4] / 2)),
];

/**
 * Pairs each of `a` with the nearest of `b` it may be, each once, nearest pairs first.
 *
 * @returns what of both found none
 * @throws OverBudget where more lie on one spot than on any board
 */
export function unmatched<T extends readonly number[]>(
  a: readonly T[],
  b: readonly T[],
  isSame: (p: T, q: T) => boolean,
  reachMm: number,
  pair: (p: T, q: T) => void = () => {},
): { readonly a: readonly T[]; readonly b: readonly T[] } {
  const cells = new Map<string, number[]>();
  const cell = Math.max(reachMm, 0.05);
  b.forEach((q, j) => {
    const key = `${Math.floor(q[0]! / cell)} ${Math.floor(q[1]! / cell)}`;
    const list = cells.get(key);
    if (list) list.push(j);
    else cells.set(key, [j]);
  });
  const pairs: [number, number, number][] = [];
  const work = new Work(MOST_PAIRS);
  a.forEach((p, i) => {
    const [cx, cy] = [Math.floor(p[0]! / cell), Math.floor(p[1]! / cell)];
    for (let u = -1; u <= 1; u++)
      for (let v = -1; v <= 1; v++)
        for (const j of cells.get(`${cx + u} ${cy + v}`) ?? []) {
          work.spend(1);
          const d = Math.hypot(p[0]! - b[j]![0]!, p[1]! - b[j]![1]!);
          if (d <= reachMm && isSame(p, b[j]!)) pairs.push([d, i, j]);
        }
  });
  pairs.sort((x, y) => x[0] - y[0] || x[1] - y[1] || x[2] - y[2]);
  const [usedA, usedB] = [new Set<number>(), new Set<number>()];
  for (const [, i, j] of pairs) {
    if (usedA.has(i) || usedB.has(j)) continue;
    usedA.add(i);
    usedB.add(j);
    pair(a[i]!, b[j]!);
  }
  return { a: a.filter((_, i) => !usedA.has(i)), b: b.filter((_, j) => !usedB.has(j)) };
}
