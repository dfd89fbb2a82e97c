import { expect, test } from "@jest/globals";
import type { LotRow } from "@kobbin/contract";
import {
  ALL_PLACES,
  comeTo,
  lotsIn,
  NO_PLACE,
  placesOf,
  typedCount,
  worthOf,
  worthWords,
} from "./countModel.ts";

const lot = (number: number, place: string, qty = 10, mpn = `M${number}`) =>
  ({ id: `l${number}`, number, mpn, place, qty }) as LotRow;
const LOTS = [lot(1, "drawer 10"), lot(2, "drawer 2"), lot(3, ""), lot(4, "drawer 2", 10, "M1"), lot(5, "")];

test("a place is counted in the order one walks, what has none by itself", () => {
  expect(placesOf(LOTS)).toEqual([
    [NO_PLACE, 2],
    ["drawer 2", 2],
    ["drawer 10", 1],
  ]);
  const numbers = (place: string) => lotsIn(LOTS, place).map((l) => l.number);
  expect([numbers("drawer 2"), numbers(NO_PLACE), numbers("nowhere")]).toEqual([[4, 2], [3, 5], []]);
  expect(numbers(ALL_PLACES)).toEqual([3, 5, 4, 2, 1]);
});

test.each([
  ["", { is: "nothing" }],
  ["  ", { is: "nothing" }],
  ["0", { is: "count", qty: 0 }],
  ["12", { is: "count", qty: 12 }],
  ["100 + 100+37", { is: "count", qty: 237 }],
  // a scanner that types into the field
  ["B00422", { is: "label", number: 42 }],
  ["B0042-2", { is: "label", number: 42 }],
  ["B0042-3", { is: "wrong" }],
  ["-3", { is: "wrong" }],
  ["3.5", { is: "wrong" }],
  ["3,5", { is: "wrong" }],
  ["12+", { is: "wrong" }],
  ["a dozen", { is: "wrong" }],
  ["99999999+99999999", { is: "wrong" }],
])("%j counted is %j", (text, is) => expect(typedCount(text)).toEqual(is));

test("what is not counted stays, what cannot be read is told and never taken for nothing", () => {
  const { counts, ...rest } = comeTo(LOTS, { l1: "10", l2: "7", l3: "ten", l4: "B00422" });
  expect([counts.map((c) => [c.lot.number, c.qty]), rest]).toEqual([
    [
      [1, 10],
      [2, 7],
    ],
    { differ: 1, wrong: 2, left: 1 },
  ]);
});

test("what was counted otherwise is worth what it cost, in one currency; what nobody knows a rate for is named, not nothing", () => {
  const of = (qty: number, unitCost: string, currency: string) => ({ qty, lot: { unitCost, currency } });
  const rates = { USD: "0.5", GBP: "0" };
  const list = [
    of(-10, "0.30", "EUR"),
    of(4, "0.50", "USD"),
    of(3, "9", "CHF"),
    of(2, "1", "GBP"),
    of(0, "1", "SEK"),
  ];
  const worth = worthOf([...list, of(5, "0", "NOK")], "EUR", rates);
  expect(worth).toEqual({ sum: expect.closeTo(-2, 9), unknown: ["CHF", "GBP"] });
  expect(worthWords(worth, "EUR")).toBe("−2.00 EUR and what is in CHF, GBP, whose rate nobody wrote down");
  expect(worthWords(worthOf(list.slice(0, 2), "EUR", rates), "EUR")).toBe("−2.00 EUR");
});
