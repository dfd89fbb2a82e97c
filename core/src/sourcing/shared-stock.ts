import type { Basket, Need, Proof } from "./need.ts";

/** Baskets tried to prove which purchase gets the last pieces; steps, not time. */
const MOST_TRIED = 200;

/** Several purchases draw on one supplier's pieces of one number: no more than these among them. */
interface Limit {
  readonly pool: string;
  readonly members: readonly string[];
  readonly most: number;
}

interface Node {
  readonly limits: readonly Limit[];
  readonly basket: Basket;
}

/** Purchases that share the stock of an offer, by the offer's pool; empty as a rule. */
export function sharedPools(needs: readonly Need[]): ReadonlyMap<string, Limit> {
  const pools = new Map<string, Limit>();
  for (const n of needs)
    for (const o of n.need > 0 ? n.offers : []) {
      if (o.pool === undefined || (n.pinned !== undefined && n.pinned !== o.supplier)) continue;
      const old = pools.get(o.pool);
      pools.set(o.pool, {
        pool: o.pool,
        members: [...new Set([...(old?.members ?? []), n.id])],
        most: Math.max(old?.most ?? 0, o.stock),
      });
    }
  return new Map([...pools].filter(([, l]) => l.members.length > 1));
}

/**
 * The best basket where purchases share stock: pieces of one number from one supplier that two of them may use are there
 * once.
 *
 * Without the sharing it is a bound. Where it buys more than there is, one purchase takes either at most k of the pieces
 * or at least k + 1, and then the others at most the rest: branch and bound over such limits, each node a basket of its
 * own with less stock. Who gets everything is tried first, since prices per piece make that the answer as a rule. Fewest
 * missing pieces come before the least total.
 *
 * A generator: it asks for the basket of some needs and is given it, so that the one way serves a search at once and a
 * proof that waits.
 *
 * An offer's pool stands once in a purchase.
 *
 * @param tries how many baskets may be asked for; what is left open is told as the gap
 * @yields needs whose basket is wanted, sharing left aside
 * @returns the best basket that shares, its proof holding for the sharing too
 */
export function* shareStock(
  needs: readonly Need[],
  tries = MOST_TRIED,
): Generator<readonly Need[], Basket, Basket> {
  const pools = [...sharedPools(needs).values()];
  const root: Node = { limits: pools, basket: yield needs };
  if (excessOf(needs, root) === undefined) return root.basket;
  let left = Math.max(1, tries);
  let best: Basket | undefined;
  const take = (b: Basket) => {
    best = best && compare(best, b) <= 0 ? best : b;
  };
  // each in turn gets all it wants, the others what is left
  for (const order of ordersOf(pools)) {
    let node = root;
    for (let over = excessOf(needs, node); over && left > 0; over = excessOf(needs, node)) {
      const rank = (id: string) => order.indexOf(id);
      const last = [...over.limit.members]
        .sort((a, b) => rank(b) - rank(a))
        .find((id) => taken(over, id) > 0)!;
      const others = over.limit.members.reduce((n, id) => (id === last ? n : n + taken(over, id)), 0);
      const most = Math.max(0, over.limit.most - others);
      const limits = [...node.limits, { pool: over.limit.pool, members: [last], most }];
      left--;
      node = { limits, basket: yield limited(needs, limits) };
    }
    if (excessOf(needs, node) === undefined) take(node.basket);
    if (left <= 0) break;
  }
  // one way shares for certain: nobody but the first of each pool takes of it
  if (!best) {
    const limits = pools.map((l) => ({ ...l, members: l.members.slice(1), most: 0 }));
    best = yield limited(needs, limits);
  }
  const open: Node[] = [root];
  const isWorth = (n: Node) =>
    !best ||
    n.basket.missing < best.missing ||
    (n.basket.missing === best.missing && boundOf(n.basket) < best.total);
  while (open.length > 0 && left > 0) {
    open.sort((a, b) => a.basket.missing - b.basket.missing || boundOf(a.basket) - boundOf(b.basket));
    const node = open.shift()!;
    if (!isWorth(node)) break;
    const over = excessOf(needs, node);
    if (!over) {
      take(node.basket);
      // its own gap stays open, and is told
      if (isWorth(node)) {
        open.push(node);
        break;
      }
      continue;
    }
    const [first] = [...over.limit.members].sort((a, b) => taken(over, b) - taken(over, a)) as [string];
    const others = over.limit.members.filter((id) => id !== first);
    const low = Math.max(0, over.limit.most - others.reduce((n, id) => n + taken(over, id), 0));
    const k = Math.floor((low + taken(over, first) - 1) / 2);
    for (const limit of [
      { pool: over.limit.pool, members: [first], most: k },
      { pool: over.limit.pool, members: others, most: over.limit.most - k - 1 },
    ]) {
      const limits = [...node.limits, limit];
      left--;
      const next = { limits, basket: yield limited(needs, limits) };
      if (isWorth(next)) open.push(next);
    }
  }
  const least = open.filter(isWorth).reduce((b, n) => Math.min(b, boundOf(n.basket)), best.total as number);
  const isSame = open.filter(isWorth).every((n) => n.basket.missing === best?.missing);
  const proof: Proof = {
    isProven: isSame && least >= best.total && best.proof?.isProven === true,
    bound: Math.max(0, isSame ? least : 0) as Proof["bound"],
    gap: best.total === 0 ? 0 : Math.max(0, (best.total - (isSame ? least : 0)) / best.total),
  };
  return best.proof ? { ...best, proof: proof.isProven ? { ...proof, gap: 0 } : proof } : best;
}

/** Runs {@link shareStock} where baskets come at once. */
export function sharing(
  needs: readonly Need[],
  solve: (needs: readonly Need[]) => Basket,
  tries?: number,
): Basket {
  const steps = shareStock(needs, tries);
  let step = steps.next();
  while (!step.done) step = steps.next(solve(step.value));
  return step.value;
}

/** Runs {@link shareStock} where each basket is waited for. */
export async function sharingLater(
  needs: readonly Need[],
  solve: (needs: readonly Need[]) => Promise<Basket>,
): Promise<Basket> {
  const steps = shareStock(needs);
  let step = steps.next();
  while (!step.done) step = steps.next(await solve(step.value));
  return step.value;
}

interface Excess {
  readonly limit: Limit;
  readonly by: ReadonlyMap<string, number>;
}
const taken = (e: Excess, id: string) => e.by.get(id) ?? 0;

/** A limit that a node's basket passes. */
function excessOf(needs: readonly Need[], node: Node): Excess | undefined {
  if (node.limits.length === 0) return undefined;
  const poolOf = new Map(
    needs.flatMap((n) =>
      n.offers.flatMap((o) => (o.pool === undefined ? [] : [[`${n.id} ${o.id}`, o.pool]])),
    ),
  );
  const by = new Map<string, Map<string, number>>();
  for (const l of node.basket.lines)
    for (const b of l.buys) {
      const pool = poolOf.get(`${l.line} ${b.offer}`);
      if (pool === undefined) continue;
      const own = by.get(pool) ?? new Map<string, number>();
      own.set(l.line, (own.get(l.line) ?? 0) + b.qty);
      by.set(pool, own);
    }
  // the newest first: an older one it passes too would be parted just as before
  for (const limit of [...node.limits].reverse()) {
    const own = by.get(limit.pool);
    if (own && limit.members.reduce((n, id) => n + (own.get(id) ?? 0), 0) > limit.most)
      return { limit, by: own };
  }
  return undefined;
}

/** Needs whose offers hold no more than the limits on one purchase allow. */
function limited(needs: readonly Need[], limits: readonly Limit[]): Need[] {
  return needs.map((n) => {
    const own = limits.filter((l) => l.members.includes(n.id));
    if (own.length === 0) return n;
    return {
      ...n,
      offers: n.offers.map((o) => {
        const most = own.reduce((m, l) => (l.pool === o.pool ? Math.min(m, l.most) : m), o.stock);
        return most < o.stock ? { ...o, stock: most } : o;
      }),
    };
  });
}

/** Orders in which purchases may come first: each of them once, at most so many. */
function ordersOf(pools: readonly Limit[]): string[][] {
  const all = [...new Set(pools.flatMap((p) => p.members))];
  return all.slice(0, 12).map((first) => [first, ...all.filter((id) => id !== first)]);
}

/** No basket of a node is cheaper; nothing is known of one without a proof. */
const boundOf = (b: Basket): number => (b.proof ? (b.proof.isProven ? b.total : b.proof.bound) : 0);

const compare = (a: Basket, b: Basket) => a.missing - b.missing || a.total - b.total;
