import { expect, test } from "@jest/globals";
import { branch, leaf, toCostTree } from "./tree.ts";

test("a leaf is the sum of its terms in whole millionths, a branch the sum of what is below it", () => {
  const a = leaf(
    "a",
    "A",
    [
      { label: "x", micros: 1_000_000.4 },
      { label: "y", micros: 500_000.4 },
    ],
    1_000_000.2,
  );
  expect([a.micros, a.fixedMicros]).toEqual([1_500_001, 1_000_000]);
  const b = leaf("b", "B", [{ label: "less", micros: -250_000 }]);
  const all = branch("all", "All", [a, b]);
  expect([all.micros, all.fixedMicros, all.terms, all.children]).toEqual([1_250_001, 1_000_000, [], [a, b]]);
});

test("in a document: what is fixed, what grows, and a share for each good one", () => {
  const tree = toCostTree(
    branch("r", "Run", [leaf("a", "A", [{ label: "x", micros: 9_000_000 }], 3_000_000)]),
    4,
  );
  expect(tree).toEqual({
    label: "Run",
    fixed: 3,
    variable: 6,
    perGood: 2.25,
    children: [{ label: "A", fixed: 3, variable: 6, perGood: 2.25, children: [] }],
  });
});
