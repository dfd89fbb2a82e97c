import type { Micros } from "../money/money.ts";
import { type Buy, buyAt, cheapestBuy, type Offer, type Supplier, wholeStock } from "./offer.ts";

/** A line to be bought. */
export interface Need {
  readonly id: string;
  readonly need: number;
  readonly offers: readonly Offer[];
  /** A person's choice of supplier; other offers are not used. */
  readonly pinned?: string;
}

/** What is bought for one line. */
export interface LineBuys {
  readonly line: string;
  readonly buys: readonly Buy[];
  readonly missing: number;
}

/** A whole basket over one or more suppliers. */
export interface Basket {
  readonly suppliers: readonly string[];
  readonly lines: readonly LineBuys[];
  readonly parts: Micros;
  readonly shipping: Micros;
  readonly total: Micros;
  /** Units that cannot be bought at all. */
  readonly missing: number;
  readonly shippingOf: Readonly<Record<string, Micros>>;
  readonly partsOf: Readonly<Record<string, Micros>>;
}

/** At most this many suppliers are tried in every combination. */
const MAX_SUPPLIERS = 10;

/**
 * Whole baskets, cheapest first: every set of suppliers, each line bought in its cheapest way within the set, shipping
 * on top, then one lift of each supplier to its free-shipping threshold where that saves.
 *
 * Exact where no threshold binds and no line must be split; otherwise a good basket, not a proven one.
 *
 * @returns baskets of distinct supplier sets; fewest missing units first, then least total, then fewer suppliers
 */
export function findBaskets(needs: readonly Need[], suppliers: readonly Supplier[]): Basket[] {
  const used = suppliers
    .filter((s) => needs.some((n) => n.offers.some((o) => o.supplier === s.id)))
    .slice(0, MAX_SUPPLIERS);
  const found = new Map<string, Basket>();
  for (let bits = 1; bits < 1 << used.length; bits++) {
    const open = new Set(used.filter((_, i) => bits & (1 << i)).map((s) => s.id));
    const basket = lift(price(needs, suppliers, open), needs, suppliers, open);
    const key = basket.suppliers.join(" ");
    const old = found.get(key);
    if (!old || better(basket, old) < 0) found.set(key, basket);
  }
  if (found.size === 0) found.set("", price(needs, suppliers, new Set()));
  return [...found.values()].sort(better);
}

const better = (a: Basket, b: Basket) =>
  a.missing - b.missing || a.total - b.total || a.suppliers.length - b.suppliers.length;

/** Each line from whoever sells it cheapest, shipping left aside while choosing: what people do first. */
export function cheapestPerLine(needs: readonly Need[], suppliers: readonly Supplier[]): Basket {
  return price(needs, suppliers, new Set(suppliers.map((s) => s.id)));
}

function price(needs: readonly Need[], suppliers: readonly Supplier[], open: ReadonlySet<string>): Basket {
  return total(
    needs.map((n) => buyLine(n, open)),
    suppliers,
  );
}

/** Cheapest single offer, else the cheapest split over two, else all stock there is. */
function buyLine(n: Need, open: ReadonlySet<string>): LineBuys {
  if (n.need <= 0) return { line: n.id, buys: [], missing: 0 };
  const offers = n.offers.filter(
    (o) => open.has(o.supplier) && (n.pinned === undefined || o.supplier === n.pinned),
  );
  let best: Buy[] | undefined;
  let bestCost = Number.POSITIVE_INFINITY;
  const consider = (buys: (Buy | undefined)[]) => {
    if (buys.some((b) => !b)) return;
    const cost = buys.reduce((s, b) => s + b!.cost, 0);
    if (cost < bestCost) {
      best = buys as Buy[];
      bestCost = cost;
    }
  };
  for (const o of offers) consider([cheapestBuy(o, n.need)]);
  for (const a of offers) {
    const all = wholeStock(a);
    if (!all || all.qty >= n.need) continue;
    for (const b of offers) if (b !== a) consider([all, cheapestBuy(b, n.need - all.qty)]);
  }
  if (best) return { line: n.id, buys: best, missing: 0 };
  const everything = offers.map(wholeStock).filter((b): b is Buy => b !== undefined);
  const got = everything.reduce((s, b) => s + b.qty, 0);
  return { line: n.id, buys: everything, missing: Math.max(0, n.need - got) };
}

function total(lines: readonly LineBuys[], suppliers: readonly Supplier[]): Basket {
  const partsOf: Record<string, Micros> = {};
  for (const l of lines)
    for (const b of l.buys) partsOf[b.supplier] = ((partsOf[b.supplier] ?? 0) + b.cost) as Micros;
  const shippingOf: Record<string, Micros> = {};
  for (const id of Object.keys(partsOf)) {
    const s = suppliers.find((x) => x.id === id);
    const isFree = s?.freeFrom !== undefined && partsOf[id]! >= s.freeFrom;
    shippingOf[id] = (s && !isFree ? s.shipping : 0) as Micros;
  }
  const parts = Object.values(partsOf).reduce((a, b) => a + b, 0) as Micros;
  const shipping = Object.values(shippingOf).reduce((a, b) => a + b, 0) as Micros;
  return {
    suppliers: Object.keys(partsOf).sort(),
    lines,
    parts,
    shipping,
    total: (parts + shipping) as Micros,
    missing: lines.reduce((s, l) => s + l.missing, 0),
    shippingOf,
    partsOf,
  };
}

/** For each supplier short of free shipping: buy a little more of one line, or move one line there, if it saves. */
function lift(
  start: Basket,
  needs: readonly Need[],
  suppliers: readonly Supplier[],
  open: ReadonlySet<string>,
): Basket {
  let basket = start;
  for (const s of suppliers) {
    if (s.freeFrom === undefined || !open.has(s.id)) continue;
    const gap = s.freeFrom - (basket.partsOf[s.id] ?? 0);
    if (gap <= 0) continue;
    let best = basket;
    for (let i = 0; i < needs.length; i++) {
      const line = basket.lines[i]!;
      const n = needs[i]!;
      for (const o of n.offers) {
        if (o.supplier !== s.id || (n.pinned !== undefined && n.pinned !== s.id)) continue;
        const present = line.buys.find((b) => b.offer === o.id);
        const base = present ?? cheapestBuy(o, n.need);
        if (!base || line.buys.length > 1) continue;
        const candidates = [base];
        const unit = base.unitPrice * o.multiple;
        const extra = Math.ceil((gap - (present ? 0 : base.cost)) / Math.max(1, unit));
        if (extra > 0 && extra < 10_000 && base.qty + extra * o.multiple <= o.stock)
          candidates.push(buyAt(o, base.qty + extra * o.multiple));
        for (const c of candidates) {
          const lines = basket.lines.map((l, k) => (k === i ? { ...l, buys: [c], missing: 0 } : l));
          const next = total(lines, suppliers);
          if (next.missing <= basket.missing && next.total < best.total) best = next;
        }
      }
    }
    basket = best;
  }
  return basket;
}
