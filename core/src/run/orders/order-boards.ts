import type { House, OwnBench } from "../../fab/house.ts";
import type { FabOptions } from "../../fab/options.ts";
import { inOneParcel } from "../../fab/parcel.ts";
import { type BoardFacts, type FabQuote, orderPieces } from "../../fab/price.ts";
import { convertMicros, type Micros, toMicros } from "../../money/money.ts";
import { boardFacts } from "../document/board-facts.ts";
import type { RunDocument, RunGuest, RunQuote } from "../document/document.ts";
import { rateOf } from "../document/parts.ts";
import { quotationMisfits, quotationOf } from "../document/quotation-holds.ts";
import { sheetBoards } from "../sheet/guests.ts";
import { panelOf, type RunPanel, sharedQuotes, sheetFacts, sheetsFor } from "../sheet/panel.ts";

/** The fab of one board of the product. */
export interface BoardOrder {
  readonly name: string;
  readonly facts: BoardFacts;
  readonly quote: FabQuote;
  /** A quotation that came and overrides the estimate. */
  readonly quoted?: RunQuote;
  /** A quotation for something else: the estimate counts. */
  readonly unfit?: { readonly quote: RunQuote; readonly misfits: readonly string[] };
  readonly micros: Micros;
  readonly days: number;
  /** It is ordered on sheets: how many, and how many of this board lie on one; the quote counts boards. */
  readonly sheet?: {
    readonly sheets: number;
    readonly perSheet: number;
    readonly widthMm: number;
    readonly heightMm: number;
  };
  /** Own minutes, where the boards are made here; they are no cash. */
  readonly ownMinutes?: number;
}

/** What a quotation for sheets was for, in words. */
export const sheetWords = ({ choice, perSheet }: RunPanel): string =>
  `sheets of ${perSheet.filter((n) => n > 0).join(" + ")}, ${choice.widthMm} × ${choice.heightMm} mm`;

/** Own minutes to make boards at the bench: once, each board, each hole. */
export const benchMinutes = (b: OwnBench, holes: number, pieces: number): number =>
  b.setupMin + pieces * (b.perBoardMin + (holes * b.secondsAHole) / 60);

/**
 * What the house charges for each board of the product, in one parcel, and when they are there.
 *
 * A quotation holds for what was quoted; for anything else the estimate counts, and that is said. It is for all boards of
 * the run together: it is shared among them as their estimates stand, the rest of the
 * rounding with the last.
 */
export const orderBoards = (
  doc: RunDocument,
  house: House,
  options: FabOptions,
  start: number,
): BoardOrder[] => ordersOf(doc, house, options, start).own;

/** A guest's boards on the run's sheets: its share of their price by area, which is no cost of the run. */
export interface GuestOrder extends BoardOrder {
  readonly guest: RunGuest;
}

/** The run's boards as ordered, and those of its guests that lie on the same sheets. */
export function ordersOf(
  doc: RunDocument,
  house: House,
  options: FabOptions,
  start: number,
): { readonly own: BoardOrder[]; readonly guests: GuestOrder[] } {
  const all = sheetBoards(doc);
  const facts = all.map((b) => boardFacts(b.measure));
  // at one's own bench some do not come out
  const made = Math.max(start, options.pieces ?? 0) / (house.bench?.yield ?? 1);
  const panel = panelOf({ ...doc, house });
  const ofSheet = panel && orderPieces(house, sheetFacts(doc, panel), options, sheetsFor(doc, panel, made));
  const onSheet = ofSheet && sharedQuotes(doc, panel, ofSheet, house.currency);
  // a guest that lies on no sheet is not ordered
  const ordered = all.flatMap((b, i) => (b.guest && !onSheet?.[i] ? [] : [{ ...b, i }]));
  const quotes = inOneParcel(
    house,
    ordered.map((b) => onSheet?.[b.i] ?? orderPieces(house, facts[b.i]!, options, made * b.perProduct)),
    options.freight,
  );
  const given = quotationOf(doc, house.id);
  const boards = quotes.reduce((n, q) => n + q.pieces, 0);
  const misfits = given
    ? quotationMisfits(
        given,
        { boards, options, revision: doc.revision, ...(panel ? { sheet: sheetWords(panel) } : {}) },
        house,
      )
    : [];
  const quoted = misfits.length === 0 ? given : undefined;
  const rate = rateOf(doc, quoted?.currency ?? house.currency) ?? "0";
  const estimates = ordered.map((b, k) => ({
    name: b.name,
    facts: facts[b.i]!,
    quote: quotes[k]!,
    ...(b.guest ? { guest: b.guest } : {}),
    ...(ofSheet && onSheet?.[b.i]
      ? {
          sheet: {
            sheets: ofSheet.pieces,
            perSheet: panel.perSheet[b.i]!,
            widthMm: panel.choice.widthMm,
            heightMm: panel.choice.heightMm,
          },
        }
      : {}),
  }));
  const whole = estimates.reduce((n, e) => n + e.quote.total, 0);
  const asked = quoted ? convertMicros(toMicros(quoted.total), rate) : 0;
  let shared = 0;
  const orders = estimates.map((e, i): BoardOrder & Partial<GuestOrder> => {
    const own = house.bench && benchMinutes(house.bench, e.facts.holes, e.quote.pieces);
    const days = quoted?.days ?? e.quote.days + (own ?? 0) / 60 / Math.max(1, doc.workshop.hoursPerDay);
    if (!quoted)
      return {
        ...e,
        micros: convertMicros(e.quote.total, rate),
        days,
        ...(own === undefined ? {} : { ownMinutes: own }),
        ...(given ? { unfit: { quote: given, misfits } } : {}),
      };
    const isLast = i === estimates.length - 1;
    const share = isLast ? asked - shared : Math.round((asked * e.quote.total) / Math.max(1, whole));
    shared += share;
    return { ...e, quoted, micros: share as Micros, days };
  });
  return {
    own: orders.filter((o) => o.guest === undefined),
    guests: orders.flatMap((o) => (o.guest ? [{ ...o, guest: o.guest }] : [])),
  };
}
