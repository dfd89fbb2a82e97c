import { expect, test } from "@jest/globals";
import { FindingList } from "../findings.ts";
import { boundedRows } from "./rows.ts";

test("sixty thousand rows are read as they are; of more the rest is missing, and that is an error at its row", () => {
  const rows = (n: number) => Array.from({ length: n }, (_, i) => [String(i + 1)]);
  const found = new FindingList();
  const most = rows(60_000);
  expect(boundedRows(most, "a.csv", found)).toBe(most);
  expect(found.done()).toEqual([]);
  const read = boundedRows(rows(60_001), "a.csv", found);
  expect([read.length, read.at(-1)]).toEqual([60_000, ["60000"]]);
  expect(found.done()).toMatchObject([
    {
      tag: "budget-reached",
      level: "error",
      file: "a.csv",
      row: 60_001,
      text: expect.stringContaining("60,001 rows; it was read up to row 60,000"),
    },
  ]);
});
