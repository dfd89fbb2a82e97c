import Papa from "papaparse";
import { decodeText } from "./text.ts";

/** Cells of a table as text. */
export type TableCells = string[][];

/**
 * Reads a CSV of any delimiter and encoding, or the first sheet of an XLSX, into text cells.
 * Nothing is converted: "0402" and "1E3" stay what they are.
 *
 * @returns undefined when the bytes are no table
 */
export async function readTable(bytes: Uint8Array): Promise<TableCells | undefined> {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return readSheet(bytes);
  return readCsv(decodeText(bytes));
}

/** Splits delimited text; the delimiter is the one that gives the most even rows. */
export function readCsv(text: string): TableCells | undefined {
  const head = text.split(/\r\n|\r|\n/, 1)[0] ?? "";
  const separator = /^sep=(.)$/i.exec(head.trim())?.[1];
  const body = separator ? text.slice(text.indexOf("\n") + 1) : text;
  const result = Papa.parse<string[]>(body, {
    delimiter: separator ?? "",
    delimitersToGuess: [",", ";", "\t", "|"],
    skipEmptyLines: false,
  });
  const rows = result.data.filter((r) => Array.isArray(r));
  while (rows.length > 0 && rows[rows.length - 1]!.every((c) => c.trim() === "")) rows.pop();
  return rows.length === 0 ? undefined : rows.map((r) => r.map((c) => undefuse(c)));
}

async function readSheet(bytes: Uint8Array): Promise<TableCells | undefined> {
  try {
    // loaded only when a sheet comes: it is large, and the command line starts in a blink
    const { default: ExcelJS } = await import("exceljs");
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as never);
    const sheet = book.worksheets[0];
    if (!sheet) return undefined;
    const rows: string[][] = [];
    sheet.eachRow({ includeEmpty: true }, (row, n) => {
      if (n > 20_000) return;
      const cells: string[] = [];
      row.eachCell({ includeEmpty: true }, (cell, c) => {
        cells[c - 1] = cell.text ?? "";
      });
      rows[n - 1] = Array.from(cells, (t) => t ?? "");
    });
    return Array.from(rows, (r) => r ?? []);
  } catch {
    return undefined;
  }
}

/** Characters that make a spreadsheet take a cell for a formula. */
const TRIGGER = /^'*[ ]*[=+\-@\t\r\n\uFF1D\uFF0B\uFF0D\uFF20]/;
const NUMBER = /^[+-]?\d+(\.\d+)?$/;

/** Puts an apostrophe before a cell that a spreadsheet would run as a formula; numbers stay. */
export const defuse = (cell: string): string =>
  TRIGGER.test(cell) && !NUMBER.test(cell) ? `'${cell}` : cell;

/** Takes back the apostrophe that {@link defuse} put. */
export const undefuse = (cell: string): string =>
  /^'+[ ]*[=+\-@\t\r\n\uFF1D\uFF0B\uFF0D\uFF20]/.test(cell) ? cell.slice(1) : cell;

/** Rows as CSV (RFC 4180): comma, CRLF, quotes where needed, formulas defused. */
export function writeCsv(rows: readonly (readonly string[])[]): string {
  return `${Papa.unparse(
    rows.map((r) => r.map(defuse)),
    { newline: "\r\n" },
  )}\r\n`;
}
