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

/** The first of the names that fit; of numbered ones that with the lowest number: MPN 1 before MPN 2, wherever they stand. */
function lowest(names: readonly string[], fits: (name: string, index: number) => boolean): number {
  const number = (i: number) => Number(/ (\d{1,2})$/.exec(names[i]!)?.[1] ?? 0);
  let best = -1;
  for (let i = 0; i < names.length; i++)
    if (fits(names[i]!, i) && (best < 0 || number(i) < number(best))) best = i;
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
  for (const compare of [(n: string, w: string) => n === w, (n: string, w: string) => n.startsWith(`${w} `)])
    for (const key of keys) {
      if (at[key] !== undefined || chosen[key] !== undefined) continue;
      for (const word of words[key]) {
        if (
          take(
            key,
            lowest(names, (n, i) => !taken.has(i) && compare(n, word)),
          )
        )
          break;
      }
    }
  const unclaimed = texts.filter((t, i) => t.trim() !== "" && !taken.has(i));
  return { row, at, unclaimed };
}
