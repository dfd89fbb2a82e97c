import Papa from "papaparse";
import { DropBudget } from "./budget.ts";
import { endsDiffer, evenEnds } from "./line-ends.ts";
import type { NamedTable, TableCells } from "./named-table.ts";
import { rowsOf } from "./quoting.ts";
import { decodeText } from "./text.ts";
import { TOO_MANY_CELLS, weighSheet } from "./weigh-sheet.ts";

export type { NamedTable, SheetLooks, TableCells } from "./named-table.ts";

/**
 * Reads a CSV of any delimiter and encoding, or every sheet of an XLSX that holds something, into text cells.
 * Nothing is converted: "0402" and "1E3" stay what they are.
 *
 * @param budget of the drop it belongs to
 * @returns undefined when the bytes are no table
 * @throws BudgetError where it holds more than a drop may
 */
export async function readTables(
  bytes: Uint8Array,
  budget: DropBudget = new DropBudget(),
): Promise<NamedTable[] | undefined> {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b)
    return weighSheet(bytes, budget) ? (await import("./workbook.ts")).readSheets(bytes) : undefined;
  const text = decodeText(bytes);
  // a cell ends with one of these, whichever it is: counted before anything is split
  let marks = 0;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c === 44 || c === 59 || c === 9 || c === 124 || c === 10 || c === 13) marks++;
  }
  budget.spend("cells", marks, TOO_MANY_CELLS);
  const cells = readCsv(text);
  return cells && [{ name: "", isHidden: false, cells }];
}

/** As {@link readTables}, the first sheet in view. */
export async function readTable(bytes: Uint8Array, budget?: DropBudget): Promise<TableCells | undefined> {
  const tables = await readTables(bytes, budget);
  return (tables?.find((t) => !t.isHidden) ?? tables?.[0])?.cells;
}

/** Splits delimited text; the delimiter is the one that gives the most even rows. */
export function readCsv(text: string): TableCells | undefined {
  // the first line may name it, for a spreadsheet
  const [named, plain, quoted] =
    /^(?:sep=([^\r\n])|"sep=([^\r\n])")[^\S\t\r\n]*(?:\r\n|\r|\n|$)/i.exec(text) ?? [];
  const separator = plain ?? quoted;
  const found = withLines(text.slice(named?.length ?? 0));
  const isUneven = endsDiffer(found);
  const delimiter = separator ?? delimiterOf(isUneven ? found.replace(/\r\n|\r/g, "\n") : found);
  const body = isUneven ? evenEnds(found, delimiter) : found;
  const read = rowsOf(body, delimiter, isUneven ? "\n" : undefined);
  let { rows } = read;
  // a quote that nobody closes would take the rows after it for one cell
  if (read.isBroken || rows.some((r) => isRows(r, delimiter) || r.some((c) => swallows(c, delimiter))))
    rows = splitByLine(body, delimiter);
  while (rows.length > 0 && rows[rows.length - 1]!.every((c) => c.trim() === "")) rows.pop();
  return rows.length === 0 ? undefined : rows.map((r) => r.map((c) => undefuse(c)));
}

/** Where no line ends in a usual way, the ends count that word processors and old machines put. */
const withLines = (text: string): string =>
  /[\r\n]/.test(text) ? text : text.replace(/[\u2028\u2029\u0085\v]/g, "\n");

/** Whether a cell holds what looks like further rows. */
function swallows(cell: string, delimiter: string): boolean {
  const lines = cell.split(/\r\n|\r|\n/);
  return lines.length > 2 && lines.filter((l) => l.split(delimiter).length > 2).length >= 2;
}

/**
 * Whether a cell that is not the first goes over lines in such a way that each of them, split as it stands, were a row as
 * wide as this one: then two strays were taken for the quotes of one cell.
 */
function isRows(row: readonly string[], delimiter: string): boolean {
  return row.some((cell, i) => {
    const marks = cell.split(/\r\n|\r|\n/).map((l) => l.split(delimiter).length - 1);
    const wide = row.length - 1;
    return (
      i > 0 &&
      marks.length > 2 &&
      marks[0] === wide - i &&
      marks.at(-1) === i &&
      marks.slice(1, -1).every((n) => n === wide)
    );
  });
}

/** Lines a cell in quotes may go over, where splitting line by line. */
const MOST_LINES = 12;

/**
 * Splits a text line by line: a quote opens a cell only where it is closed again within a few lines, and the row has then
 * as many cells as most and is not rows of their own; else it is a sign like any other, an inch or a slip.
 */
function splitByLine(body: string, delimiter: string): string[][] {
  const lines = body.split(/\r\n|\r|\n/);
  const counts = new Map<number, number>();
  for (const l of lines)
    if (!l.includes('"'))
      counts.set(l.split(delimiter).length, (counts.get(l.split(delimiter).length) ?? 0) + 1);
  const usual = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? lines[0]!.split(delimiter).length;
  const one = (text: string) => {
    const r = Papa.parse<string[]>(text, { delimiter });
    return r.errors.some((e) => e.type === "Quotes") || r.data.length !== 1 ? undefined : r.data[0]!;
  };
  const out: string[][] = [];
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i]!;
    if (!line.includes('"')) {
      out.push(line.split(delimiter));
      continue;
    }
    let row = one(line);
    for (let k = i + 1; !row && k < Math.min(lines.length, i + MOST_LINES); k++) {
      const joined = one(lines.slice(i, k + 1).join("\n"));
      if (joined && joined.length === usual && !isRows(joined, delimiter)) {
        row = joined;
        i = k;
      }
    }
    out.push(row ?? line.split(delimiter));
  }
  return out;
}

/** The delimiter under which most rows of the beginning have one number of cells, more than one; the more cells the better. */
function delimiterOf(body: string): string {
  let best = ",";
  let most = 0;
  for (const delimiter of [",", ";", "\t", "|"]) {
    const rows = Papa.parse<string[]>(body, { delimiter, preview: 60 }).data.filter((r) =>
      r.some((c) => c !== ""),
    );
    const counts = new Map<number, number>();
    for (const r of rows) counts.set(r.length, (counts.get(r.length) ?? 0) + 1);
    for (const [width, n] of counts) {
      if (width < 2) continue;
      const score = n / rows.length + Math.min(width, 12) / 100;
      if (score > most) {
        most = score;
        best = delimiter;
      }
    }
  }
  return best;
}

/**
 * What makes a spreadsheet take a cell for a formula: a sign of one at the front, or behind a mark that another setting
 * of the spreadsheet takes for the end of a cell. Apostrophes before it count as part of it, so that taking back is exact.
 */
const TRIGGER = /(^|[;\t|\r\n])([' ]*)(?=[=+\-@\uFF1D\uFF0B\uFF0D\uFF20])/g;
const MARKED = /(^|[;\t|\r\n])'([' ]*)(?=[=+\-@\uFF1D\uFF0B\uFF0D\uFF20])/g;
const NUMBER = /^[+-]?\d+([.,]\d+)?$/;

/** Puts an apostrophe before whatever a spreadsheet would run as a formula; a cell that is a number stays. */
export const defuse = (cell: string): string =>
  NUMBER.test(cell) ? cell : cell.replace(TRIGGER, "$1'$2").replace(/^(?='*[\t\r\n])/, "'");

/** Takes back the apostrophes that {@link defuse} put. */
export const undefuse = (cell: string): string =>
  cell.replace(/^'(?='*[\t\r\n])/, "").replace(MARKED, "$1$2");

/** Rows as CSV (RFC 4180): comma, CRLF, every cell in quotes, formulas defused. */
export function writeCsv(rows: readonly (readonly string[])[]): string {
  return `${Papa.unparse(
    rows.map((r) => r.map(defuse)),
    { newline: "\r\n", quotes: true },
  )}\r\n`;
}
