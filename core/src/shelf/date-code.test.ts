import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { beginOf, madeWords, monthsOld, readDateCode } from "./date-code.ts";

const TODAY = "2026-12-02";
const say = (text: string) => {
  const m = readDateCode(text, TODAY);
  return m && `${madeWords(m)}${m.or ? ` or ${m.or}` : ""}`;
};

// odd ones first: the code as it stands on a bag, and what it says by hand
test.each([
  // week 26 of 2039 is not yet: it is the week that stands first
  ["3926", "week 39 of 2026"],
  // both could be
  ["1226", "week 26 of 2012 or week 12 of 2026"],
  ["2612", "week 12 of 2026 or week 26 of 2012"],
  // week 49 has begun, week 50 has not: 2650 is then week 26 of nothing that was
  ["2649", "week 49 of 2026"],
  ["2650", undefined],
  ["9952", "week 52 of 1999"],
  ["0001", "week 1 of 2000"],
  ["2600", "week 26 of 2000"],
  ["0000", undefined],
  ["202612", "week 12 of 2026 or December 2026"],
  ["202509", "week 9 of 2025 or September 2025"],
  ["202553", "week 53 of 2025"],
  ["2639", "week 39 of 2026"],
  ["26W39", "week 39 of 2026"],
  ["26-W39", "week 39 of 2026"],
  ["2026W39", "week 39 of 2026"],
  ["2026-W39", "week 39 of 2026"],
  ["wk 39/26", "week 39 of 2026"],
  ["KW39 2026", "week 39 of 2026"],
  ["D/C 2639", "week 39 of 2026"],
  ["date code: 2639", "week 39 of 2026"],
  ["09/2026", "September 2026 or week 9 of 2026"],
  ["39/2026", "week 39 of 2026"],
  ["2026-09", "September 2026 or week 9 of 2026"],
  ["Sep 2026", "September 2026"],
  ["sept. 26", "September 2026"],
  ["2026-09-23", "23 September 2026"],
  ["23.09.2026", "23 September 2026"],
  ["31.02.2026", undefined],
  ["2027-01-01", undefined],
  ["2026-12-02", "2 December 2026"],
  ["2026-12-03", undefined],
  ["1969W10", undefined],
  ["25/26", "week 26 of 2025 or week 25 of 2026"],
  ["A7K2", undefined],
  ["639", undefined],
  ["", undefined],
])("“%s” is %s", (text, is) => expect(say(text)).toBe(is));

test("a week begins on its Monday as ISO 8601 has it", () => {
  // 4 January 2027 is a Monday, so week 53 of 2026 begins on 28 December
  expect(beginOf({ year: 2026, week: 53 })).toBe("2026-12-28");
  expect(beginOf({ year: 2027, week: 1 })).toBe("2027-01-04");
  expect(beginOf({ year: 2025, week: 1 })).toBe("2024-12-30");
  expect(beginOf({ year: 2026, month: 9 })).toBe("2026-09-01");
});

test("whole months since, never fewer than none", () => {
  expect(monthsOld({ year: 2024, month: 12 }, TODAY)).toBe(24);
  expect(monthsOld({ year: 2024, month: 12, day: 3 }, TODAY)).toBe(23);
  expect(monthsOld({ year: 2026, week: 49 }, TODAY)).toBe(0);
});

test("law: a week written year first is read back, whatever stands between", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1990, max: 2025 }),
      fc.integer({ min: 1, max: 52 }),
      fc.constantFrom("W", "-W", " wk ", "/KW"),
      (year, week, between) => {
        expect(readDateCode(`${year}${between}${week}`, TODAY)).toEqual({ year, week });
      },
    ),
  );
});
