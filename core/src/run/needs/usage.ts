import type { RunDocument } from "../document/document.ts";
import { isOrderOf } from "../document/order-key.ts";
import { type LinePart, nameOfLine } from "../document/parts.ts";
import { type RunReceipt, type RunRecord, tallyOf } from "../document/record.ts";
import type { RunNeed } from "../document/run-need.ts";

/** What a purchase of a run used of its lots. */
export interface PartUse {
  /** Id of the need. */
  readonly need: string;
  readonly label: string;
  /** Pieces for the boards that were started, with the usual losses. */
  readonly planned: number;
  /** Pieces taken, as somebody counted what is left; nothing while nobody did. */
  readonly taken?: number;
}

/** A lot a run may take from: one it counted on, or one that came for it; with the pieces meant for the run. */
export interface LotOfRun {
  readonly id: string;
  readonly meant: number;
}

/** The lots of one purchase: the shelf's own first, then what came and may be used, oldest first. */
export function lotsOf(doc: RunDocument, n: RunNeed, receipts: readonly RunReceipt[]): LotOfRun[] {
  const lines = new Set(n.lines);
  const offers = new Set(doc.offers.flatMap((o) => (lines.has(o.line) ? [o.id] : [])));
  const came = receipts.filter((x) => isOrderOf("parts", x.order) && !x.isApart && offers.has(x.item));
  return [
    ...n.shelf.map((t) => ({ id: t.lot.id, meant: t.qty })),
    ...came.flatMap((x) => (x.lot === undefined ? [] : [{ id: x.lot, meant: x.qty }])),
  ];
}

/**
 * Pieces a purchase uses for what came of the run: what is soldered for the boards that were started, whole × started /
 * planned to start; what is put to the finished product, as screws and feet, for the good ones, whole × good / wanted.
 */
export function plannedUse(
  doc: Pick<RunDocument, "goodBoards">,
  n: RunNeed,
  tally: { readonly started: number; readonly good: number },
  start: number,
): number {
  const net = n.terms.reduce((s, t) => s + t.net, 0);
  const loose = n.terms.filter((t) => t.kind === "loose").reduce((s, t) => s + t.net, 0);
  const share = net === 0 ? 0 : loose / net;
  return n.whole * (((1 - share) * tally.started) / start + (share * tally.good) / doc.goodBoards);
}

/**
 * What each purchase used, line by line of the orders. Known where what was left of one of its lots was counted at the
 * closing; lots nobody counted stand in it with their estimate.
 */
export function usesOf(
  doc: RunDocument,
  parts: readonly LinePart[],
  r: { readonly needs: readonly RunNeed[]; readonly start: number },
  record: RunRecord,
): PartUse[] {
  const tally = tallyOf(record.work);
  const taken = record.taken ?? {};
  return r.needs.map((n) => {
    const lots = lotsOf(doc, n, record.receipts).flatMap(({ id }) => taken[id] ?? []);
    return {
      need: n.id,
      label: nameOfLine(doc, parts, n.id),
      planned: plannedUse(doc, n, tally, r.start),
      ...(lots.some((t) => t.isCounted) ? { taken: lots.reduce((s, t) => s + t.pieces, 0) } : {}),
    };
  });
}
