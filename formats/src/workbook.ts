import type ExcelJS from "exceljs";
import type { NamedTable, SheetLooks } from "./named-table.ts";

/** Rows of a sheet that are read; more are no list of a board's parts. */
const MOST_ROWS = 200_000;

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

/** In the place of a formula whose value the file does not hold: an error, as of any other. */
const NO_VALUE = "#NO VALUE!";

/** Every sheet of a workbook that holds something, its cells as they are shown; undefined where it is none. */
export async function readSheets(bytes: Uint8Array): Promise<NamedTable[] | undefined> {
  try {
    // loaded only when a sheet comes: they are large, and the command line starts in a blink
    const [{ default: Excel }, { default: SSF }] = await Promise.all([import("exceljs"), import("ssf")]);
    const book = new Excel.Workbook();
    await book.xlsx.load(
      bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as never,
      { ignoreNodes: NO_CELLS } as never,
    );
    const is1904 = book.properties.date1904 === true;
    const out = book.worksheets.flatMap((sheet) => {
      const table = readSheet(sheet, is1904, SSF.format);
      return table.cells.some((r) => r.some((t) => t.trim() !== "")) ? [table] : [];
    });
    return out.length > 0 ? out : undefined;
  } catch {
    return undefined;
  }
}

/** How a number is shown by a format. */
type Format = (format: string, value: number, options: { date1904: boolean }) => string;

function readSheet(sheet: ExcelJS.Worksheet, is1904: boolean, format: Format): NamedTable {
  const rows: string[][] = [];
  const struck: number[] = [];
  const hidden: number[] = [];
  const colours = new Map<number, string>();
  sheet.eachRow({ includeEmpty: true }, (row, n) => {
    if (n > MOST_ROWS) return;
    const cells: string[] = [];
    let isStruck = false;
    row.eachCell({ includeEmpty: true }, (cell, c) => {
      // of cells merged across a row the first one speaks; merged down, the text holds for each row
      const isRepeat = cell.isMerged && cell.master !== cell && Number(cell.master.row) === n;
      const text = isRepeat ? "" : shown(cell, is1904, format);
      cells[c - 1] = text;
      if (text.trim() === "") return;
      if (isStrike(cell)) isStruck = true;
      const colour = colourOf(cell);
      if (colour !== undefined && !colours.has(n)) colours.set(n, colour);
    });
    rows[n - 1] = Array.from(cells, (t) => t ?? "");
    const isFilled = cells.some((t) => (t ?? "").trim() !== "");
    if (isStruck) struck.push(n);
    if (row.hidden && isFilled) hidden.push(n);
  });
  const cells = Array.from(rows, (r) => r ?? []);
  const looks: SheetLooks = {
    struck,
    hidden,
    coloured: oddColours(cells, colours),
    hiddenColumns: Array.from({ length: Math.min(200, sheet.columnCount) }, (_, i) => i + 1).filter(
      (c) => sheet.getColumn(c).hidden && cells.some((r) => (r[c - 1] ?? "").trim() !== ""),
    ),
  };
  const hasLooks = Object.values(looks).some((list) => list.length > 0);
  return {
    name: sheet.name,
    isHidden: sheet.state !== "visible",
    cells,
    ...(hasLooks ? { looks } : {}),
  };
}

/** A cell's text as the sheet shows it: a number by its format, so that 1234 shown as 001234 stays that. */
function shown(cell: ExcelJS.Cell, is1904: boolean, format: Format): string {
  const value = cell.value;
  const isFormula =
    typeof value === "object" && value !== null && ("formula" in value || "sharedFormula" in value);
  const result = isFormula ? (value as ExcelJS.CellFormulaValue).result : value;
  if (isFormula && (result === undefined || result === null)) return NO_VALUE;
  if (result instanceof Date || typeof result === "number") {
    const serial = result instanceof Date ? serialOf(result, is1904) : result;
    return formatted(serial, cell.numFmt, is1904, format, result instanceof Date ? cell.text : undefined);
  }
  return cell.text ?? "";
}

const DAY_MS = 86_400_000;
const serialOf = (date: Date, is1904: boolean) =>
  (date.getTime() - Date.UTC(1899, 11, 30)) / DAY_MS - (is1904 ? 1462 : 0);

function formatted(
  serial: number,
  format: string | undefined,
  is1904: boolean,
  formatAs: Format,
  other: string | undefined,
): string {
  if (!format || format === "General") return other ?? String(serial);
  // marks between thousands part a number into two for whoever reads on
  const plain = format.replace(/#,##(?=[0#])/g, "");
  try {
    const text = formatAs(plain, serial, { date1904: is1904 }).trim();
    return text === "" ? String(serial) : text;
  } catch {
    return other ?? String(serial);
  }
}

const isStrike = (cell: ExcelJS.Cell): boolean =>
  cell.font?.strike === true ||
  (typeof cell.value === "object" &&
    cell.value !== null &&
    "richText" in cell.value &&
    cell.value.richText.some((t) => t.font?.strike === true && t.text.trim() !== ""));

/** The fill of a cell, or the colour of its text, as a word to compare by; undefined for none and for black on white. */
function colourOf(cell: ExcelJS.Cell): string | undefined {
  const fill = cell.fill;
  const of = (c: Partial<ExcelJS.Color> | undefined) =>
    c?.argb ?? (c?.theme === undefined ? undefined : `theme ${c.theme}`);
  const ground = fill?.type === "pattern" && fill.pattern !== "none" ? of(fill.fgColor) : undefined;
  if (ground !== undefined && !/^(FF)?FFFFFF$|^theme 0$/i.test(ground)) return ground;
  const ink = of(cell.font?.color);
  return ink === undefined || /^(FF)?000000$|^theme [01]$/i.test(ink) ? undefined : `ink ${ink}`;
}

/** Rows whose colour few rows have: not the heading, no stripes. */
function oddColours(cells: readonly (readonly string[])[], colours: ReadonlyMap<number, string>): number[] {
  const filled = cells.flatMap((r, i) => (r.filter((t) => t.trim() !== "").length >= 2 ? [i + 1] : []));
  const [, ...below] = filled;
  const counts = new Map<string, number>();
  for (const n of below) {
    const c = colours.get(n);
    if (c !== undefined) counts.set(c, (counts.get(c) ?? 0) + 1);
  }
  return below.filter((n) => {
    const c = colours.get(n);
    return c !== undefined && counts.get(c)! <= Math.max(1, below.length / 3);
  });
}
