import { expect, test } from "@jest/globals";
import { HAPPENS, mayChange } from "./policy.ts";

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
] as const)("%s", (_, table, state, role, may) => {
  expect(mayChange(table, state, role)).toBe(may);
});

test("what happens is what a released run still takes", () => {
  expect(HAPPENS).toEqual(["reservation", "remark"]);
});
