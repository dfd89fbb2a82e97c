import { expect, test } from "@jest/globals";
import { toMicros } from "../money/money.ts";
import { cheapestBuy, type Offer } from "./offer.ts";

/** The breaks of EX 4.1. */
const FOUR = [
  [1, "0.12"],
  [10, "0.10"],
  [100, "0.055"],
  [500, "0.032"],
].map(([qty, price]) => ({ qty: Number(qty), price: toMicros(price!) }));

const offer = (more: Partial<Offer> = {}): Offer => ({
  id: "o",
  supplier: "s",
  stock: 1000,
  moq: 1,
  multiple: 1,
  breaks: [
    { qty: 1, price: toMicros("0.12") },
    { qty: 10, price: toMicros("0.10") },
    { qty: 100, price: toMicros("0.055") },
  ],
  ...more,
});
const bought = (need: number, more?: Partial<Offer>) => {
  const b = cheapestBuy(offer(more), need);
  return b && [b.qty, b.cost / 1e6];
};

test.each<readonly [string, number, Partial<Offer>, readonly [number, number] | undefined]>([
  ["EX 4.1: a hundred cost less than eighty", 80, {}, [100, 5.5]],
  ["fifty-four cost less than a hundred: they stay", 54, {}, [54, 5.4]],
  ["fifty-six are beyond it", 56, {}, [100, 5.5]],
  ["the next step draws from 291 on: 290 stay", 290, { breaks: FOUR }, [290, 15.95]],
  ["and 291 are five hundred", 291, { breaks: FOUR }, [500, 16]],
  ["fifty-five cost as much as a hundred: the fewer are taken", 55, {}, [55, 5.5]],
  ["what is needed reaches a step by itself", 100, {}, [100, 5.5]],
  ["the least order", 3, { moq: 5 }, [5, 0.6]],
  ["the steps it is sold in", 12, { multiple: 5 }, [15, 1.5]],
  ["a step's own quantity in those steps", 80, { multiple: 30 }, [120, 6.6]],
  ["the whole stock", 1000, {}, [1000, 55]],
  ["more than the stock", 1001, {}, undefined],
  ["rounded beyond the stock", 12, { multiple: 5, stock: 14 }, undefined],
  ["a cheaper step beyond the stock is none", 80, { stock: 99 }, [80, 8]],
  ["nothing is needed", 0, {}, undefined],
  ["no price", 5, { breaks: [] }, undefined],
])("%s", (_, need, more, expected) => {
  expect(bought(need, more)).toEqual(expected);
});
