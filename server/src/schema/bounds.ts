import { shapes } from "@kobbin/core";
import type { Table } from "./tables.ts";

const { MOST } = shapes;

/** So many rows of a table there may be, of each value of a column or of the shop, and what they are in words. */
export interface Bound {
  readonly most: number;
  /** The column they are counted by; of the shop where it is left out. */
  readonly of?: string;
  /** That column is of the row this one names here, in that table. */
  readonly via?: { readonly by: string; readonly table: Table };
  readonly what: string;
}

/** What of a shop is bounded by what a document holds: when it is written down, and when a backup is read. */
export const BOUNDS: Partial<Record<Table, Bound>> = {
  board: { most: MOST.boards, of: "revision_id", what: "boards of a product" },
  bom_line: { most: MOST.lines, of: "revision_id", what: "lines of a parts list" },
  variant: { most: MOST.variants, of: "revision_id", what: "variants of a product" },
  line_sum: { most: MOST.sums, of: "revision_id", what: "sums of a parts list" },
  offer: {
    most: MOST.offers,
    of: "revision_id",
    via: { by: "line_id", table: "bom_line" },
    what: "offers of a parts list",
  },
  fit_row: { most: MOST.fits, of: "product_id", what: "rows of a fit sheet" },
  foil: { most: MOST.foils, of: "product_id", what: "foils of a product" },
  house: { most: MOST.houses, what: "houses" },
  supplier: { most: MOST.suppliers, what: "suppliers" },
  part: { most: MOST.parts, what: "parts in the library" },
  alternate: { most: MOST.alternates, what: "substitutes in the library" },
  lot: { most: MOST.lots, what: "lots on the shelf" },
};

type Rows = readonly Readonly<Record<string, unknown>>[];

/** What there is too much of in the rows of a shop, in words; nothing where they could have been written down. */
export function tooMany(rowsOf: (table: string) => Rows): string[] {
  const wrong: string[] = [];
  for (const [table, { most, of, via, what }] of Object.entries(BOUNDS)) {
    const owner = via && new Map(rowsOf(via.table).map((r) => [r.id, r[of!]]));
    const counts = new Map<unknown, number>();
    for (const row of rowsOf(table)) {
      const whose = owner ? owner.get(row[via!.by]) : of ? row[of] : "";
      counts.set(whose, (counts.get(whose) ?? 0) + 1);
    }
    const n = Math.max(0, ...counts.values());
    if (n > most) wrong.push(`there may be ${most} ${what}, and it holds ${n}`);
  }
  return wrong;
}
