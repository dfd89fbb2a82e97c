import { expect, test } from "@jest/globals";
import { stripOf } from "./stripModel.ts";

test("two limits stand within the strip with a quarter beyond; with one the readings decide", () => {
  expect(stripOf([1], { min: "2", max: "4" })).toEqual({ lo: 1.5, hi: 4.5 });
  // at most 5: readings of 1 to 3 lie below it, a fifth of that above
  const { lo, hi } = stripOf([1, 2, 3], { max: "5" });
  expect([lo, hi].map((v) => Number(v.toFixed(3)))).toEqual([0.6, 5.88]);
  // at least 100: one of a million does not press the others together
  expect(stripOf([150, 160, 1e6], { min: "100" }).hi).toBeCloseTo(100 + 660, 6);
  // all of them on the one side of the limit, none beyond it: a fifth is shown there
  expect(stripOf([0, 0], { max: "0" })).toEqual({ lo: -1, hi: 0.2 });
  for (const l of [{}, { min: "0" }, { max: "0" }, { min: "3", max: "3" }]) {
    const s = stripOf([], l);
    expect(s.hi).toBeGreaterThan(s.lo);
  }
});
