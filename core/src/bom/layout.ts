import { FindingList } from "../findings.ts";
import { type Cells, findHeader, plain } from "../table/columns.ts";
import { columnsByContent, firstDataRow } from "./content.ts";
import { BOM_WORDS, type BomColumn } from "./words.ts";

/** Where a list's columns are, its headings, and its first row of data. */
export interface Layout {
  readonly at: Partial<Record<BomColumn, number>>;
  readonly heads: readonly string[];
  readonly firstRow: number;
}

/** Columns by their headings, and by what they hold where the headings leave one open or there are none. */
export function layoutOf(
  cells: Cells,
  file: string,
  chosen: Partial<Record<BomColumn, string>>,
  found: FindingList,
): Layout | undefined {
  const header = findHeader(cells, BOM_WORDS, 2, chosen);
  const isUsable = header && (header.at.refs !== undefined || header.at.qty !== undefined);
  if (header && isUsable) {
    const at = { ...header.at };
    const heads = cells[header.row]!;
    const taken = new Set(Object.values(at));
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
    const unclaimed = heads.filter((t, i) => t.trim() !== "" && !taken.has(i));
    if (unclaimed.length > 0)
      found.add({
        tag: "bom-column-unknown",
        level: "remark",
        file,
        row: header.row + 1,
        text: `Not used: ${unclaimed.join(", ")}.`,
      });
    return { at, heads, firstRow: header.row + 1 };
  }
  const first = firstDataRow(cells);
  const byContent = first === undefined ? [] : columnsByContent(cells, first);
  if (first === undefined || byContent.length < 2) {
    found.add({
      tag: "bom-header-missing",
      level: "error",
      file,
      text: "No row names a column of references or quantities.",
      do: "Say which columns hold the references, the values and the part numbers.",
    });
    return undefined;
  }
  const heads = first > 0 ? cells[first - 1]! : [];
  const nameOf = (i: number) => (heads[i]?.trim() ? `“${heads[i]!.trim()}”` : `column ${i + 1}`);
  found.add({
    tag: "bom-header-missing",
    level: "warning",
    file,
    row: first + 1,
    text: `No heading is known; by what they hold, ${byContent.map((c) => `${nameOf(c.index)} is ${COLUMN_NAME[c.key]}`).join(", ")}.`,
    do: "Correct the columns if that is wrong.",
  });
  return {
    at: Object.fromEntries(byContent.map((c) => [c.key, c.index])),
    heads,
    firstRow: first,
  };
}

/** How a column was recognised. */
export interface RecognisedColumns extends Layout {
  readonly because: Partial<Record<BomColumn, "heading" | "content">>;
}

/**
 * The columns of a list as they are recognised, for a person to confirm on the data itself. Where nothing is recognised
 * the first filled row counts as data, and no column is claimed.
 */
export function recogniseColumns(cells: Cells): RecognisedColumns {
  const layout = layoutOf(cells, "", {}, new FindingList(20));
  if (!layout) return { at: {}, heads: [], firstRow: firstDataRow(cells) ?? 0, because: {} };
  const named = findHeader(cells, BOM_WORDS, 2)?.at ?? {};
  const because: Partial<Record<BomColumn, "heading" | "content">> = {};
  for (const [key, index] of Object.entries(layout.at) as [BomColumn, number][])
    because[key] = named[key] === index ? "heading" : "content";
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

/** True when a table looks like a parts list: by its headings, or without any that are known by what it holds. */
export const looksLikeBom = (cells: Cells): boolean => {
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
