import { expect, test } from "@jest/globals";
import ExcelJS from "exceljs";
import { readCsv, readTables } from "./table.ts";

// a stray quote swallows no rows
test.each<[string, string, (readonly string[])[]]>([
  [
    "an inch at the front of a cell",
    'Ref,Part,Qty\nS1,"3/8 screw,4\nR1,1k,1\nR2,2k,1',
    [
      ["Ref", "Part", "Qty"],
      ["S1", '"3/8 screw', "4"],
      ["R1", "1k", "1"],
      ["R2", "2k", "1"],
    ],
  ],
  [
    "an inch behind a number",
    'Ref,Part,Qty\nS1,3/8" screw,4\nR1,1k,1',
    [
      ["Ref", "Part", "Qty"],
      ["S1", '3/8" screw', "4"],
      ["R1", "1k", "1"],
    ],
  ],
  [
    "the last row's quote",
    'Ref,Part,Qty\nR1,1k,1\nR2,"2k,1',
    [
      ["Ref", "Part", "Qty"],
      ["R1", "1k", "1"],
      ["R2", '"2k', "1"],
    ],
  ],
  [
    "a true cell of two lines",
    'Ref,Part,Qty\n"R1\nR2",1k,2\nR3,2k,1',
    [
      ["Ref", "Part", "Qty"],
      ["R1\nR2", "1k", "2"],
      ["R3", "2k", "1"],
    ],
  ],
  [
    "a true cell beside a stray one",
    'Ref,Part,Qty\n"R1,R2",1k,2\nS1,"3/8 screw,4\nR3,2k,1',
    [
      ["Ref", "Part", "Qty"],
      ["R1,R2", "1k", "2"],
      ["S1", '"3/8 screw', "4"],
      ["R3", "2k", "1"],
    ],
  ],
  [
    "quotes inside quotes",
    'Ref,Part\nR1,"say ""x"""',
    [
      ["Ref", "Part"],
      ["R1", 'say "x"'],
    ],
  ],
])("%s", (_, text, rows) => {
  expect(readCsv(text)).toEqual(rows);
});

test("every sheet that holds something comes with its name, hidden ones told apart", async () => {
  const book = new ExcelJS.Workbook();
  book.addWorksheet("Cover").addRow(["hello"]);
  book.addWorksheet("Old", { state: "hidden" }).addRow(["Ref", "Qty"]);
  book.addWorksheet("Empty");
  const tables = await readTables(new Uint8Array(await book.xlsx.writeBuffer()));
  expect(tables?.map((t) => [t.name, t.isHidden])).toEqual([
    ["Cover", false],
    ["Old", true],
  ]);
});
