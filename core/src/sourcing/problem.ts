import type { Need } from "./need.ts";
import { buyAt, type Offer, type Supplier, wholeStock } from "./offer.ts";

/** Quantities of an offer that share one unit price: lo, lo + step, … hi. Money in whole micros. */
export interface Window {
  readonly lo: number;
  readonly hi: number;
  readonly step: number;
  readonly price: number;
}

/** An offer for one line of the problem. */
export interface Source {
  readonly offer: Offer;
  /** Index of its supplier. */
  readonly supplier: number;
  readonly windows: readonly Window[];
  /** Charged once when anything is bought of it. */
  readonly fee: number;
  /** Windows up to one piece less than the need: what the offer can give beside another. */
  readonly partial: readonly Window[];
  /** Least cost of covering the need from here alone, and its quantity; infinite where the stock does not reach. */
  readonly full: number;
  readonly fullQty: number;
  /** Least price a piece of the partial windows can come to, their share of the fee with it. */
  readonly leastPartial: number;
  /** Most that can be bought in part. */
  readonly mostPartial: number;
}

/** A line that can be covered. */
export interface ProblemLine {
  readonly id: string;
  readonly need: number;
  readonly sources: readonly Source[];
  /** Bit set of its suppliers. */
  readonly suppliers: number;
}

/** A fee for a parcel whose goods come to at least `from`. */
export interface Tier {
  readonly from: number;
  readonly fee: number;
}

/** What is to be minimised: lines to cover, parcels with their fees, and what is bought whatever is chosen. */
export interface Problem {
  readonly lines: readonly ProblemLine[];
  readonly suppliers: readonly Supplier[];
  /** Per supplier its fees, ascending by `from`, each lower than the one before. */
  readonly tiers: readonly (readonly Tier[])[];
  /** What a unit of goods value costs at each supplier: 1 and its duty. */
  readonly factor: Float64Array;
  /** Goods bought at each supplier for lines that cannot be covered whole. */
  readonly fixed: Float64Array;
  /** Bit set of suppliers with fixed goods. */
  readonly fixedSuppliers: number;
  readonly short: readonly {
    readonly need: Need;
    readonly buys: readonly { readonly source: Offer; readonly qty: number }[];
    readonly missing: number;
  }[];
  /** Greatest common divisor of all money in it: two baskets differ by a multiple of it or not at all. */
  readonly grain: number;
  readonly maxParcels: number;
  /** Suppliers were left out: nothing can be proven. */
  readonly isPartial: boolean;
}

/** More suppliers than this, beside those that some line needs, are not searched in every combination. */
export const MAX_SUPPLIERS = 12;

/** Suppliers are bits of a number; further ones, those with the fewest lines, are left out. */
const MOST_SUPPLIERS = 30;

/**
 * Brings needs and suppliers into the form the search works on (model of domain.md 4.4).
 *
 * Lines whose whole stock does not reach are taken out: all there is of them is bought, the rest is missing. A pinned
 * line keeps the pinned supplier's offers only.
 *
 * @param maxParcels most suppliers to buy from; fixed buys of lines that fall short count too
 */
export function toProblem(
  needs: readonly Need[],
  suppliers: readonly Supplier[],
  maxParcels = Number.POSITIVE_INFINITY,
): Problem {
  const all = suppliers.filter((s) =>
    needs.some((n) => n.need > 0 && n.offers.some((o) => o.supplier === s.id)),
  );
  const used = all.length > MOST_SUPPLIERS ? fewer(all, needs) : all;
  const index = new Map(used.map((s, i) => [s.id, i]));
  const lines: ProblemLine[] = [];
  const fixed = new Float64Array(used.length);
  const short: { need: Need; buys: { source: Offer; qty: number }[]; missing: number }[] = [];
  let fixedSuppliers = 0;
  let grain = 0;
  for (const need of needs) {
    if (need.need <= 0) continue;
    const offers = need.offers.filter(
      (o) =>
        index.has(o.supplier) &&
        o.breaks.length > 0 &&
        (need.pinned === undefined || o.supplier === need.pinned),
    );
    const stock = offers.map((o) => wholeStock(o)?.qty ?? 0);
    const most = stock.reduce((a, b) => a + b, 0);
    if (most < need.need) {
      const buys = offers.flatMap((source, i) => (stock[i]! > 0 ? [{ source, qty: stock[i]! }] : []));
      for (const b of buys) {
        const s = index.get(b.source.supplier)!;
        const { cost } = buyAt(b.source, b.qty);
        fixed[s]! += cost;
        fixedSuppliers |= 1 << s;
        grain = gcd(grain, cost);
      }
      short.push({ need, buys, missing: need.need - most });
      continue;
    }
    const sources = offers.flatMap((o): Source[] => {
      const s = sourceOf(o, index.get(o.supplier)!, need.need);
      return s ? [s] : [];
    });
    for (const s of sources) {
      grain = gcd(grain, s.fee);
      for (const w of s.windows) grain = gcd(grain, w.price);
    }
    lines.push({
      id: need.id,
      need: need.need,
      sources,
      suppliers: sources.reduce((m, s) => m | (1 << s.supplier), 0),
    });
  }
  const tiers = used.map(tiersOf);
  for (const list of tiers) for (const t of list) grain = gcd(grain, t.fee);
  const factor = Float64Array.from(used, (s) => 1 + (s.dutyRate ?? 0));
  // with duty, sums are rounded to the micro: they are multiples of nothing larger
  if (factor.some((f) => f !== 1)) grain = 1;
  return {
    lines,
    suppliers: used,
    tiers,
    factor,
    fixed,
    fixedSuppliers,
    short,
    grain: Math.max(1, grain),
    maxParcels,
    isPartial: used.length < all.length,
  };
}

/** The suppliers with the most lines, those that alone have one first; in their old order. */
function fewer(all: readonly Supplier[], needs: readonly Need[]): Supplier[] {
  const score = new Map<string, number>();
  for (const n of needs) {
    const who = [...new Set(n.offers.map((o) => o.supplier))];
    for (const s of who) score.set(s, (score.get(s) ?? 0) + (who.length === 1 ? 1000 : 1));
  }
  const kept = new Set(
    [...all]
      .sort((a, b) => (score.get(b.id) ?? 0) - (score.get(a.id) ?? 0))
      .slice(0, MOST_SUPPLIERS)
      .map((s) => s.id),
  );
  return all.filter((s) => kept.has(s.id));
}

function sourceOf(offer: Offer, supplier: number, need: number): Source | undefined {
  const step = offer.multiple;
  const floor = (q: number) => Math.floor(q / step) * step;
  const ceil = (q: number) => Math.ceil(q / step) * step;
  const least = ceil(Math.max(1, offer.moq));
  const windows: Window[] = [];
  offer.breaks.forEach((b, i) => {
    const next = offer.breaks[i + 1]?.qty ?? Number.POSITIVE_INFINITY;
    // below its first step an offer is sold at that step's price
    const lo = Math.max(least, i === 0 ? 0 : ceil(b.qty));
    const hi = floor(Math.min(offer.stock, next - 1));
    if (lo <= hi) windows.push({ lo, hi, step, price: b.price });
  });
  if (windows.length === 0) return undefined;
  const fee = offer.fee ?? 0;
  let full = Number.POSITIVE_INFINITY;
  let fullQty = 0;
  const partial: Window[] = [];
  for (const w of windows) {
    const q = Math.max(w.lo, ceil(need));
    if (q <= w.hi && q * w.price + fee < full) {
      full = q * w.price + fee;
      fullQty = q;
    }
    const hi = Math.min(w.hi, floor(need - 1));
    if (w.lo <= hi) partial.push({ ...w, hi });
  }
  return {
    offer,
    supplier,
    windows,
    fee,
    partial,
    full,
    fullQty,
    leastPartial: partial.reduce((m, w) => Math.min(m, w.price + fee / w.hi), Number.POSITIVE_INFINITY),
    mostPartial: partial.reduce((m, w) => Math.max(m, w.hi), 0),
  };
}

/** What the parcel's way costs at a subtotal of its goods. */
const freightOf = (s: Supplier, goods: number): number =>
  s.freeFrom !== undefined && goods >= s.freeFrom ? 0 : s.shipping;

/** Duty on the way itself, where it is taken on that too (domain.md 4.2, the customs value with freight). */
export const dutyOnFreight = (s: Supplier, goods: number): number =>
  s.dutyOnFreight ? Math.round(freightOf(s, goods) * (s.dutyRate ?? 0)) : 0;

/** Fees by goods subtotal; a fee that does not fall is no tier of its own. */
function tiersOf(s: Supplier): Tier[] {
  const least = Math.max(0, s.minimumOrder ?? 0);
  const feeAt = (goods: number) =>
    (s.handling ?? 0) +
    freightOf(s, goods) +
    dutyOnFreight(s, goods) +
    (s.smallOrder && goods < s.smallOrder.below ? s.smallOrder.fee : 0);
  const tiers: Tier[] = [{ from: least, fee: feeAt(least) }];
  const steps = [s.freeFrom, s.smallOrder?.below].filter((v) => v !== undefined && v > least) as number[];
  for (const from of steps.sort((a, b) => a - b)) {
    const fee = feeAt(from);
    if (fee < tiers.at(-1)!.fee) tiers.push({ from, fee });
  }
  return tiers;
}

function gcd(a: number, b: number): number {
  let [x, y] = [Math.abs(a), Math.abs(b)];
  while (y > 0) [x, y] = [y, x % y];
  return x;
}
