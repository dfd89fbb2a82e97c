import { notJudged } from "../fab/check.ts";
import { fitOptions, type Given, givenUp } from "../fab/fit-options.ts";
import { hasPriceFor } from "../fab/price.ts";
import { type Micros, microsToNumber } from "../money/money.ts";
import { checksOf } from "./checks.ts";
import type { RunDocument } from "./document.ts";
import { guessedOf } from "./fab-notes.ts";
import { boardFacts, orderBoards } from "./order-boards.ts";
import { rateOf } from "./parts.ts";

/** The boards by one house in one of its lead times. */
export interface FabPick {
  readonly houseId: string;
  readonly house: string;
  readonly leadDays: number;
  /** Until they are at the door. */
  readonly days: number;
  /** Landed, in the shop's currency: boards, freight, handling. */
  readonly landed: number;
  readonly pieces: number;
  /** What of the options chosen the house does not have. */
  readonly gives: readonly Given[];
  /** Its price is a guess from what it quoted for other pieces. */
  readonly isGuessed: boolean;
  /** What would stop it and it does not say from where on. */
  readonly unstated: readonly string[];
  readonly isChosen: boolean;
}

/**
 * Every house that can make the boards, in every lead time it has, cheapest first. A house that cannot, that has no price
 * for so many layers, or whose currency has no rate here, is left out: none of these is ever the cheapest.
 *
 * @param start boards to start
 */
export function fabPicks(doc: RunDocument, start: number): FabPick[] {
  const chosen = doc.house && fitOptions(doc.house, doc.options);
  return (doc.houses ?? [])
    .flatMap((h) => {
      const options = fitOptions(h, doc.options);
      if (rateOf(doc, h.currency) === undefined) return [];
      if (doc.boards.some((b) => !hasPriceFor(h, boardFacts(b.measure).layers))) return [];
      if (checksOf(doc, h, options).some((c) => c.level === "cannot")) return [];
      // the way a house is asked for another lead time is no wish it gives up
      const gives = givenUp(h, doc.options, doc.houses ?? []).filter((g) => g.key !== "leadDays");
      const unstated = [
        ...new Set(doc.boards.flatMap((b) => notJudged(h, b.measure, options).map((m) => m.short))),
      ];
      return h.price.lead.map(({ days: leadDays }): FabPick => {
        const orders = orderBoards(doc, h, { ...options, leadDays }, start);
        return {
          houseId: h.id,
          house: h.name,
          leadDays,
          days: Math.max(0, ...orders.map((o) => o.days)),
          landed: microsToNumber(orders.reduce((s, o) => s + o.micros, 0) as Micros),
          pieces: orders.reduce((n, o) => n + o.quote.pieces, 0),
          gives,
          isGuessed: guessedOf(h, orders).length > 0,
          unstated,
          isChosen: doc.house?.id === h.id && chosen?.leadDays === leadDays,
        };
      });
    })
    .sort((a, b) => a.landed - b.landed || a.days - b.days);
}

/** The cheapest that is at the door in so many days; of equal ones the sooner. */
export const cheapestWithin = (picks: readonly FabPick[], days: number): FabPick | undefined =>
  picks.filter((p) => p.days <= days).sort((a, b) => a.landed - b.landed || a.days - b.days)[0];

/** The soonest that costs no more than a sum, landed; of equal ones the cheaper. */
export const quickestBelow = (picks: readonly FabPick[], most: number): FabPick | undefined =>
  picks.filter((p) => p.landed <= most).sort((a, b) => a.days - b.days || a.landed - b.landed)[0];
