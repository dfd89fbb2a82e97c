import { notJudged } from "../../fab/check.ts";
import {
  fitOptions,
  type Given,
  givenUp,
  nameOfValue,
  valueAt,
  valuesOf,
  withValue,
} from "../../fab/fit-options.ts";
import { makesBoards } from "../../fab/house.ts";
import type { FabOptions } from "../../fab/options.ts";
import { hasPriceFor } from "../../fab/price.ts";
import { type Micros, microsToNumber } from "../../money/money.ts";
import { orderRules } from "../../order-sheet/rules.ts";
import { choose } from "../../order-sheet/settle.ts";
import { boardFacts } from "../document/board-facts.ts";
import type { RunDocument } from "../document/document.ts";
import { rateOf } from "../document/parts.ts";
import { orderBoards } from "../orders/order-boards.ts";
import { checksOf } from "../stage/checks.ts";
import { withHouse } from "./fab-effects.ts";
import { guessedOf } from "./fab-notes.ts";

/** The boards by one house in one of its lead times. */
export interface FabPick {
  readonly houseId: string;
  readonly house: string;
  readonly leadDays: number;
  /** How the parcel comes. */
  readonly way: string;
  /** Until they are at the door. */
  readonly days: number;
  /** Landed, in the shop's currency: boards, freight, handling. */
  readonly landed: number;
  readonly pieces: number;
  /** What of the options chosen the house does not have, or does not make beside the others or in so few days. */
  readonly gives: readonly Given[];
  /** Options that have to change with it, as they would be. */
  readonly with: Partial<FabOptions>;
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
    .filter(makesBoards)
    .flatMap((h) => {
      const isHere = doc.house?.id === h.id;
      const { doc: there, changes } = withHouse(doc, h);
      const options = isHere ? fitOptions(h, doc.options) : (there.options as FabOptions);
      const rules = orderRules(
        h,
        doc.boards.map((b) => b.measure),
      );
      if (rateOf(doc, h.currency) === undefined) return [];
      if (doc.boards.some((b) => !hasPriceFor(h, boardFacts(b.measure).layers))) return [];
      if (checksOf(doc, h, options).some((c) => c.level === "cannot")) return [];
      // the way a house is asked for another lead time or way is no wish it gives up
      const own = givenUp(h, doc.options, doc.houses ?? []).filter(
        (g) => g.key !== "leadDays" && g.key !== "freight",
      );
      const settled = isHere ? [] : changes;
      const unstated = [
        ...new Set(doc.boards.flatMap((b) => notJudged(h, b.measure, options).map((m) => m.short))),
      ];
      const chosenWay = valueAt(chosen ?? options, "freight");
      return h.price.lead.flatMap(({ days: leadDays }): FabPick[] => {
        const quick = choose(h, rules, options, "leadDays", String(leadDays));
        if ("cannot" in quick) return [];
        const also = [...settled, ...quick.changes];
        return valuesOf(h, "freight").map((way): FabPick => {
          const sent = withValue(quick.options, "freight", way);
          const orders = orderBoards(doc, h, sent, start);
          return {
            houseId: h.id,
            house: h.name,
            leadDays,
            way: nameOfValue([h], "freight", way),
            days: Math.max(0, ...orders.map((o) => o.days)),
            landed: microsToNumber(orders.reduce((s, o) => s + o.micros, 0) as Micros),
            pieces: orders.reduce((n, o) => n + o.quote.pieces, 0),
            gives: [...own, ...also.map((c) => ({ key: c.key, wished: c.from, got: c.to }))],
            with: { ...Object.fromEntries(also.map((c) => [c.key, quick.options[c.key]])), freight: way },
            isGuessed: guessedOf(h, orders).length > 0,
            unstated,
            isChosen: isHere && chosen?.leadDays === leadDays && chosenWay === way,
          };
        });
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
