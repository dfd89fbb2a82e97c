import type { Measure } from "../board/measure-document.ts";
import { checkHouse, type LimitCheck, notJudged } from "../fab/check.ts";
import {
  EXTRA_OPTIONS,
  FAB_OPTIONS,
  type FabOptions,
  fitOptions,
  type House,
  NO_EXTRA,
} from "../fab/house.ts";
import { type FabQuote, orderPieces } from "../fab/price.ts";
import { microsToNumber, placesOf, roundMoney } from "../money/money.ts";
import { boardFacts } from "./order-boards.ts";

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
  const { options, refused } = settle(house, wishes);
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

const KEYS = [...FAB_OPTIONS, ...EXTRA_OPTIONS] as const;

function settle(house: House, wishes: Wishes): Pick<QuoteDocument, "options" | "refused"> {
  const refused: { key: string; value: string; because: string }[] = [];
  const refuse = (key: string, value: unknown, because: string) =>
    refused.push({ key, value: String(value), because });
  const wish: Partial<Record<keyof FabOptions, string | number>> = {};
  for (const [key, value] of Object.entries(wishes)) {
    if (key === "leadDays") {
      const days = Number(value);
      const has = house.price.lead.map((l) => l.days);
      if (!has.includes(days)) refuse(key, value, `${house.name} makes boards in ${has.join(", ")} days`);
      if (Number.isFinite(days)) wish.leadDays = days;
    } else if ((KEYS as readonly string[]).includes(key)) {
      const has = (house.options[key as (typeof KEYS)[number]] ?? [{ value: NO_EXTRA }]).map((o) => o.value);
      if (!has.includes(String(value))) refuse(key, value, `${house.name} has ${has.join(", ")}`);
      wish[key as (typeof KEYS)[number]] = String(value);
    } else refuse(key, value, "there is no such option");
  }
  const options = fitOptions(house, wish as Partial<FabOptions>);
  if (options.legend !== options.mask) return { options, refused };
  // ink of the mask's colour cannot be read
  const other = house.options.legend.find((o) => o.value !== options.mask);
  if (wishes.legend !== undefined && !refused.some((r) => r.key === "legend"))
    refuse("legend", options.legend, `it cannot be read on a ${options.mask} mask`);
  return { options: other ? { ...options, legend: other.value } : options, refused };
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
