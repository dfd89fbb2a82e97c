import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { convertMicros, microsToText, placesOf, roundMoney, toMicros } from "./money.ts";

test("a decimal text goes in and comes out the same", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -9_000_000, max: 9_000_000 }),
      fc.integer({ min: 0, max: 999_999 }),
      (whole, part) => {
        const text = `${whole}.${String(part).padStart(6, "0")}`.replace(/\.?0+$/, "");
        if (text === "-0" || text === "-" || text === "") return;
        expect(microsToText(toMicros(text))).toBe(text);
      },
    ),
  );
});

test("unit prices keep six decimals; documents round half away from zero", () => {
  expect(toMicros("0.0155")).toBe(15500);
  expect(roundMoney(toMicros("0.125"), "EUR")).toBe(130000);
  expect(roundMoney(toMicros("-0.125"), "EUR")).toBe(-130000);
  expect(roundMoney(toMicros("1.4"), "JPY")).toBe(1_000_000);
  expect(roundMoney(toMicros("1.0005"), "KWD")).toBe(1_001_000);
});

test("142.50 at 0.9215 is 131.31 on a document (worked example)", () => {
  expect(microsToText(roundMoney(convertMicros(toMicros("142.50"), "0.9215"), "EUR"))).toBe("131.31");
});

test("what is no amount is refused with its text", () => {
  expect(() => toMicros("12,50")).toThrow("12,50");
  expect(() => toMicros("1e12")).toThrow("more money");
});

test.each([
  ["EUR", 2],
  ["JPY", 0],
  ["KRW", 0],
  ["ISK", 0],
  ["KWD", 3],
  ["TND", 3],
  ["UGX", 0],
  ["XQQ", 2],
  ["", 2],
])("%s has %d places (ISO 4217)", (currency, places) => {
  expect(placesOf(currency)).toBe(places);
  // asked again it is the same
  expect(placesOf(currency)).toBe(places);
});
