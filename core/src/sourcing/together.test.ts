import { expect, test } from "@jest/globals";
import type { Micros } from "../money/money.ts";
import type { Offer } from "./offer.ts";
import { savedTogether } from "./together.ts";

const offer = (stock: number, breaks: readonly [number, number][]): Offer =>
  ({
    id: "o",
    supplier: "s",
    stock,
    moq: 1,
    multiple: 1,
    breaks: breaks.map(([qty, price]) => ({ qty, price: price as Micros })),
  }) as never;

// by hand: 60 cost 100, since a hundred at 1 are cheaper than sixty at 2; 120 at 1 are 120 in the place of twice 100
test("bought together lines reach a step they do not reach alone", () => {
  const steps = offer(500, [
    [1, 2],
    [100, 1],
  ]);
  expect(savedTogether([steps], [60, 60])).toBe(80);
  expect(savedTogether([steps], [60])).toBe(0);
  // dear in small numbers elsewhere: the cheapest of each counts
  expect(savedTogether([offer(500, [[1, 3]]), steps], [60, 60])).toBe(80);
});

test("what nobody has enough of, alone or together, saves nothing that can be told", () => {
  const few = offer(100, [
    [1, 2],
    [50, 1],
  ]);
  expect(savedTogether([few], [60, 60])).toBe(0);
  expect(savedTogether([few], [200, 1])).toBe(0);
  expect(savedTogether([], [1, 2])).toBe(0);
});
