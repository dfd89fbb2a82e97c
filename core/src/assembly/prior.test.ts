import { expect, test } from "@jest/globals";
import { ownRecord, type PastRun, recordWords } from "./prior.ts";
import { betaBinomialAtLeast, boardsToStart } from "./yield.ts";

const run = (good: number, scrapped: number, more: Partial<PastRun> = {}): PastRun => ({
  name: "r",
  closedOn: "2026-01-01",
  method: "stencil",
  good,
  scrapped,
  minutes: 0,
  modelMinutes: 0,
  ...more,
});

test("EX 7.5: Beta(19, 1) and 28 good of 30 are Beta(47, 3), and 34 are started for 30 at 90 %, 36 at 95 %", () => {
  const r = ownRecord(0.95, [run(28, 2)])!;
  expect([r.a, r.b]).toEqual([expect.closeTo(47, 9), expect.closeTo(3, 9)]);
  const chance = (n: number) => betaBinomialAtLeast(n, 30, r.a, r.b);
  expect([boardsToStart(30, 0.9, chance), boardsToStart(30, 0.95, chance)]).toEqual([34, 36]);
  expect(chance(34)).toBeCloseTo(0.904, 4);
  expect(chance(33)).toBeCloseTo(0.8262, 4);
});

test("EX 7.6: older runs count by 0.8 for each that follows", () => {
  const at = (...runs: PastRun[]) => {
    const { a, b } = ownRecord(0.95, runs)!;
    return [Number(a.toFixed(6)), Number(b.toFixed(6)), Number((a / (a + b)).toFixed(4))];
  };
  const three = [run(28, 2), run(29, 1), run(31, 0)];
  expect(at(...three.slice(0, 2))).toEqual([70.4, 3.6, 0.9514]);
  expect(at(...three)).toEqual([91.12, 3.08, 0.9673]);
});

test("time is weighed with the model's word as twenty boards; a run without hours says nothing of it", () => {
  // 20 boards at 1 and 30 at 1.5: 65 / 50
  expect(ownRecord(0.95, [run(28, 2, { minutes: 900, modelMinutes: 600 })])!.timeFactor).toBeCloseTo(1.3, 9);
  expect(ownRecord(0.95, [run(28, 2)])!.timeFactor).toBe(1);
  // the older one fades: 20 + 0.8 × 45 + 10 × 1 over 20 + 0.8 × 30 + 10
  const faded = [
    run(28, 2, { minutes: 900, modelMinutes: 600 }),
    run(10, 0, { minutes: 50, modelMinutes: 50 }),
  ];
  expect(ownRecord(0.95, faded)!.timeFactor).toBeCloseTo(66 / 54, 9);
});

test("nothing built is no record; a record says how much it is", () => {
  expect(ownRecord(0.95, [])).toBeUndefined();
  expect(ownRecord(0.95, [run(0, 0)])).toBeUndefined();
  expect(recordWords(ownRecord(0.95, [run(28, 2)])!)).toBe("1 run, 30 boards");
  expect(recordWords(ownRecord(0.95, [run(28, 2), run(3, 0)])!)).toBe("2 runs, 33 boards");
});
