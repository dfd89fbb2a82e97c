import { expect, test } from "@jest/globals";
import { unitsIn } from "./unitsIn.ts";

test.each([
  ["3", [3]],
  ["3, 5", [3, 5]],
  ["7–9 1 4", [1, 4, 7, 8, 9]],
  ["2 - 4; 3", [2, 3, 4]],
  ["0012", [12]],
])("%s", (text, units) => {
  expect(unitsIn(text)).toEqual({ units });
});

test.each([
  ["", "Say which boards."],
  ["five", "“five” is no board: 3, 5-8."],
  ["3-", "“3-” is no board: 3, 5-8."],
  ["-3", "“-3” is no board: 3, 5-8."],
  ["1.5", "“1.5” is no board: 3, 5-8."],
  ["5-3", "“5-3” names no board."],
  ["0", "“0” names no board."],
  ["1-2001", "At most 2000 boards at once."],
  ["1-1500, 1502-2100", "At most 2000 boards at once."],
])("%s is refused", (text, wrong) => {
  expect(unitsIn(text)).toEqual({ wrong });
});
test("as many as are taken at once", () => {
  expect(unitsIn("1-2000")).toMatchObject({ units: { length: 2000 } });
});
