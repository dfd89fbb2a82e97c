import { expect, test } from "@jest/globals";
import type { SeenFaults } from "./fault-kinds.ts";
import { faultsByKind, faultsOf, learnedFaults, ownFaultWords } from "./fault-prior.ts";
import type { CountedPart } from "./yield.ts";

const part = (more: Partial<CountedPart> = {}): CountedPart => ({
  kind: "chip",
  joints: 2,
  isPolarised: false,
  count: 10,
  method: "stencil",
  ...more,
});
const seen = (looked: number, kinds: SeenFaults["kinds"], unsorted = 0) => ({
  faults: { looked, kinds, unsorted },
});

test("faults a board by kind: joints by package, placing of all together, twice where a part may sit the wrong way round", () => {
  // 10 chips of two joints at 250, three fine gull of 48 at 900; placing 1200 each, the three twice
  const of = faultsByKind([part(), part({ kind: "gullFine", joints: 48, count: 3, isPolarised: true })]);
  expect(of).toEqual({
    chip: expect.closeTo(0.005, 12),
    gullFine: expect.closeTo(0.1296, 12),
    placing: expect.closeTo(0.012 + 0.0072, 12),
  });
  expect(faultsByKind([part({ kind: "loose" })])).toEqual({});
});

test("the model counts as twenty boards: Gamma(20·λ, 20) with so many on so many boards", () => {
  // λ 0.05 a board: prior 1 fault on 20 boards; 6 on 40 boards where the model has 2: (1 + 6) ÷ (1 + 2)
  const l = learnedFaults({ gullFine: 0.05, chip: 0.01 }, [
    seen(40, { gullFine: { seen: 6, expected: 2 } }),
  ])!;
  expect(l.factors.gullFine).toBeCloseTo(7 / 3, 12);
  // the rate itself: (20·λ + D) ÷ (20 + n)
  expect(0.05 * l.factors.gullFine!).toBeCloseTo((20 * 0.05 + 6) / (20 + 40), 12);
  // nothing tells of chips: the model stands
  expect(l.factors.chip).toBe(1);
  expect(l).toMatchObject({ runs: 1, looked: 40, seen: 6, expected: 2, unsorted: 0 });
});

test("an older run counts by 0.8 for each that follows; one that nobody looked at tells nothing", () => {
  const older = seen(20, { chip: { seen: 5, expected: 1 } });
  const newer = seen(20, { chip: { seen: 0, expected: 1 } }, 2);
  // (1 + 0.8·5) ÷ (1 + 0.8 + 1)
  const l = learnedFaults({ chip: 0.05 }, [older, {}, seen(0, {}), newer])!;
  expect(l.factors.chip).toBeCloseTo(5 / 2.8, 12);
  expect(l).toMatchObject({ runs: 2, looked: 40, seen: 5, expected: 2, unsorted: 2 });
  expect(learnedFaults({ chip: 0.05 }, [{}, seen(0, {})])).toBeUndefined();
  // fewer than the model has make it less, and never nothing
  expect(learnedFaults({ chip: 0.05 }, [newer])!.factors.chip).toBeCloseTo(1 / 2, 12);
});

test("a part's faults are by its joints' kind and by placing, each with its own factor", () => {
  // joints 10·2·250/10⁶ = 0.005, placing 10·1200/10⁶ = 0.012
  expect(faultsOf(part())).toBeCloseTo(0.017, 12);
  expect(faultsOf(part(), { chip: 3, placing: 0.5, gull: 9 })).toBeCloseTo(0.015 + 0.006, 12);
});

test("in words: runs, faults, boards, what the model has, and what is in no kind", () => {
  const of = (seenN: number, expected: number, unsorted: number) =>
    ownFaultWords({ runs: 1, looked: 21, seen: seenN, expected, unsorted, factors: {} });
  expect(of(5, 2.94, 0)).toBe("1 run: 5 faults on 21 boards, where the model expects 2.9");
  expect(of(1, 12.6, 1)).toBe(
    "1 run: 1 fault on 21 boards, where the model expects 13; 1 fault of no part that is known is not counted",
  );
});
