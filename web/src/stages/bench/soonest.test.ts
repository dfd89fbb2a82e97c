import { expect, test } from "@jest/globals";
import type { RunRow } from "@kobbin/contract";
import { bySoonest } from "./soonest.ts";

test("soonest first, of one day the one with more money in it, what nobody counted last", () => {
  const run = (id: string, readyFrom?: string, cashNeeded?: number) =>
    ({ id, ...(readyFrom ? { summary: { readyFrom, cashNeeded } } : {}) }) as unknown as RunRow;
  const runs = [
    run("none"),
    run("late", "2026-12-09", 900),
    run("dear", "2026-12-02", 500),
    run("cheap", "2026-12-02", 20),
    run("free", "2026-12-02"),
  ];
  expect([...runs].sort(bySoonest).map((r) => r.id)).toEqual(["dear", "cheap", "free", "late", "none"]);
});
