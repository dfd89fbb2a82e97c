import { AppError, shapes } from "@kobbin/core";
import type { Tx } from "../db/pool.ts";
import { ident } from "../schema/ident.ts";
import type { Table } from "../schema/tables.ts";
import type { ChangedRow } from "./sentence.ts";

const { MOST } = shapes;

/** So many rows of a table there may be, of each value of a column or of the shop, and what they are in words. */
interface Limit {
  readonly most: number;
  readonly of?: string;
  readonly what: string;
}

/** What of a shop is bounded by what a document holds. */
export const LIMITS: Partial<Record<Table, Limit>> = {
  board: { most: MOST.boards, of: "revision_id", what: "boards of a product" },
  bom_line: { most: MOST.lines, of: "revision_id", what: "lines of a parts list" },
  variant: { most: MOST.variants, of: "revision_id", what: "variants of a product" },
  line_sum: { most: MOST.sums, of: "revision_id", what: "sums of a parts list" },
  fit_row: { most: MOST.fits, of: "product_id", what: "rows of a fit sheet" },
  foil: { most: MOST.foils, of: "product_id", what: "foils of a product" },
  house: { most: MOST.houses, what: "houses" },
  supplier: { most: MOST.suppliers, what: "suppliers" },
  part: { most: MOST.parts, what: "parts in the library" },
  alternate: { most: MOST.alternates, what: "substitutes in the library" },
  lot: { most: MOST.lots, what: "lots on the shelf" },
};

/**
 * Nothing is written down that a document could not hold: it could be neither released nor restored from a backup. Every
 * change is held against the limits of the tables it added to, what undo brings back among them.
 *
 * @throws AppError OUT_OF_RANGE naming the limit; nothing is kept then
 */
export async function refuseBeyond(tx: Tx, changed: readonly ChangedRow[]): Promise<void> {
  const added = changed.filter((r) => r.op === "insert");
  for (const table of new Set(added.map((r) => r.table))) {
    const limit = LIMITS[table];
    if (!limit) continue;
    const { most, of, what } = limit;
    const ids = added.flatMap((r) => (r.table === table ? [String(r.key.id)] : []));
    const { rows } = of
      ? await tx.query<{ n: number }>(
          `select count(*)::int as n from ${ident(table)}
           where ${ident(table, of)} in (select ${ident(table, of)} from ${ident(table)} where id = any($1::uuid[]))
           group by ${ident(table, of)} order by 1 desc limit 1`,
          [ids],
        )
      : await tx.query<{ n: number }>(`select count(*)::int as n from ${ident(table)}`);
    const n = rows[0]?.n ?? 0;
    if (n > most)
      throw new AppError(
        "OUT_OF_RANGE",
        `There may be ${most} ${what}, and this would make ${n}; nothing was changed.`,
        "Remove some that are not needed any more.",
      );
  }
}
