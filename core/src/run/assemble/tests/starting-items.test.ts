import { expect, test } from "@jest/globals";
import type { TestItem } from "../../document/document.ts";
import { madeMeasure, madeTest } from "../../made-up.fixture.ts";
import { rollUp } from "../../roll-up.ts";
import { LINES, line, part, powered, SUPPLY, wired } from "./powered.fixture.ts";
import { soonestPlan, startingItems } from "./starting-items.ts";
import { coverageOf, gainsOf } from "./test-plan.ts";

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

const lined = (...more: ReturnType<typeof line>[]) => [
  line("u1", ["U1"], "M48", "microcontroller", "TB-M48"),
  line("u2", ["U2", "U3"], "T75", "thermometer", "TB-T75"),
  line("d", ["D10", "D11", "D12"], "RGB", "lamp that passes on"),
  line("r", ["R3", "R7"], "10k"),
  ...more,
];
const asked = (islands: string, lines = lined(), more = {}) =>
  startingItems(
    powered({
      boards: [{ ...board, measure: madeMeasure({ nets: { count: 20, islands: wired(islands) } as never }) }],
      meetings: [],
      lines,
      library: [part("TB-M48", 0.002, 25), part("TB-T75", 0.001, 1)],
      ...more,
    }),
  ).map((s) => [s.kind, s.item] as const);
const only = (kind: string, list: ReturnType<typeof asked>) =>
  list.flatMap(([k, i]) => (k === kind ? [i] : []));

const SIGNALS = `
  V33: U1.1 U2.1 U3.1 D10.1 D11.1 D12.1 R7.2
  GND: U1.2 U2.2 U3.2 D10.3 D11.3 D12.3 R3.2 Q1.2 J7.2
  I2C1_SDA: U1.3 U2.3 U3.3 J5.1 R7.1
  I2C1_SCL: U1.4 U2.4 U3.4 J5.2
  MON_TXD: U1.5 J6.1
  MON_RXD: U1.6 J6.2
  DIN: U1.7 D10.2
  N1: D10.4 D11.2
  N2: D11.4 D12.2 TP3.1
  GATE: R3.1 Q1.1 J7.1
  OUT: Q1.3 J2.1`;

test("a bus is counted, a serial line comes back over a wire, a chain is counted in its order, an output is unplugged; by hand", () => {
  const list = asked(SIGNALS, lined(line("q", ["Q1"], "N20")));
  // three chips on both wires: one asks, two answer; the plug is left empty
  expect(only("bus", list)).toMatchObject([
    { name: "all answer on I2C1_SDA, I2C1_SCL", unit: "pieces", min: "2", max: "2", absent: ["J5"] },
  ]);
  expect(only("bus", list)[0]!.through).toEqual(["U1", "U2", "U3", "R7"]);
  expect(only("loop", list)).toMatchObject([
    { name: "MON_TXD comes back at MON_RXD", drives: ["J6.1"], reads: ["J6.2"], through: ["U1"] },
  ]);
  // U1 feeds D10 at 2, whose 4 feeds the next: the way round is known from who is fed
  expect(only("chain", list)).toMatchObject([
    { min: "3", max: "3", reads: ["D10.2", "D11.2", "D12.2"], through: ["D10", "D11", "D12"] },
  ]);
  expect(only("chain", list)[0]!.name).toBe("D10 to D12 light in their order");
  // the other way round where the last one is fed
  const back = SIGNALS.replace("DIN: U1.7 D10.2", "DIN: U1.7 D12.2")
    .replace("N1: D10.4 D11.2", "N1: D12.4 D11.2")
    .replace("N2: D11.4 D12.2", "N2: D11.4 D10.2");
  expect(only("chain", asked(back))[0]!.name).toBe("D12 to D10 light in their order");
  // those of a chain are not lit one by one
  expect(only("lamp", list)).toEqual([]);
  expect(only("unplugged", list)).toMatchObject([
    { name: "OUT stays off with J7 unplugged", reads: ["J2.1"], absent: ["J7"] },
  ]);
  // the same through a resistor in its control's way
  const over = SIGNALS.replace("GATE: R3.1 Q1.1 J7.1", "GATE: R3.1 Q1.1 R8.1\n  CTRL: R8.2 J7.1");
  const r8 = lined(line("q", ["Q1"], "N20"), line("r8", ["R8"], "100R"));
  expect(only("unplugged", asked(over, r8))).toHaveLength(1);
  expect(list.every(([, i]) => i.name.length <= 120 && i.expect.length <= 200)).toBe(true);
});

test("what only looks like a bus, a serial line or a chain is none", () => {
  // a word of a longer one, a pair of opposite signals, something else on the way, a ground in between
  const asWords = SIGNALS.replaceAll("SDA", "SDAT").replaceAll("SCL", "SCLT");
  expect(only("bus", asked(asWords))).toEqual([]);
  const opposite = SIGNALS.replace("MON_TXD", "USB_TXP").replace("MON_RXD", "USB_RXP");
  expect(only("loop", asked(opposite))).toEqual([]);
  const tapped = SIGNALS.replace("N1: D10.4 D11.2", "N1: D10.4 D11.2 R9.1");
  expect(only("chain", asked(tapped))).toEqual([]);
  expect(only("chain", asked(SIGNALS.replace("N2:", "GND:")))).toEqual([]);
  // resistors in a row pass nothing on
  const row = `${SIGNALS}\n  A: R10.2 R11.1\n  B: R11.2 R12.1\n  C: R12.2 R13.1`;
  const ohms = lined(line("row", ["R10", "R11", "R12", "R13"], "1k"));
  expect(only("chain", asked(row, ohms))).toHaveLength(1);
  // of another line, of two pins, or only two in a row
  const apart = [
    ...lined().filter((l) => l.id !== "d"),
    line("d", ["D10", "D11"], "RGB", "lamp"),
    line("e", ["D12"], "RGB", "lamp"),
  ];
  expect(only("chain", asked(SIGNALS, apart))).toEqual([]);
  // one chip alone answers nobody
  expect(only("bus", asked(SIGNALS.replaceAll(" U2.3 U3.3", ""), lined()))).toEqual([]);
});

test("outputs are watched while the supply sinks; a cell is held to what its parts draw at rest, and not where any is unknown", () => {
  const fed = `
    V33: BT1.1 U1.1 U2.1 U3.1
    GND: BT1.2 U1.2 U2.2 U3.2 R3.2 Q1.2
    GATE: R3.1 Q1.1 U1.9
    OUT: Q1.3 J2.1`;
  const lines = lined(line("q", ["Q1"], "N20"), line("bt", ["BT1"], "cell 220 mAh"));
  const list = asked(fed, lines);
  // 2 + 1 + 1 µA at rest, half as much again; 220 mAh / 0.004 mA / 24 h = 2,291.7 days
  expect(only("cell", list)).toMatchObject([{ name: "BT1 at rest", unit: "µA", max: "6" }]);
  expect(only("cell", list)[0]!.expect).toContain("220 mAh last 2291 days");
  expect(only("cell", asked(fed, lines.with(-1, line("bt", ["BT1"], "cell"))))[0]!.expect).toContain(
    "not known",
  );
  const inAh = lines.with(-1, line("bt", ["BT1"], "cell 0,22 Ah"));
  expect(only("cell", asked(fed, inAh))[0]!.expect).toContain("220 mAh last 2291 days");
  expect(only("cell", asked(fed, lines, { library: [part("TB-M48", 0.002, 25)] }))).toEqual([]);
  expect(only("unplugged", list)).toEqual([]);
  // a cell's volts are those its rail is called by
  expect(only("sinking", list)[0]!.expect).toMatch(/^turned down from 3.3 V /);
  const plugged = asked(fed.replace("BT1.1", "J1.1").replace("BT1.2", "J1.2"), lines, { meetings: [SUPPLY] });
  expect(only("sinking", plugged)).toMatchObject([{ drives: ["J1.1"], reads: ["J2.1"], through: ["Q1"] }]);
  expect(only("sinking", plugged)[0]!.expect).toMatch(/^turned down from 5 V /);
});

test("what the plan itself would refuse is not proposed", () => {
  const long = SIGNALS.replaceAll("I2C1", "N".repeat(60));
  expect(only("bus", asked(long))).toEqual([]);
  expect(only("chain", asked(long))).toHaveLength(1);
});

test("how many pins leave never with an item is what its coverage says once it is in the plan", () => {
  const lines = lined(line("q", ["Q1"], "N20"));
  const measure = madeMeasure({ nets: { count: 20, islands: wired(SIGNALS) } as never });
  const d = powered({ boards: [{ ...board, measure }], meetings: [], lines });
  const first = { ...startingItems(d)[0]!.item, id: "first" } as TestItem;
  for (const tests of [[], [first]]) {
    const plan = { ...d, assembly: { ...d.assembly, tests } };
    const never = (more: TestItem[]) =>
      coverageOf({ ...d, assembly: { ...d.assembly, tests: [...tests, ...more] } })!.cover.pins.never;
    const list = startingItems(plan);
    expect(list.length).toBeGreaterThan(3);
    for (const { item, gains } of list) expect(gains).toBe(never([]) - never([{ ...item, id: "x" }]));
  }
  expect(gainsOf(d, coverageOf(d)!, [{ ...first, reads: ["U99.1"] }])).toEqual([0]);
});
