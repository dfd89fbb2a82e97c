import {
  type Basket,
  type BasketReasons,
  explainBasket,
  explainLine,
  findBaskets,
  type LineReason,
  type Need,
  proveBasket,
  type Supplier,
} from "@kobbin/core";
import { loadSolver } from "@kobbin/solver";
import * as Comlink from "comlink";
import solverUrl from "highs/runtime?url";

const api = {
  /** The best basket proven, or as far as the time goes, with the others to compare. */
  async prove(needs: readonly Need[], suppliers: readonly Supplier[], seconds: number): Promise<Basket[]> {
    // the solver loads while the search goes on
    const solver = loadSolver(solverUrl);
    const basket = await proveBasket(
      needs,
      suppliers,
      () => solver,
      seconds,
      () => performance.now(),
    );
    return findBaskets(needs, suppliers, basket);
  },
  explain: (
    needs: readonly Need[],
    suppliers: readonly Supplier[],
    basket: Basket,
    days: Readonly<Record<string, number>>,
  ): BasketReasons => explainBasket(needs, suppliers, basket, days),
  explainLine: (
    needs: readonly Need[],
    suppliers: readonly Supplier[],
    basket: Basket,
    line: string,
  ): LineReason => explainLine(needs, suppliers, basket, line),
};

export type ProofApi = typeof api;
Comlink.expose(api);
