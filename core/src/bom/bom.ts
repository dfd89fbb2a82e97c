import { counted } from "../counted.ts";
import { type Finding, FindingList, few } from "../findings.ts";
import type { Account } from "../table/account.ts";
import { type Cells, plain } from "../table/columns.ts";
import { boundedRows } from "../table/rows.ts";
import { accountOf } from "./account.ts";
import {
  type ChosenColumns,
  completed,
  inCells,
  type Layout,
  layoutOf,
  type RecognisedColumns,
  recogniseColumns,
} from "./layout.ts";
import { cleanCell, sayLeftover } from "./leftovers.ts";
import { type BomLine, hasThousandths, readLine, SUM } from "./line.ts";
import { leftOffByNone, otherOfPair } from "./none.ts";
import { expandRefs } from "./refs.ts";
import { footnoteOf, isStarred, readStars, withoutStar } from "./stars.ts";
import { isBare, withUnit } from "./units.ts";
import type { BomColumn } from "./words.ts";

export type { BomLine } from "./line.ts";

/** A parts list as read. */
export interface Bom {
  readonly columns: Partial<Record<BomColumn, string>>;
  readonly headers: readonly string[];
  readonly lines: readonly BomLine[];
  readonly findings: readonly Finding[];
  /** What became of every column and row; nothing where no list was found. */
  readonly account?: Account;
}

/** The top of a list with its columns as they are taken: to be looked at before it is kept. */
export interface ListHead extends RecognisedColumns {
  readonly file: string;
  readonly cells: Cells;
  /** Rows of the whole list. */
  readonly rows: number;
  /** What became of every column and row of the whole list. */
  readonly account?: Account;
}

/** The top of a list as it is read. @see readBom */
export function listHead(all: Cells, file: string, chosen: ChosenColumns = {}): ListHead {
  const cells = inCells(boundedRows(all, file, new FindingList(20)));
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
  const cells = inCells(boundedRows(all, file, found));
  const layout = layoutOf(cells, file, chosen, found);
  if (!layout) return { columns: {}, headers: cells[0] ?? [], lines: [], findings: found.done() };
  return readRows(cells, file, layout, found, chosen);
}

/**
 * Reads a parts list whose columns a person confirmed: by place, whatever their headings say.
 * @see readBom
 */
export function readBomAt(cells: Cells, file: string, layout: Layout): Bom {
  const found = new FindingList(20);
  const bounded = boundedRows(cells, file, found);
  return readRows(bounded, file, completed(bounded, layout, file, found), found);
}

function readRows(
  cells: Cells,
  file: string,
  layout: Layout,
  found: FindingList,
  chosen: ChosenColumns = {},
): Bom {
  const { heads, firstRow, units, asked, leftOff } = layout;
  const at = withMakersApart(cells, layout, file, found);
  const lines: BomLine[] = [];
  const owner = new Map<string, number>();
  const skipped: { row: number; text: string }[] = [];
  const of = (row: readonly string[], key: BomColumn) => cleanCell(row[at[key] ?? -1] ?? "").text;
  const isDecimal = hasThousandths(
    cells.slice(firstRow).map((row) => ({ qty: of(row, "qty"), refs: of(row, "refs") })),
  );
  if (isDecimal)
    found.add({
      tag: "bom-qty-grouped",
      level: "remark",
      file,
      row: firstRow + 1,
      text: "Quantities were read with three decimals, 1.000 as one: so the references count.",
    });
  const yes = yesOf(cells, layout, at, file, found);
  const starred = new Set<BomLine>();
  const last = cells.findLastIndex((r) => r.some((t) => t.trim() !== ""));
  for (let r = firstRow; r < cells.length; r++) {
    const clean = (i: number | undefined) => cleanCell(i === undefined ? "" : (cells[r]![i] ?? ""));
    const cell = (key: BomColumn) => {
      const { text } = clean(at[key]);
      return text !== "" && text === yes[key as "fitted"] ? "yes" : text;
    };
    if (cells[r]!.every((t) => t.trim() === "")) continue;
    // the last row of many lists adds up what stands above it, with the word in any column
    const isSum =
      (cell("refs") === "" && cell("mpn") === "" && cells[r]!.some((t) => SUM.test(t.trim()))) ||
      (r === last && addsUp(cells[r]!, lines, r + 1, file, found));
    if (isSum || isNoPart(cells[r]!, heads, at)) {
      skipped.push({ row: r + 1, text: wordsOf(cells[r]!) });
      continue;
    }
    for (const key of ["refs", "value", "mpn", "package", "qty"] as const) {
      const { doubt, text } = clean(at[key]);
      if (doubt) sayLeftover(doubt, key, text, r + 1, expandRefs(cell("refs")).refs, file, found);
    }
    const value = withoutStar(cell("value"));
    const unit = (units?.column === undefined ? "" : clean(units.column).text) || units?.all;
    const ref = unit === undefined ? undefined : expandRefs(cell("refs")).refs[0];
    const whole = withUnit(value, unit, ref);
    const line = readLine((key) => (key === "value" ? whole : cell(key)), r + 1, file, found, isDecimal);
    if (!line) {
      // what was said of its references is said already
      if (expandRefs(cell("refs")).bad.length === 0) skipped.push({ row: r + 1, text: wordsOf(cells[r]!) });
      continue;
    }
    claimRefs(line, owner, file, found);
    if (unit && whole === value && isBare(value) && line.value) sayOtherUnit(line, unit, file, found);
    const isOff = leftOff !== undefined && isMark(cells[r]![leftOff.column] ?? "", leftOff.mark);
    const kept = {
      ...line,
      ...(isOff ? { dnp: true } : asked && !line.dnp ? { fitted: "doubtful" as const } : {}),
    };
    if (isStarred(cell("value"))) starred.add(kept);
    lines.push(kept);
  }
  const all = leftOffByNone(readStars(lines, starred, footnoteOf(cells), file, found), file, found);
  saySkipped(skipped, file, found);
  const columns = Object.fromEntries(
    Object.entries(at).map(([k, i]) => [k, heads[i as number]?.trim() || `column ${(i as number) + 1}`]),
  );
  const account = accountOf(cells, { layout, at, lines: all, passed: skipped.length, chosen });
  sayColumns(account, file, firstRow, found);
  if (all.length === 0) sayEmpty(file, firstRow, found);
  return { columns, headers: heads, lines: all, findings: found.done(), account };
}

/** In the columns of what is fitted and of what is left off, the letter that is the other of a plain no; what was taken is said. */
function yesOf(
  cells: Cells,
  { firstRow, heads }: Layout,
  at: Partial<Record<BomColumn, number>>,
  file: string,
  found: FindingList,
): Partial<Record<"fitted" | "dnp", string>> {
  const yes: Partial<Record<"fitted" | "dnp", string>> = {};
  for (const key of ["fitted", "dnp"] as const) {
    const i = at[key];
    const other =
      i === undefined ? undefined : otherOfPair(cells.slice(firstRow).map((r) => cleanCell(r[i] ?? "").text));
    if (other === undefined) continue;
    yes[key] = other;
    found.add({
      tag: "bom-fitted-ambiguous",
      level: "remark",
      file,
      row: firstRow,
      text: `“${other}” in “${heads[i!]?.trim() || `column ${i! + 1}`}” stands where the other lines have a no, and was read as yes.`,
      do: "Write yes there if it is meant so, to be sure.",
    });
  }
  return yes;
}

/** A list none of whose rows is a part, where nothing is said of that yet. */
function sayEmpty(file: string, row: number, found: FindingList): void {
  if (found.list.some((f) => f.level === "error")) return;
  found.add({
    tag: "bom-no-lines",
    level: "error",
    file,
    row,
    text: "Nothing below the headings was read as a part.",
    do: "Say which columns hold the references and the quantities, or drop the list that holds them.",
  });
}

/** A reference belongs to one line: one that stands again is an error. */
function claimRefs(line: BomLine, owner: Map<string, number>, file: string, found: FindingList): void {
  for (const ref of line.refs) {
    const first = owner.get(ref);
    if (first !== undefined)
      found.add({
        tag: "bom-duplicate-ref",
        level: "error",
        file,
        row: line.row,
        about: [ref],
        text: `${ref} stands in row ${first} and again in row ${line.row}.`,
        do: "Decide which of the two lines it belongs to.",
      });
    else owner.set(ref, line.row);
  }
}

function saySkipped(
  skipped: readonly { readonly row: number; readonly text: string }[],
  file: string,
  found: FindingList,
): void {
  if (skipped.length > 0)
    found.add({
      tag: "bom-row-skipped",
      level: "remark",
      file,
      row: skipped[0]!.row,
      text: `No parts, and passed over: ${skipped
        .slice(0, 6)
        .map((s) => `row ${s.row} “${s.text}”`)
        .join(", ")}${skipped.length > 6 ? ` and ${counted(skipped.length - 6, "more row")}` : ""}.`,
      do: "If one of them is a part, give it a reference or a quantity.",
    });
}

/** What of the columns was not read, each with its reason; one that nothing explains is asked about. */
function sayColumns({ columns }: Account, file: string, row: number, found: FindingList): void {
  const passed = columns.filter((c) => c.as === "passed");
  if (passed.length > 0)
    found.add({
      tag: "bom-column-unknown",
      level: "remark",
      file,
      row,
      text: `Passed over: ${passed.map((c) => `“${c.heading}” (${c.because})`).join(", ")}.`,
    });
  const unknown = columns.filter((c) => c.as === "asked" && !c.marks).map((c) => `“${c.heading}”`);
  if (unknown.length > 0)
    found.add({
      tag: "bom-column-unknown",
      level: "warning",
      file,
      row,
      text: `${unknown.join(", ")} ${unknown.length > 1 ? "were" : "was"} not read: neither the heading nor what stands below says what it is.`,
      do: "Say what it holds, if it is something a part needs.",
    });
}

/** A bare number of a part that has no such unit: what is meant cannot be told. */
function sayOtherUnit(line: BomLine, unit: string, file: string, found: FindingList): void {
  found.add({
    tag: "bom-value-ambiguous",
    level: "warning",
    file,
    row: line.row,
    about: [...line.refs],
    text: `${few(line.refs, 4)}: “${line.valueText}” stands where values are in ${unit}, which is no unit of such a part.`,
    do: "Write the value with its own unit.",
  });
}

/**
 * The last row as a sum in a language nobody taught: a word without a digit in the first column and the number of all pieces
 * above. It is a guess, and said.
 */
function addsUp(
  row: readonly string[],
  lines: readonly BomLine[],
  at: number,
  file: string,
  found: FindingList,
): boolean {
  const filled = row.map((t) => t.trim()).filter((t) => t !== "");
  const [word, number] = filled;
  const all = lines.reduce((n, l) => n + l.qty, 0);
  if (filled.length !== 2 || (row[0] ?? "").trim() !== word || /\d/.test(word) || lines.length < 2)
    return false;
  if (!/^\d+$/.test(number!) || Number(number) !== all) return false;
  found.add({
    tag: "bom-row-skipped",
    level: "warning",
    file,
    row: at,
    text: `“${word} ${number}” in the last row is as many as all pieces above, and was taken for their sum.`,
    do: "If it is a part, give it a reference or a part number.",
  });
  return true;
}

const isMark = (text: string, mark: string): boolean => text.trim().toLowerCase() === mark.toLowerCase();

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
