import { expect, test } from "@jest/globals";
import { plainPrice } from "./price-text.ts";

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
