import { type Finding, FindingList } from "../findings.ts";
import { type Cells, plain } from "../table/columns.ts";
import { boundedRows } from "../table/rows.ts";
import {
  type ChosenColumns,
  type Layout,
  layoutOf,
  type RecognisedColumns,
  recogniseColumns,
} from "./layout.ts";
import { cleanCell } from "./leftovers.ts";
import { markIn, markInColumn } from "./marks.ts";
import { expandRefs } from "./refs.ts";
import { readValue, type Value } from "./value.ts";
import type { BomColumn } from "./words.ts";

/** A line of a parts list, one per row of the file. */
export interface BomLine {
  readonly refs: readonly string[];
  /** What the references count; the stated quantity where there are none. */
  readonly qty: number;
  readonly qtyStated?: number;
  readonly value: Value | null;
  readonly valueText: string;
  readonly package: string;
  readonly mpn: string;
  readonly maker: string;
  readonly description: string;
  readonly dnp: boolean;
  /** Row in the file, from 1. */
  readonly row: number;
}

/** A parts list as read. */
export interface Bom {
  readonly columns: Partial<Record<BomColumn, string>>;
  readonly headers: readonly string[];
  readonly lines: readonly BomLine[];
  readonly findings: readonly Finding[];
}

/** The top of a list with its columns as they are taken: to be looked at before it is kept. */
export interface ListHead extends RecognisedColumns {
  readonly file: string;
  readonly cells: Cells;
  /** Rows of the whole list. */
  readonly rows: number;
}

/** The top of a list as it is read. @see readBom */
export function listHead(all: Cells, file: string, chosen: ChosenColumns = {}): ListHead {
  const cells = boundedRows(all, file, new FindingList(20));
  const taken = recogniseColumns(cells, chosen);
  return { ...taken, file, cells: cells.slice(0, taken.firstRow + 8), rows: cells.length };
}

/**
 * Reads a parts list: columns by their headers, references expanded, values parsed, do-not-place marks found.
 *
 * Bad rows become findings with their row; the good rows stay. Never throws.
 *
 * @param chosen columns a person assigned: key → header text
 */
export function readBom(all: Cells, file: string, chosen: ChosenColumns = {}): Bom {
  const found = new FindingList(20);
  const cells = boundedRows(all, file, found);
  const layout = layoutOf(cells, file, chosen, found);
  if (!layout) return { columns: {}, headers: cells[0] ?? [], lines: [], findings: found.done() };
  return readRows(cells, file, layout, found);
}

/**
 * Reads a parts list whose columns a person confirmed: by place, whatever their headings say.
 * @see readBom
 */
export function readBomAt(cells: Cells, file: string, layout: Layout): Bom {
  const found = new FindingList(20);
  return readRows(boundedRows(cells, file, found), file, layout, found);
}

function readRows(cells: Cells, file: string, layout: Layout, found: FindingList): Bom {
  const { heads, firstRow } = layout;
  const at = withMakersApart(cells, layout, file, found);
  const lines: BomLine[] = [];
  const owner = new Map<string, number>();
  const skipped: { row: number; text: string }[] = [];
  for (let r = firstRow; r < cells.length; r++) {
    const clean = (i: number | undefined) => cleanCell(i === undefined ? "" : (cells[r]![i] ?? ""));
    const cell = (key: BomColumn) => clean(at[key]).text;
    if (cells[r]!.every((t) => t.trim() === "")) continue;
    // the last row of many lists adds up what stands above it, with the word in any column
    const isSum = cell("refs") === "" && cell("mpn") === "" && cells[r]!.some((t) => SUM.test(t.trim()));
    if (isSum || isNoPart(cells[r]!, heads, at)) {
      skipped.push({ row: r + 1, text: wordsOf(cells[r]!) });
      continue;
    }
    for (const key of ["refs", "value", "mpn", "package", "qty"] as const) {
      const { doubt, text } = clean(at[key]);
      if (doubt) sayLeftover(doubt, key, text, r + 1, expandRefs(cell("refs")).refs, file, found);
    }
    const line = readLine(cell, r + 1, file, found);
    if (!line) {
      // what was said of its references is said already
      if (expandRefs(cell("refs")).bad.length === 0) skipped.push({ row: r + 1, text: wordsOf(cells[r]!) });
      continue;
    }
    for (const ref of line.refs) {
      const first = owner.get(ref);
      if (first !== undefined)
        found.add({
          tag: "bom-duplicate-ref",
          level: "error",
          file,
          row: r + 1,
          about: [ref],
          text: `${ref} stands in row ${first} and again in row ${r + 1}.`,
          do: "Decide which of the two lines it belongs to.",
        });
      else owner.set(ref, r + 1);
    }
    lines.push(line);
  }
  if (skipped.length > 0)
    found.add({
      tag: "bom-row-skipped",
      level: "remark",
      file,
      row: skipped[0]!.row,
      text: `No parts, and passed over: ${skipped
        .slice(0, 6)
        .map((s) => `row ${s.row} “${s.text}”`)
        .join(", ")}${skipped.length > 6 ? ` and ${skipped.length - 6} more rows` : ""}.`,
      do: "If one of them is a part, give it a reference or a quantity.",
    });
  const columns = Object.fromEntries(
    Object.entries(at).map(([k, i]) => [k, heads[i as number]?.trim() || `column ${(i as number) + 1}`]),
  );
  return { columns, headers: heads, lines, findings: found.done() };
}

type Cell = (key: BomColumn) => string;

function readLine(cell: Cell, row: number, file: string, found: FindingList): BomLine | undefined {
  const named = cell("refs");
  if (SUM.test(named === "" ? cell("mpn") : named)) return undefined;
  const refs = refsOf(named, row, file, found);
  const qtyStated = quantityOf(cell("qty"), refs, row, file, found);
  if (refs.length === 0 && qtyStated === undefined) return undefined;
  if (refs.length > 0 && qtyStated !== undefined && qtyStated !== refs.length)
    found.add({
      tag: "bom-qty-mismatch",
      level: "warning",
      file,
      row,
      about: [...refs],
      text: `The file says ${qtyStated}, the references count ${refs.length}; ${refs.length} is used.`,
      do: "Check whether a reference is missing.",
    });
  const valueText = cell("value");
  const reading = readValue(valueText, refs[0]);
  if (reading.doubt)
    found.add({
      tag: "bom-value-ambiguous",
      level: "warning",
      file,
      row,
      about: [...refs],
      text: `${reading.doubt}.`,
    });
  const dnp = isLeftOff(cell, refs, row, file, found);
  return {
    refs,
    qty: refs.length > 0 ? refs.length : qtyStated!,
    ...(qtyStated === undefined ? {} : { qtyStated }),
    value: reading.value,
    valueText,
    package: packageOf(cell("package")),
    mpn: cell("mpn"),
    maker: cell("maker"),
    description: cell("description"),
    dnp,
    row,
  };
}

/** References of a line, expanded; what is none, and what stands twice, is said. */
function refsOf(named: string, row: number, file: string, found: FindingList): readonly string[] {
  const refList = expandRefs(named);
  for (const b of refList.bad)
    found.add({
      tag: "bom-bad-ref",
      // what reads like a reference and is none is a part that is missing
      level: /[A-Za-z]\d/.test(b.text) ? "error" : "warning",
      file,
      row,
      text: `“${b.text}”: ${b.why}.`,
      do: "Correct the reference.",
    });
  if (refList.duplicates.length > 0)
    found.add({
      tag: "bom-duplicate-ref",
      level: "warning",
      file,
      row,
      about: refList.duplicates,
      text: `${refList.duplicates.join(", ")} named twice in one line; counted once.`,
    });
  return refList.refs;
}

/** The quantity a file states, as far as it is one. */
function quantityOf(
  stated: string,
  refs: readonly string[],
  row: number,
  file: string,
  found: FindingList,
): number | undefined {
  if (stated === "") return undefined;
  const { n, wasGrouped } = readQuantity(stated);
  const qtyStated = Number.isFinite(n) && n >= 0 ? n : undefined;
  if (wasGrouped)
    found.add({
      tag: "bom-qty-grouped",
      level: "remark",
      file,
      row,
      about: [...refs],
      text: `The quantity “${stated}” was read as ${n} pieces: parts come whole.`,
    });
  if (qtyStated === undefined)
    found.add({
      tag: "bom-qty-invalid",
      level: "error",
      file,
      row,
      about: [...refs],
      text: `The quantity “${stated}” is ${n < 0 ? "negative" : "not a number"}${refs.length > 0 ? "; the references were counted instead" : "; the line was left out"}.`,
      do: "Correct the quantity.",
    });
  return qtyStated;
}

/** Whether a line is not fitted, by its columns and the marks in its texts; what may mean it is said. */
function isLeftOff(
  cell: Cell,
  refs: readonly string[],
  row: number,
  file: string,
  found: FindingList,
): boolean {
  const valueText = cell("value");
  const columns = [markInColumn(cell("dnp"), true), markInColumn(cell("fitted"), false)];
  const marks = [valueText, cell("description"), cell("mpn"), cell("package")].map(markIn);
  const isOff = columns.includes("no") || marks.includes("no");
  const strange = [cell("dnp"), cell("fitted")].find((t, k) => columns[k] === "unknown" && t !== "");
  if (!isOff && strange !== undefined && refs.length > 0)
    found.add({
      tag: "bom-fitted-unknown",
      level: "warning",
      file,
      row,
      about: [...refs],
      text: `“${strange}” says neither that ${refs.length === 1 ? "it is" : "they are"} fitted nor that not; taken as not fitted.`,
      do: "Write yes or no there.",
    });
  else if (!isOff && markIn(valueText) === "unknown" && refs.length > 0)
    found.add({
      tag: "bom-fitted-ambiguous",
      level: "warning",
      file,
      row,
      about: [...refs],
      text: `“${valueText}” may mean that ${refs.length === 1 ? "it is" : "they are"} not fitted.`,
      do: "Mark the line as not fitted if it is meant so; it counts as fitted now.",
    });
  return isOff || (strange !== undefined && refs.length > 0);
}

const wordsOf = (row: readonly string[]) =>
  row
    .map((t) => t.trim())
    .filter((t) => t !== "")
    .join(" ")
    .slice(0, 40);

/** A row that names no part: a heading that stands there again, a section's title, a remark at the end. */
function isNoPart(
  row: readonly string[],
  heads: readonly string[],
  at: Partial<Record<BomColumn, number>>,
): boolean {
  const filled = row.map((t) => t.trim()).filter((t) => t !== "");
  const isHeading =
    heads.length > 1 && filled.length > 1 && row.every((t, i) => plain(t) === plain(heads[i] ?? ""));
  if (isHeading) return true;
  if (filled.length !== 1) return false;
  const [text] = filled;
  // one cell alone is a part only where it names references and stands where they do
  const named = at.refs === undefined ? "" : (row[at.refs] ?? "").trim();
  return !(
    named === text &&
    /[A-Za-z]\d/.test(text!) &&
    expandRefs(text!).bad.length === 0 &&
    !/\s\w+\s\w+\s/.test(text!)
  );
}

const COLUMN: Readonly<Record<string, string>> = {
  refs: "reference",
  value: "value",
  mpn: "part number",
  package: "package",
  qty: "quantity",
};

function sayLeftover(
  doubt: "error" | "date" | "power",
  key: string,
  text: string,
  row: number,
  about: readonly string[],
  file: string,
  found: FindingList,
): void {
  if (doubt === "power" && key !== "mpn") return;
  if (doubt === "date" && key === "qty") return;
  const what = COLUMN[key] ?? key;
  found.add({
    tag: "bom-number-mangled",
    level: doubt === "error" ? "error" : "warning",
    file,
    row,
    about,
    text:
      doubt === "error"
        ? `The ${what} is an error of the spreadsheet; it was taken as empty.`
        : `The ${what} “${text}” ${doubt === "date" ? "is a date: a spreadsheet may have made it of something like 2-1 or 1/2" : "was turned into a number by a spreadsheet"}.`,
    do:
      doubt === "error"
        ? "Mend the formula, or type the value."
        : "Type it as text; what it was cannot be known from here.",
  });
}

/** Part numbers and makers in each other's column, told by what they hold: one maker has many numbers, not the reverse. */
function withMakersApart(
  cells: Cells,
  { at, firstRow }: Layout,
  file: string,
  found: FindingList,
): Partial<Record<BomColumn, number>> {
  if (at.mpn === undefined || at.maker === undefined) return at;
  const column = (i: number) =>
    cells
      .slice(firstRow, firstRow + 400)
      .map((r) => cleanCell(r[i] ?? "").text)
      .filter((t) => t !== "");
  const [numbers, makers] = [column(at.mpn), column(at.maker)];
  const looks = (list: readonly string[]) =>
    list.filter((t) => /\d/.test(t) && /^[\w./#+-]{4,}$/.test(t)).length / Math.max(1, list.length);
  const kinds = (list: readonly string[]) => new Set(list.map((t) => t.toLowerCase())).size;
  if (makers.length < 3 || numbers.length < 3) return at;
  if (!(looks(makers) > 0.7 && looks(numbers) < 0.3 && kinds(makers) >= kinds(numbers))) return at;
  found.add({
    tag: "bom-column-guessed",
    level: "warning",
    file,
    row: firstRow,
    text: "The column of part numbers holds makers and the column of makers part numbers, by what stands in them; they were taken the other way round.",
    do: "Say so if it is something else.",
  });
  return { ...at, mpn: at.maker, maker: at.mpn };
}

const SUM = /^(sub[\s-]*|grand\s+)?(total|sum|summe|gesamt)\b/i;

/** A quantity as people write it: 10, 10 pcs, 3x, 2,5 of a metre, and 1.000 or 1,000 for a thousand pieces. */
function readQuantity(text: string): { readonly n: number; readonly wasGrouped: boolean } {
  const bare = text
    .replace(/^[x×]\s*|\s*([x×]|pcs?\.?|pieces?|st(k|ück)?\.?|ea\.?|off|units?|nos?\.?)$/gi, "")
    .trim();
  if (/^\d{1,3}([.,' \u00a0]\d{3})+$/.test(bare))
    return { n: Number(bare.replace(/\D/g, "")), wasGrouped: true };
  return { n: bare === "" ? Number.NaN : Number(bare.replace(",", ".")), wasGrouped: false };
}

/** Chip sizes whose leading zero a spreadsheet took: 402 was 0402. */
const packageOf = (text: string): string => (/^(201|402|603|805)$/.test(text) ? `0${text}` : text);
