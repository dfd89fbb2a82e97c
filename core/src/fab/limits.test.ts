import { expect, test } from "@jest/globals";
import { microsToNumber } from "../money/money.ts";
import { FULL } from "../run/full-house.fixture.ts";
import { madeMeasure } from "../run/made-up.fixture.ts";
import { checkHouse } from "./check.ts";
import { fitOptions } from "./fit-options.ts";
import { bandsOf, limitsOf } from "./limits.ts";
import type { FabOptions } from "./options.ts";
import { fabQuote } from "./price.ts";

const o = (wish: Partial<FabOptions> = {}) => fitOptions(FULL, wish);

test("a stack's limits stand in the place of the house's; a value chosen only narrows them", () => {
  expect(limitsOf(FULL, 2, o())).toEqual(FULL.limits);
  expect(limitsOf(FULL, 4, o())).toEqual({ ...FULL.limits, minTrackMm: 0.1, minHoleMm: 0.2 });
  expect(limitsOf(FULL, 2, o({ copper: "70" }))).toMatchObject({
    minTrackMm: 0.25,
    minNetSpaceMm: 0.2,
    minHoleMm: 0.3,
  });
  const wider = { ...FULL, limits: { ...FULL.limits, minTrackMm: 0.3 } };
  expect(limitsOf(wider, 2, o({ copper: "70" })).minTrackMm).toBe(0.3);
  const flat = {
    ...FULL,
    options: { ...FULL.options, copper: [{ value: "35", label: "", limits: { maxAspect: 6 } }] },
  };
  expect(limitsOf(flat, 2, o()).maxAspect).toBe(6);
});

test.each<[string, Parameters<typeof bandsOf>[1], number[]]>([
  ["nothing is measured", {}, []],
  ["as wide as the first step", { minTrackMm: 0.15, minNetSpaceMm: 0.2 }, []],
  ["a gap below the first step", { minTrackMm: 0.2, minNetSpaceMm: 0.149 }, [0.15]],
  [
    "a track below the second: the first is not charged besides",
    { minTrackMm: 0.12, minNetSpaceMm: 0.14 },
    [0.13],
  ],
  ["a hole is a class of its own", { minTrackMm: 0.14, minHoleMm: 0.25 }, [0.15, 0.3]],
])("steps of extra price: %s", (_, measured, below) => {
  expect(bandsOf(FULL, measured).map((b) => b.below)).toEqual(below);
});

test("a check tells that it is made at an extra price, unless it is not made at all", () => {
  const at = (minTrackMm: number) =>
    checkHouse(FULL, madeMeasure({ minTrackMm, minNetSpaceMm: 0.2 }), o()).find(
      (c) => c.measure === "minTrackMm",
    )!;
  expect(at(0.2).extra).toBeUndefined();
  expect(at(0.14)).toMatchObject({ level: "fine", extra: { below: 0.15, uplift: 0.25 } });
  expect(at(0.128)).toMatchObject({ level: "tight", extra: { below: 0.13, uplift: 0.6 } });
  expect(at(0.12)).toMatchObject({ level: "cannot" });
  expect(at(0.12).extra).toBeUndefined();
});

// 50 × 40 mm, 30 pieces: 6 dm² billed at 2.40 and the factor 1; set-up 14, test 6 + 30 × 0.02
const price = (wish: Partial<FabOptions>, fine = {}) => {
  const facts = { widthMm: 50, heightMm: 40, layers: 2, holes: 0, copperShare: 0.6, fine };
  const q = fabQuote(FULL, facts, o(wish), 30);
  return { boards: microsToNumber(q.boards), freight: microsToNumber(q.freight), days: q.days, sum: q.sum };
};
test.each<[string, Partial<FabOptions>, object, number]>([
  ["as it is", {}, {}, 35],
  ["without the test", { test: "none" }, {}, 28.4],
  ["+25 % on the area", {}, { minTrackMm: 0.14 }, 38.6],
  ["+60 % and 5 once, and +15 % for a hole", {}, { minTrackMm: 0.12, minHoleMm: 0.2 }, 50.8],
  ["half holes: 18 and 1.00 a dm²", { castellation: "cut" }, {}, 59],
  ["capped vias and an aluminium core: +60 % and +50 %", { via: "capped", material: "aluminium" }, {}, 50.84],
])("the price of the boards: %s", (_, wish, fine, boards) => {
  expect(price(wish, fine).boards).toBeCloseTo(boards, 6);
});

test("a way to send it has its own price and days, and the sum says which steps were charged", () => {
  // 30 boards weigh 0.36 kg with their packing: one half kilogram
  expect(price({})).toMatchObject({ freight: 21.5, days: 20 });
  expect(price({ freight: "express" })).toMatchObject({ freight: 43, days: 15 });
  expect(price({ freight: "post" })).toMatchObject({ freight: 21.5, days: 20 });
  expect(price({ contacts: "hard-gold" }).days).toBe(22);
  expect(price({}, { minTrackMm: 0.14 }).sum.find((t) => t.key === "area")?.note).toBe(
    "6.00 dm² billed × rate × 1; smallest track, smallest gap below 0.15 mm +25 %",
  );
});

test.each([
  ["the angle asked for", "45", "45"],
  ["the nearest of two", "30", "20"],
  ["the nearest of two", "40", "45"],
  ["none where none is asked for", "none", "none"],
  ["none where no angle is", "some", "none"],
])("a bevel the house has: %s, %s is %s", (_, wish, bevel) => {
  expect(o({ bevel: wish }).bevel).toBe(bevel);
});
