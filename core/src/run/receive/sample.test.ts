import { expect, test } from "@jest/globals";
import { escapeOf, sampleSize } from "./sample.ts";

// domain.md 9.3, the whole table: lot; 10 % at 90 %, 10 % at 95 %, 5 % at 90 %, 20 % at 90 %
test.each([
  [5, 5, 5, 5, 5],
  [10, 9, 10, 9, 7],
  [20, 14, 16, 18, 9],
  [30, 16, 19, 21, 9],
  [50, 18, 22, 27, 10],
  [100, 20, 25, 37, 10],
  [200, 21, 27, 41, 11],
  [500, 22, 28, 43, 11],
])("of a lot of %d so many are looked at", (lot, a, b, c, d) => {
  expect([sampleSize(lot), sampleSize(lot, 0.1, 0.95), sampleSize(lot, 0.05), sampleSize(lot, 0.2)]).toEqual([
    a,
    b,
    c,
    d,
  ]);
});

test("EX 9.1: what escapes", () => {
  expect(escapeOf(30, 3, 16)).toBeCloseTo(0.08966, 5);
  expect(escapeOf(30, 3, 15)).toBeCloseTo(0.11207, 5);
  expect(escapeOf(30, 3, 13)).toBeCloseTo(0.16749, 5);
  expect(escapeOf(30, 3, 28)).toBe(0);
  expect([sampleSize(0), sampleSize(1)]).toEqual([0, 1]);
});
