import { expect, test } from "@jest/globals";
import { FindingList } from "../findings.ts";
import { findHeader, plain } from "./columns.ts";
import { boundedRows } from "./rows.ts";

const WORDS = { refs: ["ref", "designator"], qty: ["qty", "quantity"], value: ["value", "comment"] } as const;
const find = (cells: string[][], least = 2, chosen = {}) => findHeader(cells, WORDS as never, least, chosen);

test.each([
  ["  Part-Reference(s) ", "part reference s"],
  ["QTY.", "qty"],
  ["Nr #", "nr #"],
  ["Größe", "größe"],
])("headings are compared plain: %j is %j", (text, words) => {
  expect(plain(text)).toBe(words);
});

test.each([
  ["in the first row", [["Designator", "Qty"]], 0, { refs: 0, qty: 1 }],
  ["below a title", [["My board"], [], ["Ref", "Value", "Qty"]], 2, { refs: 0, value: 1, qty: 2 }],
  [
    "the row that claims most",
    [
      ["Ref", "Value"],
      ["Ref", "Value", "Qty"],
    ],
    1,
    { refs: 0, value: 1, qty: 2 },
  ],
  ["an exact word before a beginning", [["Value of it", "Value", "Ref"]], 0, { value: 1, refs: 2 }],
  ["a beginning where nothing is exact", [["Ref des", "Qty per board"]], 0, { refs: 0, qty: 1 }],
  ["the earlier word wins", [["Comment", "Value", "Ref"]], 0, { value: 1, refs: 2 }],
])("a heading %s", (_, cells, row, at) => {
  expect(find(cells)).toMatchObject({ row, at });
});

test("too few columns are no heading, nor is one below the 60th row; what nobody claims is told", () => {
  expect(find([["Ref", "Colour"]])).toBeUndefined();
  expect(find([...Array.from({ length: 60 }, () => ["x"]), ["Ref", "Qty"]])).toBeUndefined();
  expect(find([...Array.from({ length: 59 }, () => ["x"]), ["Ref", "Qty"]])?.row).toBe(59);
  expect(find([["Ref", "Colour", "Qty", " "]])?.unclaimed).toEqual(["Colour"]);
});

test("a person's choice outweighs the words, and no column is two things", () => {
  expect(find([["Ref", "Value", "Qty"]], 2, { value: "Qty" })?.at).toEqual({ value: 2, refs: 0 });
});

test("a list is read up to sixty thousand rows; that there are more is an error", () => {
  const found = new FindingList();
  const rows = Array.from({ length: 60_001 }, () => ["R1"]);
  expect(boundedRows(rows.slice(1), "a.csv", found)).toHaveLength(60_000);
  expect(found.done()).toEqual([]);
  expect(boundedRows(rows, "a.csv", found)).toHaveLength(60_000);
  expect(found.done().map((f) => [f.level, f.file])).toEqual([["error", "a.csv"]]);
});
