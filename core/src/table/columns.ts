import { addTo } from "../grouped.ts";

/** Cells of a table as text, row by row, as a reader of CSV or XLSX hands them over. */
export type Cells = readonly (readonly string[])[];

/** What columns a kind of table may have: for each key the words its header may use, best first. */
export type ColumnWords<K extends string> = Readonly<Record<K, readonly string[]>>;

/** A header found: its row, and for each key the column index. */
export interface Header<K extends string> {
  readonly row: number;
  readonly at: Partial<Record<K, number>>;
  /** Header texts that no key claims. */
  readonly unclaimed: readonly string[];
}

/** Lower case, letters and digits only, one blank between words: what headers are compared by. */
export const plain = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}#]+/gu, " ")
    .trim();

/** Titles, dates and approvals stand above some lists. */
const MOST_ROWS_ABOVE = 60;

/**
 * Finds the header row among the first 60 rows: the one that claims most keys, at least `least`.
 *
 * A header text claims a key when it equals one of its words, else when it begins with one; earlier words win.
 *
 * @param chosen key → header text a person chose; it wins over the words. An empty one says that no column is that
 */
export function findHeader<K extends string>(
  cells: Cells,
  words: ColumnWords<K>,
  least: number,
  chosen: Partial<Record<K, string>> = {},
): Header<K> | undefined {
  let best: Header<K> | undefined;
  for (let row = 0; row < Math.min(cells.length, MOST_ROWS_ABOVE); row++) {
    const header = claim(cells[row]!, row, words, chosen);
    const n = Object.keys(header.at).length;
    if (n >= least && (!best || n > Object.keys(best.at).length)) best = header;
  }
  return best;
}

/** Of each word of a kind of table, whose it is and how early it stands: looked up for every cell of every row above a list. */
const ranks = new WeakMap<object, ReadonlyMap<string, readonly (readonly [key: string, rank: number])[]>>();
function ranksOf(words: ColumnWords<string>) {
  const known = ranks.get(words);
  if (known) return known;
  const made = new Map<string, [string, number][]>();
  for (const [key, list] of Object.entries(words))
    for (const [i, w] of list.entries()) addTo(made, w, [key, i]);
  ranks.set(words, made);
  return made;
}

/** The words a heading begins with, the whole of it left out: "qty per board" → "qty", "qty per". */
function beginnings(name: string): string[] {
  const out: string[] = [];
  for (let i = name.indexOf(" "); i > 0; i = name.indexOf(" ", i + 1)) out.push(name.slice(0, i));
  return out;
}

/**
 * The column that is a key by one of its words: the earlier word wins, then the lower number (MPN 1 before MPN 2, wherever
 * they stand), then the first.
 *
 * @param wordsOf of each column what is looked up: its heading, or what it begins with
 * @returns -1 where there is none
 */
function bestFor(
  key: string,
  names: readonly string[],
  ranks: ReturnType<typeof ranksOf>,
  wordsOf: readonly (readonly string[])[],
  taken: ReadonlySet<number>,
): number {
  let best = -1;
  let least: readonly [number, number] = [Number.POSITIVE_INFINITY, 0];
  for (let i = 0; i < names.length; i++) {
    if (taken.has(i)) continue;
    for (const word of wordsOf[i]!)
      for (const [k, rank] of ranks.get(word) ?? []) {
        if (k !== key || rank > least[0]) continue;
        const number = Number(/ (\d{1,2})$/.exec(names[i]!)?.[1] ?? 0);
        if (rank < least[0] || number < least[1]) {
          least = [rank, number];
          best = i;
        }
      }
  }
  return best;
}

function claim<K extends string>(
  texts: readonly string[],
  row: number,
  words: ColumnWords<K>,
  chosen: Partial<Record<K, string>>,
): Header<K> {
  const names = texts.map(plain);
  const at: Partial<Record<K, number>> = {};
  const taken = new Set<number>();
  const take = (key: K, index: number) => {
    if (index < 0 || taken.has(index)) return false;
    at[key] = index;
    taken.add(index);
    return true;
  };
  const keys = Object.keys(words) as K[];
  for (const key of keys) {
    const wish = plain(chosen[key] ?? "");
    if (wish !== "") take(key, names.indexOf(wish));
  }
  const found = ranksOf(words);
  for (const wordsOf of [names.map((n) => [n]), names.map(beginnings)])
    for (const key of keys)
      if (at[key] === undefined && chosen[key] === undefined)
        take(key, bestFor(key, names, found, wordsOf, taken));
  const unclaimed = texts.filter((t, i) => t.trim() !== "" && !taken.has(i));
  return { row, at, unclaimed };
}
