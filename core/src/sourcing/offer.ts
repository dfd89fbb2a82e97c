import { type Micros, toMicros } from "../money/money.ts";

/** A price from a quantity on; it applies to all units (domain.md 4.1). */
export interface PriceBreak {
  readonly qty: number;
  readonly price: Micros;
}

/** What a supplier would sell for a line, in the shop's currency. */
export interface Offer {
  readonly id: string;
  readonly supplier: string;
  readonly stock: number;
  readonly moq: number;
  readonly multiple: number;
  /** Where it is not for the line's own number: the library part it is for. */
  readonly part?: string;
  /** Sorted by quantity, the first one reachable from the minimum order. */
  readonly breaks: readonly PriceBreak[];
  /** Charged once when anything is bought of it, such as winding a reel; part of the goods' value. */
  readonly fee?: Micros;
  /** The same pieces are offered to other purchases too: one stock for all offers of this name. */
  readonly pool?: string;
}

/** What a parcel of a supplier costs beside its goods; subtotals are of the goods. */
export interface Supplier {
  readonly id: string;
  readonly name: string;
  readonly shipping: Micros;
  /** No shipping from this subtotal on. */
  readonly freeFrom?: Micros;
  /** A fee for orders below a subtotal. */
  readonly smallOrder?: { readonly below: Micros; readonly fee: Micros };
  /** Nothing is sold below this subtotal. */
  readonly minimumOrder?: Micros;
  /** A charge for each parcel whatever it holds, such as import handling. */
  readonly handling?: Micros;
  /** Share of the goods' value that comes on top and is not got back: duty, 0.037 for 3.7 %. */
  readonly dutyRate?: number;
  /** Duty is taken on the freight too, as some places do; else on the goods alone. */
  readonly dutyOnFreight?: boolean;
}

/** A quantity bought from one offer. */
export interface Buy {
  readonly offer: string;
  readonly supplier: string;
  readonly qty: number;
  readonly unitPrice: Micros;
  /** Pieces × unit price, and the offer's own fee. */
  readonly cost: Micros;
  readonly fee?: Micros;
}

/** Unit price of the highest break at or below a quantity; the first break below all. */
export function priceAt(offer: Pick<Offer, "breaks">, qty: number): Micros {
  let price = offer.breaks[0]?.price ?? (0 as Micros);
  for (const b of offer.breaks) if (b.qty <= qty) price = b.price;
  return price;
}

const roundUp = (q: number, multiple: number) => Math.ceil(q / multiple) * multiple;

const buyOf = (o: Offer, qty: number): Buy => {
  const unitPrice = priceAt(o, qty);
  const cost = (qty * unitPrice + (o.fee ?? 0)) as Micros;
  return { offer: o.id, supplier: o.supplier, qty, unitPrice, cost, ...(o.fee ? { fee: o.fee } : {}) };
};

/**
 * Cheapest way to get at least `need` from one offer: the rounded need, or a later price break that costs less in all.
 *
 * Candidates {q₀} ∪ {⌈b/m⌉·m : break b > q₀} (domain.md 4.1); on a tie the lesser quantity.
 *
 * @returns undefined when the stock does not reach
 * @example need 80, breaks 1:0.12 10:0.10 100:0.055 → buys 100 for 5.50 (EX 4.1)
 */
export function cheapestBuy(offer: Offer, need: number): Buy | undefined {
  if (need <= 0 || offer.breaks.length === 0) return undefined;
  const first = roundUp(Math.max(need, offer.moq), offer.multiple);
  if (first > offer.stock) return undefined;
  let best = buyOf(offer, first);
  for (const b of offer.breaks) {
    const q = roundUp(b.qty, offer.multiple);
    if (q <= first || q > offer.stock) continue;
    const buy = buyOf(offer, q);
    if (buy.cost < best.cost) best = buy;
  }
  return best;
}

/** All that an offer can give towards a need larger than its stock. */
export function wholeStock(offer: Offer): Buy | undefined {
  const qty = Math.floor(offer.stock / offer.multiple) * offer.multiple;
  return qty >= offer.moq && qty > 0 ? buyOf(offer, qty) : undefined;
}

/** A quantity of an offer with its price. */
export const buyAt = buyOf;

/** Reads breaks out of a document: exact decimals, sorted, positive quantities only. */
export function toBreaks(
  list: readonly { readonly qty: number; readonly price: string | number }[],
): PriceBreak[] {
  return list
    .filter((b) => b.qty > 0)
    .map((b) => ({ qty: b.qty, price: toMicros(b.price) }))
    .sort((a, b) => a.qty - b.qty);
}
