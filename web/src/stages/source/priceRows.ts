import {
  decimalMark,
  isOpenPrice,
  type MarkReading,
  plainPrice,
  type RunDocument,
  type RunNeed,
  unitPrice,
} from "@kobbin/core";
import { type PastedBreaks, readBreaks } from "./pasted.ts";

/** What is typed of one purchase: texts as they stand in the cells. */
export interface PriceCells {
  readonly each: string;
  readonly from: string;
  readonly stock: string;
}

/** One purchase of the run, with what is typed of it. */
export interface PriceRow extends PriceCells {
  readonly id: string;
  readonly lines: readonly string[];
  readonly part: string;
  readonly number: string;
  readonly need: number;
}

const EMPTY: PriceCells = { each: "", from: "", stock: "" };

/** The purchases a price may be typed for: those without any offer first, each with what was typed of it. */
export function priceRows(
  doc: RunDocument,
  needs: readonly RunNeed[],
  typed: ReadonlyMap<string, PriceCells>,
): PriceRow[] {
  const lines = new Map(doc.lines.map((l) => [l.id, l]));
  return needs
    .map((n): PriceRow & { readonly isOffered: boolean } => {
      const of = n.lines.flatMap((id) => lines.get(id) ?? []);
      const refs = of.flatMap((l) => l.refs);
      return {
        ...EMPTY,
        ...typed.get(n.id),
        id: n.id,
        lines: n.lines,
        part: [
          refs.length > 3 ? `${refs.slice(0, 3).join(" ")} …` : refs.join(" "),
          of[0]?.valueText ?? "",
          of[0]?.package ?? "",
        ]
          .filter((t) => t !== "")
          .join(" "),
        number: of[0]?.mpn ?? "",
        need: n.need,
        isOffered: n.listed.length > 0,
      };
    })
    .sort((a, b) => Number(a.isOffered) - Number(b.isOffered));
}

/** An offer typed for lines. */
export interface TypedOffer {
  readonly lineIds: readonly string[];
  readonly moq: number;
  readonly stock: number;
  readonly breaks: readonly { readonly qty: number; readonly price: string }[];
}

/** Offers of what is typed, rows that cannot be read, and a price that can be read two ways. */
export interface TypedPrices {
  readonly offers: readonly TypedOffer[];
  readonly problems: readonly string[];
  readonly doubt?: NonNullable<PastedBreaks["doubt"]>;
}

/** Several steps stand in one cell: "1: 0.12; 100: 0.055". */
const isSteps = (text: string): boolean => /[;\n]|\d\s*[:+]\s*\S/.test(text);

/**
 * What is typed as offers. A price alone is for the least quantity beside it, or from one piece on; several stand in one cell
 * with their quantities. A mark that can be read two ways is read as the other prices are, else it is asked.
 *
 * @param currency what they are in
 * @param stockElse stock where a row states none
 */
export function typedPrices(
  rows: readonly PriceRow[],
  currency: string,
  stockElse: number,
  reading?: MarkReading,
): TypedPrices {
  const filled = rows.filter((r) => r.each.trim() !== "");
  const single = filled.filter((r) => !isSteps(r.each));
  const cells = new Map(single.map((r) => [r, unitPrice(r.each, currency)]));
  const mark = decimalMark(
    [...cells.values()].flatMap((c) => (c.wrong === undefined ? (c.price ?? []) : [])),
  );
  const offers: TypedOffer[] = [];
  const problems = rows
    .filter((r) => r.each.trim() === "" && `${r.from}${r.stock}`.trim() !== "")
    .map((r) => `${r.part}: no price stands beside ${r.from === "" ? "its stock" : "its least quantity"}.`);
  let doubt: TypedPrices["doubt"];
  for (const r of filled) {
    const [from, stock] = [wholeOf(r.from, 1), wholeOf(r.stock, stockElse)];
    if (from === undefined || from < 1) {
      problems.push(`${r.part}: “${r.from}” is no least quantity.`);
      continue;
    }
    if (stock === undefined) {
      problems.push(`${r.part}: “${r.stock}” is no stock.`);
      continue;
    }
    if (isSteps(r.each)) {
      const read = readBreaks(r.each.replaceAll(";", "\n"), currency, reading);
      doubt ??= read.doubt;
      if (read.problem) problems.push(`${r.part}: ${read.problem}`);
      else if (!read.doubt)
        offers.push({
          lineIds: r.lines,
          moq: Math.max(from, read.breaks[0]!.qty),
          stock,
          breaks: read.breaks,
        });
      continue;
    }
    const cell = cells.get(r)!;
    if (cell.wrong !== undefined) problems.push(`${r.part}: ${cell.wrong}.`);
    const text = cell.wrong === undefined ? cell.price : undefined;
    if (text === undefined) continue;
    if (isOpenPrice(text) && mark === undefined && reading === undefined) {
      doubt ??= { text, decimal: text.replace(",", "."), grouped: text.replace(/\D/g, "") };
      continue;
    }
    offers.push({
      lineIds: r.lines,
      moq: from,
      stock,
      breaks: [{ qty: from, price: plainPrice(text, mark, reading) }],
    });
  }
  return { offers, problems, ...(doubt ? { doubt } : {}) };
}

function wholeOf(text: string, other: number): number | undefined {
  const t = text.trim().replace(/(?<=\d)[ '’.,](?=\d{3}(?!\d))/g, "");
  if (t === "") return other;
  return /^\d{1,9}$/.test(t) ? Number(t) : undefined;
}
