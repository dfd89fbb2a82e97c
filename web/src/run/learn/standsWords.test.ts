import { expect, test } from "@jest/globals";
import { chanceWords, shareWords } from "./standsWords.ts";

test("chances and shares are said with no more digits than they have", () => {
  expect([0.9, 0.5, 0.33, 0.118, 0.056, 0.0046, 0.0009, 0].map(chanceWords)).toEqual([
    "more often than not",
    "more often than not",
    "once in 3 times",
    "once in 8 times",
    "once in 18 times",
    "once in 200 times",
    "less than once in a thousand times",
    "less than once in a thousand times",
  ]);
  expect([0.004, 0.014, 0.1, 0.667].map(shareWords)).toEqual(["under 1 %", "1.4 %", "10 %", "67 %"]);
});
