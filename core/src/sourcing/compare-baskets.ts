import { basketOf, bestBasket, better } from "./basket.ts";
import { coverLine, type Pick } from "./line/cover.ts";
import type { Basket, Need } from "./need.ts";
import type { Supplier } from "./offer.ts";
import { QUICK_EFFORT } from "./optimum.ts";
import { type Problem, toProblem } from "./problem.ts";
import { sharedPools, sharing } from "./shared-stock.ts";
import { evaluate, Improver, NOT_SOLD } from "./solution.ts";

/** More suppliers than this are not listed in every combination. */
const LISTED = 6;

/**
 * Whole baskets, cheapest first: the best one with what is proven of it, then the other sets of suppliers, each bought
 * as a patient person would.
 *
 * @param first the best basket where it is known already
 * @returns baskets of distinct supplier sets; fewest missing units first, then least total, then fewer suppliers
 */
export function findBaskets(
  needs: readonly Need[],
  suppliers: readonly Supplier[],
  first: Basket = bestBasket(needs, suppliers, { effort: QUICK_EFFORT }).basket,
): Basket[] {
  const found = new Map<string, Basket>([[first.suppliers.join(" "), first]]);
  const p = toProblem(needs, suppliers);
  const improver = new Improver(p);
  const known = p.lines.map(() => new Map<number, Pick | undefined>());
  const shares = sharedPools(needs).size > 0;
  for (const set of setsOf(p.suppliers, first)) {
    if (shares) {
      add(
        found,
        sharing(needs, (some) => within(some, set), TRIED_FOR_COMPARISON),
      );
      continue;
    }
    const open = p.suppliers.reduce((m, s, i) => (set.includes(s) ? m | (1 << i) : m), 0);
    const picks = (open & p.fixedSuppliers) === p.fixedSuppliers ? cover(p, open, known) : undefined;
    const basket = picks
      ? basketOf(p, needs, improver.improve(evaluate(p, picks), open, 20), undefined)
      : within(needs, set);
    add(found, basket);
  }
  return [...found.values()].sort((a, b) => (a === first ? -1 : b === first ? 1 : better(a, b)));
}

/** Baskets tried for one that shares stock and is only compared. */
const TRIED_FOR_COMPARISON = 6;

/** Keeps the better basket of each set of suppliers. */
function add(found: Map<string, Basket>, basket: Basket): void {
  const key = basket.suppliers.join(" ");
  const old = found.get(key);
  if (basket.total < NOT_SOLD && (!old || better(basket, old) < 0)) found.set(key, basket);
}

/** Each line in its cheapest way from the open suppliers; undefined where one cannot be covered. */
function cover(
  p: Problem,
  open: number,
  known: readonly Map<number, Pick | undefined>[],
): Pick[] | undefined {
  const picks: Pick[] = [];
  for (const [l, line] of p.lines.entries()) {
    const sub = open & line.suppliers;
    const map = known[l]!;
    if (!map.has(sub)) map.set(sub, coverLine(line, sub, p.factor)?.pick);
    const pick = map.get(sub);
    if (!pick) return undefined;
    picks.push(pick);
  }
  return picks;
}

/** Sets worth a look: all of them where they are few; else single suppliers, and the best set without each of its own. */
function setsOf(used: readonly Supplier[], best: Basket): Supplier[][] {
  if (used.length <= LISTED)
    return Array.from({ length: (1 << used.length) - 1 }, (_, bits) =>
      used.filter((_, i) => (bits + 1) & (1 << i)),
    );
  return [
    ...used.map((s) => [s]),
    ...best.suppliers.map((id) => used.filter((s) => s.id !== id)),
    ...best.suppliers.map((id) => used.filter((s) => s.id !== id && best.suppliers.includes(s.id))),
  ].filter((set) => set.length > 0);
}

/** Each line from whoever sells it cheapest, shipping left aside while choosing: what people do first. */
export const cheapestPerLine = (needs: readonly Need[], suppliers: readonly Supplier[]): Basket =>
  sharing(needs, (some) => within(some, suppliers), TRIED_FOR_COMPARISON);

/** Each line in its cheapest way from these suppliers. */
function within(needs: readonly Need[], open: readonly Supplier[]): Basket {
  const p = toProblem(needs, open);
  const picks = cover(
    p,
    (1 << p.suppliers.length) - 1,
    p.lines.map(() => new Map()),
  );
  return basketOf(p, needs, evaluate(p, picks ?? []), undefined);
}
