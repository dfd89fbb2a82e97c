import { expect, test } from "@jest/globals";
import { readPastedLines } from "./pastedLines.ts";

test("rows under headings, in any order of columns", () => {
  const { lines, problem } = readPastedLines(
    "MPN\tQty\tReference\tValue\nZZ-1\t2\tR1, R2\t4k7\nZZ-2\t4\t\tscrew\n",
  );
  expect(problem).toBeUndefined();
  expect(lines).toMatchObject([
    { refs: ["R1", "R2"], qty: 2, valueText: "4k7", mpn: "ZZ-1", mount: "machine" },
    { refs: [], qty: 4, valueText: "screw", mpn: "ZZ-2", mount: "none" },
  ]);
});

test("rows without headings are taken in the bill's order", () => {
  expect(readPastedLines("C1-C3\t3\t100n\t0603\tZZ-3").lines).toMatchObject([
    { refs: ["C1", "C2", "C3"], qty: 3, valueText: "100n", package: "0603", mpn: "ZZ-3" },
  ]);
});

test("three rows without headings in another order are told by what they hold", () => {
  const { lines, remark } = readPastedLines("10k\tR1 R2\t0603\n100n\tC1\t0402\n1k\tR5-R7\t0603\n");
  expect(lines).toMatchObject([
    { refs: ["R1", "R2"], valueText: "10k", package: "0603" },
    { refs: ["C1"], valueText: "100n", package: "0402" },
    { refs: ["R5", "R6", "R7"], valueText: "1k", package: "0603" },
  ]);
  expect(remark).toMatch(/No heading is known/);
});

test("what was copied from the bill comes back as it was", () => {
  const row = "2\tU1 U2\t2\tM48-64\tQFP48\tMM-48 Maker & Co\tby hand\tyes\tremove";
  expect(readPastedLines(row).lines).toMatchObject([
    { refs: ["U1", "U2"], valueText: "M48-64", package: "QFP48", mount: "hand" },
  ]);
});

test("prose and bad references are told, not guessed", () => {
  expect(readPastedLines("just a sentence").problem).toBe("The clipboard holds no rows of cells.");
  expect(readPastedLines("").problem).toBeDefined();
  expect(readPastedLines("Ref\tQty\tValue\nR5-R2\t4\t1k").remark).toMatch(/^Row 2: /);
});
