import { expect, test } from "@jest/globals";
import type { House } from "../fab/house.ts";
import { carriedWork, firstChoices } from "./first-choices.ts";
import { FAR, madeMeasure } from "./made-up.fixture.ts";

const COARSE: House = { ...FAR, id: "coarse", limits: { ...FAR.limits, minTrackMm: 0.3 } };
const HARD: House = {
  ...FAR,
  id: "hard",
  options: {
    ...FAR.options,
    finish: [...FAR.options.finish, { value: "hard-gold", label: "hard gold on the contacts" }],
  },
};
const CONTACTS = {
  edgeContacts: {
    top: { count: 8, pitchMm: 2, widthMm: 1.4, lengthMm: 5, setbackMm: 0.5, edge: "bottom" as const },
  },
};

// the fixture's board has tracks of 0.2 mm; the houses offer 1.6 and 1.0 mm, gold first and levelled second
test.each<
  readonly [string, Parameters<typeof firstChoices>[0], readonly House[], string | undefined, object]
>([
  ["the first that can make it", [madeMeasure()], [COARSE, FAR], "far", {}],
  ["the first of all where all can", [madeMeasure()], [FAR, COARSE], "far", {}],
  ["the first of all where none can", [madeMeasure({ minTrackMm: 0.05 })], [COARSE, FAR], "coarse", {}],
  [
    "one that can make every board of the product",
    [madeMeasure({ minTrackMm: 0.4 }), madeMeasure()],
    [COARSE, FAR],
    "far",
    {},
  ],
  ["no house at all", [madeMeasure()], [], undefined, {}],
  ["no board yet", [], [COARSE, FAR], "coarse", {}],
  [
    "the thickness the job file states",
    [madeMeasure({ thicknessMm: 1 })],
    [FAR],
    "far",
    { thickness: "1.0" },
  ],
  ["as stated to a hundredth", [madeMeasure({ thicknessMm: 1.58 })], [FAR], "far", { thickness: "1.6" }],
  ["a thickness the house lacks is left to it", [madeMeasure({ thicknessMm: 0.4 })], [FAR], "far", {}],
  ["contacts ask for gold", [madeMeasure(CONTACTS)], [FAR], "far", { finish: "immersion-gold" }],
  ["and for hard gold where there is one", [madeMeasure(CONTACTS)], [HARD], "hard", { finish: "hard-gold" }],
  [
    "both together",
    [madeMeasure({ ...CONTACTS, thicknessMm: 1 })],
    [HARD],
    "hard",
    { thickness: "1.0", finish: "hard-gold" },
  ],
])("what a run begins with: %s", (_, boards, houses, house, options) => {
  const first = firstChoices(boards, houses);
  expect(first.house?.id).toBe(house);
  expect(first.options).toEqual(options);
});

test("the next run is built as the last one was; what names lines of the bill is for the same revision alone", () => {
  const last = {
    assembly: { heater: "oven", programAt: ["J4"], covers: { a: ["J4"] }, testMinutes: 9 },
    choices: { steps: { school: "dense", own: ["a"] }, leftovers: "stock" },
  } as const;
  expect(carriedWork(last, true)).toEqual({
    assembly: { heater: "oven", programAt: ["J4"], covers: { a: ["J4"] } },
    choices: { steps: { school: "dense", own: ["a"] } },
  });
  expect(carriedWork(last, false)).toEqual({
    assembly: { heater: "oven", programAt: ["J4"] },
    choices: { steps: { school: "dense" } },
  });
  expect(carriedWork({ assembly: {}, choices: {} }, true)).toEqual({ assembly: {}, choices: {} });
});
