import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { ALIKE, isSymptom, minutesToFind, rankedCauses, SYMPTOMS, type Symptom } from "./symptoms.ts";

const KEYS = Object.keys(SYMPTOMS) as Symptom[];
const shares = (...of: Parameters<typeof rankedCauses>) =>
  Object.fromEntries(rankedCauses(...of).map((c) => [c.key, c.share]));

test("of each symptom the shares are whole, no two causes are alike, and each look says what is done in how long", () => {
  for (const key of KEYS) {
    const { causes } = SYMPTOMS[key];
    expect(causes.reduce((n, c) => n + c.prior, 0)).toBeCloseTo(1, 12);
    expect(new Set(causes.map((c) => c.key)).size).toBe(causes.length);
    for (const c of causes)
      expect([c.minutes > 0, c.check.length > 5, c.words.length > 5]).toEqual([true, true, true]);
  }
  expect([isSymptom("dead"), isSymptom("toString"), isSymptom("")]).toEqual([true, false, false]);
});

test("the shop's own faults weigh with the ten of the priors: 20 joints beside 10 · 0.3 make 23 of 30 of the dead", () => {
  const found = shares("dead", { joint: 20 });
  expect(found.way).toBeCloseTo(23 / 30, 9);
  expect(found.supply).toBeCloseTo(3 / 30, 9);
  // a class the symptom has no cause of says nothing
  expect(shares("dead", { design: 50 })).toEqual(shares("dead", {}));
});

test("where three boards fail alike one bad joint each is unlikely: 0.2² of its weight, and what they share comes first", () => {
  const three = shares("restarts", {}, 3);
  const [single, common] = [(0.3 + 0.1) * ALIKE ** 2, 0.3 + 0.25 + 0.05];
  expect(three.joint).toBeCloseTo((0.3 * ALIKE ** 2) / (single + common), 9);
  expect(shares("restarts", {}, 0)).toEqual(shares("restarts", {}, 1));
});

test("what is ruled out is gone and the rest fills its place; with all of it ruled out nothing is left", () => {
  const left = rankedCauses("hungry", {}, 1, new Set(["bridge", "turned"]));
  expect(left.map((c) => c.key)).not.toContain("bridge");
  expect(left.find((c) => c.key === "beside")!.share).toBeCloseTo(0.2 / 0.35, 9);
  expect(rankedCauses("hungry", {}, 1, new Set(SYMPTOMS.hungry.causes.map((c) => c.key)))).toEqual([]);
});

test("no other order of looks finds it sooner on average", () => {
  const counts = fc.record({
    joint: fc.nat(30),
    placement: fc.nat(30),
    part: fc.nat(9),
    process: fc.nat(30),
  });
  fc.assert(
    fc.property(fc.constantFrom(...KEYS), counts, fc.integer({ min: 1, max: 4 }), (key, own, alike) => {
      const ranked = rankedCauses(key, own, alike);
      expect(ranked.reduce((n, r) => n + r.share, 0)).toBeCloseTo(1, 9);
      const best = minutesToFind(ranked);
      for (const order of orders(ranked)) {
        let after = 0;
        const mean = order.reduce((n, r) => {
          after += r.minutes;
          return n + r.share * after;
        }, 0);
        expect(best).toBeLessThanOrEqual(mean + 1e-9);
      }
    }),
    { numRuns: 40 },
  );
});

/** Every order of a few. */
function orders<T>(list: readonly T[]): T[][] {
  if (list.length < 2) return [[...list]];
  return list.flatMap((x, i) =>
    orders([...list.slice(0, i), ...list.slice(i + 1)]).map((rest) => [x, ...rest]),
  );
}
