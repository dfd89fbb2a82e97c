import { proveBasket } from "../sourcing/basket.ts";
import { findBaskets } from "../sourcing/compare-baskets.ts";
import type { Solve } from "../sourcing/residual.ts";
import type { RunDocument } from "./document/document.ts";
import { suppliersOf } from "./document/parts.ts";
import { basketKey, rollUp } from "./roll-up.ts";
import type { BasketCache } from "./stage/result.ts";

/**
 * Has the run's best basket proven, where figures alone left a gap, and puts it where the next roll-up finds it.
 *
 * @param cache as given to the roll-ups of this run
 * @param solver asked for only where something is left open
 * @param seconds for it
 * @param now a clock in milliseconds
 * @returns true when the cache holds a better or better proven basket than before
 */
export async function proveRun(
  doc: RunDocument,
  cache: BasketCache,
  solver: () => Promise<Solve>,
  seconds: number,
  now: () => number,
): Promise<boolean> {
  const { needs, baskets } = rollUp(doc, { cache });
  const before = baskets[0];
  if (!before?.proof || before.proof.isProven) return false;
  const suppliers = suppliersOf(doc);
  const basket = await proveBasket(needs, suppliers, solver, seconds, now);
  if (!basket.proof || basket.proof.gap >= before.proof.gap) return false;
  cache.set(basketKey(needs), findBaskets(needs, suppliers, basket));
  return true;
}
