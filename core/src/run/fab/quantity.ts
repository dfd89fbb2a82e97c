import { betaBinomialAtLeast, binomialAtLeast } from "../../assembly/yield.ts";
import { type Micros, microsToNumber } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";
import { orderBoards } from "../orders/order-boards.ts";
import { panelOf } from "../sheet/panel.ts";
import type { RunResult } from "../stage/result.ts";

/** A number of boards that could be ordered. */
export interface QuantityRow {
  /** Products' worth of boards, as ordered. */
  readonly pieces: number;
  /** Landed, in the shop's currency. */
  readonly landed: number;
  /** Chance of enough good ones, if all of them were built. */
  readonly chance: number;
  /** Landed, and the price of a second order as often as one is needed. */
  readonly expected: number;
  /** What a second order of the least it sells would cost, landed. */
  readonly again: number;
  /** Bare boards that are left when as many as planned are started. */
  readonly left: number;
  readonly isOrdered: boolean;
  /** The least expected sum of those listed. */
  readonly isBest: boolean;
}

/** Rows that are listed at most. */
const MOST_ROWS = 7;

/**
 * What a few boards more or fewer cost at the chosen house, with the chance of a second order counted in: landed + (1 −
 * chance) × the least that house sells, landed (needs: N053).
 *
 * @returns ascending; nothing where no house is chosen
 */
export function quantityRows(doc: RunDocument, r: RunResult): QuantityRow[] {
  const { house, options } = r;
  if (!house || !options || doc.boards.length === 0) return [];
  const panel = panelOf(doc);
  // a house's steps are of sheets where boards lie on them
  const onSheet = panel ? Math.max(1, panel.perSheet[0]! / doc.boards[0]!.perProduct) : 1;
  const [step, minPieces] = [house.price.step * onSheet, house.price.minPieces * onSheet];
  const up = (n: number) => Math.max(minPieces, Math.ceil(n / step - 1e-9) * step);
  const landedOf = (n: number) =>
    orderBoards(doc, house, { ...options, pieces: n }, n).reduce((s, o) => s + o.micros, 0);
  const record = r.yield.record;
  const chanceOf = (n: number) =>
    n < doc.goodBoards
      ? 0
      : record
        ? betaBinomialAtLeast(n, doc.goodBoards, record.a, record.b)
        : binomialAtLeast(n, doc.goodBoards, r.yield.final);
  const again = landedOf(up(1));
  const ordered = Math.min(
    ...r.orders.map((o, i) => Math.floor(o.quote.pieces / (doc.boards[i]?.perProduct ?? 1))),
  );
  const first = up(doc.goodBoards);
  const wide = Math.max(step, up(Math.ceil(doc.goodBoards * 0.05)));
  const wanted = new Set([first, first + step, up(r.start), ordered]);
  for (let n = first; wanted.size < MOST_ROWS && n < 4 * first + 40 * step; n += wide) wanted.add(up(n));
  const rows = [...wanted]
    .sort((a, b) => a - b)
    .slice(0, MOST_ROWS + 1)
    .map((pieces) => {
      const landed = landedOf(pieces);
      const chance = chanceOf(pieces);
      return { pieces, landed, chance, sum: landed + (1 - chance) * again };
    });
  const best = rows.reduce((a, b) => (b.sum < a.sum - 0.5 ? b : a));
  return rows.map(
    (q): QuantityRow => ({
      pieces: q.pieces,
      landed: microsToNumber(q.landed as Micros),
      chance: q.chance,
      expected: microsToNumber(Math.round(q.sum) as Micros),
      again: microsToNumber(again as Micros),
      left: Math.max(0, q.pieces - r.start),
      isOrdered: q.pieces === ordered,
      isBest: q === best,
    }),
  );
}
