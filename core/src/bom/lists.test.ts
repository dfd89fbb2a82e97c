import { expect, test } from "@jest/globals";
import { readBom } from "./bom.ts";
import { cleanCell } from "./leftovers.ts";
import { markIn, markInColumn } from "./marks.ts";
import { readValue } from "./value.ts";

const cells = (text: string) => text.split("\n").map((l) => l.split(";"));
const read = (text: string) => readBom(cells(text), "list.csv");
const refs = (text: string) => read(text).lines.map((l) => l.refs.join(" ") || `${l.qty} ${l.valueText}`);
const HEAD = "Ref;Qty;Value;Package;MPN";

// what is no part, and what is
test.each<[string, string, string[], number]>([
  ["section titles", `${HEAD}\nResistors;;;;\nR1;1;1k;0603;\nCapacitors;;;;\nC1;1;1u;0603;`, ["R1", "C1"], 2],
  ["a section title in another column", `${HEAD}\n;;Semiconductors;;\nU1;1;x;SO8;`, ["U1"], 1],
  ["the heading once more", `${HEAD}\nR1;1;1k;0603;\n${HEAD}\nR2;1;1k;0603;`, ["R1", "R2"], 1],
  [
    "the heading in other case",
    `${HEAD}\nR1;1;1k;0603;\nREF;QTY;VALUE;PACKAGE;MPN\nR2;1;1k;0603;`,
    ["R1", "R2"],
    1,
  ],
  ["a total", `${HEAD}\nR1;1;1k;0603;\nTotal;1;;;`, ["R1"], 1],
  ["a sum in another language", `${HEAD}\nR1;1;1k;0603;\n;;Summe;;`, ["R1"], 1],
  [
    "remarks at the end",
    `${HEAD}\nR1;1;1k;0603;\nPrepared by the office, page 1 of 3;;;;\nAll parts lead free;;;;`,
    ["R1"],
    2,
  ],
  ["a rule of dashes", `${HEAD}\n-----;;;;\nR1;1;1k;0603;`, ["R1"], 1],
  ["empty rows", `${HEAD}\n;;;;\nR1;1;1k;0603;\n;;;;`, ["R1"], 0],
  ["a part with nothing but its reference", `${HEAD}\nTP1;;;;\nR1;1;1k;0603;`, ["TP1", "R1"], 0],
  ["a screw without a reference", `${HEAD}\nR1;1;1k;0603;\n;4;M3 screw;;`, ["R1", "4 M3 screw"], 0],
])("%s", (_, text, want, skipped) => {
  expect(refs(text)).toEqual(want);
  const said = read(text).findings.filter((f) => f.tag === "bom-row-skipped");
  expect(said.length).toBe(skipped > 0 ? 1 : 0);
  if (skipped > 0) expect((said[0]!.text.match(/row \d+/g) ?? []).length).toBe(skipped);
});

test("of rows that are passed over six are named, and how many more", () => {
  const said = (n: number) =>
    read(
      `${HEAD}\nR1;1;1k;0603;\n${Array.from({ length: n }, (_, i) => `Section ${"abcdefgh"[i]};;;;`).join("\n")}`,
    ).findings.find((f) => f.tag === "bom-row-skipped")!.text;
  expect(said(6)).toMatch(/row 8 “Section f”\.$/);
  expect(said(7)).toMatch(/row 8 “Section f” and 1 more row\.$/);
  expect(said(8)).toMatch(/row 8 “Section f” and 2 more rows\.$/);
});

test("a reference that cannot be read is a part that is missing: an error", () => {
  expect(read(`${HEAD}\nR5-R3;;1k;0603;`).findings).toMatchObject([
    { tag: "bom-bad-ref", level: "error", row: 2 },
  ]);
});

// what spreadsheets leave in cells
test.each<[string, string, string?]>([
  ['="001234"', "001234"],
  ['=T("0402")', "0402"],
  ["'0402", "0402"],
  ["\u00a04k7\u00a0", "4k7"],
  ['="say ""x"""', 'say "x"'],
  ["#N/A", "", "error"],
  ["#REF!", "", "error"],
  ["#WERT!", "", "error"],
  ["########", "", "error"],
  ["2-Jan", "2-Jan", "date"],
  ["Mär 12", "Mär 12", "date"],
  ["2026-01-02 00:00:00", "2026-01-02 00:00:00", "date"],
  ["1.2E+10", "1.2E+10", "power"],
  ["4.7k", "4.7k"],
  ["R1-R4", "R1-R4"],
  ["10-32", "10-32"],
  ["1E3", "1E3"],
])("the cell %s is %s", (cell, text, ...rest) => {
  const [doubt] = rest as unknown[];
  expect(cleanCell(cell)).toEqual(typeof doubt === "string" ? { text, doubt } : { text });
});
test("what a spreadsheet made of a cell is undone or asked about, with its row", () => {
  const r = read(`${HEAD}\n="R1";1;="4k7";="0603";="001234"\nR2;1;1k;0603;2-Jan\nR3;1;#N/A;0603;x`);
  expect(r.lines[0]).toMatchObject({ refs: ["R1"], valueText: "4k7", package: "0603", mpn: "001234" });
  expect(r.findings.map((f) => [f.tag, f.level, f.row])).toEqual([
    ["bom-number-mangled", "warning", 3],
    ["bom-number-mangled", "error", 4],
  ]);
  expect(r.lines[2]!.valueText).toBe("");
});

// left off, in the wordings people use
test.each(
  "DNP|dni|DNF|D.N.P.|Do not place|DO NOT POPULATE|do not stuff|Don't fit|not fitted|NOT MOUNTED|not installed|Not stuffed|no load|No-Pop|no stuff|unpopulated|unfitted|omit|omitted|leave off|leave empty|left open|not used|nicht bestückt|unbestückt|non monté|no montar|4k7 DNP|10k (do not fit)|NF|N.F.|NP|n/f|skip|excluded".split(
    "|",
  ),
)("“%s” leaves a part off", (text) => {
  expect(markIn(text)).toBe("no");
  expect(read(`${HEAD}\nR1;1;${text};0603;`).lines[0]!.dnp).toBe(true);
});
test.each(["4k7", "100NF", "22p NP0", "NP0", "fitted", "donor", "OMITRON-4", "note", "1N4148", "NPN"])(
  "“%s” does not",
  (text) => {
    expect(markIn(text)).not.toBe("no");
  },
);
test.each<[string, boolean, string]>([
  ["yes", true, "no"],
  ["x", true, "no"],
  ["1", true, "no"],
  ["DNP", true, "no"],
  ["true", true, "no"],
  ["no", true, "yes"],
  ["0", true, "yes"],
  ["fit", true, "yes"],
  ["populate", true, "yes"],
  ["-", true, "yes"],
  ["yes", false, "yes"],
  ["1", false, "yes"],
  ["fitted", false, "yes"],
  ["no", false, "no"],
  ["DNP", false, "no"],
  ["0", false, "no"],
  ["not fitted", false, "no"],
  ["maybe", false, "unknown"],
  ["see note", true, "unknown"],
  ["B", false, "unknown"],
  ["", false, "nothing"],
])("“%s” in a column of what is left off (%s) says %s", (text, isLeftOff, want) => {
  expect(markInColumn(text, isLeftOff)).toBe(want);
});
test("a mark nobody knows is a caution and never fitted", () => {
  const r = read("Ref;Value;Fitted\nR1;1k;yes\nR2;1k;perhaps\nR3;1k;no");
  expect(r.lines.map((l) => l.dnp)).toEqual([false, true, true]);
  expect(r.findings).toMatchObject([{ tag: "bom-fitted-unknown", level: "warning", row: 3, about: ["R2"] }]);
});

// the maker's number and the maker, under every common heading
test.each(
  "MPN|Manufacturer Part Number|Manufacturer PN|Manufacturer_Part_Number|Mfr. Part #|MFR P/N|Mfg Part Number|Mfg. No.|Manf#|Part Number|P/N|PN|Hersteller-Nr.|Herstellernummer|Hersteller Teilenummer|Référence fabricant|Manufacturer Part Number 1".split(
    "|",
  ),
)("a column headed “%s” beside one of makers holds part numbers", (heading) => {
  for (const maker of ["Manufacturer", "Maker", "Mfr", "Hersteller"]) {
    const r = read(`Ref;${maker};${heading}\nR1;Oxbow;OX-1001\nR2;Oxbow;OX-1002\nR3;Oxbow;OX-1003`);
    expect(r.lines.map((l) => [l.maker, l.mpn])).toEqual([
      ["Oxbow", "OX-1001"],
      ["Oxbow", "OX-1002"],
      ["Oxbow", "OX-1003"],
    ]);
  }
});
test("columns that hold each other's content are told by it, and said", () => {
  const r = read(
    "Ref;Manufacturer;MPN\nR1;OX-1001;Oxbow\nR2;OX-1002;Oxbow\nR3;OX-1003;Oxbow\nR4;TB-77-A;Tarnbeck",
  );
  expect(r.lines.map((l) => [l.maker, l.mpn])[3]).toEqual(["Tarnbeck", "TB-77-A"]);
  expect(r.findings).toMatchObject([{ tag: "bom-column-guessed", level: "warning" }]);
});

// one value in the notations met; the ohm sign in three characters
test.each<[string, string, number | null]>([
  ["4k7", "R1", 4700],
  ["4K7", "R1", 4700],
  ["4.7kΩ", "R1", 4700],
  ["4.7k\u2126", "R1", 4700],
  ["4.7 kω", "R1", 4700],
  ["4,7k", "R1", 4700],
  ["4k7R", "R1", 4700],
  ["4.7 kR", "R1", 4700],
  ["100mR", "R1", 0.1],
  ["100 mR", "R1", 0.1],
  ["100mΩ", "R1", 0.1],
  ["100 mohm", "R1", 0.1],
  ["R100", "R1", 0.1],
  ["0R1", "R1", 0.1],
  ["100m", "R1", null],
  ["1MR", "R1", 1e6],
  ["1M", "R1", 1e6],
  ["1MEG", "R1", 1e6],
  ["0R", "R1", 0],
  ["470", "R1", 470],
  ["100n", "C1", 1e-7],
  ["0.1µF", "C1", 1e-7],
  ["0.1μF", "C1", 1e-7],
  ["0,1uF", "C1", 1e-7],
  ["100 nF 50V", "C1", 1e-7],
  ["2p2", "C1", 2.2e-12],
  ["4u7/16V", "C1", 4.7e-6],
])("%s on %s", (text, ref, si) => {
  expect(readValue(text, ref).value?.si ?? null).toBe(si);
});
