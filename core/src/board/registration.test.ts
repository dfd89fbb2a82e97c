import { expect, test } from "@jest/globals";
import { register, shareOnto } from "./registration.ts";

type Point = readonly [number, number];
/** No shift but its own brings these onto themselves. */
const POINTS: readonly Point[] = [
  [0, 0],
  [3, 1],
  [7, 2],
  [1, 6],
  [5, 9],
];
const moved = (dx: number, dy: number, mirror: 1 | -1 = 1): Point[] =>
  POINTS.map(([x, y]) => [mirror * x + dx, y + dy]);

test("the one shift is found, plain or mirrored, and refined past its votes", () => {
  expect(register(POINTS, moved(12.34, -7.01))).toEqual({
    share: 1,
    dxMm: expect.closeTo(12.34, 6),
    dyMm: expect.closeTo(-7.01, 6),
    isMirrored: false,
  });
  expect(register(POINTS, moved(40, 2.5, -1))).toMatchObject({
    share: 1,
    dxMm: expect.closeTo(40, 6),
    isMirrored: true,
  });
});

test("fewer than four points are no pattern, and four of five are enough", () => {
  expect(register(POINTS.slice(0, 3), moved(5, 5))).toBeUndefined();
  expect(register(POINTS, moved(5, 5).slice(0, 3))).toBeUndefined();
  expect(register(POINTS, moved(5, 5).slice(0, 4))).toMatchObject({ share: 0.8 });
  expect(register(POINTS, [...moved(5, 5).slice(0, 3), [50, 50]])).toBeUndefined();
});

test("a point counts as on another within 0.05 mm, across the cells they are looked up in", () => {
  expect(shareOnto([[0.049, 0]], [[0, 0]])).toBe(1);
  expect(shareOnto([[0.051, 0]], [[0, 0]])).toBe(0);
  expect(shareOnto([[-0.01, -0.01]], [[0.02, 0.02]])).toBe(1);
  expect(shareOnto([], [[0, 0]])).toBe(1);
});
