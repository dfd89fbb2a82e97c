import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { loadOf, loadWords, type OutputLoad, unratedOf } from "./load.ts";

const load = (more: Partial<OutputLoad> = {}): OutputLoad => ({
  volts: "24",
  kind: "direct",
  amps: "2",
  ratings: [
    { what: "U3", amps: "3" },
    { what: "J3", amps: "2.5" },
  ],
  ...more,
});

// worked by hand: 0.8 × 2.5 A = 2.0 A; 24 V / 2 A = 12 Ω; 24² / 12 = 48 W, twice that 96 W
test("the weakest in the path decides, at the share that is used; the resistor draws no more than is planned", () => {
  expect(loadOf(load())).toEqual({
    weakest: { what: "J3", amps: "2.5" },
    allowed: "2",
    margin: 1,
    stand: "fits",
    test: { ohms: 12, amps: 2, watts: 48, rated: 96 },
    label: "24 V DC, max. 2 A",
    isDangerous: false,
  });
  expect(loadWords(load())).toBe("loaded with 12 Ω rated 96 W or more: 2 A, 48 W of heat");
});

// 5 / 0.3 = 16.67 Ω → 18 Ω: 0.278 A, 1.389 W, twice 2.778 W; 0.8 × 0.5 = 0.4 A, 4 / 3 = 1.333
test("between two values of the series it is the greater; what it must stand is rounded up, what is allowed down", () => {
  const l = load({ volts: "5", amps: "0.3", ratings: [{ what: "Q1", amps: "0.5" }] });
  const said = loadOf(l);
  // more than the path carries is never proposed as a load
  expect(loadWords(load({ amps: "3" }))).toBe("not loaded: 3 A are planned, and J3 carries 2.5 A");
  expect([said.allowed, said.margin, said.label]).toEqual(["0.4", 4 / 3, "5 V DC, max. 0.4 A"]);
  expect(said.test!.ohms).toBe(18);
  expect(loadWords(l)).toBe("loaded with 18 Ω rated 2.8 W or more: 0.28 A, 1.4 W of heat");
  // 5² / 15 Ω = 1.667 W, twice 3.333 W: 3.4, never 3.3
  expect(loadWords(load({ volts: "5", amps: "0.3334" }))).toMatch(/^loaded with 15 Ω rated 3\.4 W or more/);
  // 0.8 × 1.99 = 1.592, never 1.6
  expect(loadOf(load({ ratings: [{ what: "Q1", amps: "1.99" }] })).allowed).toBe("1.5");
  // 12 V / 5 mA = 2400 Ω, 60 mW, twice 0.12 W
  expect(loadWords(load({ volts: "12", amps: "0.005" }))).toBe(
    "loaded with 2.4 kΩ rated 0.12 W or more: 5 mA, 0.06 W of heat",
  );
});

test.each([
  ["2", undefined, "fits"],
  ["2.01", undefined, "tight"],
  ["2.5", undefined, "tight"],
  ["2.51", undefined, "over"],
  ["2.5", 1, "fits"],
  ["1.26", 0.5, "tight"],
  // 0.9 × 2.5 = 2.25, told as 2.2: above what is told is above what is allowed
  ["2.2", 0.9, "fits"],
  ["2.25", 0.9, "tight"],
] as const)("%s A of 2.5 A at a share of %s is %s", (amps, share, stand) => {
  expect(loadOf(load({ amps, ...(share === undefined ? {} : { share }) })).stand).toBe(stand);
});

test("where nobody says what carries it no label promises anything", () => {
  const said = loadOf(load({ ratings: [] }));
  expect([said.stand, said.label, said.allowed, said.margin]).toEqual([
    "not known",
    undefined,
    undefined,
    undefined,
  ]);
  expect(said.test!.ohms).toBe(12);
});

test.each([
  ["60", "direct", false],
  ["60.1", "direct", true],
  ["30", "alternating", false],
  ["30.1", "alternating", true],
] as const)("%s V %s can hurt: %s", (volts, kind, isDangerous) => {
  expect(loadOf(load({ volts, kind })).isDangerous).toBe(isDangerous);
});

test("whatever is planned: the resistor draws no more, and hardly less; what is allowed is never above the share of any rating", () => {
  const decimal = fc.integer({ min: 1, max: 999_999 }).map((n) => String(n / 1000));
  fc.assert(
    fc.property(
      decimal,
      decimal,
      fc.array(decimal, { minLength: 1, maxLength: 5 }),
      fc.double({ min: 0.05, max: 1, noNaN: true }),
      (volts, amps, rated, share) => {
        const said = loadOf(
          load({ volts, amps, share, ratings: rated.map((a, i) => ({ what: `P${i}`, amps: a })) }),
        );
        const test = loadOf(load({ volts, amps })).test ?? loadOf(load({ volts, amps, ratings: [] })).test!;
        expect(test.amps).toBeLessThanOrEqual(Number(amps) * (1 + 1e-9));
        // the widest step of the series of 24 is from 13 to 15
        expect(test.amps).toBeGreaterThan(Number(amps) / 1.155);
        for (const a of rated)
          expect(Number(said.allowed)).toBeLessThanOrEqual(Number(a) * share * (1 + 1e-9));
        expect(Number(said.allowed)).toBeGreaterThan(0.9 * Math.min(...rated.map(Number)) * share);
        expect(said.stand === "fits").toBe(said.margin! >= 1);
        // nothing is ever loaded with more than its path carries
        expect(said.test === undefined).toBe(rated.some((a) => Number(a) < Number(amps)));
      },
    ),
  );
});

test("what an item goes through and nobody rates is named once, by its part", () => {
  const ratings = [
    { what: "U3", amps: "3" },
    { what: "J3 pin 2", amps: "2.5" },
    { what: "copper J9.1 to Q2", amps: "1" },
  ];
  expect(unratedOf(["Q1.3", "Q1", "U3", "J3.2", "J9", "U31"], ratings)).toEqual(["Q1", "J9", "U31"]);
  expect(unratedOf([], [])).toEqual([]);
});
