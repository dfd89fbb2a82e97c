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
  [
    "thousands in quantities and prices",
    "1 1.234,50\n1.000 999,90",
    [
      [1, "1234.50"],
      [1000, "999.90"],
    ],
  ],
  [
    "ranges, words before, a dash",
    "1 - 9: 0.12\nfrom 10 pcs 0,11 €\n100 - 0.05\n1000+ @ 0.04/pc",
    [
      [1, "0.12"],
      [10, "0.11"],
      [100, "0.05"],
      [1000, "0.04"],
    ],
  ],
  [
    "three decimals, as the other prices are written",
    "1 1.2345\n100 1.055",
    [
      [1, "1.2345"],
      [100, "1.055"],
    ],
  ],
  [
    "thousands, as the other prices are written",
    "1 12,50\n10 1.055\n100 0,250",
    [
      [1, "12.50"],
      [10, "1055"],
      [100, "0.250"],
    ],
  ],
])("price steps set apart by %s", (_, text, want) => {
  expect(readBreaks(text, "EUR")).toEqual({ breaks: want.map(([qty, price]) => ({ qty, price })) });
});

test("a price that nothing decides is asked once, and the answer holds for all", () => {
  const text = "1\t1.234\n10\t1.100";
  expect(readBreaks(text, "EUR")).toEqual({
    breaks: [],
    doubt: { text: "1.234", decimal: "1.234", grouped: "1234" },
  });
  expect(readBreaks(text, "EUR", "decimal").breaks.map((b) => b.price)).toEqual(["1.234", "1.100"]);
  expect(readBreaks(text, "EUR", "grouped").breaks.map((b) => b.price)).toEqual(["1234", "1100"]);
});

test.each([
  ["", "at least one row"],
  ["100", "needs a quantity and a price"],
  ["1 0.1\n1 0.2", "stands twice"],
  ["1.5 0.1", "is no quantity"],
  ["100 0.055 5.50", "“0.055 5.50” is no plain price each"],
  ["100 0.055 USD", "is in USD, the offer in EUR"],
  ["100 5.50 / 100", "is no plain price each"],
  ["1 000 0.05", "is no plain price each"],
  ["10 -0.05", "is no plain price each"],
  ["10: 0", "is a price of nothing"],
])("%j is refused: %s", (text, problem) => {
  expect(readBreaks(text, "EUR").problem).toContain(problem);
});
