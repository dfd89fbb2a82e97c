import type { LotRow } from "@kobbin/contract";
import { readBag } from "@kobbin/core";
import { money } from "../../ui/text/format.ts";

/** What of the shelf is counted in one go: a place, what has none, or all of it. */
export const ALL_PLACES = "*";
export const NO_PLACE = "-";

const byPlace = new Intl.Collator("en", { numeric: true });

/** Lots of a place as one walks along them. */
export const lotsIn = (lots: readonly LotRow[], place: string): LotRow[] =>
  lots
    .filter((l) => place === ALL_PLACES || l.place === (place === NO_PLACE ? "" : place))
    .sort(
      (a, b) => byPlace.compare(a.place, b.place) || byPlace.compare(a.mpn, b.mpn) || a.number - b.number,
    );

/** Places of the shelf, each with how many lots lie there, as one walks. */
export function placesOf(lots: readonly LotRow[]): (readonly [place: string, lots: number])[] {
  const many = new Map<string, number>();
  for (const l of lots) many.set(l.place, (many.get(l.place) ?? 0) + 1);
  return [...many]
    .sort(([a], [b]) => byPlace.compare(a, b))
    .map(([p, n]) => [p === "" ? NO_PLACE : p, n] as const);
}

/** What was typed as a count: pieces, a label that was scanned into the field, or nothing that can be taken. */
export type Typed =
  | { readonly is: "nothing" }
  | { readonly is: "count"; readonly qty: number }
  | { readonly is: "label"; readonly number: number }
  | { readonly is: "wrong" };

/** Reads one; sums are counted as people do: "100+100+37". */
export function typedCount(text: string): Typed {
  const plain = text.replace(/\s+/g, "");
  if (plain === "") return { is: "nothing" };
  if (/^\d{1,8}(\+\d{1,8}){0,40}$/.test(plain)) {
    const qty = plain.split("+").reduce((n, t) => n + Number(t), 0);
    return qty <= 1e8 ? { is: "count", qty } : { is: "wrong" };
  }
  const number = readBag(plain);
  return number === undefined ? { is: "wrong" } : { is: "label", number };
}

/** What a count comes to against what was written. */
export function comeTo(
  lots: readonly LotRow[],
  typed: Readonly<Record<string, string>>,
): {
  readonly counts: readonly { readonly lot: LotRow; readonly qty: number }[];
  readonly differ: number;
  readonly wrong: number;
  readonly left: number;
} {
  const read = lots.map((lot) => ({ lot, typed: typedCount(typed[lot.id] ?? "") }));
  const counts = read.flatMap(({ lot, typed: t }) => (t.is === "count" ? [{ lot, qty: t.qty }] : []));
  return {
    counts,
    differ: counts.filter((c) => c.qty !== c.lot.qty).length,
    wrong: read.filter((r) => r.typed.is === "wrong" || r.typed.is === "label").length,
    left: read.filter((r) => r.typed.is === "nothing").length,
  };
}

/** What pieces of lots are worth in the shop's own currency, and the currencies of those that nobody knows a rate for. */
export function worthOf(
  pieces: readonly { readonly lot: Pick<LotRow, "unitCost" | "currency">; readonly qty: number }[],
  currency: string,
  rates: Readonly<Record<string, string>>,
): { readonly sum: number; readonly unknown: readonly string[] } {
  const rateOf = (c: string) => (c === currency ? 1 : Number(rates[c]) || undefined);
  return {
    sum: pieces.reduce((n, p) => n + p.qty * Number(p.lot.unitCost) * (rateOf(p.lot.currency) ?? 0), 0),
    unknown: [
      ...new Set(
        pieces.flatMap((p) =>
          p.qty !== 0 && Number(p.lot.unitCost) > 0 && rateOf(p.lot.currency) === undefined
            ? [p.lot.currency]
            : [],
        ),
      ),
    ].sort(),
  };
}

/** "12.40 EUR", or "12.40 EUR and what is in CHF, whose rate nobody wrote down". */
export const worthWords = (w: ReturnType<typeof worthOf>, currency: string): string =>
  `${money(w.sum, currency)}${w.unknown.length > 0 ? ` and what is in ${w.unknown.join(", ")}, whose rate nobody wrote down` : ""}`;
