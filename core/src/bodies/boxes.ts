import { insideRings } from "../geometry/polygon.ts";
import { pointSegment2, segmentSegment2 } from "../geometry/segment.ts";
import type { Body } from "./body.ts";

/** A rectangle in any direction: middle, half sides, and the direction of its length. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly half: readonly [number, number];
  readonly cos: number;
  readonly sin: number;
}

/** The rectangle a body covers. */
export function boxOf(b: Pick<Body, "x" | "y" | "lengthMm" | "widthMm" | "turnDeg">): Box {
  const a = (b.turnDeg * Math.PI) / 180;
  return { x: b.x, y: b.y, half: [b.lengthMm / 2, b.widthMm / 2], cos: Math.cos(a), sin: Math.sin(a) };
}

/** Its corners, counter-clockwise: x0, y0, x1, y1 … */
export function cornersOf({ x, y, half: [l, w], cos, sin }: Box): number[] {
  return [
    [-l, -w],
    [l, -w],
    [l, w],
    [-l, w],
  ].flatMap(([u, v]) => [x + u! * cos - v! * sin, y + u! * sin + v! * cos]);
}

/** Half the extent of a box along a direction of length 1. */
const reach = ({ half: [l, w], cos, sin }: Box, dx: number, dy: number) =>
  l * Math.abs(cos * dx + sin * dy) + w * Math.abs(cos * dy - sin * dx);

/**
 * How far two rectangles are apart, mm; below 0 how deep they lie in each other, by the least way out.
 *
 * Overlap by separating axes: two rectangles are apart where one of their four directions has room between their extents;
 * the least overlap of the four is the shortest way out. The distance of what is apart is that of the nearest sides.
 */
export function gapOf(a: Box, b: Box): number {
  const gap = apart(a, b);
  return gap <= 0 ? gap : distance(cornersOf(a), cornersOf(b));
}

/** Whether two rectangles are at least so far apart; mostly told by one direction. */
export const isApart = (a: Box, b: Box, mm: number): boolean => apart(a, b) >= mm || gapOf(a, b) >= mm;

/** Directions of the sides of both, length 1. */
const axes = (a: Box, b: Box) =>
  [
    [a.cos, a.sin],
    [-a.sin, a.cos],
    [b.cos, b.sin],
    [-b.sin, b.cos],
  ] as const;

/** The greatest room in any of the four directions: what two rectangles are at least apart; below 0 how deep they overlap. */
function apart(a: Box, b: Box): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  return Math.max(
    ...axes(a, b).map(([ux, uy]) => Math.abs(dx * ux + dy * uy) - reach(a, ux, uy) - reach(b, ux, uy)),
  );
}

/** How far the second rectangle goes, along the sides of either and both ways, until so much room is between them. */
export function waysApart(
  a: Box,
  b: Box,
  roomMm: number,
): { readonly mm: number; readonly x: number; readonly y: number }[] {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  return axes(a, b).flatMap(([ux, uy]) => {
    const need = reach(a, ux, uy) + reach(b, ux, uy) + roomMm;
    const along = dx * ux + dy * uy;
    return [
      { mm: need - along, x: ux, y: uy },
      { mm: need + along, x: -ux, y: -uy },
    ];
  });
}

/** Least distance of two rings that do not meet. */
function distance(a: readonly number[], b: readonly number[]): number {
  let best = Number.POSITIVE_INFINITY;
  for (let i = 0, j = a.length - 2; i < a.length; j = i, i += 2)
    for (let k = 0, l = b.length - 2; k < b.length; l = k, k += 2)
      best = Math.min(
        best,
        segmentSegment2(a[j]!, a[j + 1]!, a[i]!, a[i + 1]!, b[l]!, b[l + 1]!, b[k]!, b[k + 1]!),
      );
  return Math.sqrt(best);
}

/** Distance from a point to a rectangle, mm; 0 inside. */
export function pointToBox(x: number, y: number, { x: bx, y: by, half, cos, sin }: Box): number {
  const [u, v] = [(x - bx) * cos + (y - by) * sin, (y - by) * cos - (x - bx) * sin];
  return Math.hypot(Math.max(0, Math.abs(u) - half[0]), Math.max(0, Math.abs(v) - half[1]));
}

/**
 * How far a rectangle reaches over the board's edge, mm: of its corners outside, the one farthest from the edge. 0 inside.
 * @param rings the outline, counter-clockwise, and its cut-outs
 */
export function overEdge(box: Box, rings: readonly (readonly number[])[]): number {
  const corners = cornersOf(box);
  let most = 0;
  for (let i = 0; i < corners.length; i += 2) {
    const [x, y] = [corners[i]!, corners[i + 1]!];
    if (insideRings(rings, x, y)) continue;
    let near = Number.POSITIVE_INFINITY;
    for (const ring of rings)
      for (let k = 0, j = ring.length - 2; k < ring.length; j = k, k += 2)
        near = Math.min(near, pointSegment2(x, y, ring[j]!, ring[j + 1]!, ring[k]!, ring[k + 1]!));
    most = Math.max(most, Math.sqrt(near));
  }
  return most;
}
