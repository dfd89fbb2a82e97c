import { expect, test } from "@jest/globals";
import { ruleLines } from "../run/document/bill/rule-lines.ts";
import { madeLine, madeMeasure, madeOffer, madeRun } from "../run/made-up.fixture.ts";
import { rollUp } from "../run/roll-up.ts";
import type { LibraryPart } from "./part.ts";
import { ruleOf } from "./rules.ts";

const line = (ref: string, valueText: string, pkg = "", description = "") =>
  madeLine("l", [ref], { valueText, package: pkg, description, mpn: "" });

// how people write such lines, what they say by that, and what is assumed beside it; worked by hand
test.each<readonly [ref: string, value: string, pkg: string, said: object, assumed: object]>([
  ["R1", "10k", "0603", { value: "10 kΩ" }, { tolerance: "1 %" }],
  ["R1", "10k 5%", "R_0603", { value: "10 kΩ", tolerance: "5 %" }, {}],
  ["R1", "10k 0603 1%", "", { value: "10 kΩ", tolerance: "1 %" }, {}],
  ["R1", "0R", "0603", { value: "0 Ω" }, {}],
  ["R1", "4k7/0805", "", { value: "4.7 kΩ" }, { tolerance: "1 %" }],
  ["C1", "100n", "0603", { value: "100 nF" }, { voltage: "16 V", tolerance: "20 %", dielectric: "X5R" }],
  ["C1", "100n 50V X7R", "0603", { voltage: "50 V", dielectric: "X7R" }, { tolerance: "20 %" }],
  ["C1", "10u 6V3", "0805", { voltage: "6.3 V" }, { tolerance: "20 %", dielectric: "X5R" }],
  // small ones are the steady kind
  ["C1", "22p", "0402", { value: "22 pF" }, { voltage: "16 V", tolerance: "20 %", dielectric: "C0G" }],
  ["C1", "1n", "0603", { value: "1 nF" }, { voltage: "16 V", tolerance: "20 %", dielectric: "C0G" }],
  ["C1", "22p NP0", "0402", { dielectric: "C0G" }, { voltage: "16 V", tolerance: "20 %" }],
  ["LED1", "green", "0603", { colour: "green" }, { pinout: "1 cathode, 2 anode" }],
  ["D1", "LED red", "LED_0603", { colour: "red" }, { pinout: "1 cathode, 2 anode" }],
  [
    "J1",
    "1x4 header 2.54",
    "",
    { pins: "4", pitch: "2.54 mm", gender: "pins" },
    { family: "pin row", orientation: "upright" },
  ],
  [
    "J1",
    "1 × 4 header 2,54",
    "",
    { pins: "4", pitch: "2.54 mm" },
    { family: "pin row", orientation: "upright" },
  ],
  [
    "J1",
    "Conn_01x04",
    "PinHeader_1x04_P2.54mm_Vertical",
    { pins: "4", pitch: "2.54 mm", orientation: "upright" },
    { family: "pin row" },
  ],
  [
    "J1",
    "Conn_02x05_Female",
    "",
    { pins: "10", gender: "socket" },
    { pitch: "2.54 mm", family: "pin row", orientation: "upright" },
  ],
  [
    "J1",
    "",
    "HDR-1x6",
    { pins: "6", gender: "pins" },
    { pitch: "2.54 mm", family: "pin row", orientation: "upright" },
  ],
  [
    "J1",
    "1x3 right angle 2mm",
    "",
    { pins: "3", pitch: "2 mm", orientation: "lying" },
    { family: "pin row", gender: "pins" },
  ],
])("%s “%s” %s says %j, and %j is assumed", (ref, value, pkg, said, assumed) => {
  const rule = ruleOf(line(ref, value, pkg));
  expect(rule).toMatchObject({ facts: { params: said }, assumed, isConfirmed: false });
  expect("facts" in rule && rule.facts.params).toMatchObject({ ...assumed, ...said });
});

test.each([
  ["a value without a size", "R1", "10k", "", "no package"],
  ["a value that can be read two ways", "R1", "1m", "0603", "cannot be read"],
  ["a lamp of no colour", "LED1", "LED", "0603", "which colour"],
  ["a lamp of two colours", "LED1", "red/green", "0603", "which colour"],
  ["an electrolytic one", "C1", "100u electrolytic", "0805", "ceramic"],
  ["a can", "C1", "10u", "CP_Radial_D5.0mm", "ceramic"],
  ["more than a ceramic holds", "C1", "220u", "1206", "ceramic"],
  ["a connector of no rows", "J1", "DC jack", "JACK", "how many pins"],
  ["a chip", "U1", "timer", "SOIC-8", "name a part"],
  ["a transistor", "Q1", "N-FET", "SOT-23", "name a part"],
])("%s says too little", (_, ref, value, pkg, why) => {
  expect(ruleOf(line(ref, value, pkg))).toEqual({ tooLittle: expect.stringContaining(why) });
});

test("a row of pins that stands in the words becomes its package; nothing else gets one made up", () => {
  const packageOf = (ref: string, value: string, pkg: string) => {
    const rule = ruleOf(line(ref, value, pkg));
    return "facts" in rule ? rule.facts.package : rule.tooLittle;
  };
  expect(packageOf("J1", "2x5 header 2.54mm", "")).toBe("HDR-2x5");
  expect(packageOf("J1", "header", "HDR-1x6")).toBe("HDR-1x6");
  expect(packageOf("R1", "10k 0603", "")).toBe("0603");
});

test("what a shop confirmed takes the place of what is usual, not of what a line says, nor of the steady small ones", () => {
  const rules = {
    resistor: { tolerance: "5 %" },
    capacitor: { voltage: "25 V", dielectric: "X7R", tolerance: "" },
  };
  expect(ruleOf(line("R1", "10k", "0603"), rules)).toMatchObject({
    assumed: { tolerance: "5 %" },
    isConfirmed: true,
  });
  expect(ruleOf(line("R1", "10k 1%", "0603"), rules)).toMatchObject({
    assumed: {},
    facts: { params: { tolerance: "1 %" } },
  });
  expect(ruleOf(line("C1", "100n", "0603"), rules)).toMatchObject({
    assumed: { voltage: "25 V", dielectric: "X7R" },
  });
  const small = ruleOf(line("C1", "22p", "0603"), rules);
  expect("assumed" in small && small.assumed).toEqual({ voltage: "25 V", dielectric: "C0G" });
  expect(ruleOf(line("J1", "1x4"), rules)).toMatchObject({ isConfirmed: false });
});

const found = (id: string, params: Record<string, string>, more: Partial<LibraryPart> = {}): LibraryPart => ({
  id,
  mpn: id,
  maker: "Oxbow",
  description: "",
  kind: "resistor",
  package: "0603",
  params: { value: "10 kΩ", ...params },
  direction: "",
  moisture: "",
  state: "active",
  sheet: "",
  measured: "",
  tried: "",
  found: true,
  ...more,
});
const PARTS = [
  found("fine", { tolerance: "1 %" }),
  found("better", { tolerance: "0.1 %" }),
  found("worse", { tolerance: "5 %" }),
  found("unsaid", {}),
  found("other", { tolerance: "1 %", value: "12 kΩ" }),
  found("larger", { tolerance: "1 %" }, { package: "0805" }),
];
/** Prices that tempt: the cheapest is what is not known to do. */
const PRICES = { fine: "0.05", better: "0.20", worse: "0.04", unsaid: "0.01", other: "0.01", larger: "0.01" };
const run = (valueText: string, rules?: object, parts: readonly LibraryPart[] = PARTS) => {
  const base = madeRun({});
  return madeRun({
    ...(rules ? { workshop: { ...base.workshop, rules } } : {}),
    boards: [{ id: "b", name: "B", perProduct: 1, measure: madeMeasure() }],
    lines: [madeLine("l", ["R1"], { valueText, mpn: "" })],
    library: parts,
    offers: parts.map((p) => madeOffer(`o-${p.id}`, "l", PRICES[p.id as "fine"], { part: p.id })),
  });
};
const bought = (doc: ReturnType<typeof run>) => rollUp(doc).basket.lines[0]!.buys.map((b) => b.offer);

test("nothing that suppliers found counts before its class is confirmed; then the cheapest that is known to do", () => {
  expect(bought(run("10k"))).toEqual([]);
  expect(rollUp(run("10k")).blockers.map((n) => n.key)).toContain("lines-uncovered");
  expect(bought(run("10k", { resistor: { tolerance: "1 %" } }))).toEqual(["o-fine"]);
  expect(bought(run("10k 0.1%", { resistor: { tolerance: "1 %" } }))).toEqual(["o-better"]);
  expect(bought(run("10k", { resistor: { tolerance: "5 %" } }))).toEqual(["o-worse"]);
  // another class's rule is none of this one's
  expect(bought(run("10k", { capacitor: {} }))).toEqual([]);
  // nothing is asked of the tolerance: what nobody stated is no matter then
  expect(bought(run("10k", { resistor: { tolerance: "" } }))).toEqual(["o-unsaid"]);
});

test("a part of the shop's own library counts without a rule, but not against one", () => {
  const own = PARTS.filter((p) => p.id === "worse").map(({ found: _, ...p }) => p);
  expect(bought(run("10k", undefined, own))).toEqual(["o-worse"]);
  expect(bought(run("10k", { resistor: { tolerance: "1 %" } }, own))).toEqual([]);
});

test("lines are asked class by class, and those that say too little are told", () => {
  const doc = madeRun({
    lines: [
      line("R1", "10k", "0603"),
      line("R2", "22k", "0603"),
      line("C1", "100n", "0603"),
      line("U1", "timer", "SOIC-8"),
      madeLine("n", ["R9"], { mpn: "OX-1" }),
      { ...line("R3", "1k", "0603"), dnp: true },
    ].map((l, i) => ({ ...l, id: `${i}` })),
  });
  const { classes, tooLittle } = ruleLines(doc);
  expect(classes.map((c) => [c.kind, c.lines.map((l) => l.line.refs[0])])).toEqual([
    ["resistor", ["R1", "R2"]],
    ["capacitor", ["C1"]],
  ]);
  expect(tooLittle.map((t) => t.line.refs[0])).toEqual(["U1"]);
  expect(rollUp(doc).notes.find((n) => n.key === "rule-too-little")?.text).toContain("U1");
});
