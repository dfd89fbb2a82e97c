import { unionRingArea } from "../geometry/clip.ts";
import { pointSegment2, segmentSegment2 } from "../geometry/segment.ts";
import { KIND, type LayerImage } from "../gerber/image.ts";
import { covers, depth2, ringsOf, type Shape, shapesOf } from "../gerber/shapes.ts";
import { findGaps, type Gap, type Groups, islandsOf } from "./gaps.ts";
import type { Outline } from "./outline.ts";

/** Where a least value was found. */
export interface Place {
  readonly layer: string;
  readonly x: number;
  readonly y: number;
}

/** A least value with its place. */
export interface Least {
  readonly mm: number;
  readonly at: Place;
}

/** The smaller of two least values, either of which may be missing. */
export const smaller = (a: Least | undefined, b: Least | undefined): Least | undefined =>
  !a ? b : !b ? a : b.mm < a.mm ? b : a;

/** One layer as shapes, with its gaps and islands. */
export interface LayerShapes {
  readonly name: string;
  readonly image: LayerImage;
  readonly shapes: readonly Shape[];
  readonly gaps: readonly Gap[];
  readonly islands: Groups;
}

/** Solid pieces, near pairs and islands of a layer; the reach widens until two islands come near each other. */
export function analyseLayer(image: LayerImage, name: string): LayerShapes {
  const shapes = shapesOf(image);
  let reach = 0.3;
  let gaps = findGaps(shapes, reach);
  let islands = islandsOf(shapes, gaps);
  while (reach < 12 && islands.count() > 1 && !gaps.some((g) => islands.find(g.a) !== islands.find(g.b))) {
    reach *= 4;
    gaps = findGaps(shapes, reach);
    islands = islandsOf(shapes, gaps);
  }
  return { name, image, shapes, gaps, islands };
}

/** Least gap between separate islands, or between groups of islands when a naming is given. */
export function leastSpace(
  layer: LayerShapes,
  groupOf: (shape: number) => number = (s) => layer.islands.find(s),
): Least | undefined {
  let best: Least | undefined;
  for (const g of layer.gaps) {
    if (groupOf(g.a) === groupOf(g.b)) continue;
    if (!best || g.mm < best.mm) best = { mm: Math.max(0, g.mm), at: { layer: layer.name, x: g.x, y: g.y } };
  }
  return best;
}

/**
 * Narrowest stroke of a layer: the least circular stamp that draws lines at least twice its width long in all.
 * Rectangular stamps count by their lesser side.
 */
export function leastStroke(image: LayerImage, name: string): Least | undefined {
  const drawn = new Map<number, { length: number; x: number; y: number }>();
  for (let i = 0; i < image.n; i++) {
    const kind = image.kind[i]!;
    if (kind === KIND.flash || kind === KIND.region || image.dark[i] === 0) continue;
    const o = i * 6;
    const g = image.geo;
    const a = image.aperture[i]!;
    const old = drawn.get(a) ?? { length: 0, x: (g[o]! + g[o + 2]!) / 2, y: (g[o + 1]! + g[o + 3]!) / 2 };
    old.length += Math.hypot(g[o + 2]! - g[o]!, g[o + 3]! - g[o + 1]!) || (kind !== KIND.line ? 1 : 0);
    drawn.set(a, old);
  }
  let best: Least | undefined;
  for (const [index, d] of drawn) {
    const a = image.apertures[index]!;
    const mm = a.circleMm ?? Math.min(a.box[2] - a.box[0], a.box[3] - a.box[1]);
    if (mm <= 0 || d.length < 2 * mm) continue;
    if (!best || mm < best.mm) best = { mm, at: { layer: name, x: d.x, y: d.y } };
  }
  return best;
}

/** Area of the union of all shapes in mm², by the clipping package. */
export const unionArea = (shapes: readonly Shape[]): number =>
  unionRingArea(shapes.flatMap((s) => [...ringsOf(s)]));

/** Least distance from the shapes' edges to the segments of rings; whole stretches of ring are passed over by their box. */
export function leastToRings(layer: LayerShapes, rings: readonly (readonly number[])[]): Least | undefined {
  let best: Least | undefined;
  const STRETCH = 16;
  for (const ring of rings)
    for (let from = 0; from < ring.length / 2; from += STRETCH) {
      const part: number[] = [];
      for (let k = from; k <= Math.min(from + STRETCH, ring.length / 2); k++) {
        const m = k % (ring.length / 2);
        part.push(ring[m * 2]!, ring[m * 2 + 1]!);
      }
      const box = boxOf(part);
      for (const s of layer.shapes) {
        if (farFrom(s.box, box, best?.mm ?? 1e9)) continue;
        const e = s.edges;
        for (let k = 0; k < e.length; k += 4) {
          const cx = e[k]!;
          const cy = e[k + 1]!;
          const dx = e[k + 2]!;
          const dy = e[k + 3]!;
          const near = (best?.mm ?? 1e9) + s.r;
          if (cx < box[0] - near && dx < box[0] - near) continue;
          if (cx > box[2] + near && dx > box[2] + near) continue;
          if (cy < box[1] - near && dy < box[1] - near) continue;
          if (cy > box[3] + near && dy > box[3] + near) continue;
          for (let q = 0; q + 3 < part.length; q += 2) {
            const d2 = segmentSegment2(part[q]!, part[q + 1]!, part[q + 2]!, part[q + 3]!, cx, cy, dx, dy);
            const mm = Math.max(0, Math.sqrt(d2) - s.r);
            if (!best || mm < best.mm) best = { mm, at: { layer: layer.name, x: cx, y: cy } };
          }
        }
      }
    }
  return best;
}

type Box = readonly [number, number, number, number];
const farFrom = (a: Box, b: Box, reach: number) =>
  a[0] - reach > b[2] || a[2] + reach < b[0] || a[1] - reach > b[3] || a[3] + reach < b[1];

function boxOf(points: readonly number[]): Box {
  const b: [number, number, number, number] = [points[0]!, points[1]!, points[0]!, points[1]!];
  for (let i = 2; i < points.length; i += 2) {
    b[0] = Math.min(b[0], points[i]!);
    b[1] = Math.min(b[1], points[i + 1]!);
    b[2] = Math.max(b[2], points[i]!);
    b[3] = Math.max(b[3], points[i + 1]!);
  }
  return b;
}

/** Rings of the outline by what they are: outer edge and cut-outs. */
export const edgeRings = (outline: Outline) =>
  outline.loops
    .filter((l) => l.depth === 0)
    .slice(0, 1)
    .map((l) => l.ring);
export const cutoutRings = (outline: Outline) =>
  outline.loops.filter((l) => l.depth === 1).map((l) => l.ring);

/** A finder of the shapes near a point: boxes in cells of 2 mm. */
export function shapeFinder(shapes: readonly Shape[]): (x: number, y: number) => readonly number[] {
  const cell = 2;
  const grid = new Map<string, number[]>();
  const large: number[] = [];
  shapes.forEach((s, k) => {
    const [x0, y0, x1, y1] = s.box.map((v) => Math.floor(v / cell)) as [number, number, number, number];
    if ((x1 - x0 + 1) * (y1 - y0 + 1) > 400) {
      large.push(k);
      return;
    }
    for (let a = x0; a <= x1; a++)
      for (let b = y0; b <= y1; b++) {
        const key = `${a} ${b}`;
        const list = grid.get(key);
        if (list) list.push(k);
        else grid.set(key, [k]);
      }
  });
  return (x, y) => [...(grid.get(`${Math.floor(x / cell)} ${Math.floor(y / cell)}`) ?? []), ...large];
}

/**
 * Ring of copper around a hole on one layer: the greatest of (distance from the centre to a covering shape's edge) − r.
 *
 * A drawn hole inside the pad (donut) is passed over. Taking the best single shape never claims more ring than the
 * pad alone has.
 *
 * @returns undefined where the hole meets no copper on this layer
 */
export function ringAround(
  layer: LayerShapes,
  near: readonly number[],
  x: number,
  y: number,
  r: number,
): { mm: number; shape: number } | undefined {
  let best: { mm: number; shape: number } | undefined;
  for (const k of near) {
    const s = layer.shapes[k]!;
    const isIn = covers(s, x, y);
    if (!isIn && !isDonut(s, x, y, r)) continue;
    const d =
      s.rings.length === 0
        ? s.r - Math.sqrt(depth2(s, x, y))
        : Math.sqrt(isIn ? depth2(s, x, y) : ringDistance2(s.rings[0]!, x, y));
    if (!best || d - r > best.mm) best = { mm: d - r, shape: k };
  }
  return best;
}

/** A pad drawn with its hole left open: one of its inner rings is about as large as the drill and lies around it. */
function isDonut(s: Shape, x: number, y: number, r: number): boolean {
  const b = s.ringBoxes;
  if (!b) return false;
  for (let k = 1; k < s.rings.length; k++) {
    const [x0, y0, x1, y1] = [b[k * 4]!, b[k * 4 + 1]!, b[k * 4 + 2]!, b[k * 4 + 3]!];
    if (x > x0 && x < x1 && y > y0 && y < y1 && Math.max(x1 - x0, y1 - y0) / 2 < r + 0.01) return true;
  }
  return false;
}

function ringDistance2(ring: readonly number[], x: number, y: number): number {
  let best = Number.POSITIVE_INFINITY;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    best = Math.min(best, pointSegment2(x, y, ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!));
  return best;
}
