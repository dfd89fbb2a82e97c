import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { blockOf, filledDown, fromTsv, moved, pasted, toTsv } from "./gridModel.ts";

const size = { rows: 5, cols: 4 };
const go = (row: number, col: number, key: string, jumps = false, filled: readonly string[] = []) => {
  const s = moved({ row, col }, key, jumps, size, 3, (x) => filled.includes(`${x.row},${x.col}`));
  return s && [s.row, s.col];
};

test("arrows stop at the edges, Home and End at the ends, pages at the last row", () => {
  expect(go(0, 0, "ArrowUp")).toEqual([0, 0]);
  expect(go(4, 3, "ArrowRight")).toEqual([4, 3]);
  expect(go(2, 2, "ArrowDown")).toEqual([3, 2]);
  expect(go(2, 2, "Home")).toEqual([2, 0]);
  expect(go(2, 2, "End", true)).toEqual([4, 3]);
  expect(go(2, 1, "PageDown")).toEqual([4, 1]);
  expect(go(2, 1, "x")).toBeUndefined();
});

test("with Ctrl an arrow runs over filled cells to the last of them, over empty ones to the next", () => {
  const filled = ["0,0", "1,0", "2,0", "4,0"];
  expect(go(0, 0, "ArrowDown", true, filled)).toEqual([2, 0]);
  expect(go(2, 0, "ArrowDown", true, filled)).toEqual([4, 0]);
  expect(go(4, 0, "ArrowUp", true, filled)).toEqual([2, 0]);
  expect(go(1, 2, "ArrowDown", true, filled)).toEqual([4, 2]);
});

test("what is copied comes back as it was, whatever it holds", () => {
  const cell = fc.string({ unit: fc.constantFrom("a", "\t", "\n", '"', " ", "é"), maxLength: 6 });
  fc.assert(
    fc.property(
      fc
        .tuple(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 }))
        .chain(([h, w]) =>
          fc.array(fc.array(cell, { minLength: w, maxLength: w }), { minLength: h, maxLength: h }),
        ),
      (rows) => {
        // one empty last row is what a spreadsheet's own last line end looks like
        fc.pre(!(rows.length > 1 && rows.at(-1)!.length === 1 && rows.at(-1)![0] === ""));
        expect(fromTsv(toTsv(rows))).toEqual(rows);
      },
    ),
  );
  expect(fromTsv("a\tb\r\nc\td\r\n")).toEqual([
    ["a", "b"],
    ["c", "d"],
  ]);
});

test("one cell fills a block; several are laid from its corner; what reaches beyond the end is handed back", () => {
  const block = blockOf({ row: 3, col: 2 }, { row: 1, col: 1 });
  expect(pasted([["x"]], block, size).edits).toHaveLength(6);
  const at = blockOf({ row: 3, col: 3 }, { row: 3, col: 3 });
  expect(pasted([["a", "b"], ["c"], ["d"]], at, size)).toEqual({
    edits: [
      { row: 3, col: 3, text: "a" },
      { row: 4, col: 3, text: "c" },
    ],
    beyond: [["d"]],
  });
});

test("filling down takes the first row of the block, or the row above a single one", () => {
  const textAt = (s: { row: number; col: number }) => `${s.row},${s.col}`;
  expect(filledDown(blockOf({ row: 1, col: 0 }, { row: 3, col: 0 }), textAt)).toEqual([
    { row: 2, col: 0, text: "1,0" },
    { row: 3, col: 0, text: "1,0" },
  ]);
  expect(filledDown(blockOf({ row: 2, col: 1 }, { row: 2, col: 1 }), textAt)).toEqual([
    { row: 2, col: 1, text: "1,1" },
  ]);
  expect(filledDown(blockOf({ row: 0, col: 1 }, { row: 0, col: 1 }), textAt)).toEqual([]);
});
