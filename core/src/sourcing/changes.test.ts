import { expect, test } from "@jest/globals";
import { offerChanges } from "./changes.ts";

const offer = (line: string, stock: number, ...prices: [number, string][]) => ({
  line,
  stock,
  breaks: prices.map(([qty, price]) => ({ qty, price })),
});

test("prices at about a hundred, stock by more than a fifth, what is listed now or no longer", () => {
  const before = [
    offer("same", 100, [1, "1"], [100, "0.5"]),
    offer("dearer", 100, [1, "1"], [100, "0.5"], [1000, "0.1"]),
    offer("sold", 1000, [1, "1"]),
    offer("gone", 10, [1, "2"]),
  ];
  const after = [
    offer("same", 85, [1, "1"], [100, "0.50"]),
    offer("dearer", 100, [1, "1"], [100, "0.6"], [1000, "0.1"]),
    offer("sold", 12, [1, "1"]),
    offer("fresh", 10, [250, "3"]),
  ];
  expect(offerChanges(before, after)).toEqual([
    { line: "dearer", kind: "price", was: 0.5, now: 0.6 },
    { line: "sold", kind: "stock", was: 1000, now: 12 },
    { line: "gone", kind: "no longer listed", was: 2 },
    { line: "fresh", kind: "listed", now: 3 },
  ]);
  expect(offerChanges(before, [...before].reverse())).toEqual([]);
});
