import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { apart, type LotSample, sampleOf } from "./sample.ts";

const sample = (readings: readonly string[], more: Partial<LotSample> = {}): LotSample => ({
  parameter: "resistance",
  low: "4.6k",
  high: "4.8 kΩ",
  readings,
  on: "2026-11-25",
  ...more,
});
const times = (n: number, text: string) => Array.from({ length: n }, () => text);

test("mean, spread and what is outside, prefixes and units as typed; words are told, not counted", () => {
  // 4.68, 4.70, 4.72, 4.90: mean 4.75, squares 0.0049 + 0.0025 + 0.0009 + 0.0225 = 0.0308 over 3
  const r = sampleOf(sample(["4.68k", "4700", "4,72 kΩ", "4.9k", "broken"]))!;
  expect([r.n, r.outside, r.unread, r.verdict]).toEqual([4, 1, ["broken"], "hold"]);
  expect(r.mean).toBeCloseTo(4750, 9);
  expect(r.spread).toBeCloseTo(Math.sqrt(0.0308 / 3) * 1000, 9);
  expect([r.min, r.max]).toEqual([4680, 4900]);
  expect(sampleOf(sample(["?", ""]))).toBeUndefined();
  expect(sampleOf(sample(["4.9k"], { low: "", high: "" }))!.verdict).toBe("no limits");
});

// n of n: 0.1^(1/n); one of ten outside: the root of 1 − P(10) − P(9)… of the binomial, from its tables 0.6632
test.each([
  [22, 0, 0.9006, "fine"],
  [21, 0, 0.8962, "few"],
  [1, 0, 0.1, "few"],
  [10, 1, 0.6632, "hold"],
  [10, 10, 0, "hold"],
])("of %d pieces %d outside: at least %d of the lot is within", (n, outside, share, verdict) => {
  const r = sampleOf(sample([...times(n - outside, "4.7k"), ...times(outside, "5k")]))!;
  expect(r.within).toBeCloseTo(share, 4);
  expect(r.verdict).toBe(verdict);
});

test("more pieces within never lower the share that is claimed, and it never exceeds what was seen", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 0, max: 60 }), (within, outside) => {
      const at = (w: number) => sampleOf(sample([...times(w, "4.7k"), ...times(outside, "5k")]))!.within;
      expect(at(within + 1)).toBeGreaterThanOrEqual(at(within));
      expect(at(within)).toBeLessThanOrEqual(within / (within + outside) + 1e-12);
    }),
  );
});

test("two lots differ for sure only where chance would hardly make it", () => {
  const of = (...values: number[]) => sampleOf(sample(values.map(String), { low: "", high: "" }))!;
  const [a, b] = [of(100, 101, 99, 100), of(110, 111, 109, 110)];
  expect(apart(b, a)!.share).toBeCloseTo(0.1, 12);
  expect(apart(b, a)!.isSure).toBe(true);
  expect(apart(of(100, 120, 80), of(105, 125, 85))!.isSure).toBe(false);
  expect(apart(of(100, 100), of(110, 110))!.isSure).toBe(false);
});
