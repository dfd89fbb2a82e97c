import { expect, test } from "@jest/globals";
import { microsToText, toMicros } from "../money/money.ts";
import { bestBasket } from "./basket.ts";
import { explainBasket, explainLine } from "./explain.ts";
import type { Need } from "./need.ts";
import { type Supplier, toBreaks } from "./offer.ts";

const offer = (
  id: string,
  supplier: string,
  steps: readonly (readonly [number, number])[],
  more: object = {},
) => ({
  id,
  supplier,
  stock: 1000,
  moq: 1,
  multiple: 1,
  breaks: toBreaks(steps.map(([qty, price]) => ({ qty, price }))),
  ...more,
});
const supplier = (id: string, shipping: number, freeFrom?: number): Supplier => ({
  id,
  name: id,
  shipping: toMicros(shipping),
  ...(freeFrom === undefined ? {} : { freeFrom: toMicros(freeFrom) }),
});

// the worked example of domain.md 4.6 (b): two pieces more of line 2 ship everything free, 50.09 in all
const SUPPLIERS = [supplier("A", 8, 50), supplier("B", 5)];
const NEEDS: Need[] = [
  {
    id: "1",
    need: 30,
    offers: [
      offer("1a", "A", [
        [1, 0.9],
        [25, 0.78],
      ]),
      offer("1b", "B", [
        [1, 0.7],
        [50, 0.6],
      ]),
    ],
  },
  {
    id: "2",
    need: 60,
    offers: [
      offer("2a", "A", [
        [1, 0.25],
        [100, 0.12],
      ]),
      offer("2b", "B", [
        [1, 0.2],
        [100, 0.14],
      ]),
    ],
  },
  { id: "3", need: 17, offers: [offer("3a", "A", [[1, 0.85]])] },
];
const explained = (needs: Need[], line: string) =>
  explainLine(needs, SUPPLIERS, bestBasket(needs, SUPPLIERS).basket, line);

test("the runner-up of a line costs the whole basket 10.36 more, for line 1 as for line 2; line 3 has none (EX 4.6 b)", () => {
  for (const line of ["1", "2"]) expect(microsToText(explained(NEEDS, line).runnerUp!.more)).toBe("10.36");
  expect(explained(NEEDS, "3").runnerUp).toBeUndefined();
});

test("a quantity says why it is what it is", () => {
  const why = (need: number, offers: Need["offers"], freeFrom?: number) => {
    const needs: Need[] = [{ id: "x", need, offers }];
    const suppliers = [supplier("A", 5, freeFrom), supplier("B", 0)];
    const { buys } = explainLine(needs, suppliers, bestBasket(needs, suppliers).basket, "x");
    return buys.map((b) => [b.buy.qty, b.because, b.over]).sort((a, b) => Number(b[0]) - Number(a[0]));
  };
  expect(why(10, [offer("a", "A", [[1, 1]])])).toEqual([[10, "need", 0]]);
  expect(why(10, [offer("a", "A", [[1, 1]], { moq: 25 })])).toEqual([[25, "minimum", 15]]);
  expect(why(12, [offer("a", "A", [[1, 1]], { multiple: 5 })])).toEqual([[15, "pack", 3]]);
  expect(
    why(80, [
      offer("a", "A", [
        [1, 0.1],
        [100, 0.055],
      ]),
    ]),
  ).toEqual([[100, "step", 20]]);
  expect(why(17, [offer("a", "A", [[1, 1]])], 20)).toEqual([[20, "free shipping", 3]]);
  expect(explained(NEEDS, "2").buys.map((b) => [b.buy.qty, b.because])).toEqual([[102, "step"]]);
  expect(
    why(100, [offer("a", "A", [[1, 1]], { stock: 60 }), offer("b", "B", [[1, 2]], { stock: 70 })]),
  ).toEqual([
    [60, "part of it", 0],
    [40, "part of it", 0],
  ]);
  expect(why(100, [offer("a", "A", [[1, 1]], { stock: 60 })])).toEqual([[60, "all there is", 0]]);
});

test("the next price step is named where a fifth more pieces cost a tenth more at most", () => {
  const next = (steps: [number, number][], more: object = {}, need = 80) => {
    const needs: Need[] = [{ id: "x", need, offers: [offer("a", "A", steps, more)] }];
    const suppliers = [supplier("A", 0)];
    const [b] = explainLine(needs, suppliers, bestBasket(needs, suppliers).basket, "x").buys;
    return b!.nextStep && [b!.nextStep.qty, microsToText(b!.nextStep.more)];
  };
  // 80 at 1.00 are 80.00; 96 at 0.90 are 86.40
  expect(
    next([
      [1, 1],
      [96, 0.9],
    ]),
  ).toEqual([96, "6.4"]);
  // 88.00 is just a tenth more, 88.32 is more than that
  expect(
    next([
      [1, 1],
      [100, 0.88],
    ]),
  ).toEqual([100, "8"]);
  expect(
    next([
      [1, 1],
      [96, 0.92],
    ]),
  ).toBeUndefined();
  // 95 are not a fifth more
  expect(
    next([
      [1, 1],
      [95, 0.9],
    ]),
  ).toBeUndefined();
  // in packs of 10 the step begins at 100
  expect(
    next(
      [
        [1, 1],
        [96, 0.85],
      ],
      { multiple: 10 },
    ),
  ).toEqual([100, "5"]);
  // the stock does not reach it, or just does
  expect(
    next(
      [
        [1, 1],
        [96, 0.9],
      ],
      { stock: 95 },
    ),
  ).toBeUndefined();
  expect(
    next(
      [
        [1, 1],
        [96, 0.9],
      ],
      { stock: 96 },
    ),
  ).toEqual([96, "6.4"]);
});

test("a supplier is worth what doing without it costs; who alone has a line cannot be done without", () => {
  const { basket } = bestBasket(NEEDS, SUPPLIERS);
  const reasons = explainBasket(NEEDS, SUPPLIERS, basket, { A: 9, B: 2 });
  expect(reasons.suppliers).toMatchObject([{ supplier: "A", onlyHere: ["3"], keptHere: [] }]);
  expect(reasons.sooner).toMatchObject([{ days: 2, short: ["3"] }]);
  // both parcels are sent where line 2 is no longer A's; without B it is short, in one parcel nothing goes
  const two = NEEDS.map((n) => (n.id === "2" ? { ...n, offers: n.offers.slice(1) } : n));
  const pair = explainBasket(two, SUPPLIERS, bestBasket(two, SUPPLIERS).basket, {});
  expect(pair.suppliers.map((s) => [s.supplier, s.onlyHere])).toEqual([
    ["A", ["3"]],
    ["B", ["2"]],
  ]);
  expect(pair.parcels).toEqual([]);
});

test("a line somebody wants from a supplier is no line that nobody else has, and its runner-up is told all the same", () => {
  const needs = NEEDS.filter((n) => n.id !== "3").map((n) => (n.id === "1" ? { ...n, pinned: "A" } : n));
  const { basket } = bestBasket(needs, SUPPLIERS);
  expect(explainBasket(needs, SUPPLIERS, basket, {}).suppliers.find((s) => s.supplier === "A")).toMatchObject(
    {
      onlyHere: [],
      keptHere: ["1"],
    },
  );
  expect(explainLine(needs, SUPPLIERS, basket, "1").runnerUp!.buys.map((b) => b.supplier)).toEqual(["B"]);
});
