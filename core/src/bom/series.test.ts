import { expect, test } from "@jest/globals";
import { isOutOfSeries, nearestPreferred } from "./series.ts";

test.each([
  ["4k7", "R1", false],
  ["4k75", "R1", false],
  ["4k8", "R1", true],
  ["33k2", "R1", false],
  ["9k2", "R1", false],
  ["9k19", "R1", true],
  ["1k234", "R1", true],
  ["0R", "R1", false],
  ["R10", "R1", false],
  ["0R005", "R1", false],
  ["100n", "C1", false],
  ["4u7", "C1", false],
  ["4u8", "C1", true],
  ["1p5", "C1", false],
  ["475n", "C1", true],
  ["10uH", "L1", false],
  ["32k768", "Y1", false],
  ["ferrite", "L1", false],
])("%s on %s is out of every series: %s", (text, ref, is) => {
  expect(isOutOfSeries(text, ref)).toBe(is);
});

test("every number of E24 in every decade is in a series, for all three kinds", () => {
  for (const n of [
    10, 11, 12, 13, 15, 16, 18, 20, 22, 24, 27, 30, 33, 36, 39, 43, 47, 51, 56, 62, 68, 75, 82, 91,
  ])
    for (const [unit, ref] of [
      ["R", "R1"],
      ["k", "R1"],
      ["M", "R1"],
      ["p", "C1"],
      ["n", "C1"],
      ["u", "C1"],
      ["n", "L1"],
      ["u", "L1"],
    ] as const)
      for (const power of [0.1, 1, 10]) {
        const text = `${Number((n * power).toPrecision(3))}${unit}`;
        expect([text, isOutOfSeries(text, ref)]).toEqual([text, false]);
      }
});

test.each([
  [330, [330]],
  [300 / 7e-3, [39_000, 43_000]],
  [97, [91, 100]],
  [1e6, [1e6]],
  [0.52, [0.51, 0.56]],
  [0, []],
])("next to %d stand %j in the series of 24", (value, expected) => {
  expect(nearestPreferred(value)).toEqual(expected);
});
