import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { ALL_DEFECTS } from "../shape/defects.ts";
import { classOf, defectRates, pareto, wilson } from "./defects.ts";

test("defects a board and of a million joints (domain.md EX 9.6)", () => {
  const r = defectRates(7, 31, 98)!;
  expect(r.perUnit).toBeCloseTo(0.2258, 4);
  expect(Math.round(r.perMillion!)).toBe(2304);
  expect(r.clean).toBeCloseTo(0.798, 3);
  expect(defectRates(0, 0, 98)).toBeUndefined();
  expect(defectRates(2, 4, 0)).toEqual({ defects: 2, perUnit: 0.5, clean: Math.exp(-0.5) });
});

test("names by how often they come, with what they make up (domain.md EX 9.7)", () => {
  const of = (name: string, n: number) => Array.from({ length: n }, () => name);
  const bars = pareto([
    ...of("other", 1),
    ...of("bridge", 9),
    ...of("polarity", 3),
    ...of("insufficient", 5),
    ...of("missing", 2),
  ]);
  expect(bars.map((b) => b.name)).toEqual(["bridge", "insufficient", "polarity", "missing", "other"]);
  expect(bars.map((b) => Number(b.upTo.toFixed(2)))).toEqual([0.45, 0.7, 0.85, 0.95, 1]);
  expect(pareto(["b", "a"]).map((b) => b.name)).toEqual(["a", "b"]);
  expect(pareto([])).toEqual([]);
});

test("where a share lies by what was seen (domain.md 9.7)", () => {
  const [low, high] = wilson(28, 30);
  expect([low.toFixed(3), high.toFixed(3)]).toEqual(["0.787", "0.982"]);
  expect(wilson(0, 0)).toEqual([0, 1]);
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 500 }), fc.nat(500), (n, k) => {
      const hits = Math.min(k, n);
      const [a, b] = wilson(hits, n);
      expect(a).toBeLessThanOrEqual(hits / n);
      expect(b).toBeGreaterThanOrEqual(hits / n);
      // turned about, it is the same from the other side
      const [c, d] = wilson(n - hits, n);
      expect(c).toBeCloseTo(1 - b, 9);
      expect(d).toBeCloseTo(1 - a, 9);
    }),
  );
});

test("every code is of one class, and no code stands twice", () => {
  expect(new Set(ALL_DEFECTS).size).toBe(ALL_DEFECTS.length);
  expect(classOf("bridge")).toBe("joint");
  expect(classOf("wrong way round")).toBe("placement");
  expect(ALL_DEFECTS.every((c) => classOf(c) !== undefined)).toBe(true);
});
