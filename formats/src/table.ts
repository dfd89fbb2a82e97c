import Papa from "papaparse";
import { DropBudget } from "./budget.ts";
import { decodeText } from "./text.ts";
import { TOO_MANY_CELLS, weighSheet } from "./weigh-sheet.ts";

/** Cells of a table as text. */
export type TableCells = string[][];

/**
 * Reads a CSV of any delimiter and encoding, or the first sheet of an XLSX, into text cells.
 * Nothing is converted: "0402" and "1E3" stay what they are.
 *
 * @param budget of the drop it belongs to
 * @returns undefined when the bytes are no table
 * @throws BudgetError where it holds more than a drop may
 */
export async function readTable(
  bytes: Uint8Array,
  budget: DropBudget = new DropBudget(),
): Promise<TableCells | undefined> {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return readSheet(bytes, budget);
  const text = decodeText(bytes);
  // a cell ends with one of these, whichever it is: counted before anything is split
  let marks = 0;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (c === 44 || c === 59 || c === 9 || c === 124 || c === 10 || c === 13) marks++;
  }
  budget.spend("cells", marks, TOO_MANY_CELLS);
  return readCsv(text);
}

/** Splits delimited text; the delimiter is the one that gives the most even rows. */
export function readCsv(text: string): TableCells | undefined {
  const head = text.split(/\r\n|\r|\n/, 1)[0] ?? "";
  const separator = /^sep=(.)$/i.exec(head.trim())?.[1];
  const body = separator ? text.slice(text.indexOf("\n") + 1) : text;
  const result = Papa.parse<string[]>(body, {
    delimiter: separator ?? delimiterOf(body),
    skipEmptyLines: false,
  });
  const rows = result.data.filter((r) => Array.isArray(r));
  while (rows.length > 0 && rows[rows.length - 1]!.every((c) => c.trim() === "")) rows.pop();
  return rows.length === 0 ? undefined : rows.map((r) => r.map((c) => undefuse(c)));
}

/** Rows of a sheet that are read; more are no list of a board's parts. */
const MOST_ROWS = 200_000;

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

/** Parts of a workbook that hold no cells; some of them ask for one object a cell of a whole column. */
const NO_CELLS = [
  "dataValidations",
  "conditionalFormatting",
  "hyperlinks",
  "drawing",
  "picture",
  "tableParts",
  "extLst",
  "autoFilter",
  "sheetProtection",
  "rowBreaks",
  "colBreaks",
];

async function readSheet(bytes: Uint8Array, budget: DropBudget): Promise<TableCells | undefined> {
  if (!weighSheet(bytes, budget)) return undefined;
  try {
    // loaded only when a sheet comes: it is large, and the command line starts in a blink
    const { default: ExcelJS } = await import("exceljs");
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(
      bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as never,
      { ignoreNodes: NO_CELLS } as never,
    );
    const sheet = book.worksheets[0];
    if (!sheet) return undefined;
    const rows: string[][] = [];
    sheet.eachRow({ includeEmpty: true }, (row, n) => {
      if (n > MOST_ROWS) return;
      const cells: string[] = [];
      row.eachCell({ includeEmpty: true }, (cell, c) => {
        // of cells merged across a row the first one speaks; merged down, the text holds for each row
        const isRepeat = cell.isMerged && cell.master !== cell && Number(cell.master.row) === n;
        cells[c - 1] = isRepeat ? "" : (cell.text ?? "");
      });
      rows[n - 1] = Array.from(cells, (t) => t ?? "");
    });
    return Array.from(rows, (r) => r ?? []);
  } catch {
    return undefined;
  }
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
