import { expect, test } from "@jest/globals";
import { readBom } from "./bom.ts";
import { compareRefs, expandRefs } from "./refs.ts";

// how people write the references of a line, odd ones first; what is read, what stands beside, what cannot be read
test.each<[string, string, string?, string?]>([
  // ranges in words, and with every sign that is drawn like a dash
  ["R1 thru R3", "R1 R2 R3"],
  ["R1 through 3", "R1 R2 R3"],
  ["R1 up to R3", "R1 R2 R3"],
  ["R1 bis R3", "R1 R2 R3"],
  ["R1 until R3", "R1 R2 R3"],
  ["R1\u2010R3", "R1 R2 R3"],
  ["R1\u2011R3", "R1 R2 R3"],
  ["R1 \u2212 R3", "R1 R2 R3"],
  ["R1\uFF0D3", "R1 R2 R3"],
  ["R1:R3", "R1 R2 R3"],
  ["R1...R3", "R1 R2 R3"],
  ["R1…3", "R1 R2 R3"],
  ["R9-11", "R9 R10 R11"],
  ["R009-R011", "R009 R010 R011"],
  ["R009-R11", "R9 R10 R11"],
  ["R1-R2-R3", "", "", "R1-R2-R3"],
  ["R1.R2.R3", "", "", "R1.R2.R3"],
  ["R1_R2", "", "", "R1_R2"],
  ["R1-1", "R1", "", "R1-1"],
  // digits go on with the letters before them, but not out of brackets
  ["R1,2,5-7", "R1 R2 R5 R6 R7"],
  ["R1 2 X1", "R1 R2 X1"],
  ["R1 (0603)", "R1", "(0603)"],
  ["R1,R3 (2)", "R1 R3"],
  ["R1,R3 (3)", "R1 R3", "(3)"],
  ["R1-R4 [qty: 4]", "R1 R2 R3 R4"],
  ["R1,R3 (2 pcs)", "R1 R3"],
  ["R1 R3 2pcs.", "R1 R3"],
  ["R1 R3 x2", "R1 R3"],
  ["R1 R3 × 2", "R1 R3"],
  ["2x R1, R3", "R1 R3"],
  ["R1 4 off", "R1", "4 off"],
  ["R1 (x2)", "R1", "(x2)"],
  // a crystal is none
  ["X1", "X1"],
  ["x1", "X1"],
  ["X1 X2", "X1 X2"],
  ["C1 X2", "C1 X2"],
  ["c1 x2", "C1 X2"],
  // what stands in brackets are references only where they are like those outside, or alone
  ["C1 (X2)", "C1", "(X2)"],
  ["U1 (SOT23)", "U1", "(SOT23)"],
  ["U1 (SOT-23, U2)", "U1", "(SOT-23, U2)"],
  ["R1 (4k7)", "R1", "(4k7)"],
  ["R1 (R2, R4-R5)", "R1 R2 R4 R5"],
  ["(R1, C2-C3)", "R1 C2 C3"],
  ["[U1A] {U2}", "U1 U2"],
  ["C1, x2", "C1", "x2"],
  // marks, words, units
  ["R1 (DNP)", "R1", "DNP"],
  ["R1 do not place", "R1", "do not place"],
  ["R1 np", "R1", "np"],
  ["R1 (opt)", "R1", "(opt)"],
  ["R1 [see note]", "R1", "[see note]"],
  ["R1 or R2", "R1 R2", "", "or"],
  ["R1 and R2 und R3 & R4 + R5", "R1 R2 R3 R4 R5"],
  ["U1(A), U1(B)", "U1"],
  ["U1A/U1B", "U1"],
  ["U1A-U1D, U2a", "U1 U2"],
  ["U1 (A)", "U1", "(A)"],
  ["R1 (R2)", "R1 R2"],
  ["R1 ()", "R1"],
  ["R 1, LED 2", "R1 LED2"],
  ["R1\nR2\r\nR3;R4", "R1 R2 R3 R4"],
  // words without a digit are references where nothing stands beside them
  ["PCB", "PCB"],
  ["ANT, BATT; R1", "ANT BATT R1"],
  ["GND VCC", "", "", "GND VCC"],
  ["none", ""],
  ["n/a", ""],
  ["--", ""],
  ["", ""],
  ["R1*", "", "", "R1*"],
  ["#R1", "", "", "#R1"],
  ["1R", "", "", "1R"],
])("%j reads as %s", (text, refs, beside = "", bad = "") => {
  const r = expandRefs(text);
  expect([r.refs.join(" "), r.beside.join(" "), r.bad.map((b) => b.text).join(" ")]).toEqual([
    refs,
    beside,
    bad,
  ]);
});

test("what stands twice is told; a unit of a part is not twice", () => {
  expect(expandRefs("R1-R3, R2, r1").duplicates).toEqual(["R2", "R1"]);
  expect(expandRefs("U1A, U1B, U1").duplicates).toEqual(["U1"]);
});

test("a range of two thousand is one, of more it is none", () => {
  expect(expandRefs("R1-R2000").refs).toHaveLength(2000);
  expect(expandRefs("R1-R2001")).toMatchObject({
    refs: [],
    bad: [{ why: "the range is longer than 2,000" }],
  });
});

// what a line makes of it: references, whether it is left off, what is said
test.each<[string, string, boolean, string[]]>([
  ["R1 (DNP)", "R1", true, []],
  [
    "R1, R2 (DNP)",
    "R1 R2",
    false,
    [
      "warning bom-fitted-ambiguous “DNP” stands beside R1, R2: one of them may be left off, or all; they count as fitted.",
    ],
  ],
  [
    "R1 (opt)",
    "R1",
    false,
    ["warning bom-fitted-ambiguous “(opt)” may mean that R1 is not fitted; it counts as fitted."],
  ],
  ["R1 (0603)", "R1", false, ["warning bom-bad-ref “(0603)” stands beside R1 and was passed over."]],
  ["R1, R3 (3)", "R1 R3", false, ["warning bom-bad-ref “(3)” stands beside R1, R3 and was passed over."]],
  ["R1 or R2", "R1 R2", false, ["error bom-bad-ref “or” beside R1, R2: it does not read as a reference."]],
  [
    "R1-R2-R3, R9",
    "R9",
    false,
    ["error bom-bad-ref “R1-R2-R3” beside R9: it may be a range or single references."],
  ],
  ["R1, R1", "R1", false, ["warning bom-duplicate-ref R1 named twice in one line; counted once."]],
])("a line of %j", (text, refs, isOff, said) => {
  const b = readBom(
    [
      ["Ref", "Value"],
      [text, "1k"],
      ["C9", "1u"],
    ],
    "a.csv",
  );
  expect([b.lines[0]!.refs.join(" "), b.lines[0]!.dnp]).toEqual([refs, isOff]);
  expect(b.findings.map((f) => `${f.level} ${f.tag} ${f.text}`)).toEqual(said);
});

test("beside no reference at all a mark is the line's, and a word is passed over", () => {
  const b = readBom(
    [
      ["Ref", "Qty", "Description"],
      ["DNP", "2", "feet"],
      ["(opt)", "3", "screws"],
      ["(0603)", "4", "nuts"],
    ],
    "a.csv",
  );
  expect(b.lines.map((l) => [l.refs, l.qty, l.dnp])).toEqual([
    [[], 2, true],
    [[], 3, false],
    [[], 4, false],
  ]);
  expect(b.findings.map((f) => f.text)).toEqual([
    "“(opt)” may mean that it is not fitted; it counts as fitted.",
    "“(0603)” is no reference and was passed over.",
  ]);
});

test("references in their natural order: by letters, then by number, then as they are written", () => {
  const sorted = ["R10", "R2A", "R2", "C1", "LED1", "PCB", "L2", "R02"];
  expect(sorted.sort(compareRefs)).toEqual(["C1", "L2", "LED1", "PCB", "R02", "R2", "R2A", "R10"]);
  expect([compareRefs("R1", "R1"), compareRefs("PCB", "PCB1")]).toEqual([0, expect.any(Number)]);
});

// 1.000 is one or a thousand: what the references count decides for the whole list
test.each<[string, [string, string][], number[], string[]]>([
  [
    "as many as the references",
    [
      ["R1", "1.000"],
      ["R2,R3", "2,000"],
      ["", "12.000"],
    ],
    [1, 2, 12],
    ["1: Quantities were read with three decimals, 1.000 as one: so the references count."],
  ],
  [
    "nothing to count by",
    [
      ["", "1.000"],
      ["", "12,000"],
    ],
    [1000, 12000],
    [
      "2: The quantity “1.000” was read as 1000 pieces: parts come whole.",
      "3: The quantity “12,000” was read as 12000 pieces: parts come whole.",
    ],
  ],
  [
    "another number either way",
    [
      ["R1,R2", "1.000"],
      ["", "2.000"],
    ],
    [2, 2000],
    [
      "2: The quantity “1.000” was read as 1000 pieces: parts come whole.",
      "2: The file says 1000, the references count 2; 2 is used.",
      "3: The quantity “2.000” was read as 2000 pieces: parts come whole.",
    ],
  ],
  [
    "a thousand of them",
    [
      ["R1-R1000", "1.000"],
      ["R1001", "1.000"],
      ["", "2.000"],
    ],
    [1000, 1, 2000],
    [
      "2: The quantity “1.000” was read as 1000 pieces: parts come whole.",
      "3: The quantity “1.000” was read as 1000 pieces: parts come whole.",
      "3: The file says 1000, the references count 1; 1 is used.",
      "4: The quantity “2.000” was read as 2000 pieces: parts come whole.",
    ],
  ],
  [
    "no three decimals",
    [
      ["R1", "1.0"],
      ["", "2.5"],
      ["", "1.000.000"],
      ["", "1'000"],
    ],
    [1, 2.5, 1e6, 1000],
    [
      "4: The quantity “1.000.000” was read as 1000000 pieces: parts come whole.",
      "5: The quantity “1'000” was read as 1000 pieces: parts come whole.",
    ],
  ],
])("quantities of a list with %s", (_, rows, want, said) => {
  const b = readBom(
    [["Ref", "Qty", "Description"], ...rows.map(([r, q], i) => [r, q, `part ${i}`])],
    "a.csv",
  );
  expect(b.lines.map((l) => l.qty)).toEqual(want);
  expect(b.findings.map((f) => `${f.row! - (f.text.startsWith("Quantities") ? 1 : 0)}: ${f.text}`)).toEqual(
    said,
  );
});
