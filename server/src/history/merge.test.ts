import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { isSame, type Json, mergeThree } from "./merge.ts";

const json = fc.jsonValue({ maxDepth: 3 }) as fc.Arbitrary<Json>;

test.each([
  ["only mine changed", { a: 1, b: 2 }, { a: 5, b: 2 }, { a: 1, b: 2 }, { a: 5, b: 2 }],
  ["only theirs changed", { a: 1 }, { a: 1 }, { a: 7 }, { a: 7 }],
  ["different keys", { a: 1, b: 2 }, { a: 5, b: 2 }, { a: 1, b: 9 }, { a: 5, b: 9 }],
  ["both to the same", { a: 1 }, { a: 3 }, { a: 3 }, { a: 3 }],
  ["a key of mine added, one of theirs removed", { a: 1 }, { a: 1, b: 2 }, {}, { b: 2 }],
  [
    "keys below keys",
    { o: { x: 1, y: 1 } },
    { o: { x: 2, y: 1 } },
    { o: { x: 1, y: 3 } },
    { o: { x: 2, y: 3 } },
  ],
  [
    "both begin a new object",
    {},
    { pins: { l1: "s" } },
    { pins: { l2: "t" } },
    { pins: { l1: "s", l2: "t" } },
  ],
])("%s: joined without a question", (_name, base, mine, theirs, joined) => {
  expect(mergeThree(base as Json, mine as Json, theirs as Json)).toEqual({ value: joined, clashes: [] });
});

test("the same value set differently is a clash that names its place and keeps theirs", () => {
  expect(mergeThree({ o: { q: 1 }, z: 1 }, { o: { q: 2 }, z: 2 }, { o: { q: 3 }, z: 1 })).toEqual({
    value: { o: { q: 3 }, z: 2 },
    clashes: [{ path: ["o", "q"], mine: 2, theirs: 3 }],
  });
  expect(mergeThree(["a"], ["a", "b"], ["a", "c"]).clashes).toHaveLength(1);
});

test("laws: nothing of mine gives theirs, nothing of theirs gives mine, the same on both sides is kept", () => {
  fc.assert(
    fc.property(json, json, (base, other) => {
      expect(isSame(mergeThree(base, base, other).value, other)).toBe(true);
      expect(isSame(mergeThree(base, other, base).value, other)).toBe(true);
      expect(mergeThree(base, other, other)).toEqual({ value: other, clashes: [] });
    }),
  );
});

test("law: who is called mine and theirs changes neither the clashes nor what is joined without one", () => {
  fc.assert(
    fc.property(json, json, json, (base, a, b) => {
      const [ab, ba] = [mergeThree(base, a, b), mergeThree(base, b, a)];
      expect(ab.clashes.map((c) => c.path)).toHaveLength(ba.clashes.length);
      if (ab.clashes.length === 0) expect(isSame(ab.value, ba.value)).toBe(true);
    }),
  );
});

test("a sheet is one decision: two people's are not mixed", () => {
  const sheet = (gapMm: number, x: number) => ({ gapMm, places: [{ xMm: x }] });
  const base = { panel: sheet(2, 9), pins: { a: "s" } };
  const mine = { panel: sheet(3, 9), pins: { a: "s" } };
  const theirs = { panel: sheet(2, 12), pins: { a: "t" } };
  const { value, clashes } = mergeThree(base, mine, theirs, ["choices"]);
  expect(value).toEqual(theirs);
  expect(clashes).toEqual([{ path: ["choices", "panel"], mine: mine.panel, theirs: theirs.panel }]);
});
