import { FindingList } from "../findings.ts";
import { type Cells, findHeader, plain } from "../table/columns.ts";
import { partedAtBlanks } from "../table/parted.ts";
import { columnsByContent, firstDataRow, readsAsReferences } from "./content.ts";
import { cleanCell } from "./leftovers.ts";
import { SUM } from "./line.ts";
import { statusIn } from "./status.ts";
import { unitColumn, unitInHeading, type ValueUnits } from "./units.ts";
import { BOM_WORDS, type BomColumn } from "./words.ts";

/** Where a list's columns are, its headings, and its first row of data. */
export interface Layout {
  readonly at: Partial<Record<BomColumn, number>>;
  readonly heads: readonly string[];
  readonly firstRow: number;
  readonly units?: ValueUnits;
  /** Columns that mark some of the lines, and nothing says what for. */
  readonly asked?: readonly number[];
  /** Columns a person spoke of: of them nothing is asked. */
  readonly answered?: readonly number[];
  /** What a person said of a column of marks: the word or sign of the lines that are left off, "" for those without one. */
  readonly leftOff?: { readonly column: number; readonly mark: string };
}

/**
 * What a person says of columns: key → its heading, "column 3" by its place, or nothing where no column is that. Of a
 * column of marks: "off x" where those with an x are left off, "nothing 4" where it says nothing of that.
 */
export type ChosenColumns = Partial<Record<BomColumn | `off ${string}` | `nothing ${string}`, string>>;
type ChosenKeys = Partial<Record<BomColumn, string>>;

/** Columns by their headings, and by what they hold where the headings leave one open or there are none. */
export function layoutOf(
  cells: Cells,
  file: string,
  wished: ChosenColumns,
  found: FindingList,
): Layout | undefined {
  const { keys, ...marks } = marksApart(cells, wished);
  const chosen = knownWishes(cells, keys, file, found);
  const layout = recognised(cells, file, chosen, found, marks.answered);
  if (!layout) return undefined;
  // a place that was said wins over whatever was found there
  const at = { ...layout.at };
  for (const [key, index] of byPlace(cells, chosen)) {
    for (const other of Object.keys(at) as BomColumn[]) if (at[other] === index) delete at[other];
    at[key] = index;
  }
  return { ...layout, at, ...(marks.answered.length > 0 ? marks : {}) };
}

/** What was said of columns of marks, apart from what columns are; by place in this list. */
function marksApart(
  cells: Cells,
  wished: ChosenColumns,
): { keys: ChosenKeys; answered: number[]; leftOff?: { column: number; mark: string } } {
  const keys: Record<string, string> = {};
  const answered: number[] = [];
  let leftOff: { column: number; mark: string } | undefined;
  for (const [key, wish] of Object.entries(wished) as [string, string][]) {
    const mark = /^off (.*)$/s.exec(key)?.[1];
    if (mark === undefined && !key.startsWith("nothing ")) {
      keys[key] = wish;
      continue;
    }
    const named = cells.slice(0, 60).map((r) => r.findIndex((t) => plain(t) === plain(wish)));
    const column = named.find((i) => i >= 0) ?? Number(PLACE.exec(wish.trim())?.[1] ?? 0) - 1;
    if (column < 0 || column >= widthOf(cells)) continue;
    answered.push(column);
    if (mark !== undefined) leftOff = { column, mark };
  }
  return { keys: keys as ChosenKeys, answered, ...(leftOff ? { leftOff } : {}) };
}

const PLACE = /^column (\d{1,3})$/i;
const widthOf = (cells: Cells) => cells.slice(0, 200).reduce((n, r) => Math.max(n, r.length), 0);
const isNamed = (cells: Cells, wish: string) =>
  cells.slice(0, 60).some((r) => r.some((t) => plain(t) === plain(wish)));

/** Columns that are named by their place: those no heading is called like. */
function byPlace(cells: Cells, chosen: ChosenKeys): [BomColumn, number][] {
  return (Object.entries(chosen) as [BomColumn, string][]).flatMap(([key, wish]) => {
    const place = isNamed(cells, wish) ? undefined : PLACE.exec(wish.trim())?.[1];
    return place === undefined ? [] : [[key, Number(place) - 1]];
  });
}

/** Leaves out wishes that nothing in this list is called like, as where an export changed; what they were is said. */
function knownWishes(cells: Cells, wished: ChosenKeys, file: string, found: FindingList): ChosenKeys {
  const width = widthOf(cells);
  const out: ChosenKeys = {};
  for (const [key, wish] of Object.entries(wished) as [BomColumn, string][]) {
    const place = PLACE.exec(wish.trim())?.[1];
    const isHere = place === undefined ? false : Number(place) >= 1 && Number(place) <= width;
    if (wish.trim() === "" || isHere || isNamed(cells, wish)) out[key] = wish;
    else
      found.add({
        tag: "bom-column-unknown",
        level: "warning",
        file,
        text: `No column is called “${wish}”, which was to be ${COLUMN_NAME[key]}: it was looked for anew.`,
        do: "Say which column it is.",
      });
  }
  return out;
}

function recognised(
  cells: Cells,
  file: string,
  chosen: ChosenKeys,
  found: FindingList,
  answered: readonly number[],
): Layout | undefined {
  const header = findHeader(cells, BOM_WORDS, 2, chosen);
  // headings that are known count where what stands under an unknown one are references
  const isUsable =
    header &&
    (header.at.refs !== undefined ||
      header.at.qty !== undefined ||
      columnsByContent(cells, header.row + 1, new Set(Object.values(header.at))).some(
        (c) => c.key === "refs",
      ));
  if (header && isUsable) {
    const heads = cells[header.row]!;
    const at = withoutStrays(cells, header.row + 1, header.at, heads, chosen, file, found);
    const taken = new Set([...Object.values(at), ...answered]);
    for (const c of columnsByContent(cells, header.row + 1, taken, at.refs)) {
      if (at[c.key] !== undefined || chosen[c.key] !== undefined || taken.has(c.index)) continue;
      // a quantity is told by its heading, or not at all: numbers may be anything
      if (c.key === "qty") continue;
      at[c.key] = c.index;
      taken.add(c.index);
      found.add({
        tag: "bom-column-guessed",
        level: "remark",
        file,
        row: header.row + 1,
        text: `“${heads[c.index] || `column ${c.index + 1}`}” was taken as ${COLUMN_NAME[c.key]}, by what it holds.`,
        do: "Say so if it is something else.",
      });
    }
    const more = besides(cells, header.row + 1, heads, taken, at, file, found);
    return { at, heads, firstRow: header.row + 1, ...more };
  }
  const first = firstDataRow(cells);
  const byContent =
    first === undefined ? [] : columnsByContent(cells, first).filter((c) => chosen[c.key] === undefined);
  const said = byPlace(cells, chosen);
  const isTold = said.some(([key]) => key === "refs" || key === "qty");
  if (!isTold && (first === undefined || byContent.length < 2)) {
    found.add({
      tag: "bom-header-missing",
      level: "error",
      file,
      text: "No row names a column of references or quantities.",
      do: "Say which columns hold the references, the values and the part numbers.",
    });
    return undefined;
  }
  const from = first ?? 0;
  const heads = from > 0 ? cells[from - 1]! : [];
  const nameOf = (i: number) => (heads[i]?.trim() ? `“${heads[i]!.trim()}”` : `column ${i + 1}`);
  found.add({
    tag: "bom-header-missing",
    level: "warning",
    file,
    row: from + 1,
    text: `No heading is known; by what they hold, ${byContent.map((c) => `${nameOf(c.index)} is ${COLUMN_NAME[c.key]}`).join(", ")}.`,
    do: "Correct the columns if that is wrong.",
  });
  const at: Partial<Record<BomColumn, number>> = Object.fromEntries(byContent.map((c) => [c.key, c.index]));
  const taken = new Set([...Object.values(at), ...answered]);
  return { at, heads, firstRow: from, ...besides(cells, from, heads, taken, at, file, found) };
}

/**
 * Columns whose heading promises what they do not hold: names under "Component", words under "Nombre". References are then
 * where they are; a quantity is none.
 */
function withoutStrays(
  cells: Cells,
  from: number,
  named: Partial<Record<BomColumn, number>>,
  heads: readonly string[],
  chosen: ChosenKeys,
  file: string,
  found: FindingList,
): Partial<Record<BomColumn, number>> {
  const at = { ...named };
  const isMostly = (key: BomColumn, is: (text: string) => boolean) => {
    const filled = cells
      .slice(from, from + 200)
      .map((r) => cleanCell(r[at[key]!] ?? "").text)
      .filter((t) => t !== "");
    return filled.length === 0 || filled.filter(is).length >= filled.length / 4;
  };
  const say = (index: number, key: BomColumn, instead: string) =>
    found.add({
      tag: "bom-column-guessed",
      level: "warning",
      file,
      row: from,
      text: `“${heads[index]!.trim()}” is called like ${COLUMN_NAME[key]} and holds something else${instead}.`,
      do: "Correct the columns if that is wrong.",
    });
  if (at.refs !== undefined && chosen.refs === undefined && !isMostly("refs", readsAsReferences)) {
    const other = columnsByContent(cells, from, new Set(Object.values(at))).find((c) => c.key === "refs");
    if (other) {
      say(at.refs, "refs", `; “${heads[other.index]?.trim() || `column ${other.index + 1}`}” holds them`);
      at.refs = other.index;
    }
  }
  if (at.qty !== undefined && chosen.qty === undefined && !isMostly("qty", (t) => /\d/.test(t))) {
    say(at.qty, "qty", "");
    delete at.qty;
  }
  return at;
}

/** A layout a person confirmed with what hangs on it beside: the unit of its values, and what is still to be asked. */
export function completed(cells: Cells, layout: Layout, file: string, found: FindingList): Layout {
  const { at, heads, firstRow, answered = [] } = layout;
  const taken = new Set([...Object.values(at), ...answered]);
  // what is fitted is as it was confirmed: a column of it that was not taken is asked about, not taken again
  return { ...layout, ...besides(cells, firstRow, heads, taken, at, file, found, false) };
}

/** A row of three cells at most; a sum is one. */
const isSparse = (row: readonly string[]): boolean => {
  let filled = 0;
  for (const t of row) if (t.trim() !== "" && ++filled > 3) return false;
  return true;
};

/** What columns say that no heading explains: whether lines are fitted, and in which unit values are. */
function besides(
  cells: Cells,
  from: number,
  heads: readonly string[],
  taken: Set<number>,
  at: Partial<Record<BomColumn, number>>,
  file: string,
  found: FindingList,
  takes = true,
): Pick<Layout, "units" | "asked"> {
  const width = widthOf(cells);
  const free = () => Array.from({ length: width }, (_, i) => i).filter((i) => !taken.has(i));
  const name = (i: number) => heads[i]?.trim() || `column ${i + 1}`;
  const asked: number[] = [];
  const named = at.refs ?? at.mpn ?? at.qty ?? 0;
  const rows = cells
    .slice(from)
    .filter((r) => (r[named] ?? "").trim() !== "" && !(isSparse(r) && r.some((t) => SUM.test(t.trim()))));
  if (at.dnp === undefined && at.fitted === undefined)
    for (const i of free()) {
      const status = statusIn(rows, i, heads[i] ?? "");
      if (status === undefined) continue;
      taken.add(i);
      if (status === "open") asked.push(i);
      else if (takes && at.fitted === undefined) {
        at.fitted = i;
        found.add({
          tag: "bom-column-guessed",
          level: "remark",
          file,
          row: from,
          text: `“${name(i)}” was taken as ${COLUMN_NAME.fitted}, by the words in it.`,
          do: "Say so if it is something else.",
        });
      } else asked.push(i);
    }
  if (asked.length > 0)
    found.add({
      tag: "bom-fitted-unknown",
      level: "warning",
      file,
      row: from,
      text: `${asked.map((i) => `“${name(i)}”`).join(" and ")} ${asked.length > 1 ? "mark" : "marks"} some of the lines, and nothing says what for: they may be fitted or left off. Until that is said every line is in doubt.`,
      do: "Say what the column is: what is fitted, what is left off, or neither.",
    });
  const all = at.value === undefined ? undefined : unitInHeading(heads[at.value] ?? "");
  const column = at.value === undefined ? undefined : unitColumn(rows, free(), heads);
  if (column !== undefined) taken.add(column);
  if (all === undefined && column === undefined) return asked.length > 0 ? { asked } : {};
  const units = { ...(all === undefined ? {} : { all }), ...(column === undefined ? {} : { column }) };
  found.add({
    tag: "unit-assumed",
    level: "remark",
    file,
    row: from,
    text: `Values without a unit were read ${column === undefined ? `in ${all}, as their heading says` : `in the unit that stands in “${name(column)}”`}.`,
  });
  return { units, ...(asked.length > 0 ? { asked } : {}) };
}

/** How a column was recognised. */
export interface RecognisedColumns extends Layout {
  readonly because: Partial<Record<BomColumn, "heading" | "content" | "chosen">>;
}

/**
 * The columns of a list as they are recognised, for a person to confirm on the data itself. Where nothing is recognised
 * the first filled row counts as data, and no column is claimed.
 */
export function recogniseColumns(cells: Cells, chosen: ChosenColumns = {}): RecognisedColumns {
  const layout = layoutOf(cells, "", chosen, new FindingList(20));
  if (!layout) return { at: {}, heads: [], firstRow: firstDataRow(cells) ?? 0, because: {} };
  const named = findHeader(cells, BOM_WORDS, 2)?.at ?? {};
  const because: Partial<Record<BomColumn, "heading" | "content" | "chosen">> = {};
  for (const [key, index] of Object.entries(layout.at) as [BomColumn, number][])
    because[key] = chosen[key] ? "chosen" : named[key] === index ? "heading" : "content";
  return { ...layout, because };
}

const COLUMN_NAME: Readonly<Record<BomColumn, string>> = {
  refs: "the references",
  qty: "the quantity",
  value: "the value",
  package: "the package",
  mpn: "the part number",
  maker: "the maker",
  description: "the description",
  dnp: "what is left off",
  fitted: "what is fitted",
};

/**
 * A list whose columns are set apart by blanks, cut into cells; any other as it is. Values have blanks of their own: it is cut
 * only where every line has one.
 */
export function inCells(cells: Cells): Cells {
  const isHead = (rows: Cells, row: number) => {
    const at = findHeader(rows.slice(row, row + 1), BOM_WORDS, 2)?.at;
    return at !== undefined && (at.refs !== undefined || at.qty !== undefined) && rows[row]!.length > 2;
  };
  const cut = partedAtBlanks(cells, isHead, (words) => words.length >= 3);
  return cut?.isEven ? cut.rows : cells;
}

/** True when a table looks like a parts list: by its headings, or without any that are known by what it holds. */
export const looksLikeBom = (given: Cells): boolean => {
  const cells = inCells(given);
  const h = findHeader(cells, BOM_WORDS, 2);
  if (h !== undefined && (h.at.refs !== undefined || h.at.qty !== undefined))
    return !looksLikeHeaderOfPlaces(cells[h.row]!);
  const first = firstDataRow(cells);
  if (first === undefined || looksLikePlaces(cells.slice(first, first + 100))) return false;
  const keys = columnsByContent(cells, first).map((c) => c.key);
  return keys.includes("refs") && keys.length >= 3;
};

const looksLikeHeaderOfPlaces = (texts: readonly string[]) => {
  const names = texts.map(plain);
  return names.some((n) => /(^| )x( |$)/.test(n)) && names.some((n) => /(^| )y( |$)/.test(n));
};

/** Two columns of numbers with decimals are coordinates, whatever stands above them. */
function looksLikePlaces(rows: Cells): boolean {
  const width = rows.reduce((n, r) => Math.max(n, r.length), 0);
  let columns = 0;
  for (let i = 0; i < width; i++) {
    const filled = rows.map((r) => (r[i] ?? "").trim()).filter((t) => t !== "");
    const decimal = filled.filter((t) => /^-?\d+[.,]\d+\s*(mm|mil|in)?$/i.test(t));
    if (filled.length > 0 && decimal.length >= 0.8 * filled.length) columns++;
  }
  return columns >= 2;
}
