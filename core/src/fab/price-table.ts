import { amountIn, otherCurrency } from "../money/price-cell.ts";
import { decimalMark, isOpenPrice, plainPrice } from "../money/price-text.ts";
import type { FirstPrice } from "./from-quotation.ts";

/** What a table of prices holds. */
export interface PriceTable {
  /** In the order of their pieces; only where nothing is wrong. */
  readonly prices?: readonly FirstPrice[];
  /** Every row that cannot be taken, with its number and why. */
  readonly wrong: readonly string[];
}

const PIECES = /^(q(uanti)?ty|quantity|pieces?|pcs|boards?|number|count|amount of boards)\b/i;
const EACH = /\b(each|unit|per (board|piece|pcb)|a (board|piece))\b/i;
const PRICE = /\b(price|total|sum|cost|in all)\b/i;
/**
 * Reads a house's published table: a column of pieces and one of prices, in all or each.
 *
 * A header has to name both columns; cells in another currency, empty ones, those that are more or less than one amount, a number of pieces twice and amounts whose mark
 * could be read two ways are each named with their row. Nothing is guessed and nothing is left out.
 *
 * @param rows cells as text, the header first
 * @param currency what the house charges in
 */
export function readPriceTable(rows: readonly (readonly string[])[], currency: string): PriceTable {
  const [first, ...body] = rows
    .map((cells, i) => ({ cells, row: i + 1 }))
    .filter((r) => r.cells.some((c) => c.trim() !== ""));
  const head = first?.cells;
  const at = (test: RegExp) => (head ?? []).findIndex((c) => test.test(c.trim()));
  const pieces = at(PIECES);
  const each = at(EACH);
  const price = each >= 0 ? each : (head ?? []).findIndex((c, i) => i !== pieces && PRICE.test(c));
  if (pieces < 0 || price < 0)
    return { wrong: ["The first row does not name a column of pieces and one of prices, in all or each."] };
  if (/\bper\s+\d/i.test(head![price]!))
    return { wrong: [`The prices are “${head![price]!.trim()}”: write them in all or each.`] };
  const stated = otherCurrency(head![price]!, currency);
  if (stated !== undefined) return { wrong: [`The prices are in ${stated}, the house charges ${currency}.`] };
  if (body.length === 0) return { wrong: ["There is no row of prices."] };
  const numbers = body.map((r) => amountIn((r.cells[price] ?? "").trim()));
  const mark = decimalMark(numbers.filter((n) => n !== undefined));
  const wrong: string[] = [];
  const out: FirstPrice[] = [];
  body.forEach(({ cells, row }, i) => {
    const cell = (cells[price] ?? "").trim();
    const n = (cells[pieces] ?? "").trim().replace(/[\s'’]/g, "");
    const own = otherCurrency(cell, currency);
    const number = numbers[i];
    // a comma that was meant as a decimal mark cuts a cell in two
    if (cells.length > head!.length)
      wrong.push(`Row ${row} has more cells than the first row: “${cells.join(" | ")}”.`);
    else if (!/^[1-9]\d{0,6}$/.test(n))
      wrong.push(`Row ${row} has no whole number of pieces: “${(cells[pieces] ?? "").trim()}”.`);
    else if (own !== undefined) wrong.push(`Row ${row} is in ${own}, the house charges ${currency}.`);
    else if (cell === "") wrong.push(`Row ${row} has no price for ${n} pieces.`);
    else if (number === undefined) wrong.push(`Row ${row} has no plain price for ${n} pieces: “${cell}”.`);
    else if (isOpenPrice(number) && mark === undefined)
      wrong.push(`Row ${row}: ${number} can be read two ways; write it without a mark for thousands.`);
    else if (out.some((p) => p.pieces === Number(n))) wrong.push(`Row ${row} has ${n} pieces again.`);
    else {
      const amount = plainPrice(number, mark, undefined);
      out.push({ pieces: Number(n), boards: each >= 0 ? timesText(amount, Number(n)) : amount });
    }
  });
  return wrong.length > 0 ? { wrong } : { prices: out.sort((a, b) => a.pieces - b.pieces), wrong: [] };
}

/** A decimal text times a whole number, exactly. */
function timesText(amount: string, n: number): string {
  const [whole = "0", part = ""] = amount.split(".");
  const digits = (BigInt(`${whole}${part}`) * BigInt(n)).toString().padStart(part.length + 1, "0");
  return part === "" ? digits : `${digits.slice(0, -part.length)}.${digits.slice(-part.length)}`;
}
