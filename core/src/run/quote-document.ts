import type { Measure } from "../board/measure-document.ts";
import { checkHouse, type LimitCheck, notJudged } from "../fab/check.ts";
import { fitOptions, plainOf, valueAt, valuesOf } from "../fab/fit-options.ts";
import type { House } from "../fab/house.ts";
import { type FabOptions, isOrderOption, type OptionKey } from "../fab/options.ts";
import { type FabQuote, fabQuote, orderPieces } from "../fab/price.ts";
import { microsToNumber, placesOf, roundMoney } from "../money/money.ts";
import { orderRules } from "../order-sheet/rules.ts";
import { settle } from "../order-sheet/settle.ts";
import { boardFacts } from "./document/board-facts.ts";

/** `quote/1`: what a house asks for a board, from its profile. Money in the house's currency. */
export interface QuoteDocument {
  readonly kobbin: "quote/1";
  readonly house: string;
  readonly currency: string;
  readonly pieces: number;
  readonly boards: number;
  readonly freight: number;
  readonly handling: number;
  readonly total: number;
  readonly days: number;
  readonly kg: number;
  /** Adds up to boards, freight and handling to the cent. */
  readonly sum: readonly { readonly label: string; readonly amount: number; readonly note?: string }[];
  readonly checks: readonly Pick<LimitCheck, "measure" | "value" | "limit" | "level">[];
  /** What would stop the house, and it does not state a limit for. */
  readonly unstated: readonly string[];
  readonly options: FabOptions;
  readonly refused: readonly { readonly key: string; readonly value: string; readonly because: string }[];
}

/** Wishes as a person writes them: any of the options. */
export type Wishes = Readonly<Partial<Record<keyof FabOptions, string | number>>>;

/**
 * A quotation from a house's profile (domain.md 5.5). A wish the house does not have, or that another one forbids, is
 * answered with its reason, and what is taken in its place stands in `options`.
 *
 * @param quantity boards wanted; the house's steps, and more where that costs less in all, are taken
 */
export function quoteDocument(m: Measure, house: House, quantity: number, wishes: Wishes): QuoteDocument {
  const { options, refused } = settleWishes(m, house, wishes);
  const q = orderPieces(house, boardFacts(m), options, quantity);
  return {
    kobbin: "quote/1",
    house: house.name,
    currency: house.currency,
    pieces: q.pieces,
    boards: microsToNumber(q.boards),
    freight: microsToNumber(q.freight),
    handling: microsToNumber(roundMoney(q.handling, house.currency)),
    total: microsToNumber(q.boards + q.freight + roundMoney(q.handling, house.currency)),
    days: q.days,
    kg: Math.round(q.kg * 1e6) / 1e6,
    sum: sumOf(q, house.currency),
    checks: checkHouse(house, m, options).map(({ measure, value, limit, level }) => ({
      measure,
      value,
      limit,
      level,
    })),
    unstated: notJudged(house, m, options).map((s) => s.key),
    options,
    refused,
  };
}

/** What a house has for a decision; the plain thing where it has no list. */
const hasOf = (house: House, key: OptionKey): string[] => {
  const list = valuesOf(house, key);
  return list.length > 0 ? list : [plainOf(key)!];
};

/** Brings wishes to what the house has and what can stand together; what a wish had to give way to is said. */
function settleWishes(m: Measure, house: House, wishes: Wishes): Pick<QuoteDocument, "options" | "refused"> {
  const refused: { key: string; value: string; because: string }[] = [];
  const refuse = (key: string, value: unknown, because: string) =>
    refused.push({ key, value: String(value), because });
  const wish: Partial<Record<keyof FabOptions, string | number>> = {};
  for (const [key, value] of Object.entries(wishes)) {
    if (!isOrderOption(key)) refuse(key, value, "there is no such option");
    else if (key === "leadDays") {
      const has = house.price.lead.map((l) => l.days);
      if (!has.includes(Number(value)))
        refuse(key, value, `${house.name} makes boards in ${has.join(", ")} days`);
      if (Number.isFinite(Number(value))) wish.leadDays = Number(value);
    } else {
      const has = hasOf(house, key);
      if (!has.includes(String(value))) refuse(key, value, `${house.name} has ${has.join(", ")}`);
      wish[key] = String(value);
    }
  }
  const options = fitOptions(house, wish as Partial<FabOptions>);
  const rules = orderRules(house, [m]);
  const price = (o: FabOptions) => fabQuote(house, boardFacts(m), o, 1).total;
  const wished = new Set(Object.keys(wish) as OptionKey[]);
  // what was not wished gives way first
  const done =
    settle(house, rules, options, wished, { price }) ?? settle(house, rules, options, new Set(), { price });
  for (const c of done?.changes ?? [])
    if (wished.has(c.key) && !refused.some((r) => r.key === c.key))
      refuse(c.key, valueAt(options, c.key), c.because);
  if (!done)
    for (const r of rules) {
      const because = r.broken(options);
      if (because !== undefined) refuse(r.keys[0]!, valueAt(options, r.keys[0]!), because);
    }
  return { options: done?.options ?? options, refused };
}

/** Terms in the smallest coin; what rounding leaves goes to the largest term of the boards. */
function sumOf(q: FabQuote, currency: string): QuoteDocument["sum"] {
  const places = placesOf(currency);
  const coin = 10 ** (6 - places);
  const terms = q.sum.map((t) => ({ ...t, micros: Math.round(t.micros / coin) * coin }));
  const ofBoards = terms.filter((t) => t.key !== "freight" && t.key !== "handling");
  const rest = q.boards - ofBoards.reduce((s, t) => s + t.micros, 0);
  const largest = ofBoards.reduce((a, b) => (b.micros > a.micros ? b : a));
  largest.micros += rest;
  const saved = q.insteadOf && microsToNumber(q.insteadOf.total - q.total);
  return terms.map((t) => {
    const more =
      saved !== undefined && t.key === "area"
        ? `; ${q.pieces} in the place of ${q.insteadOf!.pieces} cost ${saved} less in all`
        : "";
    const note = `${t.note ?? ""}${more}`;
    return { label: t.label, amount: microsToNumber(t.micros), ...(note ? { note } : {}) };
  });
}
