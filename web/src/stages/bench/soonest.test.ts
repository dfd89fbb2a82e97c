import { expect, test } from "@jest/globals";
import type { RunRow } from "@kobbin/contract";
import { bySoonest } from "./soonest.ts";

const run = (name: string, readyFrom?: string, cashNeeded = 0): RunRow =>
  ({ name, ...(readyFrom ? { summary: { readyFrom, cashNeeded } } : {}) }) as RunRow;

test("the nearest date first, of one day the most money, what nobody has counted last", () => {
  const runs = [
    run("not counted"),
    run("later, dear", "2026-12-09", 900),
    run("soon, cheap", "2026-12-02", 10),
    run("soon, dear", "2026-12-02", 200),
    run("next year", "2027-01-02", 5000),
  ];
  expect([...runs].sort(bySoonest).map((r) => r.name)).toEqual([
    "soon, dear",
    "soon, cheap",
    "later, dear",
    "next year",
    "not counted",
  ]);
});
