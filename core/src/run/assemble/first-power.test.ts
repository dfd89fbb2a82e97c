import { expect, test } from "@jest/globals";
import type { LibraryPart } from "../../library/part.ts";
import type { RunAssembly, RunDocument } from "../document/document.ts";
import { DEFAULT_ASSEMBLY } from "../document/document.ts";
import { madeLine, madeMeasure, madeRun } from "../made-up.fixture.ts";
import { firstPowerItems, firstPowerOf } from "./first-power.ts";

/** "VIN: J1.1 F1.1" a line. */
const wired = (text: string) =>
  text
    .trim()
    .split("\n")
    .map((line, net) => {
      const [name, pins] = line.trim().split(": ") as [string, string];
      return { net, name, pads: pins.split(" ").map((pin, i) => ({ layer: "top", x: i, y: net, pin })) };
    });
// a supply of 5 V over a fuse, a diode and a bead to a regulator; the chip lights one lamp from its rail, one to ground
const ISLANDS = wired(`
  VIN: J1.1 F1.1 R20.1
  VF: F1.2 D1.2
  V5F: D1.1 L1.1 C22.1
  V5: L1.2 U4.3 C1.1 J2.5
  V33: U4.2 U1.1 D2.2 R5.2
  GND: J1.2 U4.1 U1.2 C1.2 C22.2 R21.2 D3.1 J2.6
  LED1K: D2.1 R9.1
  LED1: R9.2 U1.3
  NRST: R5.1 U1.4
  VSENSE: R20.2 R21.1 U1.5
  OUT: U1.6 R10.1
  OUTA: R10.2 D3.2
  BUS: U1.7 J2.1`);
const line = (id: string, refs: string[], valueText: string, description = "", mpn = "") =>
  madeLine(id, refs, { valueText, description, mpn });
const LINES = [
  line("u1", ["U1"], "M48", "microcontroller", "TB-M48"),
  line("u4", ["U4"], "LV33", "regulator 3.3 V", "TB-LV33"),
  line("d2", ["D2"], "green", "LED, pin 1 cathode"),
  line("d3", ["D3"], "red", "LED"),
  line("r9", ["R9", "R10"], "330R"),
  line("r5", ["R5"], "10k"),
  line("r20", ["R20"], "100k"),
  line("r21", ["R21"], "10k"),
  line("j2", ["J2"], "bus"),
];
const part = (mpn: string, restMa?: number, mostMa?: number) =>
  ({
    id: mpn,
    mpn,
    maker: "",
    description: "",
    kind: "chip",
    package: "",
    params: {},
    direction: "",
    moisture: "",
    ...(restMa === undefined ? {} : { restMa }),
    ...(mostMa === undefined ? {} : { mostMa }),
  }) as never as LibraryPart;
const SUPPLY = {
  id: "m",
  ref: "J1",
  other: "wall supply",
  ours: [
    { pin: "1", kind: "input", takesV: [4.5, 5.5] },
    { pin: "2", kind: "ground" },
  ],
  theirs: [
    { pin: "1", kind: "supply", volts: 5 },
    { pin: "2", kind: "ground" },
  ],
  stopped: [],
  stopBy: "",
};
const made = ({
  library = [part("TB-M48", 8, 25), part("TB-LV33", 1, 1)],
  assembly = {},
  ...more
}: Partial<Omit<RunDocument, "assembly">> & { readonly assembly?: Partial<RunAssembly> } = {}): RunDocument =>
  madeRun({
    boards: [
      {
        id: "b",
        name: "Main",
        perProduct: 1,
        measure: madeMeasure({ nets: { count: 13, islands: ISLANDS } as never }),
      },
    ],
    lines: LINES,
    meetings: [SUPPLY] as never,
    library,
    assembly: { ...DEFAULT_ASSEMBLY, ...assembly },
    ...more,
  });
const rail = (doc: RunDocument, name: string) => firstPowerOf(doc, 0)!.rails.find((r) => r.name === name)!;

test("currents of each rail, what a meter shows before power and where to stop; by hand", () => {
  const doc = made();
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
  const doc = made({ library: [part("TB-LV33", 1, 1)] });
  expect(rail(doc, "V33")).toMatchObject({ restMa: 0, limitMa: 20, unknown: ["U1"] });
  expect(rail(doc, "VIN")).toMatchObject({ restMa: 1.05, limitMa: 25, unknown: ["U1"] });
  const full = (d: RunDocument) => firstPowerItems(firstPowerOf(d, 0)!).find((i) => i.name === "VIN at 5 V")!;
  expect(full(doc)).toMatchObject({ max: "25", unit: "mA" });
  expect(full(doc).min).toBeUndefined();
  expect(full(doc).because).toMatch(/of U1 nothing is known/);
  // known whole: less than half of it says that something does not draw
  expect(full(made())).toMatchObject({ min: "4.525", max: "20" });
  // at rest it is only taken to be so
  const most = made({ library: [part("TB-M48", undefined, 25), part("TB-LV33", 1, 1)] });
  expect(rail(most, "V33")).toMatchObject({ restMa: 25, limitMa: 40 });
  expect(full(most).min).toBeUndefined();
  // without what feeds it no volts are claimed for it
  const unfed = made({ meetings: [] });
  expect(rail(unfed, "VIN").volts).toBeUndefined();
  expect(rail(unfed, "VIN").unknown).toEqual(["VIN"]);
});

test("what is read becomes items of the plan: bare, then in stages, then each rail", () => {
  const items = firstPowerItems(firstPowerOf(made(), 0)!);
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
  expect(firstPowerOf(made(), 0)).toMatchObject({ hazards: [], isHeld: false });
  const relays = made({ lines: [...LINES.slice(0, -1), line("j2", ["J2"], "bus and relays")] });
  expect(firstPowerOf(relays, 0)).toMatchObject({
    hazards: [{ kind: "isolation", because: "J2: bus and relays" }],
    isHeld: true,
  });
  const named = { ...relays, assembly: { ...relays.assembly, competent: "Mira Odell" } };
  expect(firstPowerOf(named, 0)!.isHeld).toBe(false);
  const high = made({
    meetings: [{ ...SUPPLY, theirs: [{ pin: "1", kind: "supply", volts: 230 }, SUPPLY.theirs[1]] }] as never,
  });
  expect(firstPowerOf(high, 0)!.hazards[0]).toMatchObject({ kind: "mains", because: "VIN of 230 V" });
  // a cell wants care, nobody's name
  const cell = made({
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
    firstPowerOf(made({ boards: [{ id: "b", name: "Main", perProduct: 1, measure: madeMeasure() }] }), 0),
  ).toBeUndefined();
});
