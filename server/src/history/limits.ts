import { AppError, addTo } from "@kobbin/core";
import type { Tx } from "../db/pool.ts";
import { ident } from "../schema/ident.ts";
import { checkColumns } from "../schema/judge.ts";
import { type Bound, tableFact } from "../schema/table-facts.ts";
import { descriptorOf, type Table } from "../schema/tables.ts";
import type { Row } from "./rows.ts";
import type { ChangedRow } from "./sentence.ts";

/**
 * Nothing is written down that a document or a backup could not hold: it could be neither released nor restored. Every
 * change is held against the bounds of the tables it added to and against what their columns hold, what undo brings back
 * among them: by the lists a backup is read by.
 *
 * @throws AppError OUT_OF_RANGE naming the bound, or the field; nothing is kept then
 */
export async function refuseBeyond(tx: Tx, changed: readonly ChangedRow[]): Promise<void> {
  const added = new Map<Table, Row[]>();
  for (const r of changed) if (r.op === "insert") addTo(added, r.table, r.key as Row);
  for (const [table, keys] of added) {
    const { bound } = tableFact(table);
    if (bound) await refuseTooMany(tx, table, bound, keys);
    for (const row of await rowsOf(tx, table, keys)) refuseUnkept(table, row, true);
  }
  for (const r of changed)
    if (r.op === "update" && r.became) refuseUnkept(r.table, withoutMade(r.table, r.became as Row), false);
}

async function refuseTooMany(tx: Tx, table: Table, bound: Bound, keys: readonly Row[]): Promise<void> {
  const { most, of, via, what } = bound;
  const ids = keys.map((k) => String(k.id));
  const { rows } = of
    ? await tx.query<{ n: number }>(
        via
          ? `select count(*)::int as n from ${ident(table)} as t join ${ident(via.table)} as o on o.id = t.${ident(table, via.by)}
             where o.${ident(via.table, of)} in (
               select o.${ident(via.table, of)} from ${ident(table)} as t
               join ${ident(via.table)} as o on o.id = t.${ident(table, via.by)} where t.id = any($1::uuid[]))
             group by o.${ident(via.table, of)} order by 1 desc limit 1`
          : `select count(*)::int as n from ${ident(table)}
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

/** Rows as a backup would hold them, without what is made here. */
async function rowsOf(tx: Tx, table: Table, keys: readonly Row[]): Promise<Row[]> {
  const { key } = descriptorOf(table);
  const same = key.map((c) => `t.${ident(table, c)} = k.${ident(table, c)}`).join(" and ");
  const [only] = key;
  // a list of ids is looked up one by one; joined, the database reads the whole table, since it takes it for long
  const { rows } = await tx.query<{ row: Row }>(
    key.length === 1 && only
      ? `select to_jsonb(t) - $2::text[] as row from ${ident(table)} as t
         where t.${ident(table, only)} = any(array(
           select k.${ident(table, only)} from jsonb_populate_recordset(null::${ident(table)}, $1::jsonb) as k))`
      : `select to_jsonb(t) - $2::text[] as row
         from jsonb_populate_recordset(null::${ident(table)}, $1::jsonb) as k join ${ident(table)} as t on ${same}`,
    [JSON.stringify(keys), ["workshop_id", ...(tableFact(table).made ?? [])]],
  );
  return rows.map((r) => r.row);
}

const withoutMade = (table: Table, row: Row): Row => {
  const { made } = tableFact(table);
  return made ? Object.fromEntries(Object.entries(row).filter(([c]) => !made.includes(c))) : row;
};

function refuseUnkept(table: Table, row: Row, isWhole: boolean): void {
  let wrong: string | undefined;
  checkColumns(
    descriptorOf(table),
    row,
    "",
    (what) => {
      wrong ??= what.replace(/^: /, "");
    },
    isWhole,
  );
  if (wrong !== undefined)
    throw new AppError(
      "OUT_OF_RANGE",
      `Something here is more than is kept: ${wrong}. Nothing was changed.`,
      "Make it shorter or smaller, and save it again.",
    );
}
