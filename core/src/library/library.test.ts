import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { candidatesFor } from "./candidates.ts";
import { compareParts, coversDielectric, readAmount } from "./compare.ts";
import type { FactLine } from "./fact-line.ts";
import { factsOfLine, lineKey, type PartFacts, ruleWords } from "./facts.ts";
import type { Alternate, LibraryPart } from "./part.ts";

const line = (more: Partial<FactLine>): FactLine => ({
  refs: ["R1"],
  valueText: "10k 1%",
  package: "0603",
  mpn: "",
  maker: "",
  description: "",
  ...more,
});
const part = (more: Partial<LibraryPart>): LibraryPart => ({
  id: more.mpn ?? "p",
  mpn: "OX-1",
  maker: "Oxbow",
  description: "",
  kind: "resistor",
  package: "R_0603",
  params: {},
  direction: "",
  moisture: "",
  state: "active",
  sheet: "",
  measured: "",
  tried: "",
  ...more,
});

test.each([
  ["4.7 kΩ", 4700],
  ["10k", 10_000],
  ["1/4 W", 0.25],
  ["0,1 W", 0.1],
  ["±1 %", 1],
  ["-40 °C", -40],
  ["3 mm", 0.003],
  ["100 nF", 1e-7],
  ["25 ppm/K", 25],
])("an amount is read as typed: %s", (text, n) => {
  expect(readAmount(text)).toBeCloseTo(n, 12);
});
test.each(["red", "5 min", "SOT-23", "", "push-pull"])("words are no amount: “%s”", (text) => {
  expect(readAmount(text)).toBeUndefined();
});

test("a ceramic covers another when range and change are no worse", () => {
  // domain.md 3.6: X7R replaces X5R; X6S does not; C0G replaces any
  expect(coversDielectric("X7R", "X5R")).toBe(true);
  expect(coversDielectric("X6S", "X5R")).toBe(false);
  expect(coversDielectric("X5R", "X7R")).toBe(false);
  expect(coversDielectric("NP0", "X7R")).toBe(true);
  expect(coversDielectric("?", "X7R")).toBeUndefined();
});

const facts = (kind: PartFacts["kind"], params: Record<string, string>, pkg = "SOT-23"): PartFacts => ({
  mpn: "",
  maker: "",
  kind,
  package: pkg,
  params,
});

test.each<[string, PartFacts, PartFacts, string, string | undefined]>([
  [
    "a tighter, stronger resistor is equal",
    facts("resistor", { value: "10 kΩ", tolerance: "1 %", power: "0.1 W" }),
    facts("resistor", { value: "10k", tolerance: "0.5 %", power: "1/8 W" }),
    "equal",
    undefined,
  ],
  [
    "a looser resistor needs a look",
    facts("resistor", { value: "10 kΩ", tolerance: "1 %" }),
    facts("resistor", { value: "10 kΩ", tolerance: "5 %" }),
    "look",
    "tolerance",
  ],
  [
    "another resistance is forbidden",
    facts("resistor", { value: "10 kΩ" }),
    facts("resistor", { value: "12 kΩ" }),
    "forbidden",
    "value",
  ],
  [
    "another package is forbidden whatever else matches",
    facts("resistor", { value: "10 kΩ" }, "0603"),
    facts("resistor", { value: "10 kΩ" }, "0805"),
    "forbidden",
    "package",
  ],
  [
    "a transistor with other pins is forbidden",
    facts("transistor", { type: "N", pinout: "G S D", threshold: "1 V" }),
    facts("transistor", { type: "N", pinout: "S G D", threshold: "1 V" }),
    "forbidden",
    "pinout",
  ],
  [
    "a transistor with another gain changes the circuit",
    facts("transistor", { type: "NPN", pinout: "B E C", threshold: "0.7 V", gain: "110" }),
    facts("transistor", { type: "NPN", pinout: "b e c", threshold: "0.7 V", gain: "400" }),
    "look",
    "gain",
  ],
  [
    "a chip whose outputs start otherwise needs a look",
    facts("chip", {
      function: "driver",
      pinout: "a",
      supplyMin: "3 V",
      supplyMax: "5.5 V",
      drive: "push-pull",
      default: "off",
    }),
    facts("chip", {
      function: "driver",
      pinout: "a",
      supplyMin: "2.5 V",
      supplyMax: "6 V",
      drive: "push-pull",
      default: "on",
    }),
    "look",
    "default",
  ],
  [
    "a chip of which nothing is known needs a look",
    facts("chip", { function: "driver" }),
    facts("chip", { function: "driver" }),
    "look",
    "pinout",
  ],
  ["another class of part is forbidden", facts("diode", {}), facts("transistor", {}), "forbidden", "kind"],
])("%s", (_, original, candidate, verdict, key) => {
  const found = compareParts(original, candidate);
  expect(found.verdict).toBe(verdict);
  if (key) expect(found.rows.find((r) => r.key === key)?.standing).not.toBe("same");
});

test("a part compared with itself is never forbidden, and equal where all that is vital is stated", () => {
  const ratings = fc.record({
    value: fc.constantFrom("1 kΩ", "4.7 kΩ", "10 kΩ"),
    tolerance: fc.constantFrom("1 %", "5 %"),
    power: fc.constantFrom("0.1 W", "1/4 W"),
    voltage: fc.constantFrom("50 V", "75 V"),
  });
  fc.assert(
    fc.property(ratings, ratings, (a, b) => {
      const [x, y] = [facts("resistor", a), facts("resistor", b)];
      expect(compareParts(x, x).verdict).toBe("equal");
      // equal both ways only where nothing differs: what is better one way is worse the other
      if (compareParts(x, y).verdict === "equal" && compareParts(y, x).verdict === "equal")
        expect(
          ["tolerance", "power", "voltage"].every(
            (k) => readAmount(a[k as "power"]) === readAmount(b[k as "power"]),
          ),
        ).toBe(true);
    }),
  );
});

test("a line without a number asks for any such part; what fits counts at once, unless it was found bad", () => {
  const l = line({});
  expect(ruleWords(l)).toBe("any 10 kΩ 1 % 0603 resistor");
  const library = [
    part({ mpn: "OX-10K", params: { value: "10k", tolerance: "1 %" } }),
    part({ mpn: "OX-10K-5", params: { value: "10k", tolerance: "5 %" } }),
    part({ mpn: "OX-12K", params: { value: "12k", tolerance: "1 %" } }),
    part({
      mpn: "OX-BAD",
      params: { value: "10k", tolerance: "1 %" },
      suspect: { since: "2026-01-02", because: "drifts", by: "Ada" },
    }),
  ];
  const found = candidatesFor(l, library, []);
  expect(found.map((c) => [c.part.mpn, c.comparison.verdict, c.isUsable])).toEqual([
    ["OX-10K", "equal", true],
    ["OX-BAD", "equal", false],
    ["OX-10K-5", "look", false],
  ]);
});

test.each([
  ["a number", { mpn: "ox-10k " }, "number OX-10K", undefined],
  ["a value and a size", {}, "any|resistor|10 kΩ|0603|1 %||||", "any 10 kΩ 1 % 0603 resistor"],
  ["a size alone", { valueText: "" }, undefined, undefined],
  ["a value alone", { package: "" }, undefined, undefined],
])("what a line's alternates are remembered under: %s", (_, more, key, words) => {
  const l = line(more);
  expect(lineKey(l)?.replace(/\|+$/, "")).toBe(key?.replace(/\|+$/, ""));
  if (words) expect(ruleWords(l)).toBe(words);
});

test.each([
  [
    "a row of pins",
    { refs: ["J1"], valueText: "2x5 header 2.54 mm upright pins", package: "" },
    /^any\|connector\|10\|2\|2\.54 mm\|pins\|upright$/,
    /^any row of 2 × 5 2\.54 mm pins upright$/,
  ],
  [
    "a row that says less",
    { refs: ["J1"], valueText: "1x4 header", package: "" },
    /^any\|connector\|4\|1\|/,
    /^any row of 1 × 4/,
  ],
  [
    "a lamp",
    { refs: ["D1"], valueText: "red LED", package: "0805" },
    /^any\|lamp\|red\|0805$/,
    /^any red 0805 lamp$/,
  ],
])("and of what has no value: %s", (_, more, key, words) => {
  expect(lineKey(line(more as never))).toMatch(key);
  expect(ruleWords(line(more as never))).toMatch(words);
});

test("a line with a number takes another part only when somebody approved it for this run", () => {
  const l = line({ mpn: "OX-10K" });
  const library = [
    part({ mpn: "OX-10K", params: { value: "10k", tolerance: "1 %" } }),
    part({ mpn: "QL-10K", params: { value: "10k", tolerance: "1 %" } }),
  ];
  const decided = (more: Partial<Alternate>): Alternate => ({
    original: lineKey(l)!,
    part: "QL-10K",
    state: "approved",
    because: "",
    by: "Ada",
    at: "2026-11-24",
    ...more,
  });
  const usable = (alternates: Alternate[]) => candidatesFor(l, library, alternates).map((c) => c.isUsable);
  expect(usable([])).toEqual([false]);
  expect(usable([decided({ state: "proposed", isElsewhere: true })])).toEqual([false]);
  expect(usable([decided({})])).toEqual([true]);
  // the same number written otherwise, in another product, is the same part
  expect(lineKey(line({ mpn: "ox-10k ", refs: ["R77"], package: "" }))).toBe(lineKey(l));
});

test("the library says what the line's own words leave out", () => {
  const l = line({ refs: ["U3"], valueText: "driver", mpn: "TB-1", package: "" });
  const own = part({
    mpn: "TB-1",
    kind: "chip",
    package: "SOIC-8",
    params: { drive: "open" },
    heightMm: 1.75,
  });
  expect(factsOfLine(l, [own])).toMatchObject({
    kind: "chip",
    package: "SOIC-8",
    params: { drive: "open", height: "1.75 mm" },
  });
});

test("two chips in one package are no candidates before somebody says that they do the same", () => {
  const l = line({ refs: ["U1"], valueText: "driver", mpn: "TB-1", package: "SOIC-8" });
  const own = part({ mpn: "TB-1", kind: "chip", package: "SOIC-8", params: { function: "driver" } });
  const other = (params: Record<string, string>) =>
    part({ mpn: "HB-1", kind: "chip", package: "SOIC-8", params });
  expect(candidatesFor(l, [own, other({})], [])).toEqual([]);
  expect(candidatesFor(l, [own, other({ function: "Driver" })], []).map((c) => c.comparison.verdict)).toEqual(
    ["look"],
  );
  expect(candidatesFor(l, [own, other({})], [], { all: true })).toHaveLength(1);
});
