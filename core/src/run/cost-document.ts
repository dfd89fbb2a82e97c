import { type CostTree, toCostTree } from "../costing/tree.ts";
import { microsToNumber } from "../money/money.ts";
import { type CurvePoint, curvePoint, curveQuantities } from "./curve.ts";
import type { RunDocument } from "./document/document.ts";
import { isComplete } from "./orders/complete.ts";
import { rollUp } from "./roll-up.ts";
import type { BasketCache } from "./stage/result.ts";

/** The document `cost/1`. */
export interface CostDocument {
  readonly kobbin: "cost/1";
  readonly currency: string;
  readonly perGoodBoard: number;
  readonly total: number;
  readonly cashNeeded: number;
  readonly start: number;
  readonly expectedGood: number;
  readonly readyBy: { readonly p10: string; readonly p50: string; readonly p90: string };
  /** False where something is not priced: perGoodBoard, total, cashNeeded and readyBy are of the rest then. */
  readonly complete: boolean;
  /** Lines that cannot be bought in full, by name. */
  readonly uncovered: readonly string[];
  readonly tree: CostTree;
  readonly curve: readonly CurvePoint[];
  readonly blockers: readonly { readonly key: string; readonly stage: string; readonly text: string }[];
}

/**
 * Cost of a run as one document, with its curve.
 * @param cache baskets that are known already, proven ones as a rule
 */
export function costDocument(doc: RunDocument, cache: BasketCache = new Map()): CostDocument {
  const r = rollUp(doc, { cache });
  const { p10, p50, p90 } = r.ready;
  return {
    kobbin: "cost/1",
    currency: doc.workshop.currency,
    perGoodBoard: microsToNumber(r.perGood),
    total: microsToNumber(r.total),
    cashNeeded: microsToNumber(r.cashNeeded),
    start: r.start,
    expectedGood: r.expectedGood,
    readyBy: { p10, p50, p90 },
    complete: isComplete(r.unpriced),
    uncovered: r.unpriced.lines,
    tree: toCostTree(r.tree, r.expectedGood),
    curve: curveQuantities(doc.goodBoards).map((q) => curvePoint(doc, q)),
    blockers: r.blockers.map(({ key, stage, text }) => ({ key, stage, text })),
  };
}
