import { expect, test } from "@jest/globals";
import type { TestItem } from "../../document/document.ts";
import { madeMeasure, madeTest } from "../../made-up.fixture.ts";
import { rollUp } from "../../roll-up.ts";
import { LINES, line, powered, wired } from "./powered.fixture.ts";
import { soonestPlan, startingItems } from "./starting-items.ts";

// V33 feeds everything; Q1 switches OUT, held off by R3; Y1 clocks U1; SDA rests high
const ISLANDS = wired(`
  V33: J1.1 U1.1 D2.2 R5.2 R7.2 R20.1
  GND: J1.2 U1.2 R21.2 R3.2 Q1.2 SW1.2 Y1.2
  LED1K: D2.1 R9.1
  LED1: R9.2 U1.3
  NRST: R5.1 U1.4
  SDA: R7.1 U1.5 TP1.1
  SENSE: R20.2 R21.1 U1.6
  GATE: U1.7 R3.1 Q1.1
  OUT: Q1.3 J2.1
  KEY: SW1.1 U1.8
  OSC: Y1.1 U1.9`);
const MORE = [
  line("q", ["Q1"], "N20"),
  line("r3", ["R3", "R7"], "10k"),
  line("sw", ["SW1"], "key"),
  line("y", ["Y1"], "16M"),
];
const board = {
  id: "b",
  name: "Main",
  perProduct: 1,
  measure: madeMeasure({ nets: { count: 11, islands: ISLANDS } as never }),
};
const doc = powered({ boards: [board], meetings: [], lines: [...LINES, ...MORE] });
const said = (d = doc) =>
  startingItems(d).map(
    ({ kind, item: t }) =>
      `${kind}: ${t.name} at ${t.reads.join(" ")} by ${t.through.join(" ")}${t.unit ? `, ${t.min} to ${t.max} ${t.unit}` : ""}`,
  );

test("a board suggests its lamps, keys, levels, dividers, outputs and clocks; by hand", () => {
  expect(new Set(said())).toEqual(
    new Set([
      "lamp: D2 lights at D2.1 by D2 R9",
      "key: SW1 is seen at U1.8 by SW1",
      // 3.3 V × 0.8 and × 1.05
      "level: NRST rests high at R5.1 by R5, 2.64 to 3.465 V",
      "level: SDA rests high at TP1.1 by R7, 2.64 to 3.465 V",
      // 3.3 V × 10k / 110k = 0.3 V, ± 5 %
      "divider: SENSE volts at R20.2 by R20 R21, 0.285 to 0.315 V",
      "output: OUT stays off at J2.1 by Q1",
      "clock: Y1 runs at Y1.1 by Y1, 15.984 to 16.016 MHz",
    ]),
  );
  // what saves most a minute first: none of the plan covers anything, a lamp takes two parts and three pins
  expect(startingItems(doc).every((s) => s.gains > 0)).toBe(true);
  const rates = startingItems(doc).map((s) => s.gains / s.item.minutes);
  expect(rates).toEqual([...rates].sort((a, b) => b - a));
});

test("what the plan has is suggested no more; without pins and nets nothing is", () => {
  const [first] = startingItems(doc);
  const plan = { ...doc, assembly: { ...doc.assembly, tests: [{ ...first!.item, id: "a" } as TestItem] } };
  expect(said(plan)).toHaveLength(said().length - 1);
  expect(startingItems(powered({ boards: [{ ...board, measure: madeMeasure() }] }))).toEqual([]);
});

test("the plan is put in the order that finds bad joints soonest, without power first", () => {
  const item = (id: string, minutes: number, more: Partial<TestItem>) => madeTest(id, { minutes, ...more });
  const tests = [
    item("nothing", 1, {}),
    item("slow", 9, { reads: ["D2.1"], through: ["D2", "R9"] }),
    item("quick", 0.1, { reads: ["D2.1"], through: ["D2", "R9"] }),
    item("bare", 9, { reads: ["U1.6"], through: ["R20"], state: "bare" }),
  ];
  // a part of one pin may be named without it
  const single = [
    item("slow", 9, { reads: ["D2.1"], through: ["D2"] }),
    item("point", 1, { reads: ["TP1"], through: ["R7"] }),
  ];
  const points = { ...doc, assembly: { ...doc.assembly, tests: single } };
  expect(soonestPlan(points, rollUp(points).parts)!.tests.map((t) => t.id)).toEqual(["point", "slow"]);
  const d = { ...doc, assembly: { ...doc.assembly, tests } };
  const { parts } = rollUp(d);
  const soonest = soonestPlan(d, parts)!;
  expect(soonest.tests.map((t) => t.id)).toEqual(["bare", "quick", "slow", "nothing"]);
  // each finds its own: first after 1, 10, 10.1 and 19.1 min, then after 9, 9.1 and 18.1; what quick finds is what slow does
  expect(soonest.thenMinutes).toBeLessThan(soonest.nowMinutes);
  expect(soonest.thenMinutes).toBeGreaterThanOrEqual(9);
  expect(soonest.thenMinutes).toBeLessThanOrEqual(9.1);
  // what is tried besides the bench has no place in the order: it comes after all of it, and finds nothing sooner
  const week = { ...item("week", 0.1, { reads: ["D2.1"], through: ["D2", "R9"] }), besides: { days: 7 } };
  const later = soonestPlan({ ...d, assembly: { ...d.assembly, tests: [week, ...tests] } }, parts)!;
  expect(later.tests.map((t) => t.id)).toEqual(["bare", "quick", "slow", "nothing", "week"]);
  expect(later.thenMinutes).toBe(soonest.thenMinutes);
  expect(soonestPlan(doc, parts)).toBeUndefined();
  // power is turned up in its stages before anything is read under it, though that finds more
  const up = (id: string) => item(id, 5, { drives: ["J1.1"], reads: ["J1.1"], unit: "mA", max: "9" });
  const staged = { ...d, assembly: { ...d.assembly, tests: [tests[2]!, up("1 V"), up("5 V"), tests[3]!] } };
  expect(soonestPlan(staged, parts)!.tests.map((t) => t.id)).toEqual(["bare", "1 V", "5 V", "quick"]);
});

test("a signal that two resistors pull down is no divider that is known, and a quiet one says nothing", () => {
  const islands = wired(`
    V33: J1.1 U1.1 R20.1 R5.1
    GND: J1.2 U1.2 R21.2 R3.2
    SENSE: R20.2 R21.1 R3.1 U1.3
    EN: R5.2 U1.4`);
  const measure = madeMeasure({ nets: { count: 4, islands } as never });
  const d = powered({ boards: [{ ...board, measure }], meetings: [], lines: [...LINES, ...MORE] });
  expect(said(d)).toEqual([]);
  // a rail whose volts nobody knows is a rail all the same
  const rail = madeMeasure({
    nets: {
      count: 3,
      islands: wired("V33: J1.1 U1.1 R20.1\nVIN: R20.2 R21.1 U4.1\nGND: J1.2 U1.2 U4.2 R21.2"),
    } as never,
  });
  expect(said(powered({ boards: [{ ...board, measure: rail }], meetings: [], lines: LINES }))).toEqual([]);
});
