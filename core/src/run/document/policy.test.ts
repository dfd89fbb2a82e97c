import { expect, test } from "@jest/globals";
import { isDecided, isOfRun, mayChange, mayTakeBack } from "./policy.ts";

test.each([
  ["an owner decides while it is open", "fork", "open", "owner", true],
  ["nobody decides once it is released", "fork", "released", "owner", false],
  ["a quotation of a released run is refused", "quotation", "released", "owner", false],
  ["its bill too", "bom_line", "released", "owner", false],
  ["the bench decides nothing", "fork", "open", "bench", false],
  ["the bench notes", "remark", "open", "bench", true],
  ["a released run is noted on", "remark", "released", "bench", true],
  ["pieces are reserved after the release", "reservation", "released", "owner", true],
  ["the bench gives no pieces away", "reservation", "released", "bench", false],
  ["nothing arrives before the release", "receipt", "open", "owner", false],
  ["the bench receives", "receipt", "released", "bench", true],
  ["the bench builds", "work", "released", "bench", true],
  ["the bench pays nothing", "purchase", "released", "bench", false],
  ["a closed run is built no more", "work", "closed", "owner", false],
  ["a closed run is noted on", "remark", "closed", "bench", true],
  ["no board is reworked before one was built", "rework", "open", "owner", false],
  ["boards on stock are reworked after it is closed", "rework", "closed", "bench", true],
  ["no board goes out before one was built", "unit_out", "open", "owner", false],
  ["boards go out from stock", "unit_out", "closed", "bench", true],
  ["an owner opens it again", "closing", "closed", "owner", true],
  ["the bench does not", "closing", "closed", "bench", false],
] as const)("%s", (_, table, state, role, may) => {
  expect(mayChange(table, state, role)).toBe(may);
});

test.each([
  ["an owner takes a choice back while it is open", ["fork"], "open", "owner", true],
  ["nobody does once it is released", ["fork", "remark"], "released", "owner", false],
  [
    "the bench takes back its receipt with the lot that came of it",
    ["receipt", "lot", "reservation"],
    "released",
    "bench",
    true,
  ],
  ["the bench takes back no change of the shelf alone", ["lot"], undefined, "bench", false],
  ["the bench takes back what it learned", ["lesson"], undefined, "bench", true],
  ["and what an owner told it", ["owner_report"], undefined, "bench", true],
  ["nor one with a supplier in it", ["lesson", "supplier"], undefined, "bench", false],
  ["nor one with an invoice in it", ["receipt", "purchase"], "released", "bench", false],
  ["nor anything but words once it is closed", ["work"], "closed", "bench", false],
  [
    "an owner takes back the closing with what it took from the shelf",
    ["closing", "lot", "reservation"],
    "closed",
    "owner",
    true,
  ],
] as const)("%s", (_, tables, state, role, may) => {
  expect(mayTakeBack(tables, state, role)).toBe(may);
});

test("what is decided is frozen by a release, what happens is not; the shelf is no run's", () => {
  expect(["fork", "quotation", "receipt", "remark", "lot", "toString"].map(isDecided)).toEqual([
    true,
    true,
    false,
    false,
    false,
    false,
  ]);
  expect(["fork", "receipt", "lot", "toString"].map(isOfRun)).toEqual([true, true, false, false]);
});
