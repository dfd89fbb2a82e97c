import { expect, test } from "@jest/globals";
import { leadText, readLead, readTiers, tiersText } from "./steps-text.ts";

const TIERS = [
  { fromDm2: 0, factor: 1 },
  { fromDm2: 10, factor: 0.82 },
  { fromDm2: 40.5, factor: 0.7 },
];
const WHEN = [{ key: "finish" as const, in: ["gold"] }];
const LEAD = [
  { days: 12, factor: 1 },
  { days: 3, factor: 1.6, when: WHEN },
];

test("what is written is read again, conditions with it", () => {
  expect(tiersText(TIERS)).toBe("0: 1, 10: 0.82, 40.5: 0.7");
  expect(readTiers(tiersText(TIERS))).toEqual({ tiers: TIERS });
  expect(leadText(LEAD)).toBe("12: 1, 3: 1.6");
  expect(readLead(leadText(LEAD), LEAD)).toEqual({ lead: LEAD });
  // a time of other days hangs on nothing
  expect(readLead("12: 1, 4: 1.6", LEAD)).toEqual({
    lead: [
      { days: 12, factor: 1 },
      { days: 4, factor: 1.6 },
    ],
  });
});

test.each([
  // whichever order, whichever decimal mark, whichever sign between
  [
    "10 : 0,82; 0=1",
    [
      [0, 1],
      [10, 0.82],
    ],
  ],
  [
    "0 × 1\n10 x 0.82",
    [
      [0, 1],
      [10, 0.82],
    ],
  ],
  [
    "0: 1, 10: 0,82, 40,5: 0,7",
    [
      [0, 1],
      [10, 0.82],
      [40.5, 0.7],
    ],
  ],
  ["", []],
] as const)("steps typed %j", (text, pairs) => {
  expect(readTiers(text)).toEqual({ tiers: pairs.map(([fromDm2, factor]) => ({ fromDm2, factor })) });
});

test.each([
  ["10", "“10” is no step, such as 10: 0.82."],
  ["ten: 1", "“ten: 1” is no step, such as 10: 0.82."],
  ["-1: 1", "“-1: 1” is no step, such as 10: 0.82."],
  ["0: 1, 0: 2", "0 is named twice."],
  ["0: 0", "A factor is more than 0."],
])("steps typed %j are refused", (text, wrong) => {
  expect(readTiers(text)).toEqual({ wrong });
});

test.each([
  ["", "A house has one lead time at least."],
  ["2.5: 1", "2.5 is no whole number of days up to 1000."],
  ["1001: 1", "1001 is no whole number of days up to 1000."],
  ["12", "“12” is no step, such as 12: 1."],
])("lead times typed %j are refused", (text, wrong) => {
  expect(readLead(text, LEAD)).toEqual({ wrong });
});
