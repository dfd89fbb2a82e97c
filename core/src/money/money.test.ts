import { expect, test } from "@jest/globals";
import Big from "big.js";
import fc from "fast-check";
import {
  convertMicros,
  microsToNumber,
  microsToText,
  placesOf,
  roundMoney,
  toMicros,
  ZERO,
} from "./money.ts";

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

test("amounts as they are written are read as the decimals they are, and shown as the number nearest to them", () => {
  const digits = fc.integer({ min: 0, max: 999_999_999 });
  const part = fc.oneof(fc.constant(""), fc.stringMatching(/^\.\d{1,8}$/));
  fc.assert(
    fc.property(fc.constantFrom("", "-"), digits, part, (sign, whole, decimals) => {
      const text = `${sign}${whole}${decimals}`;
      const exact = new Big(text).times(1e6).round(0, Big.roundHalfUp);
      expect(toMicros(text) === exact.toNumber()).toBe(true);
      expect(microsToNumber(toMicros(text))).toBe(Number(exact.div(1e6).toFixed()));
    }),
    { numRuns: 2000 },
  );
  expect(Object.is(toMicros("-0"), 0)).toBe(true);
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
  ["no currency", 2],
])("%s has %d places (ISO 4217)", (currency, places) => {
  expect(placesOf(currency)).toBe(places);
  // asked again it is the same
  expect(placesOf(currency)).toBe(places);
});

test("money is read from numbers as from texts, to six places, half away from zero", () => {
  expect([toMicros(0.2), toMicros("0.2"), toMicros(12), toMicros(" 12.5 ")]).toEqual([
    200_000, 200_000, 12_000_000, 12_500_000,
  ]);
  expect([toMicros("0.0000005"), toMicros("-0.0000005"), toMicros("0.00000049")]).toEqual([1, -1, 0]);
  expect(() => toMicros("9000000001")).toThrow("more money than Kobbin counts");
  expect(() => toMicros("12,50")).toThrow("is not an amount of money");
  expect(toMicros("9000000000")).toBe(9e15);
  expect([microsToText(15500), microsToText(0), microsToText(-1)]).toEqual(["0.0155", "0", "-0.000001"]);
  expect(ZERO).toBe(0);
});

test("an exchange is rounded once, and at one to one it is none", () => {
  expect(convertMicros(1_000_001, "1")).toBe(1_000_001);
  expect(convertMicros(3, "0.5")).toBe(2);
  expect(convertMicros(toMicros("142.50"), "0.9215")).toBe(131_313_750);
});
