import { expect, test } from "@jest/globals";
import type { RunRecord, TestTry } from "../document/record.ts";
import { madeMeasure, madeTest } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { suspectsOfUnit } from "./faults.ts";

const pad = (pin: string, x: number) => ({ layer: "top", x, y: 1, pin });
// A: R1.1 J1.1; B: R1.2 R2.1 C1.1; C: R3.1 J1.2
const islands = [
  { net: 0, name: "A", pads: [pad("R1.1", 1), pad("J1.1", 2)] },
  { net: 1, name: "B", pads: [pad("R1.2", 3), pad("R2.1", 4), pad("C1.1", 5)] },
  { net: 2, name: "C", pads: [pad("R3.1", 6), pad("J1.2", 7)] },
];
const PLAN = [madeTest("b", { reads: ["R2.1"], through: ["R1"] }), madeTest("c", { reads: ["J1.2"] })];
const doc = (() => {
  const d = twoSided({ tests: PLAN });
  return {
    ...d,
    boards: [{ ...d.boards[0]!, measure: madeMeasure({ nets: { count: 3, islands } as never }) }],
  };
})();
const { parts } = rollUp(doc);
const tried = (item: string, verdict: TestTry["verdict"], unit = 1): TestTry => ({
  id: `${item}${unit}${verdict}`,
  unit,
  item,
  name: item,
  on: "2026-11-30",
  limits: {},
  verdict,
  words: "",
  person: "",
});
const refs = (record: Pick<RunRecord, "tries" | "sittings">, unit = 1) =>
  suspectsOfUnit(doc, parts, record, unit).map((s) => s.ref);

test("suspected is what is soldered on what fails; doubts of that board at the bench come first", () => {
  const tries = [tried("b", "fail"), tried("c", "pass")];
  expect(new Set(refs({ tries }))).toEqual(new Set(["R1", "R2", "C1"]));
  const sitting = { id: "s", step: 2, lost: {}, minutes: {}, isDone: true, person: "" };
  const doubt = { ...sitting, unit: 1, marks: { R2: "doubt" as const, R3: "done" as const } };
  expect(refs({ tries, sittings: [doubt] })[0]).toBe("R2");
  // of another board it says nothing
  expect(refs({ tries, sittings: [{ ...doubt, unit: 2 }] })).toEqual(refs({ tries }));
  expect(refs({ tries: [tried("c", "pass")] })).toEqual([]);
  expect(refs({ tries }, 2)).toEqual([]);
});
