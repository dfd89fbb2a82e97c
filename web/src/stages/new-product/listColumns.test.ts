import { expect, test } from "@jest/globals";
import { type ListHead, readBom } from "@kobbin/core";
import { columnName, shownList, withColumn } from "./listColumns.ts";

const HEADS = ["Ref", "Value", "", "Note", "Note"];
const list: ListHead = {
  file: "parts.csv",
  cells: [HEADS, ["R1", "10k", "AX-1", "a", "b"]],
  rows: 2,
  firstRow: 1,
  heads: HEADS,
  at: { refs: 0, value: 1, mpn: 2 },
  because: { refs: "heading", value: "chosen", mpn: "content" },
};

test.each([
  [0, "Ref"],
  [2, "column 3"],
  [4, "column 5"],
  [9, "column 10"],
])("column %i is called %s: by its heading, by its place where it has none or shares it", (i, name) => {
  expect(columnName(HEADS, i)).toBe(name);
});

test("each column stands under what it is taken for, and why; what was said before this drop is told apart", () => {
  expect(shownList(list)).toMatchObject({
    roles: { 0: "refs", 1: "value", 2: "mpn" },
    because: { 0: "heading", 1: "before", 2: "content" },
  });
  expect(shownList(list, { value: "Value" }).because[1]).toBe("you");
});

test("a column said to be something else is that and nothing else; the others stay as they are, by name", () => {
  expect(withColumn(list, 3, "mpn")).toEqual({ refs: "Ref", value: "Value", mpn: "column 4" });
  expect(withColumn(list, 1, "")).toEqual({ refs: "Ref", value: "", mpn: "column 3" });
  expect(withColumn(list, 1, "description")).toEqual({
    refs: "Ref",
    value: "",
    mpn: "column 3",
    description: "Value",
  });
});

test("what was said of a column is what the list is read by", () => {
  const read = readBom(list.cells, "parts.csv", withColumn(list, 3, "mpn"));
  expect(read.lines[0]).toMatchObject({ refs: ["R1"], valueText: "10k", mpn: "a" });
  expect(readBom(list.cells, "parts.csv", withColumn(list, 2, "")).lines[0]!.mpn).toBe("");
});
