import { arcPoints } from "../../geometry/arc.ts";
import { segmentSegment2 } from "../../geometry/segment.ts";
import type { Work } from "../../geometry/work.ts";
import { middleOf, type Piece, sweepOf } from "./outline-pieces.ts";

export function flatten(loop: readonly Piece[]): number[] {
  const ring: number[] = [];
  for (const p of loop) {
    if (p.arc) ring.push(...arcPoints(p.x1, p.y1, p.x2, p.y2, p.arc.cx, p.arc.cy, p.arc.ccw, true));
    else ring.push(p.x2, p.y2);
  }
  return ring;
}

export function reversed(ring: readonly number[]): number[] {
  const out: number[] = [];
  for (let i = ring.length - 2; i >= 0; i -= 2) out.push(ring[i]!, ring[i + 1]!);
  return out;
}

export function exactArea(loop: readonly Piece[]): number {
  let sum = 0;
  const [x0, y0] = [loop[0]!.x1, loop[0]!.y1];
  for (const p of loop) {
    sum += ((p.x1 - x0) * (p.y2 - y0) - (p.x2 - x0) * (p.y1 - y0)) / 2;
    if (p.arc) {
      const theta = sweepOf(p);
      const r = Math.hypot(p.x1 - p.arc.cx, p.y1 - p.arc.cy);
      sum += (r * r * (theta - Math.sin(theta))) / 2;
    }
  }
  return sum;
}

const direction = (p: Piece, atEnd: boolean): [number, number] => {
  if (!p.arc) {
    const l = Math.hypot(p.x2 - p.x1, p.y2 - p.y1);
    return [(p.x2 - p.x1) / l, (p.y2 - p.y1) / l];
  }
  const [x, y] = atEnd ? [p.x2, p.y2] : [p.x1, p.y1];
  const r = Math.hypot(x - p.arc.cx, y - p.arc.cy) || 1;
  const s = p.arc.ccw ? 1 : -1;
  return [(-s * (y - p.arc.cy)) / r, (s * (x - p.arc.cx)) / r];
};

/** A radius with its place, mm. */
export interface InnerRadius {
  readonly mm: number;
  readonly x: number;
  readonly y: number;
}

/** Least radius where a cutter must turn into the material: right turns of a board's edge, left turns of a cut-out's. */
export function innerRadius(
  loop: readonly Piece[],
  isCcw: boolean,
  isCutout: boolean,
): InnerRadius | undefined {
  const inward = (isCcw ? -1 : 1) * (isCutout ? -1 : 1);
  let best: InnerRadius | undefined;
  const take = (mm: number, x: number, y: number) => {
    if (best === undefined || mm < best.mm) best = { mm, x, y };
  };
  loop.forEach((p, k) => {
    if (p.arc && Math.sign(sweepOf(p)) === inward)
      take(Math.hypot(p.x1 - p.arc.cx, p.y1 - p.arc.cy), ...middleOf(p));
    if (loop.length < 2) return;
    const q = loop[(k + 1) % loop.length]!;
    const [a, b] = [direction(p, true), direction(q, false)];
    const cross = a[0] * b[1] - a[1] * b[0];
    if (Math.sign(cross) === inward && Math.abs(cross) > 0.15) take(0, p.x2, p.y2);
  });
  return best;
}

export type Box = readonly [number, number, number, number];
export const ringBox = (ring: readonly number[]): [number, number, number, number] => {
  const b: [number, number, number, number] = [ring[0]!, ring[1]!, ring[0]!, ring[1]!];
  for (let i = 0; i < ring.length; i += 2) {
    b[0] = Math.min(b[0], ring[i]!);
    b[1] = Math.min(b[1], ring[i + 1]!);
    b[2] = Math.max(b[2], ring[i]!);
    b[3] = Math.max(b[3], ring[i + 1]!);
  }
  return b;
};
export const boxOf = (loop: readonly Piece[]) => ringBox(flatten(loop));

/** Box of a loop with the arcs' own extremes, not their chords'. */
export function exactBox(loop: readonly Piece[]): [number, number, number, number] {
  const points: number[] = [];
  for (const p of loop) {
    points.push(p.x1, p.y1, p.x2, p.y2);
    if (!p.arc) continue;
    const { cx, cy } = p.arc;
    const r = Math.hypot(p.x1 - cx, p.y1 - cy);
    const sweep = sweepOf(p);
    const start = Math.atan2(p.y1 - cy, p.x1 - cx);
    // from any start, once round either way
    for (let k = -8; k <= 8; k++) {
      const turn = ((k * Math.PI) / 2 - start) * Math.sign(sweep);
      if (turn > 0 && turn < Math.abs(sweep))
        points.push(
          cx + r * Math.round(Math.cos((k * Math.PI) / 2)),
          cy + r * Math.round(Math.sin((k * Math.PI) / 2)),
        );
    }
  }
  return ringBox(points);
}
export const inBox = (b: Box, p: Piece) => p.x1 >= b[0] && p.x1 <= b[2] && p.y1 >= b[1] && p.y1 <= b[3];

/** First place where two edges that are not neighbours meet. */
export function findCrossing(ring: readonly number[], work: Work): [number, number] | undefined {
  const n = ring.length / 2;
  work.spend((n * n) / 2);
  for (let a = 0; a < n; a++) {
    const [ax, ay, bx, by] = edge(ring, a, n);
    for (let b = a + 2; b < n; b++) {
      if (a === 0 && b === n - 1) continue;
      const [cx, cy, dx, dy] = edge(ring, b, n);
      if (Math.max(ax, bx) < Math.min(cx, dx) || Math.max(cx, dx) < Math.min(ax, bx)) continue;
      if (Math.max(ay, by) < Math.min(cy, dy) || Math.max(cy, dy) < Math.min(ay, by)) continue;
      if (segmentSegment2(ax, ay, bx, by, cx, cy, dx, dy) === 0) return [cx, cy];
    }
  }
  return undefined;
}

const edge = (ring: readonly number[], k: number, n: number): [number, number, number, number] => {
  const m = (k + 1) % n;
  return [ring[k * 2]!, ring[k * 2 + 1]!, ring[m * 2]!, ring[m * 2 + 1]!];
};
