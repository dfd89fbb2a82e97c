import { expect, test } from "@jest/globals";
import type { PastRun } from "../../assembly/prior.ts";
import type { LinePart } from "../document/parts.ts";
import type { Defect, RunRecord } from "../document/record.ts";
import type { ActualRun, ActualTerm } from "../ledger/actual.ts";
import { madeLine } from "../made-up.fixture.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { nextTime } from "./next-time.ts";

const EUR = 1_000_000;
const term = (
  label: string,
  planned: number,
  actual?: number,
  because: ActualTerm["because"] = [],
): ActualTerm => ({
  key: label,
  label,
  planned: planned * EUR,
  ...(actual === undefined ? {} : { actual: actual * EUR }),
  because,
});
const actual = (more: Partial<ActualRun> = {}): ActualRun => ({
  counts: { planned: { started: 20, good: 18 }, actual: { started: 20, good: 17 } },
  tally: { started: 20, good: 17, reworked: 2, scrapped: 3, open: 0, minutes: 600 },
  terms: [],
  planned: 360 * EUR,
  actual: 400 * EUR,
  open: [],
  plannedPerGood: 20 * EUR,
  minutes: { planned: 500, actual: 600 },
  uses: [],
  ...more,
});
const plain = twoSided({ method: "stencil" });
const doc = { ...plain, past: [], workshop: { ...plain.workshop, hourlyRate: "24.00" } };
const record = (more: Partial<RunRecord> = {}): RunRecord => ({
  purchases: [],
  receipts: [],
  work: [],
  ...more,
});
const fault = (unit: number, code: Defect["code"], minutes?: number): Defect => ({
  id: `${unit}${code}`,
  unit,
  at: "U1",
  code,
  on: "2026-12-01",
  isMended: true,
  note: "",
  person: "",
  ...(minutes === undefined ? {} : { minutes }),
});
const of = (a: ActualRun, r = record(), d = doc) => nextTime(d, { model: 0.9, actual: a, parts: [] }, r);

test("faults of the run move what the model expects of the next", () => {
  const chips = [
    {
      line: madeLine("a", ["R1", "R2"]),
      kind: "chip",
      joints: 2,
      isPolarised: false,
      method: "stencil",
      count: 2,
    },
  ] as unknown as LinePart[];
  const work = [{ id: "w", on: "2026-12-01", started: 20, good: 17, reworked: 0, scrapped: 3, minutes: 0 }];
  const r = record({ work, defects: [{ ...fault(1, "missing"), at: "R1" }] });
  const told = nextTime(doc, { model: 0.9, actual: actual({}), parts: chips }, r);
  // placing 2·1200/10⁶ = 0.0024 a board; the model counts as twenty: (0.048 + 1) ÷ (0.048 + 0.0024·20)
  expect(told.estimates!.faults!.factors.placing).toBeCloseTo(1.048 / (0.048 + 0.0024 * 20), 9);
  // joints 4·250/10⁶ = 0.001 stay as they are: the model's zero faults of them on the same boards are not one
  const { factors } = told.estimates!.faults!;
  expect(told.estimates!.clean).toBeCloseTo(
    Math.exp(-(0.001 * factors.chip! + 0.0024 * factors.placing!)),
    12,
  );
  expect(told.estimates!.cleanByModel).toBeCloseTo(Math.exp(-0.0034), 12);
  expect(of(actual({})).estimates).not.toHaveProperty("faults");
});

test("what cost otherwise is told from a hundredth of the run on, the largest first, with what it came of most", () => {
  // a hundredth of 400 is 4
  const a = actual({
    terms: [
      term("boards", 100, 104, [
        { key: "price", micros: 3 * EUR },
        { key: "yield", micros: 1 * EUR },
      ]),
      term("parts", 200, 170, [
        { key: "price", micros: 10 * EUR },
        { key: "usage", micros: -40 * EUR },
      ]),
      term("hours", 50, 53.99),
      term("freight", 10),
    ],
  });
  expect(of(a).terms).toEqual([
    { label: "parts", by: -30 * EUR, why: "usage" },
    { label: "boards", by: 4 * EUR, why: "price" },
  ]);
});

test("kinds of faults by what their minutes cost at the shop's rate; boards given up at their share of the run", () => {
  const r = record({
    defects: [
      fault(1, "bridge", 5),
      fault(1, "bridge", 10),
      fault(2, "bridge"),
      fault(3, "missing", 20),
      fault(4, "cold"),
      fault(5, "cold"),
    ],
  });
  // a quarter of an hour is 6, twenty minutes 8
  expect(of(actual(), r).faults).toEqual([
    { code: "missing", times: 1, boards: 1, minutes: 20, timed: 1, cost: 8 * EUR },
    { code: "bridge", times: 3, boards: 2, minutes: 15, timed: 2, cost: 6 * EUR },
    { code: "cold", times: 2, boards: 2, minutes: 0, timed: 0, cost: 0 },
  ]);
  // 400 for twenty started: three of them 60
  expect(of(actual()).scrapped).toEqual({ boards: 3, cost: 60 * EUR });
  const none = actual({ tally: { started: 0, good: 0, reworked: 0, scrapped: 0, open: 0, minutes: 0 } });
  expect([of(none).scrapped, of(none).estimates]).toEqual([{ boards: 0, cost: 0 }, undefined]);
});

test("claims that are open, and parts of which a tenth and two pieces more were taken", () => {
  const claim = (id: string, state: "open" | "sent" | "settled" | "refused") =>
    ({ id, state }) as NonNullable<RunRecord["claims"]>[number];
  const claims = (["open", "sent", "settled", "refused"] as const).map((s) => claim(s, s));
  const use = (label: string, planned: number, taken?: number) =>
    ({ need: label, label, planned, ...(taken === undefined ? {} : { taken }) }) as ActualRun["uses"][number];
  const n = of(
    actual({
      uses: [use("a", 100, 110), use("b", 100, 109), use("c", 10, 11), use("d", 10, 13), use("e", 50)],
    }),
    record({ claims }),
  );
  expect([n.claims.map((c) => c.id), n.parts.map((p) => p.label)]).toEqual([
    ["open", "sent"],
    ["d", "a"],
  ]);
});

test("estimates as the next run begins with them: this one laid over those before and the model", () => {
  // the model as 20 boards at 0.9: Beta(18, 2); 17 good and 3 lost: 35 of 40
  const first = of(actual()).estimates!;
  expect([first.before, first.after.a, first.after.b, first.after.runs]).toEqual([0.9, 35, 5, 1]);
  // own time 600 of 500 on twenty boards beside the model's twenty: 1.1
  expect(first.after.timeFactor).toBeCloseTo(1.1, 9);
  const before: PastRun = {
    name: "before",
    closedOn: "2026-01-01",
    method: "stencil",
    good: 20,
    scrapped: 0,
    minutes: 0,
    modelMinutes: 0,
  };
  const others = [before, { ...before, method: "iron" as const }, { ...before, isMixed: true }];
  const second = of(actual(), record(), { ...doc, past: others } as typeof doc).estimates!;
  // Beta(38, 2) before; forgotten by a fifth: 18 + 16 + 17 of 18 + 16 + 17 + 2 + 3
  expect(second.before).toBeCloseTo(38 / 40, 9);
  expect([second.after.a, second.after.b, second.after.runs]).toEqual([51, 5, 2]);
  // what went several ways tells nothing
  const mixed = { ...doc, assembly: { ...doc.assembly, sides: { bottom: "iron" as const } } };
  expect(of(actual(), record(), mixed).estimates).toBeUndefined();
});
