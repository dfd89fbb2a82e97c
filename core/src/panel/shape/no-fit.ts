import { EndType, FillRule, inflatePaths, JoinType, minkowskiDiff, type Path64, union } from "clipper2-ts";
import { offsetRings } from "../../geometry/clip.ts";
import { thinned } from "../../geometry/polygon.ts";
import { posedRing } from "../../geometry/turn.ts";
import { convexParts, convexSum } from "./convex.ts";

/** No-fit polygons are found in whole micrometres. */
const SCALE = 1000;
/** Corners an outline may keep: the sweep takes the product of two. */
const MOST_CORNERS = 32;
const THIN_MM = [0.01, 0.03, 0.06, 0.1, 0.2, 0.4, 0.8];
/**
 * Where the other may not be: the rings inside which its origin makes it overlap, both grown by half the gap
 * (no-fit polygon: A ⊕ −B as the union of the edges' sums and of each in a corner of the other).
 */
function noFit(a: readonly number[], b: readonly number[]): number[][] {
  const path = (r: readonly number[]): Path64 => {
    const out: Path64 = [];
    for (let i = 0; i < r.length; i += 2)
      out.push({ x: Math.round(r[i]! * SCALE), y: Math.round(r[i + 1]! * SCALE) });
    return out;
  };
  const whole = union(sumsOf(path(a), path(b)), FillRule.NonZero);
  // drawn in by a micrometre, so that boards that touch do not count as overlapping
  const drawnIn = inflatePaths(whole, -1, JoinType.Miter, EndType.Polygon);
  return drawnIn.map((p) =>
    thinned(
      p.flatMap((q) => [q.x / SCALE, q.y / SCALE]),
      0.001,
    ),
  );
}

/** Areas that together are A ⊕ −B: the sums of convex pieces, or, of a ring that has none, all that its edges sweep. */
function sumsOf(A: Path64, B: Path64): Path64[] {
  const [own, others] = [convexParts(A), convexParts(B)];
  if (own && others) {
    const turned = others.map((r) => r.map((p) => ({ x: -p.x, y: -p.y })));
    return own.flatMap((p) => turned.map((q) => convexSum(p, q)));
  }
  // edges of A against edges of −B
  const swept = minkowskiDiff(B, A, true);
  const moved = A.map((p) => ({ x: p.x - B[0]!.x, y: p.y - B[0]!.y }));
  const mirrored = B.map((p) => ({ x: A[0]!.x - p.x, y: A[0]!.y - p.y }));
  return [...swept, moved, mirrored];
}

/** An outline grown by half the gap with few corners, none of it lost. */
export function grownFew(outline: readonly number[], gap: number): readonly number[] {
  let of = grown.get(outline);
  if (!of) {
    of = new Map();
    grown.set(outline, of);
  }
  let ring = of.get(gap);
  if (!ring) {
    ring = grownOf(outline, gap);
    of.set(gap, ring);
  }
  return ring;
}

const grown = new WeakMap<readonly number[], Map<number, readonly number[]>>();

function grownOf(outline: readonly number[], gap: number): readonly number[] {
  for (const tolerance of THIN_MM) {
    const thin = thinned(outline, tolerance);
    // growing it takes longer than all else, and takes few corners away
    if (thin.length / 2 > 1.5 * MOST_CORNERS && tolerance !== THIN_MM.at(-1)) continue;
    const [ring] = offsetRings([thin], gap / 2 + tolerance + 0.001, "pointed");
    if (ring && (ring.length / 2 <= MOST_CORNERS || tolerance === THIN_MM.at(-1))) return ring;
  }
  return [...outline];
}

/** No-fit polygons, kept while their designs are looked at: they take longer than all that follows. */
type OfTwo = WeakMap<readonly number[], Map<string, readonly (readonly number[])[]>>;
const ofTwo = new WeakMap<readonly number[], OfTwo>();

/**
 * Where another design, turned against the first by so much, may not be: the rings its origin may not lie in, from the
 * origin of the first; kept while both are looked at.
 */
export function noFitOf(
  a: readonly number[],
  b: readonly number[],
  gap: number,
  turnDeg: number,
): readonly (readonly number[])[] {
  let of = ofTwo.get(a);
  if (!of) {
    of = new WeakMap();
    ofTwo.set(a, of);
  }
  let list = of.get(b);
  if (!list) {
    list = new Map();
    of.set(b, list);
  }
  const key = `${gap} ${turnDeg}`;
  let rings = list.get(key);
  if (!rings) {
    rings = noFit(grownFew(a, gap), posedRing({ xMm: 0, yMm: 0, turnDeg }, grownFew(b, gap)));
    list.set(key, rings);
  }
  return rings;
}

/** A design against itself, both ways round. */
export const pairsOf = (outline: readonly number[], gap: number, mayOppose: boolean): Pairs => ({
  same: noFitOf(outline, outline, gap, 0),
  opposite: mayOppose ? noFitOf(outline, outline, gap, 180) : [],
});

/** The same for the design turned. */
export const turnedPairs = (p: Pairs, turnDeg: number): Pairs =>
  turnDeg % 360 === 0
    ? p
    : {
        same: p.same.map((r) => posedRing({ xMm: 0, yMm: 0, turnDeg }, r)),
        opposite: p.opposite.map((r) => posedRing({ xMm: 0, yMm: 0, turnDeg }, r)),
      };

/** No-fit polygons of one design with itself one way round, and turned by half. */
export interface Pairs {
  readonly same: readonly (readonly number[])[];
  readonly opposite: readonly (readonly number[])[];
}
