import type { Cells } from "../table/columns.ts";

/** Lines that speak to people, whatever sign they begin with. */
export const COMMENT = /^\s*("?\s*)(#|;|\/\/|\*|%|!|--|rem\b)/i;

/** Share of the rows that arrive as one cell for a table to be set apart by blanks. */
const MOST = 0.8;

/**
 * A table whose columns are set apart by blanks arrives as one cell a row: parted at the blanks where that gives every row
 * as many words as its heading has, else where every row has a blank at the same place.
 *
 * @param isHead whether a row names a reference, an X and a Y
 */
export function parted(cells: Cells, isHead: (rows: Cells, row: number) => boolean): Cells {
  const filled = cells.filter((r) => r.some((t) => t.trim() !== ""));
  const single = filled.filter((r) => r.length === 1 || COMMENT.test(r[0] ?? ""));
  if (filled.length === 0 || single.length < MOST * filled.length) return cells;
  const lines = cells.map((r) => r.join(",").replace(/\t/g, "        "));
  const words = lines.map((l) =>
    l
      .replace(/^\s*#+\s*/, "")
      .trim()
      .split(/\s+/),
  );
  const head = words.findIndex((_, i) => isHead(words, i));
  // sentences and rules of dashes have any number of words; a place begins with its reference or holds numbers
  const isPlace = (i: number) =>
    i > head &&
    !COMMENT.test(lines[i]!) &&
    (words[i]!.join("").match(/\d/g) ?? []).length >= 3 &&
    words[i]!.length >= 3;
  const places = lines.flatMap((_, i) => (isPlace(i) ? [i] : []));
  if (head >= 0 && places.every((i) => words[i]!.length === words[head]!.length)) return words;
  const byPlace = atColumns(lines, head < 0 ? [] : [head], places);
  if (byPlace && (head < 0 || byPlace.some((_, i) => isHead(byPlace, i)))) return byPlace;
  return words;
}

/**
 * Lines cut where the heading and every place have a blank, but for the words of one heading; undefined where nothing is
 * blank in all.
 */
function atColumns(
  lines: readonly string[],
  heads: readonly number[],
  places: readonly number[],
): string[][] | undefined {
  const of = [...heads, ...places];
  if (places.length < 2) return undefined;
  const width = Math.max(...of.map((i) => lines[i]!.length));
  const isBlank = (at: number) => of.every((i) => (lines[i]![at] ?? " ") === " ");
  const starts: number[] = [];
  for (let at = 1; at < width; at++) if (isBlank(at - 1) && !isBlank(at)) starts.push(at);
  // over a word of a heading alone stands the rest of that heading
  const cuts = starts.filter((from, k) =>
    places.some((i) => lines[i]!.slice(from, starts[k + 1] ?? width).trim() !== ""),
  );
  if (cuts.length < 2) return undefined;
  return lines.map((l) =>
    [0, ...cuts].map((from, k) =>
      l
        .slice(from, cuts[k] ?? l.length)
        .trim()
        .replace(/^#+\s*/, ""),
    ),
  );
}
