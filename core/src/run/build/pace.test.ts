import { expect, test } from "@jest/globals";
import { paceOf } from "./pace.ts";

const step = (n: number, kind: string, minutes: number, refs: string[] = []) => ({
  n,
  kind,
  minutes,
  lines: refs.length > 0 ? [{ line: "r", refs }] : [],
});
// laid out once for all in 12 minutes; of each of four boards 5 to place and 2 to iron
const STEPS = [step(1, "kit", 12), step(2, "place", 20, ["R1", "R2", "R3", "R4"]), step(3, "iron", 8)];
const sat = (unit: number, n: number, minutes: number, isDone = true, marks = {}) => ({
  unit,
  step: n,
  marks,
  minutes: minutes > 0 ? { desk: minutes } : {},
  isDone,
});

test("before anything is done it is the plan's; the kit is done once, the rest board by board", () => {
  expect(paceOf(STEPS, [], 4)).toEqual({ factor: 1, of: 0, leftMinutes: 40, left: 9, boards: 4 });
  // two steps say nothing of a pace yet
  expect(paceOf(STEPS, [sat(0, 1, 24), sat(1, 2, 10)], 4)).toEqual({
    factor: 1,
    of: 0,
    leftMinutes: 23,
    left: 7,
    boards: 4,
  });
});

test("at the pace so far: minutes worked over minutes planned, of steps that are done", () => {
  // 24 for 12, 10 for 5, 1 for 2: 35 of 19; left are three boards of 7
  const list = [sat(0, 1, 24), sat(1, 2, 10), sat(1, 3, 1)];
  const p = paceOf(STEPS, list, 4);
  expect([p.of, p.left]).toEqual([3, 6]);
  expect(p.factor).toBeCloseTo(35 / 19, 12);
  expect(p.leftMinutes).toBeCloseTo((21 * 35) / 19, 12);
  // what was marked done afterwards, and what is only begun, tell of no pace
  const more = [...list, sat(2, 3, 0), sat(2, 2, 90, false)];
  expect(paceOf(STEPS, more, 4)).toMatchObject({ of: 3, factor: p.factor, left: 5 });
});

test("of a step that was begun the pieces that are not on are left; what is in doubt is on, what was left for later is not", () => {
  const marks = { R1: "done", R2: "doubt", R3: "skipped" } as const;
  // half of 5 is left of board 1
  expect(paceOf(STEPS, [sat(1, 2, 3, false, marks)], 4).leftMinutes).toBe(40 - 2.5);
});

test("boards that were finished beside the bench are none that are left: those with least left, beyond what the bench finished", () => {
  // board 1 is done at the bench, board 2 has its iron left (2), two have 7
  const list = [sat(0, 1, 0), sat(1, 2, 0), sat(1, 3, 0), sat(2, 2, 0)];
  const left = (counted: number) => {
    const p = paceOf(STEPS, list, 4, counted);
    return [p.leftMinutes, p.left, p.boards];
  };
  expect([0, 1, 2, 3, 4, 5].map(left)).toEqual([
    [16, 5, 3],
    [16, 5, 3],
    [14, 4, 2],
    [7, 2, 1],
    [0, 0, 0],
    [0, 0, 0],
  ]);
  // the kit is left for one board as for four, and for none it is not
  expect(paceOf(STEPS, [], 4, 3)).toMatchObject({ leftMinutes: 12 + 7, left: 3, boards: 1 });
  expect(paceOf(STEPS, [], 4, 4)).toMatchObject({ leftMinutes: 0, left: 0, boards: 0 });
  expect(paceOf(STEPS.slice(0, 1), [], 4)).toMatchObject({ leftMinutes: 12, left: 1 });
});
