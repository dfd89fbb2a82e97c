import { expect, test } from "@jest/globals";
import { isMixed, type RulerPoint, sweetSpots } from "./sweetSpots.ts";

const points = (...list: [number, number, string?][]): RulerPoint[] =>
  list.map(([quantity, perGood, name]) => ({ quantity, perGood, ...(name ? { quoted: [name] } : {}) }));
const spots = (...list: [number, number, string?][]) => sweetSpots(points(...list)).map((p) => p.quantity);

test("a step down that holds is a sweet spot: 1.5 % lower than before, and what follows is hardly lower", () => {
  expect(spots([10, 10], [20, 9.8], [30, 9.79])).toEqual([20]);
  expect(spots([10, 10], [20, 9.86], [30, 9.86])).toEqual([]);
  expect(spots([10, 10], [20, 9.8], [30, 9.7])).toEqual([]);
});

test("where a quotation stands among estimates nothing is a step of the quantity", () => {
  expect(spots([40, 10], [45, 9, "N"], [50, 9.9])).toEqual([]);
  expect(spots([40, 10, "N"], [45, 9, "N"], [50, 9, "N"])).toEqual([45]);
  expect(isMixed(points([40, 10], [45, 9, "N"]))).toBe(true);
  expect(isMixed(points([40, 10, "N"], [45, 9, "N"]))).toBe(false);
  expect(isMixed(points([40, 10], [45, 9]))).toBe(false);
});
