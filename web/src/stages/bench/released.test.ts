import { expect, test } from "@jest/globals";
import type { RunRow } from "@kobbin/contract";
import { askedOf, isLate, stateWords } from "./released.ts";
import { bySoonest } from "./soonest.ts";

const row = (more: Partial<RunRow> = {}): RunRow =>
  ({
    id: "r",
    goodBoards: 10,
    state: "released",
    summary: { readyFrom: "2026-11-20", readyTo: "2026-11-28", cashNeeded: 5 },
    ...more,
  }) as RunRow;

test("a released run is late once its last day is past, and only until it is closed", () => {
  expect([isLate(row(), "2026-11-28"), isLate(row(), "2026-11-29")]).toEqual([false, true]);
  expect(isLate(row({ isClosed: true }), "2026-11-29")).toBe(false);
  expect(isLate(row({ state: "open" }), "2026-11-29")).toBe(false);
  expect([
    stateWords(row(), "2026-11-01"),
    stateWords(row(), "2026-12-01"),
    stateWords(row({ isClosed: true }), "2026-12-01"),
  ]).toEqual(["released", "released, late", "closed"]);
});

test("what is next follows what was counted: parcels, boards, the closing", () => {
  const of = (started: number, good: number, scrapped: number) =>
    askedOf(row({ built: { started, good, scrapped } }));
  expect(of(0, 0, 0)).toMatchObject({ stage: "receive" });
  expect(of(12, 4, 1)).toMatchObject({
    text: "4 of 10 are good, 7 on the bench, 1 scrapped.",
    stage: "build",
  });
  expect(of(10, 9, 1)).toMatchObject({ text: "9 of 10 are good, 1 scrapped.", stage: "build" });
  expect(of(12, 11, 1)).toMatchObject({ stage: "build?view=actual" });
});

test("runs are in the order of their days, then of their money", () => {
  const a = row({ id: "a" });
  const b = row({ id: "b", summary: { ...a.summary!, readyFrom: "2026-11-19" } });
  const c = row({ id: "c", summary: { ...a.summary!, cashNeeded: 9 } });
  expect([a, b, c].sort(bySoonest).map((r) => r.id)).toEqual(["b", "c", "a"]);
});
