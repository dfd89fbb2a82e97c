import {
  Clipper64,
  ClipType,
  EndType,
  FillRule,
  inflatePaths,
  JoinType,
  type Path64,
  type Paths64,
  type PolyPath64,
  PolyTree64,
} from "clipper2-ts";
import { Work } from "./work.ts";

/** Clipping works on whole nanometres, the resolution of the layer format itself. */
const SCALE = 1e6;

/** A filled area: the outer ring first, then its holes; rings as [x0, y0, …] in mm. */
export type Area = number[][];

/**
 * Steps the sweep takes for these rings: at every height of a corner it walks the edges that cross that height, and where
 * a ring has a lowest corner its edges are put in their place among them. Spent before the sweep, which cannot be stopped on its way.
 */
function weigh(work: Work, ...lists: readonly (readonly ArrayLike<number>[])[]): void {
  let n = 0;
  for (const rings of lists) for (const ring of rings) n += ring.length >> 1;
  work.spend(200 * n);
  const low = new Float64Array(n);
  const high = new Float64Array(n);
  const minima: number[] = [];
  let e = 0;
  for (const rings of lists)
    for (const ring of rings)
      for (let i = 1, j = ring.length - 1; i < ring.length; j = i, i += 2, e++) {
        const [a, b] = [ring[i]!, ring[j]!];
        low[e] = a < b ? a : b;
        high[e] = a < b ? b : a;
        if (b > a && ring[i + 2 < ring.length ? i + 2 : 1]! >= a) minima.push(a);
      }
  const lowest = Float64Array.from(minima).sort();
  low.sort();
  high.sort();
  // edges across each height, and the rings that begin there
  let steps = 0;
  for (let i = 0, ended = 0, m = 0; i < n; ) {
    const y = low[i]!;
    while (i < n && low[i] === y) i++;
    while (ended < n && high[ended]! < y) ended++;
    const first = m;
    while (m < lowest.length && lowest[m]! <= y) m++;
    steps += (i - ended) * (20 + 4 * (m - first));
  }
  work.spend(steps);
}

const toPath = (ring: ArrayLike<number>): Path64 => {
  const path: Path64 = [];
  for (let i = 0; i + 1 < ring.length; i += 2)
    path.push({ x: Math.round(ring[i]! * SCALE), y: Math.round(ring[i + 1]! * SCALE) });
  return path;
};

const toRing = (path: Path64): number[] => path.flatMap((p) => [p.x / SCALE, p.y / SCALE]);

/**
 * Boolean of polygons by the clipping package (Vatti's sweep).
 *
 * @param subject rings, filled by the non-zero rule
 * @param clip rings, filled by the non-zero rule
 * @param work what it may take
 * @returns separate areas, each an outer ring and its holes
 * @throws OverBudget where too much crosses itself
 */
export function clipAreas(
  how: "union" | "difference" | "intersection" | "xor",
  subject: readonly ArrayLike<number>[],
  clip: readonly ArrayLike<number>[],
  work = new Work(),
): Area[] {
  weigh(work, subject, clip);
  const kind = {
    union: ClipType.Union,
    difference: ClipType.Difference,
    intersection: ClipType.Intersection,
    xor: ClipType.Xor,
  };
  const clipper = new Clipper64();
  clipper.addSubject(subject.map(toPath) as Paths64);
  if (clip.length > 0) clipper.addClip(clip.map(toPath) as Paths64);
  const tree = new PolyTree64();
  clipper.execute(kind[how], FillRule.NonZero, tree);
  const areas: Area[] = [];
  const visit = (node: PolyPath64) => {
    for (let i = 0; i < node.count; i++) {
      const outer = node.child(i);
      const holes: number[][] = [];
      for (let k = 0; k < outer.count; k++) {
        const hole = outer.child(k);
        if (hole.poly) holes.push(toRing(hole.poly));
        visit(hole);
      }
      if (outer.poly) areas.push([toRing(outer.poly), ...holes]);
    }
  };
  visit(tree);
  return areas;
}

/**
 * Area of the union of rings in mm², by the same sweep without building the tree of areas and holes.
 *
 * @throws OverBudget where too much crosses itself
 */
export function unionRingArea(rings: readonly ArrayLike<number>[], work = new Work()): number {
  weigh(work, rings);
  const clipper = new Clipper64();
  clipper.addSubject(rings.map(toPath) as Paths64);
  const out: Paths64 = [];
  clipper.execute(ClipType.Union, FillRule.NonZero, out);
  let sum = 0;
  for (const path of out) {
    // outer rings run one way, holes the other: signed areas add up
    let twice = 0;
    for (let i = 0, j = path.length - 1; i < path.length; j = i, i++)
      twice +=
        (path[j]!.x - path[0]!.x) * (path[i]!.y - path[0]!.y) -
        (path[i]!.x - path[0]!.x) * (path[j]!.y - path[0]!.y);
    sum += twice / 2;
  }
  return Math.abs(sum) / (SCALE * SCALE);
}

/** Areas shrunk by a distance in mm: what is narrower than twice it is gone. */
export function shrinkAreas(areas: readonly Area[], mm: number): Area[] {
  // outer rings run one way and holes the other, as the clipping package hands them out
  const paths = areas.flat().map(toPath) as Paths64;
  const left = inflatePaths(paths, -mm * SCALE, JoinType.Miter, EndType.Polygon);
  return left.map((p) => [toRing(p)]);
}

/** How far an arc of an offset may lie from its circle, mm. */
const ARC_MM = 0.002;

/**
 * Rings moved outwards (or inwards below 0) by a distance in mm, all of them as one area.
 *
 * @param rings outer rings counter-clockwise, holes clockwise
 * @param arcMm how far an arc may lie from its circle
 * @param join what becomes of corners that open: rounded, or drawn on to a point up to four times the distance away
 */
export function offsetRings(
  rings: readonly ArrayLike<number>[],
  mm: number,
  join: "round" | "pointed" = "round",
  work = new Work(),
  arcMm = ARC_MM,
): number[][] {
  weigh(work, rings);
  const type = join === "round" ? JoinType.Round : JoinType.Miter;
  return inflatePaths(rings.map(toPath) as Paths64, mm * SCALE, type, EndType.Polygon, 4, arcMm * SCALE).map(
    toRing,
  );
}
