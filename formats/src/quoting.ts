import Papa from "papaparse";

/** Rows as they are read, and whether quotes are left that nobody closes. */
interface Parsed {
  readonly rows: string[][];
  readonly isBroken: boolean;
}

/** Rows of delimited text in the usual way (RFC 4180). @param newline what ends a row; found out where left out */
export function parseRows(body: string, delimiter: string, newline?: "\n"): Parsed {
  const { data, errors } = Papa.parse<string[]>(body, { delimiter, ...(newline ? { newline } : {}) });
  return {
    rows: data.filter((r) => Array.isArray(r)),
    isBroken: errors.some((e) => e.type === "Quotes"),
  };
}

/** Share of the rows that hold something which are as wide as most. */
function evenness(rows: readonly (readonly string[])[]): number {
  const counts = new Map<number, number>();
  let all = 0;
  for (const r of rows) {
    if (!r.some((c) => c.trim() !== "")) continue;
    all++;
    counts.set(r.length, (counts.get(r.length) ?? 0) + 1);
  }
  return all === 0 ? 0 : Math.max(...counts.values()) / all;
}

const escaped = (delimiter: string) => delimiter.replace(/[|\\]/g, "\\$&");

/** Ways hands and programs put cells in quotes that are not the usual one, each written in the usual one. */
const WAYS: readonly ((body: string, delimiter: string) => string)[] = [
  // a space between the delimiter and the quote
  (body, d) => body.replace(new RegExp(`(^|${escaped(d)}|\\n|\\r)[^\\S\\t\\r\\n]+(?=")`, "g"), "$1"),
  // a quote within a cell behind a backslash
  (body) => body.replace(/\\"/g, '""'),
  // quotes as a word processor sets them
  (body) => body.replace(/[\u201C\u201D\u201E]/g, '"'),
  // single ones around whole cells
  (body, d) =>
    body.replace(
      new RegExp(`(^|${escaped(d)}|\\n|\\r)'([^'\\r\\n]*)'(?=${escaped(d)}|\\r|\\n|$)`, "g"),
      '$1"$2"',
    ),
];

/**
 * Rows of delimited text. Where the usual way of quotes leaves rows of different widths, or quotes that nobody closes, the other
 * ways are tried: one is taken where no quote is left open and more rows are as wide as most than before.
 */
export function rowsOf(body: string, delimiter: string, newline?: "\n"): Parsed {
  let best = parseRows(body, delimiter, newline);
  let most = evenness(best.rows);
  if (!best.isBroken && most === 1) return best;
  for (const way of WAYS) {
    const other = way(body, delimiter);
    if (other === body) continue;
    const parsed = parseRows(other, delimiter, newline);
    const even = evenness(parsed.rows);
    // a way that makes fewer rows took some for the lines of one cell
    const isWhole = best.isBroken || parsed.rows.length >= best.rows.length;
    if (!parsed.isBroken && isWhole && (even > most || (best.isBroken && even === most))) {
      best = parsed;
      most = even;
    }
  }
  return best;
}
