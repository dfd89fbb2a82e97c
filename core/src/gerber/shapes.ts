import { arcPoints, capsuleRing } from "../geometry/arc.ts";
import { clipAreas } from "../geometry/clip.ts";
import { signedArea } from "../geometry/polygon.ts";
import { Work } from "../geometry/work.ts";
import { KIND, type LayerImage } from "./image.ts";
import { strokeRing } from "./macro.ts";

/** A solid piece of a layer: points within r of its segments, and the inside of its rings if it has any. */
export interface Shape {
  /** Segments [x1, y1, x2, y2, …] in mm: a capsule's spine, or the closed rings' edges. */
  readonly edges: Float64Array;
  readonly r: number;
  /** Rings for the inside; empty for capsules. */
  readonly rings: readonly (readonly number[])[];
  /** Index of the object it came from. */
  readonly object: number;
  readonly box: readonly [number, number, number, number];
}

/** Rings of a shape, outer first, for booleans and areas. */
export function ringsOf(s: Shape, work = new Work()): readonly (readonly number[])[] {
  if (s.rings.length > 0) return s.rings;
  const e = s.edges;
  if (e.length === 4) return [capsuleRing(e[0]!, e[1]!, e[2]!, e[3]!, s.r)];
  const parts: number[][] = [];
  for (let k = 0; k < e.length; k += 4) parts.push(capsuleRing(e[k]!, e[k + 1]!, e[k + 2]!, e[k + 3]!, s.r));
  return clipAreas("union", parts, [], work).flat();
}

/**
 * The solid pieces of a layer after its polarity: what clear objects erase is cut from what was drawn before them.
 *
 * Dark objects that nothing erases stay as they are (a capsule stays exact); the others become areas.
 *
 * @throws OverBudget where clear and dark lie over each other more than on any board
 */
export function shapesOf(image: LayerImage, work = new Work()): Shape[] {
  let done: Shape[] = [];
  let clear: Shape[] = [];
  const flush = () => {
    if (clear.length > 0) done = erase(done, clear, work);
    clear = [];
  };
  for (let i = 0; i < image.n; i++) {
    work.at(i, image.n);
    const isDark = image.dark[i] === 1;
    if (isDark) flush();
    for (const shape of shapesOfObject(image, i)) (isDark ? done : clear).push(shape);
  }
  flush();
  return done;
}

const meets = (a: Shape, b: Shape) =>
  a.box[0] <= b.box[2] && b.box[0] <= a.box[2] && a.box[1] <= b.box[3] && b.box[1] <= a.box[3];

function erase(dark: readonly Shape[], clear: readonly Shape[], work: Work): Shape[] {
  const out: Shape[] = [];
  for (const s of dark) {
    work.spend(clear.length);
    const cutters = clear.filter((c) => meets(s, c));
    if (cutters.length === 0) {
      out.push(s);
      continue;
    }
    const areas = clipAreas(
      "difference",
      ringsOf(s, work),
      cutters.flatMap((c) => ringsOf(c, work)),
      work,
    );
    for (const area of areas) if (Math.abs(signedArea(area[0]!)) > 1e-7) out.push(areaShape(area, s.object));
  }
  return out;
}

/** A filled area as a shape. */
export function areaShape(rings: readonly (readonly number[])[], object: number): Shape {
  let count = 0;
  for (const ring of rings) count += ring.length / 2;
  const edges = new Float64Array(count * 4);
  let o = 0;
  let [x0, y0, x1, y1] = [
    Number.POSITIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  rings.forEach((ring) => {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      edges[o++] = ring[j]!;
      edges[o++] = ring[j + 1]!;
      edges[o++] = ring[i]!;
      edges[o++] = ring[i + 1]!;
      x0 = Math.min(x0, ring[i]!);
      y0 = Math.min(y0, ring[i + 1]!);
      x1 = Math.max(x1, ring[i]!);
      y1 = Math.max(y1, ring[i + 1]!);
    }
  });
  return { edges, r: 0, rings, object, box: [x0, y0, x1, y1] };
}

function spineShape(edges: Float64Array, r: number, object: number): Shape {
  let [x0, y0, x1, y1] = [
    Number.POSITIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  for (let k = 0; k < edges.length; k += 2) {
    x0 = Math.min(x0, edges[k]!);
    y0 = Math.min(y0, edges[k + 1]!);
    x1 = Math.max(x1, edges[k]!);
    y1 = Math.max(y1, edges[k + 1]!);
  }
  return { edges, r, rings: [], object, box: [x0 - r, y0 - r, x1 + r, y1 + r] };
}

/** The pieces one object paints, its own polarity left aside. */
export function shapesOfObject(image: LayerImage, i: number): Shape[] {
  const g = image.geo;
  const o = i * 6;
  const kind = image.kind[i]!;
  if (kind === KIND.region)
    return [areaShape([Array.from(image.points.subarray(g[o]! * 2, g[o + 1]! * 2))], i)];
  const a = image.apertures[image.aperture[i]!]!;
  const [x1, y1] = [g[o]!, g[o + 1]!];
  if (kind === KIND.flash) {
    const spines = a.capsules.map((c) =>
      spineShape(Float64Array.of(c.x1 + x1, c.y1 + y1, c.x2 + x1, c.y2 + y1), c.r, i),
    );
    const areas = a.areas.map((area) =>
      areaShape(
        area.map((ring) => ring.map((v, k) => v + (k % 2 === 0 ? x1 : y1))),
        i,
      ),
    );
    return [...spines, ...areas];
  }
  const [x2, y2] = [g[o + 2]!, g[o + 3]!];
  const path =
    kind === KIND.line
      ? [x1, y1, x2, y2]
      : [x1, y1, ...arcPoints(x1, y1, x2, y2, g[o + 4]!, g[o + 5]!, kind === KIND.arcCcw, true)];
  if (
    a.circleMm !== undefined ||
    (a.capsules.length === 1 && a.areas.length === 0 && isRound(a.capsules[0]!))
  ) {
    const edges = new Float64Array((path.length - 2) * 2);
    for (let k = 0; k + 3 < path.length; k += 2)
      edges.set([path[k]!, path[k + 1]!, path[k + 2]!, path[k + 3]!], k * 2);
    return [spineShape(edges, (a.circleMm ?? 2 * a.capsules[0]!.r) / 2, i)];
  }
  const stamp =
    a.areas[0]?.[0] ??
    (a.capsules[0]
      ? capsuleRing(a.capsules[0].x1, a.capsules[0].y1, a.capsules[0].x2, a.capsules[0].y2, a.capsules[0].r)
      : []);
  const out: Shape[] = [];
  for (let k = 0; k + 3 < path.length; k += 2) {
    const ring = strokeRing(stamp, path[k]!, path[k + 1]!, path[k + 2]!, path[k + 3]!);
    if (ring.length >= 6) out.push(areaShape([ring], i));
  }
  return out;
}

const isRound = (c: { x1: number; y1: number; x2: number; y2: number }) => c.x1 === c.x2 && c.y1 === c.y2;
