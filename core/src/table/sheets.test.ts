import { expect, test } from "@jest/globals";
import { looksLikeBom } from "../bom/layout.ts";
import type { Finding } from "../findings.ts";
import { chooseSheet, type NamedSheet } from "./sheets.ts";

const LIST = [
  ["Ref", "Qty", "Value"],
  ["R1", "1", "1k"],
  ["R2", "1", "2k"],
];
const NOTE = [["Made for the spring fairs"], ["with care"]];
const sheet = (name: string, cells: readonly (readonly string[])[], isHidden = false): NamedSheet => ({
  name,
  cells,
  isHidden,
});
test.each<[string, NamedSheet[], string, string | undefined]>([
  ["one sheet alone", [sheet("A", LIST)], "A", undefined],
  ["the list behind a cover", [sheet("Cover", NOTE), sheet("BOM", LIST)], "BOM", "remark"],
  ["the list in front", [sheet("BOM", LIST), sheet("Notes", NOTE)], "BOM", "remark"],
  ["two lists", [sheet("New", LIST), sheet("Old", LIST)], "New", "warning"],
  ["a hidden list before one in view", [sheet("Old", LIST, true), sheet("New", LIST)], "New", "warning"],
  ["a hidden list alone", [sheet("Cover", NOTE), sheet("Parts", LIST, true)], "Parts", "warning"],
  ["no list at all", [sheet("Cover", NOTE), sheet("More", NOTE)], "Cover", "remark"],
])("of %s", (_, sheets, name, level) => {
  const findings: Finding[] = [];
  expect(chooseSheet(sheets, looksLikeBom, "a parts list", "x.xlsx", findings)?.name).toBe(name);
  expect(findings.map((f) => f.level)).toEqual(level ? [level] : []);
  if (level) expect(findings[0]!.text).toContain(`“${name}”`);
  // only where it may be another is there something to do
  expect(findings.map((f) => f.do !== undefined)).toEqual(level ? [level === "warning"] : []);
});

test.each([
  ["one of two is a list", [true, false], "remark", /^Of 2 sheets “s0” was taken as a parts list\.$/],
  ["both are", [true, true], "warning", /; “s1” looks like one too\.$/],
  ["all three are", [true, true, true], "warning", /; “s1”, “s2” look like one too\.$/],
  ["none is", [false, false], "remark", /was taken, the first; none looks like a parts list\.$/],
] as const)("which sheet is read: %s", (_, lists, level, says) => {
  const found: Finding[] = [];
  const sheets = lists.map((is, i) => ({ name: `s${i}`, cells: [[is ? "list" : "notes"]], isHidden: false }));
  chooseSheet(sheets, (c) => c[0]![0] === "list", "a parts list", "b.xlsx", found);
  expect(found).toEqual([expect.objectContaining({ level, text: expect.stringMatching(says) })]);
});

test("what a sheet shows beside its text is said with its rows", () => {
  const findings: Finding[] = [];
  const cells = [["Ref", "Qty"]];
  const looks = {
    struck: [4],
    hidden: Array.from({ length: 10 }, (_, i) => i + 6),
    coloured: [],
    hiddenColumns: [2],
  };
  chooseSheet([{ name: "a", isHidden: false, cells, looks }], () => true, "a list", "a.xlsx", findings);
  expect(findings.map((f) => `${f.level} ${f.row ?? ""} ${f.text}`)).toEqual([
    "warning 4 Row 4 is struck through and was read like the others.",
    "warning 6 Rows 6, 7, 8, 9, 10, 11, 12, 13 and 2 more are hidden in the sheet and were read like the others.",
    "remark  Column 2 is hidden in the sheet and was read like the others.",
  ]);
});
