import { expect, test } from "@jest/globals";
import type { Defect, RunRecord, TestTry } from "../document/record.ts";
import { madeMeasure, madeTest } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { jointWeights } from "../stage/joint-weights.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { faultsByClass, suspectsOfUnit } from "./faults.ts";

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

const found = (unit: number, at: string, code: Defect["code"] = "bridge"): Defect => ({
  id: `${unit}${at}`,
  unit,
  at,
  code,
  on: "2026-11-30",
  isMended: true,
  note: "",
  person: "",
});

test("where faults were found on other boards of the run it is looked at first; by kinds the shop's own faults weigh", () => {
  const tries = [tried("b", "fail"), tried("c", "pass")];
  const shares = (record: Partial<RunRecord>, factors = {}) =>
    Object.fromEntries(
      suspectsOfUnit(doc, parts, { tries, ...record }, 1, factors).map((s) => [s.ref, s.share]),
    );
  const plain = shares({});
  // 300 boards are known beside it: two faults on one part of them are (1 + 2) / (1 + as many as the model has there)
  const others = Array.from({ length: 300 }, (_, i) => tried("c", "pass", i + 2));
  const defects = [found(2, "R2.1"), found(3, "R2", "shifted")];
  const twice = shares({ tries: [...tries, ...others], defects });
  const odds = (of: Record<string, number>) => of.R2! / of.C1!;
  const w = jointWeights(doc, parts).get("R2")!;
  expect(w * 300).toBeGreaterThan(0.01);
  expect(odds(twice) / odds(plain)).toBeCloseTo(3 / (1 + 300 * w), 9);
  // of this board itself, of the bare board or of another part it says nothing more
  expect(shares({ defects: [found(1, "R2"), found(2, "R2", "drill"), found(2, "R3")] })).toEqual(plain);
  // a kind of which the shop had ten times as many faults as the model
  const kind = parts.find((p) => p.line.refs.includes("R2"))!.kind;
  const same = parts.find((p) => p.line.refs.includes("C1"))!.kind === kind;
  const by = odds(shares({}, { [kind]: 10 })) / odds(plain);
  expect(by > 1).toBe(!same);
});

test("faults of a product by class: those of its closed runs by kind, and this run's but for the board that is asked of", () => {
  const faults = {
    looked: 20,
    kinds: {
      placing: { seen: 2, expected: 1 },
      chip: { seen: 3, expected: 1 },
      gull: { seen: 1, expected: 1 },
    },
    unsorted: 4,
  };
  const past = [{ faults }, {}] as never;
  const defects = [found(2, "R1"), found(2, "U1", "dead"), found(1, "R1")];
  expect(faultsByClass({ past }, { defects }, 1)).toEqual({ placement: 2, joint: 5, part: 1 });
  expect(faultsByClass({}, {}, 1)).toEqual({});
});
