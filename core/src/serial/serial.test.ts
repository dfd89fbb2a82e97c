import { expect, test } from "@jest/globals";
import fc from "fast-check";
import {
  boardOfSerial,
  checkSymbol,
  initialsOf,
  readSerial,
  ruleWrong,
  SERIAL_SYMBOLS,
  serialOf,
  USUAL_RULE,
} from "./serial.ts";

test.each([
  ["KB2C070013", "8"],
  ["KB2C070014", "6"],
  ["KB2C070031", "A"],
  ["KB3A010001", "W"],
])("the check symbol of %s is %s (domain.md EX 9.3)", (payload, is) => expect(checkSymbol(payload)).toBe(is));

test("a number is made of the product, the year, the batch and the board; by hand", () => {
  // batch 12295 is 12 · 32² + 0 · 32 + 7: C07
  const of = { product: "Kettle Bell", year: 2032, batch: 12_295, n: 13 };
  expect(serialOf(USUAL_RULE, of)).toBe("KB2C0700138");
  expect(serialOf("{product}-{yy}-{batch}-{n}", of)).toMatch(/^KB-32-C07-0013.$/);
  expect(readSerial(serialOf("{product}-{yy}-{batch}-{n}", of))).toHaveProperty("serial");
  expect(initialsOf("Kiln Watch")).toBe("KW");
  // I, L, O and U are read as others
  expect([initialsOf("Oil lamp"), initialsOf("Iou"), initialsOf("42 °")]).toEqual(["A", "X", "4"]);
  expect(() => serialOf(USUAL_RULE, { ...of, n: 10_000 })).toThrow("has no serial number");
  expect(() => serialOf(USUAL_RULE, { ...of, batch: 32 ** 3 })).toThrow("has no serial number");
});

test.each([
  [USUAL_RULE, undefined],
  ["kb-{batch}-{n}", undefined],
  ["{product}{n}", "without {batch} and {n} two boards would have one number"],
  ["LOT{batch}{n}", "L is read as another: it stands in no serial number"],
  ["{batch}/{n}", "“/” stands in no serial number"],
  ["{batch}{n}{n}", "a piece of it stands twice"],
  ["{batch}{n}{serial}", "“{” stands in no serial number"],
])("the rule %s", (rule, wrong) => expect(ruleWrong(rule)).toBe(wrong));

test("any one wrong symbol and any two swapped neighbours are told; case, blanks and look-alikes are not", () => {
  const symbols = fc.string({ unit: fc.constantFrom(...SERIAL_SYMBOLS), minLength: 6, maxLength: 14 });
  fc.assert(
    fc.property(symbols, fc.nat(), fc.constantFrom(...SERIAL_SYMBOLS), (payload, at, other) => {
      const whole = payload + checkSymbol(payload);
      expect(readSerial(`${whole.slice(0, 3).toLowerCase()}- ${whole.slice(3)}`)).toEqual({ serial: whole });
      const i = at % whole.length;
      if (other !== whole[i])
        expect(readSerial(whole.slice(0, i) + other + whole.slice(i + 1))).toHaveProperty("wrong");
      const [a, b] = [whole[i]!, whole[i + 1] ?? whole[i]!];
      const isEnds = [a, b].sort().join("") === "0Z";
      if (a !== b && !isEnds)
        expect(readSerial(whole.slice(0, i) + b + a + whole.slice(i + 2))).toHaveProperty("wrong");
    }),
  );
  expect(readSerial("kb2co7oo138")).toEqual({ serial: "KB2C0700138" });
  expect(readSerial("KB2C0700137")).toEqual({
    wrong: "KB2C0700137 was mistyped: its last symbol would be 8. Read it once more.",
  });
  expect(readSerial("KB2C07U0138")).toEqual({ wrong: "“U” stands in no serial number." });
});

test("a serial number tells which board of which batch it is, and of no other", () => {
  const rule = fc.constantFrom(USUAL_RULE, "{n}-{batch}", "A1{batch}{yy}{n}", "{batch}{n}77");
  fc.assert(
    fc.property(
      rule,
      fc.integer({ min: 1, max: 32_767 }),
      fc.integer({ min: 1, max: 9999 }),
      (r, batch, n) => {
        const of = { product: "Kiln Watch", year: 2026, batch };
        const serial = serialOf(r, { ...of, n }).replaceAll("-", "");
        expect(boardOfSerial(r, of, serial)).toBe(n);
        expect(boardOfSerial(r, { ...of, batch: (batch % 32_767) + 1 }, serial)).toBeUndefined();
      },
    ),
  );
});
