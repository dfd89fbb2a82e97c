import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { type Branches, laterOf, readyBy } from "./ready.ts";

const N = (mean: number, sigma: number) => ({ mean, sigma });
const NONE = N(0, 0);

/** Quantiles of the same by drawing: another way to the same figure, mulberry32 and sums of twelve. */
function drawn(branches: readonly { mean: number; sigma: number }[], after: { mean: number; sigma: number }) {
  let a = 7;
  const next = () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const normal = () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
  const days = Array.from(
    { length: 40_000 },
    () => Math.max(...branches.map((b) => b.mean + b.sigma * normal())) + after.mean + after.sigma * normal(),
  ).sort((x, y) => x - y);
  return [0.1, 0.5, 0.9].map((q) => days[Math.floor(q * days.length)]!);
}

// worked by hand: of one normal branch the quantile itself, z = 1.2816; of two equal ones Φ(z)² = q
test.each<
  readonly [string, number, { mean: number; sigma: number }[], { mean: number; sigma: number }, number]
>([
  ["one branch, its middle", 0.5, [N(20, 4)], NONE, 20],
  ["one branch, 90 %", 0.9, [N(20, 4)], NONE, 20 + 1.2816 * 4],
  ["one branch, 10 %", 0.1, [N(20, 4)], NONE, 20 - 1.2816 * 4],
  ["two alike, middle: Φ = √0.5 = 0.7071, z = 0.5450", 0.5, [N(10, 2), N(10, 2)], NONE, 10 + 0.545 * 2],
  ["two alike, 90 %: Φ = √0.9 = 0.9487, z = 1.6322", 0.9, [N(10, 2), N(10, 2)], NONE, 10 + 1.6322 * 2],
  ["two alike, 10 %: Φ = √0.1 = 0.3162, z = −0.4783", 0.1, [N(10, 2), N(10, 2)], NONE, 10 - 0.4783 * 2],
  ["one far behind does not count", 0.9, [N(3, 0.8), N(20, 4)], NONE, 20 + 1.2816 * 4],
  ["work after one branch: σ = √(3² + 4²) = 5", 0.9, [N(10, 3)], N(6, 4), 16 + 1.2816 * 5],
  ["work alone", 0.9, [], N(5, 0.75), 5 + 1.2816 * 0.75],
  ["a date that is sure", 0.9, [N(12, 0)], N(2, 0), 14],
  ["a sure branch before a wide one, 10 %: the sure one", 0.1, [N(12, 0), N(8, 1)], NONE, 12],
])("the later of branches: %s", (_, q, branches, after, days) => {
  expect(laterOf(q, branches, after)).toBeCloseTo(days, 2);
});

test.each<readonly [string, Branches]>([
  ["parts and boards as late", { partsDays: [5, 15], fabDays: 10, fabSigma: 4, houseDays: 0, ownDays: 3 }],
  ["parts later, boards wide", { partsDays: [12, 14], fabDays: 10, fabSigma: 5, houseDays: 0, ownDays: 4 }],
  ["with an assembly house", { partsDays: [3, 9], fabDays: 8, fabSigma: 2, houseDays: 10, ownDays: 1 }],
])("quantiles agree with drawing: %s", (_, b) => {
  const branches = [
    N((b.partsDays[0] + b.partsDays[1]) / 2, (b.partsDays[1] - b.partsDays[0]) / 2 / 1.2816),
    N(b.fabDays, b.fabSigma),
  ];
  const after = N(1 + b.houseDays + b.ownDays, Math.hypot(b.houseDays > 0 ? 1.5 : 0, 0.15 * b.ownDays));
  const expected = drawn(branches, after);
  [0.1, 0.5, 0.9].forEach((q, i) => {
    expect(Math.abs(laterOf(q, branches, after) - expected[i]!)).toBeLessThan(0.12);
  });
  const r = readyBy("2026-11-10", b);
  expect(Math.abs(r.days - expected[1]!)).toBeLessThan(0.12);
  // the sum that is shown adds up to the days that are shown
  expect(r.sum.reduce((n, t) => n + t.days, 0)).toBeCloseTo(r.days, 9);
});

test("boards that are wide make the late date later even where parts come later on average", () => {
  const at = (fabSigma: number) =>
    readyBy("2026-11-10", { partsDays: [12, 14], fabDays: 11, fabSigma, houseDays: 0, ownDays: 2 });
  expect(at(6).p90 > at(0.5).p90).toBe(true);
});

test("a slower branch never brings a date forward", () => {
  const days = fc.double({ min: 0.5, max: 30, noNaN: true });
  fc.assert(
    fc.property(
      days,
      days,
      days,
      fc.double({ min: 0, max: 6, noNaN: true }),
      // what is late by less than a minute is late by nothing: only the last digit of a sum would be tried
      fc.double({ min: 0.001, max: 10, noNaN: true }),
      (parts, fab, own, sigma, more) => {
        const b: Branches = {
          partsDays: [parts, parts + 4],
          fabDays: fab,
          fabSigma: sigma,
          houseDays: 5,
          ownDays: own,
        };
        const was = readyBy("2026-11-10", b);
        for (const slower of [
          { ...b, partsDays: [parts + more, parts + 4 + more] as const },
          { ...b, fabDays: fab + more },
          { ...b, ownDays: own + more },
        ]) {
          const now = readyBy("2026-11-10", slower);
          expect(now.p50 >= was.p50 && now.days >= was.days - 1e-9).toBe(true);
          expect(now.p90 >= was.p90).toBe(true);
        }
      },
    ),
    { numRuns: 40 },
  );
});

test("nothing to wait for: own work alone, from the day itself", () => {
  const r = readyBy("2026-11-10", { partsDays: [0, 0], fabDays: 0, fabSigma: 0, houseDays: 0, ownDays: 2 });
  expect([r.p50, r.days, r.sum.map((t) => t.label)]).toEqual(["2026-11-12", 2, ["own work"]]);
});
