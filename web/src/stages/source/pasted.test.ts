import { expect, test } from "@jest/globals";
import { readBreaks } from "./pasted.ts";

test.each([
  [
    "blanks",
    "1 0.12\n100 0.055",
    [
      [1, "0.12"],
      [100, "0.055"],
    ],
  ],
  [
    "tabs, as from a spreadsheet, in any order",
    "100\t0.055\n1\t0.12",
    [
      [1, "0.12"],
      [100, "0.055"],
    ],
  ],
  [
    "words around, decimal comma",
    "1+: 0,12 EUR\n100+: 0,055 EUR",
    [
      [1, "0.12"],
      [100, "0.055"],
    ],
  ],
])("price steps set apart by %s", (_, text, want) => {
  expect(readBreaks(text)).toEqual({ breaks: want.map(([qty, price]) => ({ qty, price })) });
});

test.each([
  ["", "at least one row"],
  ["100", "needs a quantity and a price"],
  ["1 0.1\n1 0.2", "stands twice"],
  ["1.5 0.1", "is no quantity"],
])("%j is refused: %s", (text, problem) => {
  expect(readBreaks(text).problem).toContain(problem);
});
