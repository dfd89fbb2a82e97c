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
});
