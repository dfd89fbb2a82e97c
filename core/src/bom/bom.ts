import { counted } from "../counted.ts";
import { type Finding, FindingList } from "../findings.ts";
import type { Account } from "../table/account.ts";
import { type Cells, plain } from "../table/columns.ts";
import { boundedRows } from "../table/rows.ts";
import { accountOf } from "./account.ts";
import {
  type ChosenColumns,
  completed,
  type Layout,
  layoutOf,
  type RecognisedColumns,
  recogniseColumns,
} from "./layout.ts";
import { cleanCell, sayLeftover } from "./leftovers.ts";
import { type BomLine, hasThousandths, readLine, SUM } from "./line.ts";
import { markIn } from "./marks.ts";
import { expandRefs } from "./refs.ts";
import { withUnit } from "./units.ts";
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
  chosen: ChosenColumns = layout.at as never,
): Bom {
  const { heads, firstRow, units, asked } = layout;
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
  const star = starOf(cells);
  for (let r = firstRow; r < cells.length; r++) {
    const clean = (i: number | undefined) => cleanCell(i === undefined ? "" : (cells[r]![i] ?? ""));
    const cell = (key: BomColumn) => clean(at[key]).text;
    if (cells[r]!.every((t) => t.trim() === "")) continue;
    // the last row of many lists adds up what stands above it, with the word in any column
    const isSum =
      (cell("refs") === "" && cell("mpn") === "" && cells[r]!.some((t) => SUM.test(t.trim()))) ||
      addsUp(cells[r]!, lines);
    if (isSum || isNoPart(cells[r]!, heads, at)) {
      skipped.push({ row: r + 1, text: wordsOf(cells[r]!) });
      continue;
    }
    for (const key of ["refs", "value", "mpn", "package", "qty"] as const) {
      const { doubt, text } = clean(at[key]);
      if (doubt) sayLeftover(doubt, key, text, r + 1, expandRefs(cell("refs")).refs, file, found);
    }
    const own = units?.column === undefined ? "" : clean(units.column).text;
    const line = readLine(
      (key) => (key === "value" ? withUnit(cell(key).replace(STARRED, ""), own || units?.all) : cell(key)),
      r + 1,
      file,
      found,
      isDecimal,
    );
    if (!line) {
      // what was said of its references is said already
      if (expandRefs(cell("refs")).bad.length === 0) skipped.push({ row: r + 1, text: wordsOf(cells[r]!) });
      continue;
    }
    claimRefs(line, owner, file, found);
    lines.push(settled(line, cell("value"), { isAsked: asked !== undefined, star, file, found }));
  }
  saySkipped(skipped, file, found);
  const columns = Object.fromEntries(
    Object.entries(at).map(([k, i]) => [k, heads[i as number]?.trim() || `column ${(i as number) + 1}`]),
  );
  return {
    columns,
    headers: heads,
    lines,
    findings: found.done(),
    account: accountOf(cells, { layout, at, lines, passed: skipped.length, chosen }),
  };
}

const STARRED = /(?<=[\p{L}\d)])\s*\*+$/u;
/** What a star means by the footnote of the list; nothing where there is none. */
function starOf(cells: Cells): "off" | "else" | undefined {
  for (const row of cells)
    for (const t of row) {
      if (!t.includes("*")) continue;
      const words = /^\s*\*+\s*(?:[=:–—-]\s*)?([\p{L}\d][^*]*\p{L}.*)$/u.exec(t)?.[1];
      if (words !== undefined) return markIn(words) === "no" ? "off" : "else";
    }
  return undefined;
}

/** A line with what the list as a whole says of it: a star's footnote, a column that is asked about. */
function settled(
  line: BomLine,
  written: string,
  of: { isAsked: boolean; star: ReturnType<typeof starOf>; file: string; found: FindingList },
): BomLine {
  const isStarred = STARRED.test(written);
  if (isStarred && of.star === "off") return { ...line, dnp: true };
  if (isStarred && of.star === undefined) {
    of.found.add({
      tag: "bom-fitted-ambiguous",
      level: "warning",
      file: of.file,
      row: line.row,
      about: [...line.refs],
      text: `“${written}” has a star, and no footnote says what for: the part may be left off.`,
      do: "Say whether it is fitted.",
    });
    return line.dnp ? line : { ...line, fitted: "doubtful" };
  }
  return of.isAsked && !line.dnp ? { ...line, fitted: "doubtful" } : line;
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

/** A row of a word without a digit and the number of all pieces above: a sum, in whatever language. */
function addsUp(row: readonly string[], lines: readonly BomLine[]): boolean {
  let n = 0;
  for (const t of row) if (t !== "" && ++n > 4) return false;
  const filled = row.map((t) => t.trim()).filter((t) => t !== "");
  const [word, number] =
    filled.length === 2 ? [filled.find((t) => !/\d/.test(t)), filled.find((t) => /^\d+$/.test(t))] : [];
  return (
    word !== undefined &&
    number !== undefined &&
    lines.length > 1 &&
    Number(number) === lines.reduce((n, l) => n + l.qty, 0)
  );
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
