import { expect, test } from "@jest/globals";
import type { LotRow } from "@kobbin/contract";
import type { KitLine, RunDocument, RunRecord } from "@kobbin/core";
import { bagAtKit } from "./bagAtKit.ts";

const kit = ["r", "c", "u"].map((line) => ({
  name: `kit ${line}`,
  line,
  refs: [],
  pieces: 1,
  places: [],
})) as KitLine[];
const doc = {
  lines: [
    { id: "r", mpn: "RES-1" },
    { id: "c", mpn: "CAP-1" },
    { id: "u", mpn: "" },
  ],
  offers: [
    { id: "o-c", line: "c" },
    { id: "o-u", line: "u" },
    { id: "o-x", line: "gone" },
  ],
} as unknown as RunDocument;
const lot = (number: number, mpn: string, more: Partial<LotRow> = {}) =>
  ({ id: `l${number}`, number, mpn, qty: 10, condition: "new", reserved: [], ...more }) as unknown as LotRow;
const kept = (runId: string, qty: number) => ({ reserved: [{ runId, run: `run ${runId}`, qty }] });
const LOTS = [
  lot(1, "res-1 "),
  lot(2, "CAP-OTHER"),
  lot(3, "CAP-1", { condition: "quarantine" }),
  lot(4, "CAP-1", kept("b", 10)),
  lot(5, "CAP-1", kept("b", 9)),
  lot(6, "CAP-1", kept("a", 10)),
  lot(7, "MODULE-9"),
  lot(8, "RES-1", { qty: 0 }),
  lot(9, "LED-1"),
];
const record = {
  receipts: [
    { lot: "l2", item: "o-c" },
    { lot: "l7", item: "o-u" },
    { lot: "l9", item: "o-x" },
  ],
} as unknown as RunRecord;
const of = { doc, record, runId: "a" };
const at = (number: number, marks = {}) => {
  const b = bagAtKit(number, LOTS, kit, of, marks);
  return "wrong" in b ? b.wrong : `${b.kind.line}${b.isAgain ? " again" : ""}`;
};

test.each([
  // by its number however it is written, or because it came for the line in the place of another
  [1, "r"],
  [2, "c"],
  [7, "u"],
  [5, "c"],
  [6, "c"],
  [3, "B0003-Q is CAP-1, set apart: it is not to be used."],
  [4, "B0004-P is CAP-1, all of it kept for run b."],
  [8, "B0008-G is RES-1: it is empty."],
  [9, "B0009-E is LED-1: this run has none of it."],
  [10, "B0010-8 lies nowhere on the shelf."],
])("bag %i lays out: %s", (number, is) => {
  expect(at(number).replace(/B(\d{4})-./, "B$1")).toBe(is.replace(/B(\d{4})-./, "B$1"));
});

test("one that lies there already says so, and no other step lays anything out", () => {
  expect([at(1, { "kit r": "done" }), at(1, { "kit r": "skipped" }), at(1, { "kit c": "done" })]).toEqual([
    "r again",
    "r",
    "r",
  ]);
  expect(bagAtKit(1, LOTS, [], of, {})).toEqual({
    wrong: expect.stringMatching(/nothing is laid out at this step/),
  });
});
