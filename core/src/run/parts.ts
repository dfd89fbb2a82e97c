import { needOf } from "../assembly/attrition.ts";
import { shapeOf } from "../assembly/package-class.ts";
import type { CountedPart, Method } from "../assembly/yield.ts";
import { convertMicros, type Micros, toMicros } from "../money/money.ts";
import type { Need } from "../sourcing/basket.ts";
import { cheapestBuy, type Offer, type Supplier, toBreaks } from "../sourcing/offer.ts";
import type { RunDocument, RunLine } from "./document.ts";

/** A line with how it is soldered. */
export interface LinePart extends CountedPart {
  readonly line: RunLine;
}

/** Above this unit price a part counts as costly and is hardly bought over (domain.md 3.7). */
export const COSTLY_MICROS = 2_000_000;

/** Fitted lines with their class and who solders them. */
export function lineParts(doc: RunDocument): LinePart[] {
  const placed = new Set(doc.placements.map((p) => p.ref));
  return doc.lines
    .filter((l) => !l.dnp)
    .map((line) => {
      const hasPlace = line.mount === "machine" || line.refs.some((r) => placed.has(r));
      const shape =
        line.mount === "none"
          ? { kind: "loose" as const, joints: 0, isPolarised: false }
          : shapeOf(line.package, line.refs[0], hasPlace);
      const method: Method = line.mount === "hand" || shape.kind === "through" ? "iron" : doc.assembly.method;
      return { line, ...shape, method, count: line.qty };
    });
}

/** Offers of the document in the shop's currency. Offers in a currency without a rate are left out. */
export function offersOf(doc: RunDocument): Map<string, Offer[]> {
  const out = new Map<string, Offer[]>();
  for (const o of doc.offers) {
    const rate = rateOf(doc, o.currency);
    if (rate === undefined) continue;
    const offer: Offer = {
      id: o.id,
      supplier: o.supplier,
      stock: o.stock,
      moq: Math.max(1, o.moq),
      multiple: Math.max(1, o.multiple),
      breaks: toBreaks(o.breaks).map((b) => ({ qty: b.qty, price: convertMicros(b.price, rate) })),
    };
    if (offer.breaks.length > 0) out.set(o.line, [...(out.get(o.line) ?? []), offer]);
  }
  return out;
}

/** Rate from a currency to the shop's, as decimal text; undefined where the shop has none. */
export const rateOf = (doc: RunDocument, currency: string): string | undefined =>
  currency === doc.workshop.currency
    ? "1"
    : doc.workshop.rates[currency] === undefined
      ? undefined
      : String(doc.workshop.rates[currency]);

/** Money in the shop's currency. Without a rate it counts nothing, and a note blocks the release: it is never taken 1:1. */
export const inShopCurrency = (doc: RunDocument, micros: number, currency: string): Micros =>
  convertMicros(Math.round(micros), rateOf(doc, currency) ?? "0");

/** Unit price from which a part is costly: 2.00 in euro, in the shop's own currency where it knows the rate. */
const costlyFrom = (doc: RunDocument): number => COSTLY_MICROS * Number(rateOf(doc, "EUR") ?? "1");

/** Suppliers with shipping in the shop's currency. */
export const suppliersOf = (doc: RunDocument): Supplier[] =>
  doc.suppliers.map((s) => {
    const rate = rateOf(doc, s.currency) ?? "0";
    return {
      id: s.id,
      name: s.name,
      shipping: convertMicros(toMicros(s.shipping), rate),
      ...(s.freeFrom === undefined ? {} : { freeFrom: convertMicros(toMicros(s.freeFrom), rate) }),
    };
  });

/** What each line needs for a number of boards started, with what is lost on the way. */
export function needsOf(
  doc: RunDocument,
  parts: readonly LinePart[],
  offers: ReadonlyMap<string, readonly Offer[]>,
  started: number,
): Need[] {
  return parts.map((p) => {
    const list = offers.get(p.line.id) ?? [];
    const pinned = doc.choices.pins?.[p.line.id];
    const base = { id: p.line.id, offers: list, ...(pinned === undefined ? {} : { pinned }) };
    if (p.kind === "loose") return { ...base, need: Math.ceil(doc.goodBoards * p.count) };
    const by = p.method === "house" ? "machine" : "hand";
    const net = Math.ceil(started * p.count);
    const prices = list.map((o) => cheapestBuy(o, net)?.unitPrice).filter((v) => v !== undefined);
    const isCostly = prices.length > 0 && Math.min(...prices) > costlyFrom(doc);
    return { ...base, need: Math.ceil(needOf(started, p.count, isCostly ? "costly" : p.kind, by)) };
  });
}
