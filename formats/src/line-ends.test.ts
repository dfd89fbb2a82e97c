import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { readCsv } from "./table.ts";

const HEAD = "Ref,Qty,Part";
// what hands and programs leave of the ends of lines, the odd ones first; the right answer by hand
const WAYS: readonly (readonly [string, string, readonly (readonly string[])[]])[] = [
  [
    "a row added by another program below a list of the other kind",
    `${HEAD}\r\nR1,1,A\r\nR2,1,B\n,1,C\n`,
    [
      ["Ref", "Qty", "Part"],
      ["R1", "1", "A"],
      ["R2", "1", "B"],
      ["", "1", "C"],
    ],
  ],
  [
    "a heading put before a list of the other kind",
    `${HEAD}\r\nR1,1,A\nR2,1,B\nR3,1,C\n`,
    [
      ["Ref", "Qty", "Part"],
      ["R1", "1", "A"],
      ["R2", "1", "B"],
      ["R3", "1", "C"],
    ],
  ],
  [
    "an old program's returns, and one row by a newer one",
    `${HEAD}\rR1,1,A\rR2,1,B\nR3,1,C`,
    [
      ["Ref", "Qty", "Part"],
      ["R1", "1", "A"],
      ["R2", "1", "B"],
      ["R3", "1", "C"],
    ],
  ],
  [
    "a row of one cell added at the end",
    `${HEAD}\r\nR1,1,A\r\nR2,1,B\nall of it: 2`,
    [["Ref", "Qty", "Part"], ["R1", "1", "A"], ["R2", "1", "B"], ["all of it: 2"]],
  ],
  [
    "a break in a cell without quotes",
    `${HEAD}\r\nR1,1,A\r\n"R2","1",B\nof June\r\nR3,1,C\r\n`,
    [
      ["Ref", "Qty", "Part"],
      ["R1", "1", "A"],
      ["R2", "1", "B of June"],
      ["R3", "1", "C"],
    ],
  ],
  [
    "a break in a cell in quotes stays what it is",
    `${HEAD}\r\n"R1\nR2",2,A\r\nR3,1,"B ""so""\nC"\r\nR4,1,D\n`,
    [
      ["Ref", "Qty", "Part"],
      ["R1\nR2", "2", "A"],
      ["R3", "1", 'B "so"\nC'],
      ["R4", "1", "D"],
    ],
  ],
  [
    "blank lines of the other kind between rows",
    `${HEAD}\r\nR1,1,A\n\r\nR2,1,B\r\n`,
    [["Ref", "Qty", "Part"], ["R1", "1", "A"], [""], ["R2", "1", "B"]],
  ],
];

test.each(WAYS)("lines that end in more than one way: %s", (_, text, rows) => {
  expect(readCsv(text)).toEqual(rows);
});

test("no row is lost or joined, however the ends of its lines are mixed", () => {
  const word = fc.stringMatching(/^[A-Za-z0-9 ]{1,6}$/).filter((w) => w.trim() !== "");
  const cell = fc.oneof(
    word,
    word.map((w) => `"${w}\n${w}"`),
  );
  fc.assert(
    fc.property(
      fc
        .integer({ min: 2, max: 5 })
        .chain((n) =>
          fc.array(fc.array(cell, { minLength: n, maxLength: n }), { minLength: 3, maxLength: 12 }),
        ),
      fc.infiniteStream(fc.constantFrom("\n", "\r\n", "\r")),
      (rows, ends) => {
        const at = ends[Symbol.iterator]();
        const text = rows.map((r) => `${r.join(",")}${at.next().value}`).join("");
        expect(readCsv(text)).toEqual(rows.map((r) => r.map((c) => c.replace(/^"|"$/g, ""))));
      },
    ),
  );
});
