import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { readBom } from "./bom.ts";
import { compareRefs, expandRefs } from "./refs.ts";
import { readValue } from "./value.ts";

test.each([
  ["R1-R4", ["R1", "R2", "R3", "R4"]],
  ["R1-4", ["R1", "R2", "R3", "R4"]],
  ["R1..R4", ["R1", "R2", "R3", "R4"]],
  ["R1 – R4", ["R1", "R2", "R3", "R4"]],
  ["R1 to R3", ["R1", "R2", "R3"]],
  ["C1, C3-C5 C9", ["C1", "C3", "C4", "C5", "C9"]],
  ["R01-R03", ["R01", "R02", "R03"]],
  ["U1A,U1B", ["U1"]],
  ["TP_5V", ["TP_5V"]],
  ["MK-1", ["MK-1"]],
])("references %s read as %j", (text, refs) => {
  expect(expandRefs(text).refs).toEqual(refs);
});

test.each([
  ["R5-R3", "downward"],
  ["R1-C3", "different letters"],
  ["R1-R1000000", "longer than"],
])("references %s are refused: %s", (text, why) => {
  const r = expandRefs(text);
  expect(r.refs).toEqual([]);
  expect(r.bad[0]!.why).toContain(why);
});

test("natural order and duplicates", () => {
  expect(["R10", "R2", "C1"].sort(compareRefs)).toEqual(["C1", "R2", "R10"]);
  expect(expandRefs("D1;D1").duplicates).toEqual(["D1"]);
});

test.each([
  ["R1", "4k7", 4700],
  ["R1", "4K7", 4700],
  ["R1", "R47", 0.47],
  ["R1", "47R", 47],
  ["R1", "4R7", 4.7],
  ["R1", "0R", 0],
  ["R1", "1M5", 1.5e6],
  ["R1", "2G2", 2.2e9],
  ["R1", "100", 100],
  ["R1", "1.5k", 1500],
  ["R1", "1,5k", 1500],
  ["R1", "10kΩ", 1e4],
  ["R1", "10 kohm", 1e4],
  ["R1", "10K 1%", 1e4],
  ["R1", "10mΩ", 0.01],
  ["R1", "33k2", 33200],
  ["C1", "100n", 1e-7],
  ["C1", "0.1uF", 1e-7],
  ["C1", ".1uF", 1e-7],
  ["C1", "4u7", 4.7e-6],
  ["C1", "4µ7", 4.7e-6],
  ["C1", "1n5", 1.5e-9],
  ["C1", "n47", 4.7e-10],
  ["C1", "22pF", 2.2e-11],
  ["C1", "10MFD", 1e-5],
  ["C1", "100 nF 16V X7R 10%", 1e-7],
  ["C1", "2u2/25V", 2.2e-6],
  ["L1", "10uH", 1e-5],
  ["L1", "2n2", 2.2e-9],
  ["Y1", "16MHz", 16e6],
  ["Y1", "32.768kHz", 32768],
  ["Y1", "32k768", 32768],
  ["R1", "0", 0],
  ["R1", "0R10", 0.1],
  ["R1", "R005", 0.005],
  ["R1", "5L0", 0.005],
  ["R1", "L50", 0.0005],
  ["R1", "2m0", 0.002],
  ["R1", "1M", 1e6],
  ["R1", "100E", 100],
  ["R1", "47RJ", 47],
  ["R1", "4k7J", 4700],
  ["R1", "4K7F", 4700],
  ["R1", "2M2K", 2.2e6],
  ["C1", "0u1", 1e-7],
  ["C1", "4μ7", 4.7e-6],
  ["C1", "p47", 4.7e-13],
  ["C1", "5p6", 5.6e-12],
  ["C1", "100nK", 1e-7],
  ["C1", "470U", 4.7e-4],
  ["C1", "1F5", 1.5],
  ["C1", "2m2", 2.2e-3],
  ["L1", "4u7", 4.7e-6],
  ["L1", "1m0", 1e-3],
  // what stands before a value is none: ratings, packages with their letter, tolerances
  ["R1", "1/4W 10k", 1e4],
  ["R1", "1/16 W 4k7 1%", 4700],
  ["R1", "250mW 10k", 1e4],
  ["R1", "2kV 1M", 1e6],
  ["R1", "R0603 10k", 1e4],
  ["R1", "R1206 0R", 0],
  ["C1", "C0805 100n 50V", 1e-7],
  ["C1", "1kV 100p", 1e-10],
  ["L1", "500mA 10u", 1e-5],
  ["L1", "10u 2A", 1e-5],
  ["Y1", "12MHz 18pF", 12e6],
  ["Y1", "32,768 kHz", 32768],
  ["R1", "4.700k", 4700],
  ["R1", "4.700k 1%", 4700],
  ["R1", "4.7000", 4.7],
  ["R1", "0,047", 0.047],
  ["R1", "10k 10k", 1e4],
  ["R1", "4k7 50ppm", 4700],
])("%s %s is %d", (ref, text, si) => {
  expect(readValue(text, ref).value?.si).toBe(si);
});

test("every letter of a value means its power of ten, of the class it stands in", () => {
  const powers: readonly (readonly [ref: string, letters: string, power: number])[] = [
    ["R1", "lL", -3],
    ["R1", "rR", 0],
    ["R1", "kK", 3],
    ["R1", "M", 6],
    ["R1", "G", 9],
    ["R1", "T", 12],
    ["C1", "pP", -12],
    ["C1", "nN", -9],
    ["C1", "uUµ", -6],
    ["L1", "nN", -9],
    ["L1", "uUµ", -6],
    ["L1", "m", -3],
    ["Y1", "kK", 3],
    ["Y1", "mM", 6],
    ["Y1", "G", 9],
  ];
  for (const [ref, letters, power] of powers)
    for (const letter of letters)
      expect([ref, letter, readValue(`2${letter}2`, ref).value?.si]).toEqual([
        ref,
        letter,
        Number(`2.2e${power}`),
      ]);
});

test.each([
  ["R1", "1m"],
  ["R1", "4E7"],
  ["C1", "100"],
  ["C1", "10m"],
  ["C1", "10F"],
  ["C1", "1M"],
  ["C1", "0.1"],
  ["R1", "103"],
  ["R1", "1,000"],
  ["R1", "10.000"],
  ["R1", "1,500k"],
  ["C1", "1,000pF"],
  ["C1", "4.700 uF"],
  ["C1", "4.700uF/25V 20%"],
  ["L1", "1.000uH"],
  ["R1", "1.000 Ohm"],
  ["R1", "4.700R 1%"],
  ["Y1", "8.000"],
  ["R1", "10k/20k"],
  ["R1", "10k (4k7)"],
  ["R1", "330R 3k3 1%"],
])("%s %s is ambiguous and stays open", (ref, text) => {
  expect(readValue(text, ref)).toEqual({ value: null, doubt: expect.any(String) });
});

test.each([
  ["R1", "10kV"],
  ["R1", "1/4W"],
  ["R1", "R0603"],
  ["C1", "18pF? 50V"],
  ["Y1", "18pF"],
])("%s %s names no value", (ref, text) => {
  expect(readValue(text, ref)).toEqual({ value: null });
});

const TABLE = [
  ["Part Reference", "Qty", "Val", "Footprint", "MPN", "Fitted"],
  ["R1-R2", "2", "4k7", "0603", "X-1", "yes"],
  ["C1", "2", "100n", "0603", "X-2", ""],
  ["R9", "1", "0R DNP", "0603", "", ""],
  ["R8", "1", "10k", "0603", "", "no"],
  ["", "4", "screw", "", "S-1", ""],
];

test("a parts list: columns found, quantities checked, do-not-place in several styles, loose parts kept", () => {
  const bom = readBom(TABLE, "parts.csv");
  expect(bom.columns).toMatchObject({
    refs: "Part Reference",
    qty: "Qty",
    value: "Val",
    package: "Footprint",
    mpn: "MPN",
    fitted: "Fitted",
  });
  expect(bom.lines.map((l) => [l.qty, l.dnp])).toEqual([
    [2, false],
    [1, false],
    [1, true],
    [1, true],
    [4, false],
  ]);
  expect(bom.findings).toEqual([expect.objectContaining({ tag: "bom-qty-mismatch", row: 3, about: ["C1"] })]);
});

test("a quantity with a mark between its thousands is read as pieces, and that is said; a plain one says nothing", () => {
  const of = (qty: string) => {
    const bom = readBom(
      [
        ["Ref", "Qty", "Value"],
        ["", qty, "screw"],
      ],
      "p.csv",
    );
    return [bom.lines[0]?.qty, bom.findings.map((f) => [f.tag, f.level])];
  };
  expect(of("1.000")).toEqual([1000, [["bom-qty-grouped", "remark"]]]);
  expect(of("1000")).toEqual([1000, []]);
});

test("bad rows are said with their row, good rows stay", () => {
  const bom = readBom(
    [
      ["Ref", "Qty", "Value"],
      ["R1", "-3", "1k"],
      ["R2,R1", "2", "2k"],
      ["R5-R3", "1", "5k"],
    ],
    "p.csv",
  );
  expect(bom.findings.map((f) => [f.tag, f.row])).toEqual(
    [
      ["bom-qty-invalid", 2],
      ["bom-duplicate-ref", 3],
      ["bom-bad-ref", 4],
      ["bom-qty-mismatch", 4],
    ].filter(([t]) => t !== "bom-qty-mismatch"),
  );
  expect(bom.lines.find((l) => l.row === 2)).toMatchObject({ refs: ["R1"], qty: 1 });
});

test("a table without a header is no parts list, and a person may name the columns", () => {
  expect(
    readBom(
      [
        ["a", "b"],
        ["1", "2"],
      ],
      "x.csv",
    ).findings[0]!.tag,
  ).toBe("bom-header-missing");
  const named = readBom(
    [
      ["wo", "was"],
      ["R1", "1k"],
    ],
    "x.csv",
    { refs: "wo", value: "was" },
  );
  expect(named.lines[0]).toMatchObject({ refs: ["R1"], valueText: "1k" });
});

test("any cells whatever give lines and findings, never a throw", () => {
  fc.assert(
    fc.property(
      fc.array(fc.array(fc.string({ maxLength: 12 }), { maxLength: 5 }), { maxLength: 8 }),
      (rows) => {
        const bom = readBom([["Ref", "Qty", "Value", "Package", "DNP"], ...rows], "f.csv");
        for (const l of bom.lines) expect(l.qty).toBeGreaterThanOrEqual(0);
      },
    ),
  );
});
