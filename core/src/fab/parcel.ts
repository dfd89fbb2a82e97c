import { type Micros, roundMoney, toMicros } from "../money/money.ts";
import { wayOf } from "./fit-options.ts";
import type { House } from "./house.ts";
import { type FabQuote, PACKING_KG } from "./price.ts";

/**
 * Boards of one order come in one parcel: freight and import handling once, shared by weight, the rest of the rounding
 * with the last; it leaves when the slowest is made. A single board is as it was.
 *
 * @param service the way it comes, where that is not the house's ordinary one
 */
export function inOneParcel(house: House, quotes: readonly FabQuote[], service?: string): FabQuote[] {
  if (quotes.length < 2) return [...quotes];
  const way = wayOf(house, service);
  const goods = quotes.map((q) => q.kg - PACKING_KG);
  const kg = goods.reduce((a, b) => a + b, PACKING_KG);
  const freight = roundMoney(
    toMicros(way.base) + Math.ceil(kg / 0.5) * toMicros(way.perHalfKg),
    house.currency,
  );
  const leadDays = Math.max(...quotes.map((q) => q.leadDays));
  const weight = goods.reduce((a, b) => a + b, 0);
  let given = 0;
  return quotes.map((q, i): FabQuote => {
    const isLast = i === quotes.length - 1;
    const own = isLast ? freight - given : roundMoney((freight * goods[i]!) / weight, house.currency);
    given += own;
    const handling = i === 0 ? q.handling : (0 as Micros);
    return {
      ...q,
      freight: own as Micros,
      handling,
      total: (q.boards + own + handling) as Micros,
      leadDays,
      days: leadDays + q.transitDays,
      sum: q.sum
        .filter((t) => i === 0 || t.key !== "handling")
        .map((t) =>
          t.key === "freight"
            ? {
                ...t,
                micros: own as Micros,
                fixed: own as Micros,
                note: `its share of one parcel of ${kg.toFixed(2)} kg`,
              }
            : t,
        ),
    };
  });
}
