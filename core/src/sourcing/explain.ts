import type { Micros } from "../money/money.ts";
import { bestBasket, bestWithin } from "./basket.ts";
import type { Basket, LineBuys, Need } from "./need.ts";
import { type Buy, buyAt, type Offer, priceAt, type Supplier } from "./offer.ts";
import { QUICK_EFFORT } from "./optimum.ts";

/** What another answer would cost against the basket at hand. */
export interface Otherwise {
  readonly basket: Basket;
  /** Its total less the basket's. */
  readonly more: Micros;
  /** Lines it does not cover in full. */
  readonly short: readonly string[];
}

/** A supplier of the basket: what it is worth. */
export interface SupplierReason {
  readonly supplier: string;
  /** Without it. */
  readonly without: Otherwise;
  /** Lines nobody else covers: they make the parcel necessary. */
  readonly onlyHere: readonly string[];
  /** Lines a person wants from here. */
  readonly keptHere: readonly string[];
}

/** Limits somebody may set, and what each costs. */
export interface BasketReasons {
  readonly suppliers: readonly SupplierReason[];
  /** By number of parcels, fewer than the basket's. */
  readonly parcels: readonly (Otherwise & { readonly parcels: number })[];
  /** Everything here sooner, by days. */
  readonly sooner: readonly (Otherwise & { readonly days: number })[];
}

/** Why a quantity is what it is. */
export type QtyReason =
  | "need"
  | "minimum"
  | "pack"
  | "step"
  | "free shipping"
  | "part of it"
  | "all there is";

/** One buy of a line, explained. */
export interface BuyReason {
  readonly buy: Buy;
  readonly because: QtyReason;
  /** Pieces over the need that come along. */
  readonly over: number;
  /** The next price step, where it gives at least a fifth more pieces for at most a tenth more money. */
  readonly nextStep?: { readonly qty: number; readonly more: Micros };
}

/** A line of the basket, explained. */
export interface LineReason {
  readonly buys: readonly BuyReason[];
  /** The best basket without the offers chosen here; undefined where nobody else has the line. */
  readonly runnerUp?: Otherwise & { readonly buys: readonly Buy[] };
}

/**
 * What the basket's suppliers are worth, and what fewer parcels or an earlier day cost: each by solving again under that
 * limit (regret; domain.md 4.5).
 *
 * @param days until goods of a supplier are here, at most
 */
export function explainBasket(
  needs: readonly Need[],
  suppliers: readonly Supplier[],
  basket: Basket,
  days: Readonly<Record<string, number>>,
): BasketReasons {
  const from = (list: readonly Supplier[]) => otherwise(bestWithin(needs, list), basket);
  const before = new Set(shortOf(basket));
  const pinned = new Map(needs.map((n) => [n.id, n.pinned]));
  const reasons = basket.suppliers.map((id): SupplierReason => {
    const without = from(suppliers.filter((s) => s.id !== id));
    const lost = without.short.filter((l) => !before.has(l));
    return {
      supplier: id,
      without,
      onlyHere: lost.filter((l) => pinned.get(l) !== id),
      keptHere: lost.filter((l) => pinned.get(l) === id),
    };
  });
  const parcels: (Otherwise & { parcels: number })[] = [];
  for (let k = basket.suppliers.length - 1; k >= 1; k--) {
    const { basket: other, found } = bestBasket(needs, suppliers, { maxParcels: k, effort: QUICK_EFFORT });
    if (!found) break;
    parcels.push({ ...otherwise(other, basket), parcels: k });
  }
  const own = Math.max(0, ...basket.suppliers.map((id) => days[id] ?? 0));
  const sooner = [...new Set(suppliers.map((s) => days[s.id] ?? 0))]
    .filter((d) => d < own)
    .sort((a, b) => b - a)
    .map((d) => ({ ...from(suppliers.filter((s) => (days[s.id] ?? 0) <= d)), days: d }));
  return { suppliers: reasons, parcels, sooner };
}

/** Why a line is bought as it is, and what the runner-up costs; a supplier the person keeps it from counts as chosen. */
export function explainLine(
  needs: readonly Need[],
  suppliers: readonly Supplier[],
  basket: Basket,
  lineId: string,
): LineReason {
  const need = needs.find((n) => n.id === lineId)!;
  const line = basket.lines.find((l) => l.line === lineId)!;
  const buys = line.buys.map((b) => reasonOf(b, line, need));
  const chosen = new Set(line.buys.map((b) => b.offer));
  const rest = need.offers.filter((o) => !chosen.has(o.id));
  if (line.buys.length === 0 || rest.length === 0) return { buys };
  const others = needs.map((n) => (n.id === lineId ? { id: n.id, need: n.need, offers: rest } : n));
  const { basket: other } = bestBasket(others, suppliers, { effort: QUICK_EFFORT });
  const found = otherwise(other, basket);
  if (found.short.includes(lineId)) return { buys };
  return { buys, runnerUp: { ...found, buys: other.lines.find((l) => l.line === lineId)!.buys } };
}

function reasonOf(b: Buy, line: LineBuys, need: Need): BuyReason {
  const offer = need.offers.find((o) => o.id === b.offer)!;
  const bought = line.buys.reduce((n, x) => n + x.qty, 0);
  const over = Math.max(0, bought - need.need);
  const next = offer.breaks.find((x) => x.qty > b.qty);
  const step = next ? Math.ceil(next.qty / offer.multiple) * offer.multiple : 0;
  const far = step > 0 && step <= offer.stock ? buyAt(offer, step) : undefined;
  const isWorth = far !== undefined && far.qty >= b.qty * 1.2 && far.cost <= b.cost * 1.1;
  return {
    buy: b,
    because: because(b, offer, line, need),
    over,
    ...(isWorth ? { nextStep: { qty: far.qty, more: (far.cost - b.cost) as Micros } } : {}),
  };
}

function because(b: Buy, offer: Offer, line: LineBuys, need: Need): QtyReason {
  if (line.missing > 0) return "all there is";
  if (line.buys.length > 1) return "part of it";
  if (b.qty === need.need) return "need";
  const pack = Math.ceil(Math.max(need.need, offer.moq) / offer.multiple) * offer.multiple;
  if (b.qty === pack) return offer.moq > need.need ? "minimum" : "pack";
  // bought to a step because all pieces become cheaper there
  if (
    offer.breaks.some((x) => x.qty <= b.qty && x.qty > need.need) &&
    priceAt(offer, b.qty) < priceAt(offer, pack)
  )
    return "step";
  return "free shipping";
}

const shortOf = (basket: Basket) => basket.lines.filter((l) => l.missing > 0).map((l) => l.line);

const otherwise = (other: Basket, basket: Basket): Otherwise => ({
  basket: other,
  more: (other.total - basket.total) as Micros,
  short: shortOf(other),
});
