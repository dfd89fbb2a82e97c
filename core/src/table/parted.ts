import type { Cells } from "./columns.ts";

/** Lines that speak to people, whatever sign they begin with. */
export const COMMENT = /^\s*("?\s*)(#|;|\/\/|\*|%|!|--|rem\b)/i;

/** Share of the rows that arrive as one cell for a table to be set apart by blanks. */
const MOST = 0.8;

/**
 * A table whose columns are set apart by blanks arrives as one cell a row: parted at the blanks where that gives every row
 * as many words as its heading has, else where every row has a blank at the same place. Undefined where it is no such
 * table, or neither parts it.
 *
 * @param isHead whether a row of parted rows names what the table has to name
 * @param isRow whether a line's words are a row of the table, not a sentence or a rule of dashes
 */
export function partedAtBlanks(
  cells: Cells,
  isHead: (rows: Cells, row: number) => boolean,
  isRow: (words: readonly string[]) => boolean,
): { readonly rows: Cells; readonly isEven: boolean } | undefined {
  const filled = cells.filter((r) => r.some((t) => t.trim() !== ""));
  const single = filled.filter((r) => r.length === 1 || COMMENT.test(r[0] ?? ""));
  if (filled.length === 0 || single.length < MOST * filled.length) return undefined;
  const lines = cells.map((r) => r.join(",").replace(/\t/g, "        "));
  const words = lines.map((l) =>
    l
      .replace(/^\s*#+\s*/, "")
      .trim()
      .split(/\s+/),
  );
  const head = words.findIndex((_, i) => isHead(words, i));
  const rows = lines.flatMap((l, i) => (i > head && !COMMENT.test(l) && isRow(words[i]!) ? [i] : []));
  if (head >= 0 && rows.every((i) => words[i]!.length === words[head]!.length))
    return { rows: words, isEven: true };
  // of a heading of several words its first ones may be none by themselves: each line in turn is tried as the heading
  const tries = head >= 0 ? [head] : lines.flatMap((_, i) => (i < (rows[0] ?? 0) + 1 ? [i] : []));
  // columns mostly lie two blanks apart; a single one may be of a cell that has it in every row
  for (const gap of [2, 1])
    for (const at of [...tries, -1]) {
      const below = rows.filter((i) => i > at);
      const cut = atColumns(lines, at < 0 ? [] : [at], below, gap);
      if (cut && (at < 0 ? head < 0 && gap === 1 : isHead(cut, at))) return { rows: cut, isEven: true };
    }
  return { rows: words, isEven: false };
}

/**
 * Lines cut where the heading and every place have a blank, but for the words of one heading; undefined where nothing is
 * blank in all.
 */
function atColumns(
  lines: readonly string[],
  heads: readonly number[],
  places: readonly number[],
  gap: number,
): string[][] | undefined {
  const of = [...heads, ...places];
  if (places.length < 2) return undefined;
  const width = Math.max(...of.map((i) => lines[i]!.length));
  const isBlank = (at: number) => of.every((i) => (lines[i]![at] ?? " ") === " ");
  const starts: number[] = [];
  for (let at = 1; at < width; at++)
    if (!isBlank(at) && Array.from({ length: Math.min(gap, at) }, (_, k) => at - 1 - k).every(isBlank))
      starts.push(at);
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
