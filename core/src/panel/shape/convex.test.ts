import { expect, test } from "@jest/globals";
import { areaPaths, FillRule, minkowskiDiff, union } from "clipper2-ts";
import fc from "fast-check";
import { type Corner, convexParts, convexSum } from "./convex.ts";

const area = (r: readonly Corner[]): number =>
  r.reduce((n, p, i) => {
    const q = r[(i + 1) % r.length]!;
    return n + (p.x * q.y - q.x * p.y) / 2;
  }, 0);
const isConvex = (r: readonly Corner[]): boolean =>
  r.every((p, i) => {
    const [o, q] = [r[(i + r.length - 1) % r.length]!, r[(i + 1) % r.length]!];
    return (p.x - o.x) * (q.y - p.y) - (p.y - o.y) * (q.x - p.x) >= 0;
  });
const ring = (...xy: number[]): Corner[] => xy.flatMap((x, i) => (i % 2 === 0 ? [{ x, y: xy[i + 1]! }] : []));

const square = ring(0, 0, 10, 0, 10, 10, 0, 10);
const ell = ring(0, 0, 40, 0, 40, 10, 10, 10, 10, 30, 0, 30);

test.each([
  ["a square is one", square, 1],
  ["an L is two", ell, 2],
  ["a square with a corner on its edge is one", ring(0, 0, 5, 0, 10, 0, 10, 10, 0, 10), 1],
  ["a U is three", ring(0, 0, 30, 0, 30, 20, 20, 20, 20, 10, 10, 10, 10, 20, 0, 20), 3],
])("%s", (_, r, n) => {
  const parts = convexParts(r)!;
  expect(parts).toHaveLength(n);
  expect(parts.reduce((s, p) => s + area(p), 0)).toBe(area(r));
});

test("what encloses nothing, runs the other way or crosses itself has no pieces", () => {
  expect(convexParts(ring(0, 0, 10, 0, 20, 0))).toBeUndefined();
  expect(convexParts([...square].reverse())).toBeUndefined();
  expect(convexParts(ring(0, 0, 10, 10, 10, 0, 0, 10))).toBeUndefined();
});

test("sums of convex rings: a square and a square, a square and a triangle", () => {
  const sum = convexSum(square, ring(0, 0, 4, 0, 4, 4, 0, 4));
  expect(area(sum)).toBe(14 * 14);
  expect(sum).toHaveLength(4);
  const [a, b] = [square, ring(0, 0, 6, 0, 0, 6)];
  // 100 + 18 + what is swept: 10 × 6 twice
  expect(area(convexSum(a, b))).toBe(100 + 18 + 120);
  expect(isConvex(convexSum(a, b))).toBe(true);
});

/** A ring around the origin whose corners lie at rising angles. */
const star = fc
  .array(fc.integer({ min: 200, max: 2000 }), { minLength: 3, maxLength: 24 })
  .map((radii) =>
    radii.map((r, i) => {
      const a = (2 * Math.PI * i) / radii.length;
      return { x: Math.round(r * Math.cos(a)), y: Math.round(r * Math.sin(a)) };
    }),
  )
  .filter((r) => area(r) > 0);

test("pieces of any ring are convex and make it up", () => {
  fc.assert(
    fc.property(star, (r) => {
      const parts = convexParts(r);
      // three corners nearly in line with the origin may cross: such a ring has none
      if (!parts) return;
      for (const p of parts) {
        expect(isConvex(p)).toBe(true);
        expect(area(p)).toBeGreaterThan(0);
      }
      expect(parts.reduce((s, p) => s + area(p), 0)).toBeCloseTo(area(r), 6);
    }),
    { numRuns: 200 },
  );
});

test("the sums of pieces cover what the edges of one ring sweep along the other, and no more", () => {
  fc.assert(
    fc.property(star, star, (a, b) => {
      const [p, q] = [convexParts(a), convexParts(b)];
      if (!p || !q) return;
      const sums = p.flatMap((x) =>
        q.map((y) =>
          convexSum(
            x,
            y.map((c) => ({ x: -c.x, y: -c.y })),
          ),
        ),
      );
      const moved = a.map((c) => ({ x: c.x - b[0]!.x, y: c.y - b[0]!.y }));
      const mirrored = b.map((c) => ({ x: a[0]!.x - c.x, y: a[0]!.y - c.y }));
      const swept = union([...minkowskiDiff(b, a, true), moved, mirrored], FillRule.NonZero);
      const covered = union(sums, FillRule.NonZero);
      // whole units leave slivers
      expect(Math.abs(areaPaths(covered) - areaPaths(swept))).toBeLessThan(2e-3 * areaPaths(covered));
    }),
    { numRuns: 60 },
  );
});
