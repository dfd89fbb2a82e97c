import { expect, test } from "@jest/globals";
import { chance } from "../../test/random.ts";
import { arcPoints, arcSweep, capsuleRing, circleRing } from "./arc.ts";
import { offsetRings } from "./clip.ts";
import { convexHull, insideRings, signedArea, thinned } from "./polygon.ts";
import { nearestPoints, pointSegment2, segmentSegment2 } from "./segment.ts";
import { OverBudget, Work } from "./work.ts";

const { next } = chance(3);
const at = (span = 10) => (next() - 0.5) * span;

test.each([
  ["a triangle counter-clockwise", [0, 0, 1, 0, 1, 1], 0.5],
  ["the same clockwise", [0, 0, 1, 1, 1, 0], -0.5],
  ["far from the origin", [1e6, 1e6, 1e6 + 1, 1e6, 1e6 + 1, 1e6 + 1], 0.5],
  ["two corners", [0, 0, 1, 1], 0],
])("signed area of %s", (_, ring, area) => {
  expect(signedArea(ring)).toBeCloseTo(area, 9);
});

test.each([
  [
    "a square with a point inside and one on an edge",
    [0, 0, 2, 0, 2, 2, 0, 2, 1, 1, 1, 0],
    [0, 0, 2, 0, 2, 2, 0, 2],
  ],
  ["points of one x in any order", [1, 3, 1, 0, 0, 1, 1, 1, 2, 1], [0, 1, 1, 0, 2, 1, 1, 3]],
  ["collinear points", [0, 0, 1, 1, 2, 2], [0, 0, 2, 2]],
])("hull of %s", (_, points, hull) => {
  expect(convexHull(points)).toEqual(hull);
});

test("a hull holds every point, turns one way, and does not depend on the order", () => {
  for (let k = 0; k < 50; k++) {
    const points = Array.from({ length: 24 }, () => Math.round(at(8)));
    const hull = convexHull(points);
    const pairs = Array.from({ length: 12 }, (_, i) => [points[2 * i]!, points[2 * i + 1]!]);
    expect(convexHull([...pairs].reverse().flat())).toEqual(hull);
    const n = hull.length / 2;
    for (let i = 0; i < n; i++) {
      const [ax, ay] = [hull[2 * i]!, hull[2 * i + 1]!];
      const [bx, by] = [hull[(2 * i + 2) % hull.length]!, hull[(2 * i + 3) % hull.length]!];
      for (const [x, y] of pairs)
        expect((bx - ax) * (y! - ay) - (by - ay) * (x! - ax)).toBeGreaterThanOrEqual(0);
    }
  }
});

test("inside by the even-odd rule: a hole is outside, an island in it inside", () => {
  const rings = [
    [0, 0, 9, 0, 9, 9, 0, 9],
    [2, 2, 7, 2, 7, 7, 2, 7],
    [4, 4, 5, 4, 5, 5, 4, 5],
  ];
  expect([1, 3, 4.5, 8, 10].map((v) => insideRings(rings, v, v))).toEqual([true, false, true, true, false]);
});

test("arcs run the way they are told, over the sweep they have", () => {
  // a quarter from 3 o'clock to 12 o'clock, and the other way round
  expect(arcSweep(1, 0, 0, 1, 0, 0, true, false)).toBeCloseTo(Math.PI / 2, 12);
  expect(arcSweep(1, 0, 0, 1, 0, 0, false, false)).toBeCloseTo((-3 * Math.PI) / 2, 12);
  expect(arcSweep(1, 0, 1, 0, 0, 0, true, true)).toBeCloseTo(2 * Math.PI, 12);
  const quarter = arcPoints(1, 0, 0, 1, 0, 0, true, false, 0.0005);
  expect(quarter.slice(-2)).toEqual([0, 1]);
  for (let i = 0; i < quarter.length; i += 2) {
    expect(Math.hypot(quarter[i]!, quarter[i + 1]!)).toBeCloseTo(1, 9);
    expect(quarter[i]).toBeGreaterThanOrEqual(-1e-12);
  }
});

test("a ring of chords is a circle to the error it was given, and no finer than it has to be", () => {
  for (const error of [0.01, 0.001]) {
    const ring = circleRing(2, -1, 5, error);
    const n = ring.length / 2;
    // N = ⌈π / acos(1 − e/r)⌉
    expect(n).toBe(Math.ceil(Math.PI / Math.acos(1 - error / 5)));
    const chord = Math.hypot(ring[2]! - ring[0]!, ring[3]! - ring[1]!);
    expect(5 - Math.sqrt(25 - chord ** 2 / 4)).toBeLessThanOrEqual(error * (1 + 1e-9));
  }
  // a capsule of length 3 and radius 0.5: 3 × 1 and a circle
  expect(signedArea(capsuleRing(0, 0, 3, 0, 0.5))).toBeCloseTo(3 + Math.PI / 4, 2);
});

test("distances agree with looking at many points", () => {
  for (let k = 0; k < 60; k++) {
    const [a, b, c, d] = [0, 0, 0, 0].map(() => [at(), at()] as const) as [
      readonly [number, number],
      readonly [number, number],
      readonly [number, number],
      readonly [number, number],
    ];
    let least = Number.POSITIVE_INFINITY;
    for (let i = 0; i <= 60; i++) {
      const p = [a[0] + ((b[0] - a[0]) * i) / 60, a[1] + ((b[1] - a[1]) * i) / 60] as const;
      least = Math.min(least, pointSegment2(p[0], p[1], c[0], c[1], d[0], d[1]));
    }
    const exact = segmentSegment2(a[0], a[1], b[0], b[1], c[0], c[1], d[0], d[1]);
    expect(exact).toBeLessThanOrEqual(least + 1e-12);
    expect(Math.sqrt(least) - Math.sqrt(exact)).toBeLessThan(0.13);
    const [x1, y1, x2, y2] = nearestPoints(a[0], a[1], b[0], b[1], c[0], c[1], d[0], d[1]);
    expect((x2 - x1) ** 2 + (y2 - y1) ** 2).toBeCloseTo(exact, 9);
  }
});

test.each([
  ["crossing", [0, 0, 2, 2, 0, 2, 2, 0], 0, [1, 1, 1, 1]],
  ["end to side", [0, 0, 4, 0, 2, 1, 2, 5], 1, [2, 0, 2, 1]],
  ["parallel, side by side", [0, 0, 4, 0, 1, 2, 3, 2], 4, undefined],
  ["on one line, apart", [0, 0, 1, 0, 3, 0, 4, 0], 4, [1, 0, 3, 0]],
  ["a point and a segment", [1, 1, 1, 1, 0, 0, 4, 0], 1, [1, 1, 1, 0]],
  // the other's line is crossed beyond its end: its end is nearest
  ["crossing beyond an end", [0, 0, 4, 0, 1, 3, 1, 1], 1, [1, 0, 1, 1]],
  ["two points", [0, 0, 0, 0, 3, 4, 3, 4], 25, [0, 0, 3, 4]],
] as const)("segments %s", (_, s, squared, points) => {
  const list = s as unknown as [number, number, number, number, number, number, number, number];
  expect(segmentSegment2(...list)).toBeCloseTo(squared, 12);
  if (points) expect(nearestPoints(...list)).toEqual([...points]);
});

test("work that runs out says how far it got, where that is told, and spends nothing it has not", () => {
  const work = new Work(100);
  work.at(37, 100);
  work.spend(90);
  expect(() => work.spend(11)).toThrow(expect.objectContaining({ far: " after 37 % of it" }));
  work.spend(10);
  expect(() => work.spend(1)).toThrow(OverBudget);
  // a part takes two fifths of the whole, and what it takes is gone from it
  const whole = new Work(100);
  const part = whole.part();
  part.spend(40);
  expect(() => part.spend(1)).toThrow(expect.objectContaining({ far: "" }));
  whole.spend(60);
  expect(() => whole.spend(1)).toThrow(OverBudget);
});

test("a ring is thinned to what stays within the tolerance, and keeps its corners", () => {
  const square = [0, 0, 5, 0.004, 10, 0, 10, 10, 5, 10.02, 0, 10];
  expect(thinned(square, 0.01)).toEqual([0, 0, 10, 0, 10, 10, 5, 10.02, 0, 10]);
  expect(thinned([0, 0, 1, 0, 1, 1], 9)).toEqual([0, 0, 1, 0, 1, 1]);
  // a sliver thinner than the tolerance keeps its shape rather than become a line
  const sliver = [0, 0, 10, 0.001, 10, 0.002, 0, 0.003];
  expect(thinned(sliver, 0.01)).toEqual(sliver);
  const circle = circleRing(3, 4, 5, 0.0001);
  const few = thinned(circle, 0.01);
  expect(few.length).toBeLessThan(circle.length / 4);
  // chords lie inside: the area is less, by less than the tolerance all around
  expect(signedArea(circle) - signedArea(few)).toBeGreaterThan(0);
  expect(signedArea(circle) - signedArea(few)).toBeLessThan(2 * Math.PI * 5 * 0.01);
});

test("rings moved out and in: rounded corners by π/4 · r² each, pointed ones whole, holes the other way", () => {
  const square = [0, 0, 10, 0, 10, 10, 0, 10];
  const areaOf = (rings: number[][]) => rings.reduce((s, r) => s + signedArea(r), 0);
  // arcs are chords within two micrometres of them
  const round = areaOf(offsetRings([square], 1));
  expect(round).toBeLessThan(140 + Math.PI);
  expect(round).toBeGreaterThan(140 + Math.PI - 2 * Math.PI * 0.002);
  expect(areaOf(offsetRings([square], 1, "pointed"))).toBeCloseTo(144, 6);
  expect(areaOf(offsetRings([square], -1))).toBeCloseTo(64, 6);
  const hole = [4, 4, 4, 6, 6, 6, 6, 4];
  expect(areaOf(offsetRings([square, hole], 0.5, "pointed"))).toBeCloseTo(121 - 1, 6);
  expect(offsetRings([square], -5.01)).toEqual([]);
});
