import { expect, test } from "@jest/globals";
import type { RunDocument, RunResult } from "@kobbin/core";
import { startSum } from "./startSum.ts";

const doc = {
  goodBoards: 30,
  confidence: 0.9,
  choices: {},
  boards: [{}],
  unit: "board",
} as unknown as RunDocument;
const result = (record?: object) =>
  ({
    start: 34,
    chance: 0.904,
    yield: { firstPass: 0.93, final: record ? 0.94 : 0.99, ...(record ? { record } : {}) },
  }) as unknown as RunResult;

test("how many to start is told as it was computed: by the model alone, or with the shop's record", () => {
  const alone = startSum(doc, result());
  expect(alone.formula).toMatch(/binomial, with the yield of the defect model$/);
  expect(alone.terms.map((t) => t.label)).not.toContain("final yield with the shop's record");
  const both = startSum(doc, result({ runs: 1, boards: 30, model: 0.99, a: 47, b: 3 }));
  expect(both.formula).toContain("beta-binomial");
  expect(both.terms.map((t) => `${t.label}: ${t.value}`)).toEqual([
    "good boards wanted: 30",
    "first-pass yield: 93.0 %",
    "final yield by the model alone: 99.00 %",
    "final yield with the shop's record: 94.00 %",
    "chance of enough: 90.4 %",
  ]);
  // EX 7.5
  expect(both.terms[3]!.note).toBe("47.0 ÷ (47.0 + 3.0); in 9 cases of 10 between 87.7 and 98.3 %");
});
