import type { Method } from "../../assembly/method.ts";
import { shapeOf } from "../../assembly/package-class.ts";
import type { CountedPart } from "../../assembly/yield.ts";
import { numberKey } from "../../bom/number.ts";
import { addTo } from "../../grouped.ts";
import { partsByNumber } from "../../library/candidates.ts";
import { convertMicros, type Micros, toMicros } from "../../money/money.ts";
import { type Offer, type Supplier, toBreaks } from "../../sourcing/offer.ts";
import { timesInProduct } from "./bill/structure.ts";
import { ofBoard, Places } from "./boards.ts";
import type { RunDocument, RunLine } from "./document.ts";
import { type BoardSide, isSided, mayGo, wayOf } from "./ways.ts";

/** A line with how it is soldered; of a line whose parts go several ways, those of one way: its references are theirs alone. */
export interface LinePart extends CountedPart {
  readonly line: RunLine;
}

/** Fitted lines with their class and who solders them. A line whose parts go several ways stands once for each. */
export function lineParts(doc: RunDocument): LinePart[] {
  const places = new Places(doc);
  const known = partsByNumber(doc.library ?? []);
  const times = timesInProduct(doc.lines, doc.boards);
  const hasPaste = mayGo(doc, "stencil");
  return doc.lines
    .filter((l) => times.get(l.id)! > 0)
    .flatMap((line) => {
      const hasPlace = line.mount === "machine" || line.refs.some((r) => places.has(line, r));
      const shape =
        line.mount === "none"
          ? { kind: "loose" as const, joints: 0, isPolarised: false }
          : shapeOf(line.package, line.refs[0], hasPlace);
      const isByHand = line.mount === "hand" || shape.kind === "through";
      // what the library says of the body outweighs what its kind would suggest
      const isPolarised = shape.isPolarised || Boolean(known.get(numberKey(line.mpn))?.direction);
      const count = times.get(line.id)!;
      return byWay(doc, line, isByHand, places).map(({ method, refs }): LinePart => {
        // what goes through the board of a pasted one is laid out and put on with the rest (EX 7.3)
        const isWithPaste = method === "iron" && isByHand && hasPaste;
        const isAll = refs.length === line.refs.length;
        return {
          line: isAll ? line : { ...line, refs },
          ...shape,
          isPolarised,
          method,
          ...(isWithPaste ? { placing: "stencil" as const } : {}),
          count: isAll ? count : (count * refs.length) / line.refs.length,
        };
      });
    });
}

/** The ways of a line's parts, each with its references, in the order of the first of them. */
function byWay(
  doc: RunDocument,
  line: RunLine,
  isByHand: boolean,
  places: Places,
): { readonly method: Method; readonly refs: readonly string[] }[] {
  const { assembly } = doc;
  const at = (side: BoardSide) => wayOf(assembly, { line, isByHand, side });
  const isSplit = isSided(assembly, line) || (assembly.sides !== undefined && !isByHand);
  if (!isSplit || line.refs.length === 0) return [{ method: at("top"), refs: line.refs }];
  const ways = new Map<Method, string[]>();
  for (const ref of line.refs) addTo(ways, at(places.of(line, ref)?.side ?? "top"), ref);
  return [...ways].map(([method, refs]) => ({ method, refs }));
}

/** Takes the tax that is got back off what a supplier asks, where its prices contain it: that is no cost. */
export function netOf(doc: RunDocument): (supplier: string, gross: Micros) => Micros {
  const withTax = new Set(doc.suppliers.filter((s) => s.includesTax).map((s) => s.id));
  return (supplier, gross) =>
    withTax.has(supplier) ? (Math.round(gross / (1 + doc.workshop.taxRate)) as Micros) : gross;
}

/** Offers of the document in the shop's currency. Offers in a currency without a rate are left out. */
export function offersOf(doc: RunDocument): Map<string, Offer[]> {
  const out = new Map<string, Offer[]>();
  const net = netOf(doc);
  for (const o of doc.offers) {
    const rate = rateOf(doc, o.currency);
    if (rate === undefined) continue;
    const own = (price: Micros) => net(o.supplier, convertMicros(price, rate));
    const offer: Offer = {
      id: o.id,
      supplier: o.supplier,
      stock: o.stock,
      moq: Math.max(1, o.moq),
      multiple: Math.max(1, o.multiple),
      ...(o.part === undefined ? {} : { part: o.part }),
      ...(o.fee === undefined ? {} : { fee: own(toMicros(o.fee)) }),
      breaks: toBreaks(o.breaks).map((b) => ({ qty: b.qty, price: own(b.price) })),
    };
    if (offer.breaks.length > 0) addTo(out, o.line, offer);
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

/** Suppliers with shipping in the shop's currency. */
export const suppliersOf = (doc: RunDocument): Supplier[] =>
  doc.suppliers.map((s) => {
    const rate = rateOf(doc, s.currency) ?? "0";
    const money = (v: string | number) => convertMicros(toMicros(v), rate);
    return {
      id: s.id,
      name: s.name,
      shipping: money(s.shipping),
      ...(s.freeFrom === undefined ? {} : { freeFrom: money(s.freeFrom) }),
      ...(s.smallOrder === undefined
        ? {}
        : { smallOrder: { below: money(s.smallOrder.below), fee: money(s.smallOrder.fee) } }),
      ...(s.minimumOrder === undefined ? {} : { minimumOrder: money(s.minimumOrder) }),
      ...(s.handling === undefined ? {} : { handling: money(s.handling) }),
      ...(s.dutyRate ? { dutyRate: s.dutyRate } : {}),
      ...(s.dutyOnFreight ? { dutyOnFreight: true } : {}),
    };
  });

/** What a line is called: its first reference, with its board where there are several, else its words; by its id. */
export const nameOfLine = (doc: RunDocument, parts: readonly LinePart[], id: string): string => {
  const l = parts.find((p) => p.line.id === id)?.line;
  if (!l) return id;
  return l.refs[0] === undefined ? l.valueText || l.mpn : `${l.refs[0]}${ofBoard(doc, l)}`;
};
