import { expect, test } from "@jest/globals";
import { attributesOf } from "./attributes.ts";
import { compareParts, coversDielectric, readAmount } from "./compare.ts";
import type { PartFacts } from "./facts.ts";
import { PART_KINDS, type PartKind } from "./part.ts";
import { sampleOf } from "./sample.ts";

const ALL = "height at most, tempMax at least, tempMin at most";
// domain.md 3.6, class by class: what must be equal, equal or better, or is looked at; "!" where not knowing it is a reason to look
test.each<[PartKind, string]>([
  [
    "resistor",
    "value! same, tolerance at most, power at least, voltage at least, tempco at most, technology circuit",
  ],
  [
    "capacitor",
    "value! same, voltage at least, tolerance at most, dielectric! covers, esr circuit, ripple at least, life at least",
  ],
  ["inductor", "value! same, current at least, resistance at most, shield circuit"],
  ["bead", "value! within 0.25, current at least, resistance at most"],
  ["diode", "type! same, pinout! same, voltage at least, current at least, drop at most, leakage at most"],
  [
    "lamp",
    "colour! same, pinout! same, drop circuit, current at least, brightness circuit, angle within 0.2",
  ],
  [
    "transistor",
    "type! same, pinout! same, voltage at least, current at least, threshold! at most, gain circuit, resistance at most",
  ],
  [
    "regulator",
    "output! same, pinout! same, voltage at least, current at least, drop at most, quiescent at most, stable! circuit, default circuit",
  ],
  [
    "chip",
    "function! same, pinout! same, supplyMin! at most, supplyMax! at least, drive! circuit, default! circuit, gain circuit, code circuit",
  ],
  ["crystal", "value! same, load! same, tolerance at most, esr at most"],
  [
    "connector",
    "family! same, pins! same, pitch! same, gender! same, orientation! same, current at least, keying circuit",
  ],
  ["fuse", "value! same, type! same, voltage at least, breaking! at least"],
  ["switch", "action! same, pinout! same, coil same, current at least, voltage at least, travel circuit"],
  ["other", ""],
])("what of a %s must match: %s", (kind, table) => {
  const words = attributesOf(kind).map(
    (a) => `${a.key}${a.isVital ? "!" : ""} ${a.rule}${a.share === undefined ? "" : ` ${a.share}`}`,
  );
  expect(words.join(", ")).toBe([table, ALL].filter(Boolean).join(", "));
});

const facts = (kind: PartKind, params: Record<string, string>, pkg = "0603"): PartFacts => ({
  mpn: "",
  maker: "",
  kind,
  package: pkg,
  params,
});
const standing = (kind: PartKind, key: string, original: string, candidate: string) =>
  compareParts(facts(kind, { [key]: original }), facts(kind, { [key]: candidate })).rows.find(
    (r) => r.key === key,
  );

test.each<[PartKind, string, string, string, string]>([
  // at the edge of a share: 25 % of 100 Ω, 20 % of 100°
  ["bead", "value", "100 Ω", "125 Ω", "same"],
  ["bead", "value", "100 Ω", "75 Ω", "same"],
  ["bead", "value", "100 Ω", "126 Ω", "different"],
  ["lamp", "angle", "100°", "120°", "same"],
  ["lamp", "angle", "100°", "121°", "different"],
  ["resistor", "power", "0.1 W", "0.25 W", "better"],
  ["resistor", "power", "0.25 W", "0.1 W", "worse"],
  ["resistor", "power", "1/4 W", "250 mW", "same"],
  ["resistor", "tolerance", "1 %", "0.1 %", "better"],
  ["resistor", "tolerance", "1 %", "5 %", "worse"],
  ["resistor", "technology", "thin film", "Thin  Film", "same"],
  ["resistor", "technology", "thin film", "thick film", "different"],
  ["resistor", "value", "10k", "10 kΩ", "same"],
  ["resistor", "value", "10k", "10.1k", "different"],
  ["capacitor", "dielectric", "X5R", "X7R", "better"],
  ["capacitor", "dielectric", "X7R", "X5R", "worse"],
  ["capacitor", "dielectric", "X7R", "film", "different"],
  ["crystal", "load", "12 pF", "18 pF", "different"],
])("a %s whose %s is %s, and %s instead: %s", (kind, key, original, candidate, is) => {
  expect(standing(kind, key, original, candidate)?.standing).toBe(is);
});

test("what neither states is left out unless it is vital; what only the candidate states is not asked", () => {
  const keys = (a: object, b: object) =>
    compareParts(facts("capacitor", a as never), facts("capacitor", b as never)).rows.map(
      (r) => `${r.key} ${r.standing}`,
    );
  expect(keys({}, {})).toEqual(["package same", "value unknown", "dielectric unknown"]);
  expect(keys({ value: "1u" }, { value: "1u", voltage: "16 V" })).toEqual([
    "package same",
    "value same",
    "dielectric unknown",
  ]);
  expect(keys({ voltage: "16 V" }, {})).toContain("voltage unknown");
});

test("a consequence is told where something is worse, other, or vital and not known; else not", () => {
  const said = (kind: PartKind, key: string, o: string, c: string) =>
    standing(kind, key, o, c)?.consequence !== undefined;
  expect(said("resistor", "tolerance", "1 %", "5 %")).toBe(true);
  expect(said("resistor", "tolerance", "1 %", "0.1 %")).toBe(false);
  expect(said("resistor", "tolerance", "1 %", "")).toBe(false);
  expect(said("capacitor", "dielectric", "X7R", "")).toBe(true);
  expect(said("capacitor", "dielectric", "X7R", "X7R")).toBe(false);
});

test("another class, another package: forbidden; a class nobody knows is looked at", () => {
  const of = (a: PartFacts, b: PartFacts) => compareParts(a, b).verdict;
  const r = facts("resistor", { value: "1k" });
  expect(of(r, facts("resistor", { value: "1k" }))).toBe("equal");
  expect(of(r, facts("resistor", { value: "1k" }, "0805"))).toBe("forbidden");
  expect(of(r, facts("inductor", { value: "1k" }))).toBe("forbidden");
  expect(of(r, facts("other", { value: "1k" }))).toBe("look");
  expect(of(facts("other", {}), facts("resistor", {}))).toBe("equal");
  expect(of(r, facts("resistor", { value: "1k" }, ""))).toBe("look");
  expect(
    of(
      facts("resistor", { value: "1k", power: "0.1 W" }),
      facts("resistor", { value: "1k", power: "0.05 W" }),
    ),
  ).toBe("look");
  expect(PART_KINDS).toContain("other");
});

// letters of class-2 ceramics (domain.md 3.6): one step colder, warmer, or narrower each
test.each([
  ["X7R", "Y7R", true],
  ["Y7R", "X7R", false],
  ["Y7R", "Z7R", true],
  ["Z7R", "Y7R", false],
  ["X5R", "X4R", true],
  ["X4R", "X5R", false],
  ["X6R", "X5R", true],
  ["X7R", "X6R", true],
  ["X6R", "X7R", false],
  ["X8R", "X7R", true],
  ["X9R", "X8R", true],
  ["X8R", "X9R", false],
  ["X7P", "X7R", true],
  ["X7R", "X7P", false],
  ["X7R", "X7S", true],
  ["X7S", "X7R", false],
  ["X7S", "X7T", true],
  ["X7T", "X7U", true],
  ["X7U", "X7T", false],
  ["X7U", "X7V", true],
  ["X7V", "X7U", false],
  ["C0G", "X7P", true],
  ["C0G", "X8P", false],
  ["X7P", "C0G", false],
  ["np0", "c0g", true],
])("%s may stand for %s: %s", (candidate, original, is) => {
  expect(coversDielectric(candidate, original)).toBe(is);
});

test.each([
  ["1 fF", 1e-15],
  ["1 pF", 1e-12],
  ["1 nF", 1e-9],
  ["1 µF", 1e-6],
  ["1 μF", 1e-6],
  ["1uF", 1e-6],
  ["1 mA", 1e-3],
  ["1 kHz", 1e3],
  ["1K", 1e3],
  ["1 MHz", 1e6],
  ["1 GHz", 1e9],
  ["10 mm", 0.01],
  ["10 m", 0.01],
  ["≤ 5 V", 5],
])("%s is %s", (text, n) => {
  expect(readAmount(text)! / n).toBeCloseTo(1, 12);
});

test("a reading at a limit is within it; one beyond on either side holds the lot", () => {
  const lot = (readings: string[]) =>
    sampleOf({ parameter: "V", on: "2026-11-27", low: "1 V", high: "2 V", readings })!;
  expect(lot(["1 V", "2 V"]).outside).toBe(0);
  expect([lot(["0.999 V"]).verdict, lot(["2.001 V"]).verdict]).toEqual(["hold", "hold"]);
  expect(lot(["1 V", "2 V"]).verdict).toBe("few");
  expect(lot(["1 V", "2 V"]).spread).toBeCloseTo(Math.SQRT1_2, 12);
  expect(lot(["1.5 V"]).spread).toBe(0);
});
