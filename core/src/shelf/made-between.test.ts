import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { beginOf, endOf } from "./date-code.ts";
import { betweenWords, readBetween, wasMade } from "./made-between.ts";

const TODAY = "2026-12-02";
// weeks 40 to 45 of 2025 (ISO 8601: week 1 begins on 30 December 2024)
const NOTICE = { from: "2025-09-29", to: "2025-11-09" };

// what stands on a bag, odd ones first, against a notice of weeks 40 to 45 of 2025; the answer by hand
test.each([
  [undefined, "not known"],
  ["", "not known"],
  ["A7K2", "not known"],
  // may be week 26 of 2025 or week 25 of 2026: neither is in it
  ["2526", "outside"],
  // October lies in it, September and November go over its ends
  ["Oct 2025", "within"],
  // the same may be its week 10, which does not
  ["10/2025", "not known"],
  ["Sep 2025", "not known"],
  ["Nov 2025", "not known"],
  // as a month it goes over the end, as a week of its own it would not
  ["2539", "outside"],
  ["2540", "within"],
  ["2545", "within"],
  ["2546", "outside"],
  ["2025-09-28", "outside"],
  ["2025-09-29", "within"],
  ["9.11.2025", "within"],
  ["10.11.2025", "outside"],
  // week 41 of 2025 for certain, though the year is last
  ["wk 41/25", "within"],
])("a bag with “%s” is %s", (code, was) => expect(wasMade(code, NOTICE, TODAY)).toBe(was));

test("a code that can be read in two ways tells it only where both say the same", () => {
  // week 12 of 2026 or week 26 of 2012
  expect(wasMade("2612", { from: "2026-03-01" }, TODAY)).toBe("not known");
  expect(wasMade("2612", { from: "2010-01-01" }, TODAY)).toBe("within");
  expect(wasMade("2612", { to: "2011-12-31" }, TODAY)).toBe("outside");
});

test("open at one end", () => {
  expect([
    wasMade("2540", { from: "2025-09-29" }, TODAY),
    wasMade("2539", { from: "2025-09-29" }, TODAY),
  ]).toEqual(["within", "outside"]);
  expect([
    wasMade("2545", { to: "2025-11-09" }, TODAY),
    wasMade("2546", { to: "2025-11-09" }, TODAY),
  ]).toEqual(["within", "outside"]);
});

test("the last day of what a code says", () => {
  expect(endOf({ year: 2026, week: 53 })).toBe("2027-01-03");
  expect(endOf({ year: 2024, month: 2 })).toBe("2024-02-29");
  expect(endOf({ year: 2025, month: 12 })).toBe("2025-12-31");
  expect(endOf({ year: 2025, month: 12, day: 5 })).toBe("2025-12-05");
});

// first and last date code as a notice has them
test.each([
  ["2540", "2545", NOTICE],
  ["2540", "", { from: "2025-09-29" }],
  ["", "09/2025", { to: "2025-09-30" }],
  ["", " ", undefined],
  ["2025-10-01", "2025-10-01", { from: "2025-10-01", to: "2025-10-01" }],
])("a notice from “%s” to “%s”", (from, to, made) =>
  expect(readBetween(from, to, TODAY)).toMatchObject({ made }),
);

test("a notice that cannot be read is said, and so is what could be read otherwise", () => {
  expect(readBetween("soon", "", TODAY)).toEqual({
    wrong: "“soon” is no date code up to today, as 2540 or 09/2025",
  });
  expect(readBetween("2540", "2739", TODAY)).toMatchObject({ wrong: expect.stringContaining("2739") });
  expect(readBetween("2545", "2540", TODAY)).toEqual({ wrong: "the last one lies before the first" });
  expect(readBetween("2540", "2612", TODAY)).toMatchObject({
    or: ["2612 is taken as week 12 of 2026; it could be week 26 of 2012"],
  });
});

test("words of a stretch", () => {
  expect(betweenWords(NOTICE)).toBe("made from 29 September 2025 to 9 November 2025");
  expect(betweenWords({ from: "2025-09-29" })).toBe("made from 29 September 2025 on");
  expect(betweenWords({ to: "2025-11-09" })).toBe("made up to 9 November 2025");
});

test("law: what is within lies within whole, what is outside touches it nowhere", () => {
  const week = fc.record({
    year: fc.integer({ min: 2000, max: 2025 }),
    week: fc.integer({ min: 1, max: 52 }),
  });
  fc.assert(
    fc.property(week, week, week, (a, b, made) => {
      const [from, to] = [beginOf(a), endOf(b)];
      fc.pre(from <= to);
      const [first, last] = [beginOf(made), endOf(made)];
      const days = [first, last].filter((d) => d >= from && d <= to).length;
      expect(wasMade(`${made.year}-W${made.week}`, { from, to }, TODAY)).toBe(
        days === 2 ? "within" : days === 0 ? "outside" : "not known",
      );
    }),
  );
});
