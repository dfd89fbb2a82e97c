/** What became of one column of a table, and why: each column it was given has one. */
export interface ColumnAccount {
  /** As it stands in the file, else its place. */
  readonly heading: string;
  /** Which it is, the first is 1. */
  readonly place: number;
  /** What it was read as; "passed" where it is of no consequence, "asked" where a person has to say. */
  readonly as: string;
  readonly because: string;
  /** 0 to 1. */
  readonly sure: number;
  /** What marks some of the lines, which are in doubt until it is said what for: each word or sign once, "" for none. */
  readonly marks?: readonly string[];
}

/** Account of a table: nothing it was given is left out. */
export interface Account {
  readonly columns: readonly ColumnAccount[];
  /** Rows read as lines; headings, titles, sums and remarks passed over; lines that wait for an answer. */
  readonly rows: { readonly lines: number; readonly passed: number; readonly doubtful: number };
}

/** An account in a line: "7 columns: 5 read, 1 passed over, 1 asked about". */
export function saysAccount({ columns }: Account): string {
  const n = (is: (as: string) => boolean) => columns.filter((c) => is(c.as)).length;
  const [passed, asked] = [n((as) => as === "passed"), n((as) => as === "asked")];
  return [
    `${columns.length} ${columns.length === 1 ? "column" : "columns"}: ${columns.length - passed - asked} read`,
    ...(passed > 0 ? [`${passed} passed over`] : []),
    ...(asked > 0 ? [`${asked} asked about`] : []),
  ].join(", ");
}
