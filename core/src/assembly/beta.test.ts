import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { betaBelow, betaInterval } from "./beta.ts";

test("EX 7.5: of a prior of 19 to 1 and 28 good of 30 nine tenths lie between 0.8770 and 0.9831", () => {
  const [low, high] = betaInterval(47, 3, 0.9);
  expect(low).toBeCloseTo(0.877, 4);
  expect(high).toBeCloseTo(0.9831, 4);
});

test("below x lies what a binomial counts: of n throws at least k", () => {
  // I_x(k, n − k + 1) = P(at least k of n), summed out
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 40 }),
      fc.nat(39),
      fc.double({ min: 0.01, max: 0.99, noNaN: true }),
      (n, j, x) => {
        const k = (j % n) + 1;
        let [sum, term] = [0, (1 - x) ** n];
        for (let i = 0; i <= n; i++) {
          if (i >= k) sum += term;
          term *= ((n - i) / (i + 1)) * (x / (1 - x));
        }
        expect(betaBelow(k, n - k + 1, x)).toBeCloseTo(sum, 9);
      },
    ),
  );
});

test("a flat one is even, its ends are 0 and 1, and more seen is narrower about the same middle", () => {
  expect(betaBelow(1, 1, 0.3)).toBeCloseTo(0.3, 12);
  expect([betaBelow(3, 4, 0), betaBelow(3, 4, 1), betaBelow(3, 4, -1)]).toEqual([0, 1, 0]);
  const [few, many] = [betaInterval(9, 1, 0.9), betaInterval(900, 100, 0.9)];
  expect(few[1] - few[0]).toBeGreaterThan(5 * (many[1] - many[0]));
  expect(many[0]).toBeGreaterThan(0.88);
  expect(many[1]).toBeLessThan(0.92);
});
