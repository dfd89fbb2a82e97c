import { convertMicros, type Micros, roundMoney, toMicros } from "../../money/money.ts";
import type { Basket } from "../../sourcing/need.ts";
import { type Buy, priceAt, toBreaks } from "../../sourcing/offer.ts";
import type { RunDocument, RunOffer } from "../document/document.ts";
import { netOf, rateOf } from "../document/parts.ts";

/** A line of a supplier's invoice. */
export interface InvoiceLine {
  /** Line of the bill it is bought for. */
  readonly line: string;
  readonly buy: Buy;
  readonly offer: RunOffer;
  readonly unitPrice: Micros;
  readonly fee: Micros;
  /** Pieces × unit price and the fee, rounded to the currency's places, half away from zero. */
  readonly total: Micros;
}

/** What a supplier will write for the basket's goods, in its own currency as far as its offers are. */
export interface Invoice {
  readonly supplier: string;
  readonly currency: string;
  readonly lines: readonly InvoiceLine[];
  /** Sum of the rounded lines. */
  readonly total: Micros;
}

/**
 * Invoices of a basket: each line is extended with its exact unit price, then rounded; totals are sums of rounded lines
 * (domain.md 4.1). An offer in another currency than its supplier's is written in the shop's.
 */
export function invoicesOf(doc: RunDocument, basket: Basket): Invoice[] {
  const given = new Map(doc.offers.map((o) => [o.id, o]));
  return basket.suppliers.flatMap((id) => {
    const of = doc.suppliers.find((s) => s.id === id)?.currency ?? doc.workshop.currency;
    const byCurrency = new Map<string, InvoiceLine[]>();
    for (const l of basket.lines)
      for (const buy of l.buys) {
        // figures may be a moment older than the offers they are shown with
        const offer = buy.supplier === id ? given.get(buy.offer) : undefined;
        if (!offer) continue;
        const own = offer.currency === of;
        const currency = own ? of : doc.workshop.currency;
        const unitPrice = own ? priceAt({ breaks: toBreaks(offer.breaks) }, buy.qty) : buy.unitPrice;
        const fee = (own ? toMicros(offer.fee ?? 0) : (buy.fee ?? 0)) as Micros;
        const total = roundMoney(unitPrice * buy.qty + fee, currency);
        const lines = byCurrency.get(currency) ?? [];
        lines.push({ line: l.line, buy, offer, unitPrice, fee, total });
        byCurrency.set(currency, lines);
      }
    return [...byCurrency].map(([currency, lines]) => ({
      supplier: id,
      currency,
      lines,
      total: lines.reduce((n, l) => n + l.total, 0) as Micros,
    }));
  });
}

/** What the invoices of the goods come to in the shop's currency, without tax that is got back. */
export function invoicedParts(doc: RunDocument, basket: Basket): Micros {
  const net = netOf(doc);
  let sum = 0;
  for (const i of invoicesOf(doc, basket)) {
    const own = convertMicros(i.total, rateOf(doc, i.currency) ?? "0");
    const isOwn = i.currency === doc.suppliers.find((s) => s.id === i.supplier)?.currency;
    // what is written in the shop's money is without it already
    sum += isOwn ? net(i.supplier, own) : own;
  }
  return sum as Micros;
}
