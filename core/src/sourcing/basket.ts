import type { Micros } from "../money/money.ts";
import type { Basket, LineBuys, Need } from "./need.ts";
import { type Buy, buyAt, type Supplier } from "./offer.ts";
import { type Effort, type Optimum, QUICK_EFFORT, searchOptimum, USUAL_EFFORT } from "./optimum.ts";
import { dutyOnFreight, type Problem, toProblem } from "./problem.ts";
import { closeWithSolver, type Solve } from "./residual.ts";
import { sharedPools, sharing, sharingLater } from "./shared-stock.ts";
import { feeOf, NOT_SOLD, type Solution } from "./solution.ts";

/** Limits on what is sought. */
export interface BasketOptions {
  readonly maxParcels?: number;
  readonly effort?: Effort;
}

/**
 * The cheapest basket with what is proven of it, searched with an effort counted in steps: the same input gives the
 * same answer everywhere. Parts, fees and duty together (model of domain.md 4.4).
 *
 * @returns the best basket found and the search's state, for {@link proveBasket}
 */
export function bestBasket(
  needs: readonly Need[],
  suppliers: readonly Supplier[],
  options: BasketOptions = {},
): Searched {
  const root = searched(needs, suppliers, options);
  if (sharedPools(needs).size === 0) return root;
  const basket = sharing(
    needs,
    (some) => (some === needs ? root : searched(some, suppliers, options)).basket,
    TRIED_AT_ONCE,
  );
  return { ...root, basket };
}

/** Baskets tried for one that shares stock, where an answer is wanted at once. */
const TRIED_AT_ONCE = 24;

/** A basket and the search's state; where purchases share stock the state is that of the search without the sharing. */
interface Searched {
  readonly basket: Basket;
  readonly problem: Problem;
  readonly found: Optimum | undefined;
}

function searched(needs: readonly Need[], suppliers: readonly Supplier[], options: BasketOptions): Searched {
  const problem = toProblem(needs, suppliers, options.maxParcels);
  const found = searchOptimum(problem, options.effort ?? USUAL_EFFORT);
  return { basket: basketOf(problem, needs, found?.best, found), problem, found };
}

/** The cheapest basket from some suppliers only: what choosing them, or doing without the others, comes to. */
export function bestWithin(
  needs: readonly Need[],
  suppliers: readonly Supplier[],
  options: BasketOptions = {},
): Basket {
  const known = new Set(suppliers.map((s) => s.id));
  const left = needs.map((n) => ({ ...n, offers: n.offers.filter((o) => known.has(o.supplier)) }));
  return bestBasket(left, suppliers, { effort: QUICK_EFFORT, ...options }).basket;
}

/**
 * The cheapest basket, the general solver closing what the search left open.
 *
 * A quick search goes before it; only where that gave up sets of suppliers unseen is the usual one done.
 *
 * @param solver asked for only where something is left open: most lists never need it
 * @param seconds for the solver; the gap that is left then is told
 * @param now a clock in milliseconds
 */
export async function proveBasket(
  needs: readonly Need[],
  suppliers: readonly Supplier[],
  solver: () => Promise<Solve>,
  seconds: number,
  now: () => number,
  options: BasketOptions = {},
): Promise<Basket> {
  const until = now() + seconds * 1000;
  const left = () => Math.max(0, (until - now()) / 1000);
  return sharingLater(needs, (some) => provenOnce(some, suppliers, solver, left(), now, options));
}

async function provenOnce(
  needs: readonly Need[],
  suppliers: readonly Supplier[],
  solver: () => Promise<Solve>,
  seconds: number,
  now: () => number,
  options: BasketOptions,
): Promise<Basket> {
  let state = searched(needs, suppliers, { ...options, effort: QUICK_EFFORT });
  if (state.found && !state.found.isProven && state.found.givenUp < Number.POSITIVE_INFINITY)
    state = searched(needs, suppliers, options);
  const { basket, problem, found } = state;
  const isSold = found !== undefined && found.best !== undefined && found.best.total < NOT_SOLD;
  if (!isSold && options.maxParcels !== undefined && basket.missing > 0)
    return bestOfFew(needs, suppliers, options.maxParcels) ?? basket;
  if (!found || found.isProven) return basket;
  const closed = closeWithSolver(problem, found, await solver(), seconds, now);
  return basketOf(problem, needs, closed.best, closed);
}

/** So many suppliers, those that offer most lines, are tried together where no set under the limit has everything. */
const TRIED = 9;

/** The basket under a limit of parcels that leaves fewest pieces open, then costs least; of what can be tried. */
function bestOfFew(needs: readonly Need[], suppliers: readonly Supplier[], most: number): Basket | undefined {
  const offers = (s: Supplier) => needs.filter((n) => n.offers.some((o) => o.supplier === s.id)).length;
  const list = [...suppliers].sort((a, b) => offers(b) - offers(a)).slice(0, TRIED);
  let best: Basket | undefined;
  for (let bits = 1; bits < 1 << list.length; bits++) {
    const set = list.filter((_, i) => bits & (1 << i));
    if (set.length > most) continue;
    const basket = bestWithin(needs, set);
    if (basket.suppliers.length <= most && (!best || better(basket, best) < 0)) best = basket;
  }
  if (!best) return undefined;
  // cheapest of what these sets cover; nothing is proven of what is left open
  const { proof: _, ...unproven } = best;
  return unproven;
}

/** Fewer pieces missing, then less money, then fewer parcels. */
export const better = (a: Basket, b: Basket) =>
  a.missing - b.missing || a.total - b.total || a.suppliers.length - b.suppliers.length;

/** A solution as a basket: what is bought of each line, what each parcel comes to. */
export function basketOf(
  p: Problem,
  needs: readonly Need[],
  solution: Solution | undefined,
  found: Optimum | undefined,
): Basket {
  const buysOf = new Map<string, readonly Buy[]>();
  const missingOf = new Map<string, number>();
  const isSold = solution !== undefined && solution.total < NOT_SOLD;
  p.lines.forEach((line, l) => {
    const pick = isSold ? (solution.picks[l] ?? []) : [];
    buysOf.set(
      line.id,
      pick.map((b) => buyAt(b.source.offer, b.qty)),
    );
    const got = pick.reduce((n, b) => n + b.qty, 0);
    if (got < line.need) missingOf.set(line.id, line.need - got);
  });
  for (const s of p.short) {
    buysOf.set(
      s.need.id,
      s.buys.map((b) => buyAt(b.source, b.qty)),
    );
    missingOf.set(s.need.id, s.missing);
  }
  const lines = needs.map(
    (n): LineBuys => ({
      line: n.id,
      buys: buysOf.get(n.id) ?? [],
      missing: missingOf.get(n.id) ?? 0,
    }),
  );
  const partsOf: Record<string, Micros> = {};
  for (const l of lines)
    for (const b of l.buys) partsOf[b.supplier] = ((partsOf[b.supplier] ?? 0) + b.cost) as Micros;
  const shippingOf: Record<string, Micros> = {};
  const dutyOf: Record<string, Micros> = {};
  p.suppliers.forEach((s, i) => {
    const goods = partsOf[s.id];
    if (goods === undefined) return;
    const fee = feeOf(p, i, goods);
    const onFreight = fee >= NOT_SOLD ? 0 : dutyOnFreight(s, goods);
    shippingOf[s.id] = (fee >= NOT_SOLD ? 0 : fee - onFreight) as Micros;
    dutyOf[s.id] = (Math.round(goods * p.factor[i]!) - goods + onFreight) as Micros;
  });
  const duty = Object.values(dutyOf).reduce((a, b) => a + b, 0);
  const parts = Object.values(partsOf).reduce((a, b) => a + b, 0) as Micros;
  const shipping = Object.values(shippingOf).reduce((a, b) => a + b, 0) as Micros;
  const total = (parts + shipping + duty) as Micros;
  return {
    suppliers: p.suppliers.flatMap((s) => (partsOf[s.id] === undefined ? [] : [s.id])),
    lines,
    parts,
    shipping,
    duty: duty as Micros,
    total,
    missing: lines.reduce((s, l) => s + l.missing, 0),
    shippingOf,
    dutyOf,
    partsOf,
    ...(found && isSold
      ? {
          proof: {
            isProven: found.isProven,
            bound: Math.max(0, Math.floor(found.bound)) as Micros,
            gap: found.isProven || total === 0 ? 0 : Math.max(0, (total - found.bound) / total),
          },
        }
      : {}),
  };
}
