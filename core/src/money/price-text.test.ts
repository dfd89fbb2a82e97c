import { expect, test } from "@jest/globals";
import { decimalMark, isOpenPrice, plainPrice } from "./price-text.ts";

test.each([
  ["no mark at all", "12", undefined, undefined, "12"],
  ["one point", "12.50", undefined, undefined, "12.50"],
  ["one comma", "12,50", undefined, undefined, "12.50"],
  ["thousands by points, then a comma", "1.234,56", undefined, undefined, "1234.56"],
  ["thousands by commas, then a point", "1,234.56", undefined, undefined, "1234.56"],
  ["the same mark twice parts thousands", "1,234,567", undefined, undefined, "1234567"],
  ["apostrophes part thousands", "1'234.50", undefined, undefined, "1234.50"],
  // three places behind one mark can be either: the file's own mark decides, else what a person said
  ["open, and the file writes commas", "1,234", ",", undefined, "1.234"],
  ["open, and the file writes points", "1,234", ".", undefined, "1234"],
  ["open, said to be decimals", "1,234", undefined, "decimal", "1.234"],
  ["open, said to be thousands", "1,234", undefined, "grouped", "1234"],
] as const)("a price as people write it: %s", (_, text, mark, reading, plain) => {
  expect(plainPrice(text, mark, reading)).toBe(plain);
});

// which mark the others are written with: the first price that can be read one way only decides
test.each([
  [["12"], undefined],
  [["12", "3.50"], "."],
  [["3,50"], ","],
  [["1.234,56"], ","],
  [["1,234.56"], "."],
  [["1.234.567"], ","],
  [["1,234,567"], "."],
  [["1,234"], undefined],
  [["1,234", "0.5"], "."],
  [["0.125"], "."],
  [[], undefined],
])("of %j the decimal mark is %s", (prices, mark) => {
  expect(decimalMark(prices)).toBe(mark);
});

test.each([
  ["1.234", true],
  ["123,456", true],
  ["1234.567", false],
  ["0.125", false],
  ["1.23", false],
  ["1.2345", false],
])("%s can be read two ways: %s", (price, is) => {
  expect(isOpenPrice(price)).toBe(is);
});

test("an open price that nobody tells is taken for thousands only where that was said", () => {
  expect(plainPrice("1.234", undefined, undefined)).toBe("1234");
  expect(plainPrice("1.234.567,8", ",", undefined)).toBe("1234567.8");
  expect(plainPrice("12'345", undefined, undefined)).toBe("12345");
});
