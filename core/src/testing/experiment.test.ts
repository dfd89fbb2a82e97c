import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { boardsNamed, boardsToSee, chanceOf, compareSettings, powerOf } from "./experiment.ts";

const of = (bad: number, n: number) => ({ bad, of: n });

test("how likely chance alone is, by tables that are known", () => {
  // Fisher's own: three of four cups told right, both sides: 34 / 70
  expect(chanceOf(of(3, 4), of(1, 4))).toBeCloseTo(34 / 70, 9);
  // all of five against none of five: two tables of 252
  expect(chanceOf(of(5, 5), of(0, 5))).toBeCloseTo(2 / 252, 9);
  expect(chanceOf(of(2, 4), of(2, 4))).toBeCloseTo(1, 9);
  expect(chanceOf(of(0, 7), of(0, 3))).toBeCloseTo(1, 9);
});

test("it is what going through every way to deal the bad ones out comes to", () => {
  const choose = (n: number, k: number): number =>
    k === 0 || k === n ? 1 : choose(n - 1, k - 1) + choose(n - 1, k);
  const tally = fc
    .integer({ min: 1, max: 7 })
    .chain((n) => fc.integer({ min: 0, max: n }).map((bad) => of(bad, n)));
  fc.assert(
    fc.property(tally, tally, (a, b) => {
      const bad = a.bad + b.bad;
      const ways = (k: number) =>
        k > a.of || bad - k > b.of || bad - k < 0 ? 0 : choose(a.of, k) * choose(b.of, bad - k);
      const all = Array.from({ length: bad + 1 }, (_, k) => ways(k));
      const asLikely = all.filter((w) => w > 0 && w <= ways(a.bad)).reduce((x, y) => x + y, 0);
      expect(chanceOf(a, b)).toBeCloseTo(asLikely / choose(a.of + b.of, bad), 9);
      expect(chanceOf(a, b)).toBeCloseTo(chanceOf(b, a), 9);
    }),
  );
});

test("how many boards it takes: by hand for all against none, and no fewer would do", () => {
  // three of three against none: 2 / 20 is more than one in twenty; four against four: 2 / 70 is less
  expect(powerOf(1, 0, 3)).toBe(0);
  expect(powerOf(1, 0, 4)).toBe(1);
  expect(boardsToSee(1, 0)).toBe(4);
  for (const [p, q] of [
    [0.5, 0.1],
    [0.3, 0.05],
    [0.9, 0.4],
  ] as const) {
    const n = boardsToSee(p, q)!;
    expect(powerOf(p, q, n)).toBeGreaterThanOrEqual(0.8);
    expect(powerOf(p, q, n - 1)).toBeLessThan(0.8);
  }
  // nearly alike: no two hundred of each would tell
  expect(boardsToSee(0.1, 0.11)).toBeUndefined();
  expect(boardsToSee(0.2, 0.2)).toBeUndefined();
});

test("what a comparison may claim", () => {
  const few = compareSettings(of(3, 5), of(0, 5));
  expect(few).toMatchObject({ isSeen: false });
  expect(few.chance).toBeCloseTo(42 / 252, 9);
  expect(few.needs).toBeGreaterThan(5);
  expect(compareSettings(of(5, 5), of(0, 5))).toMatchObject({ isSeen: true });
  expect(compareSettings(of(1, 5), of(1, 5))).toEqual({ chance: expect.closeTo(1, 9), isSeen: false });
  expect(compareSettings(of(0, 0), of(2, 5))).toEqual({ chance: 1, isSeen: false });
});

test.each([
  ["1-5, 8", [1, 2, 3, 4, 5, 8]],
  ["3 1;2", [1, 2, 3]],
  ["2–4 3", [2, 3, 4]],
  ["", []],
  ["0-3", undefined],
  ["9-11", undefined],
  ["5-2", undefined],
  ["all", undefined],
])("boards named %j", (text, is) => expect(boardsNamed(text, 10)).toEqual(is));
