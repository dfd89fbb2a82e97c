import { expect, test } from "@jest/globals";
import type { RunRecord, StepsDocument } from "@kobbin/core";
import { heatWords } from "./heatWords.ts";

const steps = [
  { n: 1, kind: "heat", side: "bottom" },
  { n: 2, kind: "heat", side: "top" },
] as unknown as StepsDocument["steps"];
const sat = (step: number, heater?: string) => ({
  id: "",
  unit: 4,
  step,
  marks: {},
  lost: {},
  minutes: {},
  isDone: true,
  person: "M",
  ...(heater ? { used: { heater } } : {}),
});
const bad = (at: string, more: object = {}) =>
  ({ unit: 4, at, code: "bridge", isMended: true, ...more }) as NonNullable<RunRecord["defects"]>[number];

test("how often a board was in the heat and where it was soldered again; what nobody wrote down is no word at all", () => {
  const defects = [
    bad("U1.4"),
    bad("U1.4", { code: "cold" }),
    bad("U2.1"),
    bad("U3.1", { isMended: false }),
    bad("D1", { code: "wrong way round" }),
    bad("U9.1", { unit: 5 }),
  ];
  expect(heatWords(steps, { sittings: [sat(2), sat(1, "Plate")], defects }, 4)).toBe(
    "2 times (bottom: Plate; top: in what is not said); soldered again at 2 places",
  );
  expect(heatWords(steps, { sittings: [sat(2, "Plate")] }, 4)).toBe("once (top: Plate)");
  expect(heatWords(steps, { defects }, 6)).toBe("");
});
