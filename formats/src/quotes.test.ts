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
  [
    "two strays with rows between them",
    'Ref,Part,Qty\nS1,"3/8 screw,4\nR1,1k,1\nR2,2k,1\nS2,nut 1/2",4\nR9,1k,1',
    [
      ["Ref", "Part", "Qty"],
      ["S1", '"3/8 screw', "4"],
      ["R1", "1k", "1"],
      ["R2", "2k", "1"],
      ["S2", 'nut 1/2"', "4"],
      ["R9", "1k", "1"],
    ],
  ],
  [
    "two strays with one row between them",
    'Ref,Part,Qty\nS1,"3/8 screw,4\nR1,1k,1\nS2,nut 1/2",4\nR9,1k,1',
    [
      ["Ref", "Part", "Qty"],
      ["S1", '"3/8 screw', "4"],
      ["R1", "1k", "1"],
      ["S2", 'nut 1/2"', "4"],
      ["R9", "1k", "1"],
    ],
  ],
  [
    "strays in two columns, and most rows with one cell more than the first",
    'Ref,Part\nS1,"3/8 screw,4,x\nR1,1k,1,x\nR2,2k,1,x\nS2,nut,1/2",x\nR9,1k,1,x',
    [
      ["Ref", "Part"],
      ["S1", '"3/8 screw', "4", "x"],
      ["R1", "1k", "1", "x"],
      ["R2", "2k", "1", "x"],
      ["S2", "nut", '1/2"', "x"],
      ["R9", "1k", "1", "x"],
    ],
  ],
  [
    "references over three lines, three in each and one in the last",
    'Ref,Part,Qty\n"R1,R2,R3\nR4,R5,R6\nR7",1k,7\nR8,2k,1',
    [
      ["Ref", "Part", "Qty"],
      ["R1,R2,R3\nR4,R5,R6\nR7", "1k", "7"],
      ["R8", "2k", "1"],
    ],
  ],
  [
    "references over four lines in the middle of a row",
    'Part,Ref,Qty\n1k,"R1,R2,\nR4,R5,R6,\nR7,R8,R9,\nR10",9\n2k,R11,1',
    [
      ["Part", "Ref", "Qty"],
      ["1k", "R1,R2,\nR4,R5,R6,\nR7,R8,R9,\nR10", "9"],
      ["2k", "R11", "1"],
    ],
  ],
  [
    "references over two lines in the middle of a row",
    'Part,Ref,Qty\n1k,"R1,R2\nR3,R4",4\n2k,"R5 "" x,1',
    [
      ["Part", "Ref", "Qty"],
      ["1k", "R1,R2\nR3,R4", "4"],
      ["2k", '"R5 "" x', "1"],
    ],
  ],
])("%s", (_, text, rows) => {
  expect(readCsv(text)).toEqual(rows);
});

// what its first line says is the delimiter, however it is written
test.each<[string, readonly (readonly string[])[] | undefined]>([
  [
    "sep=;\nA;B\n1,5;2",
    [
      ["A", "B"],
      ["1,5", "2"],
    ],
  ],
  [
    "sep=;\r\nA;B\r\n1,5;2",
    [
      ["A", "B"],
      ["1,5", "2"],
    ],
  ],
  [
    "sep=;\rA;B\r1,5;2",
    [
      ["A", "B"],
      ["1,5", "2"],
    ],
  ],
  ["Sep=| \nA|B;C\n", [["A", "B;C"]]],
  [
    "sep=\t\nA\tB\n1;5\t2",
    [
      ["A", "B"],
      ["1;5", "2"],
    ],
  ],
  [
    '"sep=;"\nA;B\n1,5;2',
    [
      ["A", "B"],
      ["1,5", "2"],
    ],
  ],
  ["sep=;", undefined],
  ["\nA,B\nsep=;,x", [[""], ["A", "B"], ["sep=;", "x"]]],
  [
    "sep=;;\nA;B",
    [
      ["sep=", "", ""],
      ["A", "B"],
    ],
  ],
])("%j", (text, rows) => {
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

// ways cells are put in quotes that are not the usual one, odd ones first; what is right by hand
const HEAD = ["Ref", "Qty", "Part"];
test.each<[string, string, (readonly string[])[]]>([
  [
    "single quotes around references, an apostrophe in a word",
    "Ref,Qty,Part\n'R1,R2',2,A\nX1,1,maker's own\n'R3',1,C",
    [HEAD, ["R1,R2", "2", "A"], ["X1", "1", "maker's own"], ["R3", "1", "C"]],
  ],
  [
    "two strays a row apart are no cell, even where that made the rows alike",
    'Ref,Qty,Part\nA1, "3/8,x\nA2,5,7/8" ,y\nR1,1,k',
    [HEAD, ["A1", ' "3/8', "x"], ["A2", "5", '7/8" ', "y"], ["R1", "1", "k"]],
  ],
  [
    "quotes of a word that keep nothing together stay",
    "Ref,Qty,Part\nX1,1,“so”\nR1,1,A,more\nR2,1,B",
    [HEAD, ["X1", "1", "“so”"], ["R1", "1", "A", "more"], ["R2", "1", "B"]],
  ],
  [
    "quotes as a word processor sets them",
    "Ref,Qty,Part\n“R1, R2”,2,A\nR3,1,C",
    [HEAD, ["R1, R2", "2", "A"], ["R3", "1", "C"]],
  ],
  [
    "low quotes at the front",
    "Ref;Qty;Part\n„R1; R2“;2;A\nR3;1;C",
    [HEAD, ["R1; R2", "2", "A"], ["R3", "1", "C"]],
  ],
  [
    "an inch behind a backslash",
    'Ref,Qty,Part\n"R1","1","1\\" pipe"\n"R2","1","x"',
    [HEAD, ["R1", "1", '1" pipe'], ["R2", "1", "x"]],
  ],
  [
    "a folder that ends in a backslash is no quote",
    'Ref,Qty,Part\n"R1","1","c:\\parts\\"\n"R2","1","x"',
    [HEAD, ["R1", "1", "c:\\parts\\"], ["R2", "1", "x"]],
  ],
  [
    "a space before the quote",
    'Qty, Ref, Part\n2, "R1, R2", A\n1, R3, "C, D"',
    [
      ["Qty", " Ref", " Part"],
      ["2", "R1, R2", " A"],
      ["1", " R3", "C, D"],
    ],
  ],
  [
    "a space before an inch that nobody closes",
    'Ref,Qty,Part\nS1,4, "3/8 screw\nR1,1,1k\nR2,1,2k',
    [HEAD, ["S1", "4", ' "3/8 screw'], ["R1", "1", "1k"], ["R2", "1", "2k"]],
  ],
  [
    "rows of a word processor's soft breaks",
    "Ref,Qty,Part\vR1,1,A\vR2,1,B",
    [HEAD, ["R1", "1", "A"], ["R2", "1", "B"]],
  ],
  ["a sign of it in a cell of a usual list", "Ref,Qty,Part\nR1,1,A\vB", [HEAD, ["R1", "1", "A\vB"]]],
])("quotes otherwise: %s", (_, text, rows) => expect(readCsv(text)).toEqual(rows));
