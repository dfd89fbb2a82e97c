import { expect, test } from "@jest/globals";
import { binomialAtLeast } from "../../assembly/yield.ts";
import { boardK } from "../board-k.fixture.ts";
import { surplusPlan } from "../document/surplus.ts";
import { FAR } from "../made-up.fixture.ts";
import { orderBoards } from "../orders/order-boards.ts";
import { rollUp } from "../roll-up.ts";
import { onSheets } from "../sheets.fixture.ts";
import { quantityRows } from "./quantity.ts";

// Board K, 30 good at FAR in steps of five: EX 5.1 and 8.0, 35 cost 78.50 and 6.00 for the border
test("what is landed is what ordering so many costs, and a second order is counted as often as one is needed", () => {
  const doc = boardK();
  const r = rollUp(doc);
  const rows = quantityRows(doc, r);
  expect(rows.map((q) => q.pieces).slice(0, 3)).toEqual([30, 35, 40]);
  const at = (n: number) => rows.find((q) => q.pieces === n)!;
  expect(at(35)).toMatchObject({ landed: 84.5, isOrdered: true, left: 35 - r.start });
  // five boards are the least FAR sells: 48.60 + 21.50, EX 5.1, and the border
  const again = 70.1 + 6;
  for (const q of rows) {
    const chance = binomialAtLeast(q.pieces, 30, r.yield.final);
    expect(q.chance).toBeCloseTo(chance, 12);
    expect(q.again).toBeCloseTo(again, 6);
    expect(q.expected).toBeCloseTo(q.landed + (1 - chance) * again, 5);
  }
  // 30 of 30 have to be good: 0.98955^30 = 0.73, so 80.50 + 0.27 × 76.10 is more than 84.50
  expect(at(30).chance).toBeCloseTo(r.yield.final ** 30, 10);
  expect(rows.filter((q) => q.isBest).map((q) => q.pieces)).toEqual([35]);
});

test("more boards than are started can be ordered; fewer cannot", () => {
  const doc = boardK();
  const r = rollUp(doc);
  const pieces = (n: number) => orderBoards(doc, FAR, { ...r.options!, pieces: n }, r.start)[0]!.quote.pieces;
  expect([pieces(0), pieces(10), pieces(36), pieces(60)]).toEqual([35, 35, 40, 60]);
  const more = { ...doc, options: { ...doc.options, pieces: 60 } };
  const rolled = rollUp(more);
  expect(rolled.start).toBe(r.start);
  expect(quantityRows(more, rolled).find((q) => q.isOrdered)).toMatchObject({
    pieces: 60,
    left: 60 - r.start,
  });
});

test("where boards lie on sheets the house's steps are whole sheets, of as many products as lie on one", () => {
  // four on a sheet; FAR sells sheets in fives
  const doc = onSheets();
  const r = rollUp(doc);
  const rows = quantityRows(doc, r);
  expect(rows.map((q) => q.pieces).slice(0, 3)).toEqual([40, 60, 80]);
  expect(rows.find((q) => q.isOrdered)).toMatchObject({ pieces: 40, left: 40 - r.start });
  const landed = (products: number) =>
    orderBoards(doc, FAR, { ...r.options!, pieces: products }, products).reduce((n, o) => n + o.micros, 0) /
    1e6;
  expect(rows[0]!.landed).toBeCloseTo(landed(40), 4);
  // a second order is of the least it sells: five sheets
  expect(rows[0]!.again).toBeCloseTo(landed(20), 4);
  // two of the board in a product: a step of five sheets is ten products
  const pair = { ...doc, boards: doc.boards.map((b) => ({ ...b, perProduct: 2 })) };
  const two = rollUp(pair);
  expect(two.orders[0]!.sheet!.sheets % 5).toBe(0);
  const twoRows = quantityRows(pair, two);
  expect(twoRows.every((q) => q.pieces % 10 === 0)).toBe(true);
  expect(twoRows.find((q) => q.isOrdered)!.pieces).toBe(two.orders[0]!.quote.pieces / 2);
});

test("without a house nothing is listed", () => {
  const { house: _, ...doc } = boardK();
  expect(quantityRows(doc, rollUp(doc))).toEqual([]);
});

test.each<[number, boolean, object]>([
  [0, true, {}],
  [1, true, { reference: 1 }],
  [4, true, { reference: 1, tray: 1, practice: 2 }],
  [5, true, { reference: 1, nest: 4 }],
  [9, true, { reference: 1, nest: 4, tray: 1, practice: 2, spare: 1 }],
  [9, false, { reference: 1, tray: 1, practice: 2, spare: 5 }],
])("%d boards are left, printed by hand %s", (left, isPrinted, plan) => {
  expect(surplusPlan(left, isPrinted)).toEqual(plan);
});
