import { expect, test } from "@jest/globals";
import type { Micros } from "../money/money.ts";
import type { Need } from "./need.ts";
import type { Supplier } from "./offer.ts";
import { type Optimum, searchOptimum } from "./optimum.ts";
import { toProblem } from "./problem.ts";
import { closeWithSolver, type Solve } from "./residual.ts";

const euro = (n: number) => (n * 1e6) as Micros;
const suppliers: Supplier[] = ["A", "B"].map((id) => ({
  id,
  name: id,
  shipping: euro(5),
  freeFrom: euro(100),
}));
const needs: Need[] = ["x", "y"].map((id) => ({
  id,
  need: 40,
  offers: suppliers.map(({ id: supplier }) => ({
    id: `${id}${supplier}`,
    supplier,
    stock: 1000,
    moq: 1,
    multiple: 1,
    breaks: [{ qty: 1, price: euro(1) }],
  })),
}));

test("a case that is hard has its share, then the others are asked, then the hard one has what is left", () => {
  const p = toProblem(needs, suppliers);
  const { best } = searchOptimum(p)!;
  const weights = [...p.factor];
  // two cases by hand: what one supplier must reach, and the other
  const left = [
    { open: 3, floors: [100e6, 0], fees: 0, bound: 1e6, weights },
    { open: 3, floors: [0, 100e6], fees: 0, bound: 2e6, weights },
  ];
  const found: Optimum = { best, bound: 1e6, isProven: false, left, givenUp: Number.POSITIVE_INFINITY };
  let clock = 0;
  const asked: number[] = [];
  // the first one asked is never closed, whatever time it gets; the second at once
  const solve: Solve = (_, seconds) => {
    asked.push(Math.round(seconds * 1000) / 1000);
    const isHard = asked.length !== 2;
    clock += isHard ? seconds * 1000 : 0;
    return { status: isHard ? "stopped" : "infeasible", values: [], bound: Number.NEGATIVE_INFINITY };
  };
  const closed = closeWithSolver(p, found, solve, 10, () => clock);
  // 0.15 and 0.5 of ten seconds over two cases, then the rest: 10 − 0.75 − 2.5
  expect(asked).toEqual([0.75, 0.75, 2.5, 6.75]);
  expect(closed.left.map((c) => c.floors)).toEqual([[100e6, 0]]);
  expect([closed.isProven, closed.bound]).toEqual([false, 1e6]);
});

test("without time nothing is asked, and nothing is proven", () => {
  const p = toProblem(needs, suppliers);
  const { best } = searchOptimum(p)!;
  const left = [{ open: 3, floors: [100e6, 0], fees: 0, bound: 1e6, weights: [...p.factor] }];
  const found: Optimum = { best, bound: 1e6, isProven: false, left, givenUp: Number.POSITIVE_INFINITY };
  const solve: Solve = () => {
    throw new Error("asked");
  };
  expect(closeWithSolver(p, found, solve, 0.04, () => 0)).toMatchObject({
    isProven: false,
    left: { length: 1 },
  });
});
