import { expect, test } from "@jest/globals";
import type { RunDocument } from "../../document/document.ts";
import { madeMeasure } from "../../made-up.fixture.ts";
import { firstPowerItems, firstPowerOf } from "./first-power.ts";
import { LINES, line, part, powered, SUPPLY, wired } from "./powered.fixture.ts";

const rail = (doc: RunDocument, name: string) => firstPowerOf(doc, 0)!.rails.find((r) => r.name === name)!;

test("currents of each rail, what a meter shows before power and where to stop; by hand", () => {
  const doc = powered();
  // U1 8 to 25 mA; D2 (3.3 − 2) / 330 = 3.94 mA from the rail, D3 (3.3 − 1.9) / 330 = 4.24 mA out of U1, both only lit;
  // R5 3.3 / 10k = 0.33 mA while its signal is low
  expect(rail(doc, "V33")).toMatchObject({
    restMa: 8,
    mostMa: 33.5,
    limitMa: 20,
    leastOhm: 165,
    unknown: [],
  });
  expect(rail(doc, "V33").mostOhm).toBeUndefined();
  // U4 takes 1 mA for itself and passes what comes out of it
  expect(rail(doc, "V5")).toMatchObject({
    volts: 5,
    isByName: true,
    restMa: 9,
    mostMa: 34.5,
    limitMa: 20,
    leastOhm: 250,
  });
  // the divider: 5 V / 110 kΩ = 0.0455 mA, and 110 kΩ with a tenth for resistors and meter
  expect(rail(doc, "VIN")).toMatchObject({
    volts: 5,
    isByName: false,
    restMa: 9.05,
    limitMa: 20,
    leastOhm: 250,
    mostOhm: 121000,
  });
  const card = firstPowerOf(doc, 0)!;
  expect(card.rails.map((r) => [r.name, r.over?.ref, r.over?.from])).toEqual([
    ["VIN", undefined, undefined],
    ["V5", "D1", 0],
    ["V33", "U4", 1],
  ]);
  // a volt: 20 mA × 1 V / 5 V; then half, then all of it
  expect(card.inputs).toMatchObject([
    {
      rail: 0,
      stages: [
        { volts: 1, stopMa: 4 },
        { volts: 2.5, stopMa: 20 },
        { volts: 5, stopMa: 20 },
      ],
    },
  ]);
  expect(card.unplug).toEqual([{ ref: "J2", what: "bus" }]);
  expect([card.reads[0], card.reads[2], card.ground]).toEqual(["J1.1", "D2.2", "J1.2"]);
  expect(card.assumed).toHaveLength(2);
});

test("a part without a figure is named, what is known is a start, and no least current is claimed", () => {
  const doc = powered({ library: [part("TB-LV33", 1, 1)] });
  expect(rail(doc, "V33")).toMatchObject({ restMa: 0, limitMa: 20, unknown: ["U1"] });
  expect(rail(doc, "VIN")).toMatchObject({ restMa: 1.05, limitMa: 25, unknown: ["U1"] });
  const full = (d: RunDocument) => firstPowerItems(firstPowerOf(d, 0)!).find((i) => i.name === "VIN at 5 V")!;
  expect(full(doc)).toMatchObject({ max: "25", unit: "mA" });
  expect(full(doc).min).toBeUndefined();
  expect(full(doc).because).toMatch(/nothing is known of U1/);
  // known whole: less than half of it says that something does not draw
  expect(full(powered())).toMatchObject({ min: "4.525", max: "20" });
  // at rest it is only taken to be so
  const most = powered({ library: [part("TB-M48", undefined, 25), part("TB-LV33", 1, 1)] });
  expect(rail(most, "V33")).toMatchObject({ restMa: 25, limitMa: 40 });
  expect(full(most).min).toBeUndefined();
  // without what feeds it no volts are claimed for it
  const unfed = powered({ meetings: [] });
  expect(rail(unfed, "VIN").volts).toBeUndefined();
  expect(rail(unfed, "VIN").unknown).toEqual(["VIN"]);
});

test("what is read becomes items of the plan: bare, then in stages, then each rail", () => {
  const items = firstPowerItems(firstPowerOf(powered(), 0)!);
  expect(
    items.map(
      (i) => `${i.state} ${i.name}: ${i.min ?? ""} to ${i.max ?? ""} ${i.unit} at ${i.reads.join(" ")}`,
    ),
  ).toEqual([
    "bare VIN to ground: 250 to 121000 Ω at J1.1 J1.2",
    "bare V5 to ground: 250 to  Ω at J2.5 J1.2",
    "bare V33 to ground: 165 to  Ω at D2.2 J1.2",
    "powered VIN at 1 V:  to 4 mA at J1.1",
    "powered VIN at 2.5 V:  to 20 mA at J1.1",
    "powered VIN at 5 V: 4.525 to 20 mA at J1.1",
    "powered V5 volts: 4.75 to 5.25 V at J2.5",
    "powered V33 volts: 3.135 to 3.465 V at D2.2",
  ]);
  expect(items.at(-1)!.through).toEqual(["F1", "D1", "L1", "U4"]);
  expect(items.every((i) => i.absent?.join() === "J2")).toBe(true);
});

test("what can hurt holds the card until somebody competent is named", () => {
  expect(firstPowerOf(powered(), 0)).toMatchObject({ hazards: [], isHeld: false });
  const relays = powered({ lines: [...LINES.slice(0, -1), line("j2", ["J2"], "bus and relays")] });
  expect(firstPowerOf(relays, 0)).toMatchObject({
    hazards: [{ kind: "isolation", because: "J2: bus and relays" }],
    isHeld: true,
  });
  const named = { ...relays, assembly: { ...relays.assembly, competent: "Mira Odell" } };
  expect(firstPowerOf(named, 0)!.isHeld).toBe(false);
  const high = powered({
    meetings: [{ ...SUPPLY, theirs: [{ pin: "1", kind: "supply", volts: 230 }, SUPPLY.theirs[1]] }] as never,
  });
  expect(firstPowerOf(high, 0)!.hazards[0]).toMatchObject({ kind: "mains", because: "VIN of 230 V" });
  // a cell wants care, nobody's name
  const cell = powered({
    boards: [
      {
        id: "b",
        name: "Main",
        perProduct: 1,
        measure: madeMeasure({
          nets: { count: 2, islands: wired("VBAT: BT1.1 U1.1\nGND: BT1.2 U1.2") } as never,
        }),
      },
    ],
    meetings: [],
  });
  expect(firstPowerOf(cell, 0)).toMatchObject({ hazards: [{ kind: "cell" }], isHeld: false });
  expect(
    firstPowerOf(powered({ boards: [{ id: "b", name: "Main", perProduct: 1, measure: madeMeasure() }] }), 0),
  ).toBeUndefined();
});

test("a rail below ground draws as one above; what two feed is counted once, and that is said", () => {
  const below = powered({
    meetings: [{ ...SUPPLY, theirs: [{ pin: "1", kind: "supply", volts: -12 }, SUPPLY.theirs[1]] }] as never,
  });
  // 12 V / 110 kΩ = 0.109 mA on top of 9; the limit as before: least ohms 12 V / 20 mA
  expect(rail(below, "VIN")).toMatchObject({ volts: -12, restMa: 9.11, limitMa: 20, leastOhm: 600 });
  expect(firstPowerOf(below, 0)!.inputs[0]!.stages.map((s) => [s.volts, s.stopMa])).toEqual([
    [-1, 1.7],
    [-6, 20],
    [-12, 20],
  ]);
  const board = (text: string) => [
    {
      id: "b",
      name: "Main",
      perProduct: 1,
      measure: madeMeasure({ nets: { count: 9, islands: wired(text) } as never }),
    },
  ];
  const two = powered({
    boards: board(`
      VIN: J1.1 D1.2
      VBUS: J3.1 D2.2
      V5: D1.1 D2.1 U1.1
      GND: J1.2 J3.2 U1.2`),
    meetings: [SUPPLY, { ...SUPPLY, id: "n", ref: "J3", other: "cable" }] as never,
    lines: LINES.filter((l) => l.refs[0] === "U1"),
  });
  const card = firstPowerOf(two, 0)!;
  expect(card.rails.map((r) => [r.name, r.restMa])).toEqual([
    ["VIN", 8],
    ["VBUS", 0],
    ["V5", 8],
  ]);
  expect(card.assumed.join()).toMatch(/fed over D2 as well draws from the first/);
});

test("of rails nobody feeds the one with more volts comes first; where nothing draws no least current is claimed", () => {
  const board = (text: string) => [
    {
      id: "b",
      name: "Main",
      perProduct: 1,
      measure: madeMeasure({ nets: { count: 9, islands: wired(text) } as never }),
    },
  ];
  const two = powered({
    boards: board("V33: U1.1 C1.1\nV12: U4.1 C2.1\nGND: U1.2 U4.2 C1.2 C2.2"),
    meetings: [],
    lines: LINES.filter((l) => ["U1", "U4"].includes(l.refs[0]!)),
  });
  expect(firstPowerOf(two, 0)!.rails.map((r) => r.name)).toEqual(["V12", "V33"]);
  const quiet = powered({ boards: board("V5: J1.1 C1.1\nGND: J1.2 C1.2"), lines: [], library: [] });
  const [full] = firstPowerItems(firstPowerOf(quiet, 0)!).filter((i) => i.name === "V5 at 5 V");
  expect(full).toMatchObject({ max: "10" });
  expect(full!.min).toBeUndefined();
});

test("a lamp that shares its net with something else is not guessed at, and is named", () => {
  const measure = madeMeasure({
    nets: {
      count: 4,
      islands: wired("V5: J1.1 U1.1\nGND: J1.2 U1.2 D3.1\nOUT: U1.3 R10.1\nOUTA: R10.2 D3.2 U1.4"),
    } as never,
  });
  const lamp = powered({ boards: [{ id: "b", name: "Main", perProduct: 1, measure }] });
  expect(rail(lamp, "V5")).toMatchObject({ restMa: 8, mostMa: 25, unknown: ["D3"] });
});

test("boards that call a rail alike keep their own items; a part that switches or moves is told by its letters", () => {
  const measure = (text: string) => madeMeasure({ nets: { count: 9, islands: wired(text) } as never });
  const two = powered({
    boards: [
      { id: "b", name: "Base", perProduct: 1, measure: measure("V5: J1.1 U1.1\nGND: J1.2 U1.2") },
      {
        id: "c",
        name: "Head",
        perProduct: 1,
        measure: measure("V5: J7.1 U4.1 J8.1\nGND: J7.2 U4.2\nSIG: J8.2"),
      },
    ],
    lines: [
      { ...line("u1", ["U1"], "M48"), board: "b" },
      { ...line("k", ["K1"], "AZ8"), board: "c" },
    ],
    meetings: [{ ...SUPPLY, board: "Base" }] as never,
  });
  const [base, head] = [firstPowerOf(two, 0)!, firstPowerOf(two, 1)!];
  const names = [base, head].flatMap((c) => firstPowerItems(c).map((i) => i.name));
  expect(new Set(names).size).toBe(names.length);
  expect(names).toContain("V5 of Head to ground");
  // the supply goes onto the first pin of V5, on J7: only the other connector stays empty
  expect(head.reads[head.inputs[0]!.rail]).toBe("J7 of Head.1");
  expect(firstPowerItems(head)[0]!.absent).toEqual(["J8 of Head"]);
  // nobody says what feeds the second: that is known of the first alone
  expect([base.rails[0]!.isFed, head.rails[0]!.isFed]).toEqual([true, false]);
  expect(base.hazards).toEqual([]);
  expect(head.hazards.map((h) => [h.kind, h.because])).toEqual([["isolation", "K1"]]);
});

test("links stand as they are set for the version that is made; what nobody said is told, what hurts is no item", () => {
  const doc = (set: string, variant?: string) =>
    powered({
      boards: [
        {
          id: "b",
          name: "Main",
          perProduct: 1,
          measure: madeMeasure({
            nets: {
              count: 5,
              islands: wired(`
                V5: J1.1 JP1.1 U1.1
                DA: JP1.2 J3.1 JP2.1
                GND: J1.2 JP1.3 U1.2 J3.2
                SIG: JP2.2 U1.3 SW1.1
                KEY: SW1.2 U1.4`),
            } as never,
          }),
        },
      ],
      lines: [],
      meetings: [SUPPLY] as never,
      links: [
        {
          id: "l",
          ref: "JP1",
          positions: [
            { name: "1–2", joins: ["1", "2"], does: "feeds the display" },
            { name: "2–3", joins: ["2", "3"], does: "holds it low" },
            { name: "1–3", joins: ["1", "3"], does: "nothing good" },
            { name: "open", does: "leaves it" },
          ],
          set,
          variants: { v2: "2–3" },
          isCap: false,
        },
      ] as never,
      choices: (variant ? { variant } : {}) as never,
    });
  const card = (set: string, variant?: string) => firstPowerOf(doc(set, variant), 0)!;
  expect(card("1–2").links).toEqual([
    { ref: "JP1", position: "1–2", joins: ["1", "2"], does: "feeds the display" },
    { ref: "JP2", does: "" },
  ]);
  expect(card("1–2", "v2").links[0]).toMatchObject({ position: "2–3", does: "holds it low" });
  expect(card("").links[0]).toEqual({
    ref: "JP1",
    does: "feeds the display, or holds it low, or nothing good, or leaves it",
  });
  expect(firstPowerItems(card("1–2"))[0]).toMatchObject({
    name: "JP1 in 1–2",
    state: "bare",
    drives: ["JP1.1"],
    reads: ["JP1.2"],
    max: "1",
    unit: "Ω",
  });
  expect(card("1–3").links[0]!.hurts).toBe("it puts V5 on GND");
  expect(firstPowerItems(card("1–3")).some((i) => i.name.startsWith("JP1"))).toBe(false);
  expect(firstPowerItems(card("open")).some((i) => i.name.startsWith("JP1"))).toBe(false);
});
