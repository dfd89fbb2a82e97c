import type { Measure } from "../board/measure-document.ts";
import { fineOf } from "../fab/check.ts";
import type { House, OwnBench } from "../fab/house.ts";
import type { FabOptions } from "../fab/options.ts";
import { inOneParcel } from "../fab/parcel.ts";
import { type BoardFacts, type FabQuote, orderPieces } from "../fab/price.ts";
import { convertMicros, type Micros, toMicros } from "../money/money.ts";
import type { RunDocument, RunQuote } from "./document.ts";
import { rateOf } from "./parts.ts";
import { quotationMisfits, quotationOf } from "./quotation-holds.ts";

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
  /** Own minutes, where the boards are made here; they are no cash. */
  readonly ownMinutes?: number;
}

/**
 * Width and height a board is priced with, mm: its outline's, or, where that is open or missing, those of its
 * copper's box, which a note of the run says (`board-size-unknown`).
 */
export function pricedSize(m: Measure): readonly [number, number] {
  const { widthMm, heightMm } = m.outline ?? {};
  if (widthMm !== undefined && heightMm !== undefined) return [widthMm, heightMm];
  const [x0, y0, x1, y1] = m.extentMm ?? [0, 0, 0, 0];
  return [x1 - x0, y1 - y0];
}

/** Own minutes to make boards at the bench: once, each board, each hole. */
export const benchMinutes = (b: OwnBench, holes: number, pieces: number): number =>
  b.setupMin + pieces * (b.perBoardMin + (holes * b.secondsAHole) / 60);

/** The facts of a board that fab and weight depend on. */
export function boardFacts(m: Measure): BoardFacts {
  const [w, h] = pricedSize(m);
  const areas = Object.values(m.copperAreaMm2);
  const share =
    w * h > 0 && areas.length > 0 ? areas.reduce((a, b) => a + b, 0) / areas.length / (w * h) : 0.6;
  return {
    widthMm: w,
    heightMm: h,
    layers: Math.max(1, m.copperLayers),
    holes: m.holes.reduce((n, x) => n + x.count, 0) + m.slots.length,
    copperShare: Math.min(1, share),
    fine: fineOf(m),
  };
}

/**
 * What the house charges for each board of the product, in one parcel, and when they are there.
 *
 * A quotation holds for what was quoted; for anything else the estimate counts, and that is said. It is for all boards of
 * the run together: it is shared among them as their estimates stand, the rest of the
 * rounding with the last.
 */
export function orderBoards(
  doc: RunDocument,
  house: House,
  options: FabOptions,
  start: number,
): BoardOrder[] {
  const facts = doc.boards.map((b) => boardFacts(b.measure));
  // at one's own bench some do not come out
  const made = Math.max(start, options.pieces ?? 0) / (house.bench?.yield ?? 1);
  const quotes = inOneParcel(
    house,
    doc.boards.map((b, i) => orderPieces(house, facts[i]!, options, made * b.perProduct)),
    options.freight,
  );
  const given = quotationOf(doc, house.id);
  const boards = quotes.reduce((n, q) => n + q.pieces, 0);
  const misfits = given ? quotationMisfits(given, { boards, options, revision: doc.revision }, house) : [];
  const quoted = misfits.length === 0 ? given : undefined;
  const rate = rateOf(doc, quoted?.currency ?? house.currency) ?? "0";
  const estimates = doc.boards.map((b, i) => ({ name: b.name, facts: facts[i]!, quote: quotes[i]! }));
  const whole = estimates.reduce((n, e) => n + e.quote.total, 0);
  const asked = quoted ? convertMicros(toMicros(quoted.total), rate) : 0;
  let shared = 0;
  return estimates.map((e, i): BoardOrder => {
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
}
