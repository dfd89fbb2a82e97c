import { AppError, addTo } from "@kobbin/core";
import type { Tx } from "../db/pool.ts";
import { ident, idents } from "../schema/ident.ts";
import { descriptorOf, type Table } from "../schema/tables.ts";
import type { Json } from "./merge.ts";

/** A row or a part of one, by column. */
export type Row = Readonly<Record<string, Json>>;

// the key as the table's own types have it, so that the index of the key finds the row
const where = (table: string) =>
  descriptorOf(table)
    .key.map(
      (c) =>
        `t.${ident(table, c)} = (jsonb_populate_record(null::${ident(table)}, $1::jsonb)).${ident(table, c)}`,
    )
    .join(" and ");
const keyOf = (table: string, key: Row) =>
  JSON.stringify(Object.fromEntries(descriptorOf(table).key.map((c) => [c, key[c]])));

/** A row as JSON, locked until the transaction ends; undefined when it is not there. */
export async function maybeRow(tx: Tx, table: Table, key: Row): Promise<Row | undefined> {
  const { rows } = await tx.query<{ row: Row }>(
    `select to_jsonb(t) as row from ${ident(table)} as t where ${where(table)} for update`,
    [keyOf(table, key)],
  );
  return rows[0]?.row;
}

/** Writes some columns of a row. */
export async function writeColumns(tx: Tx, table: Table, key: Row, columns: Row): Promise<void> {
  const names = Object.keys(columns);
  if (names.length === 0) return;
  const sets = names.map((c) => `${ident(table, c)} = r.${ident(table, c)}`).join(", ");
  await tx.query(
    `update ${ident(table)} as t set ${sets} from jsonb_populate_record(null::${ident(table)}, $2::jsonb) as r where ${where(table)}`,
    [keyOf(table, key), JSON.stringify(columns)],
  );
}

/** Puts removed rows back as they were, into the workshop of the transaction: one statement for those of the same columns. */
export async function putBack(tx: Tx, table: Table, rows: readonly Row[]): Promise<void> {
  const alike = new Map<string, Row[]>();
  for (const row of rows) {
    const { workshop_id: _, ...own } = row;
    addTo(alike, Object.keys(own).sort().join(" "), own);
  }
  for (const [columns, some] of alike) {
    const list = columns.split(" ");
    await tx.query(
      `insert into ${ident(table)} (workshop_id, ${idents(table, list)}) select current_workshop(), ${idents(table, list, "r.")} from jsonb_populate_recordset(null::${ident(table)}, $1::jsonb) as r`,
      [JSON.stringify(some)],
    );
  }
}

/** Removes rows; whatever hangs on them goes with them. */
export async function removeRows(tx: Tx, table: Table, keys: readonly Row[]): Promise<void> {
  const same = descriptorOf(table)
    .key.map((c) => `t.${ident(table, c)} = k.${ident(table, c)}`)
    .join(" and ");
  await tx.query(
    `delete from ${ident(table)} as t using jsonb_populate_recordset(null::${ident(table)}, $1::jsonb) as k where ${same}`,
    [JSON.stringify(keys)],
  );
}

/**
 * A row as it was at an earlier version: the recorded changes since are laid over it backwards.
 * @throws AppError STALE_VERSION when the record does not reach back that far
 */
export async function rowAt(tx: Tx, table: Table, key: Row, now: Row, version: number): Promise<Row> {
  if (version === now.version) return now;
  const { rows } = await tx.query<{ was: Row; version: number }>(
    "select was, version from change_row where tbl = $1 and row_key = ($2::jsonb)::text and op = 'update' and version > $3 order by version desc",
    [table, JSON.stringify(key), version],
  );
  if (version > Number(now.version) || rows.length !== Number(now.version) - version)
    throw new AppError(
      "STALE_VERSION",
      "This was changed in between, further back than the record reaches; your change was not saved.",
      "The page shows the newest state now; change it again there.",
    );
  const then: Record<string, Json> = { ...now };
  for (const r of rows) Object.assign(then, r.was);
  return then;
}

/** Who last changed some columns of a row, and when; the newest first. */
export async function lastChange(
  tx: Tx,
  table: Table,
  key: Row,
  column: string,
  since = 0,
): Promise<{ person: string; at: string } | undefined> {
  const { rows } = await tx.query<{ person: string; at: Date }>(
    `select c.person, c.at from change_row as r join change as c on c.id = r.change_id
     where r.tbl = $1 and r.row_key = ($2::jsonb)::text and r.change_id > $4 and (r.op <> 'update' or r.became ? $3)
     order by r.id desc limit 1`,
    [table, JSON.stringify(key), column, since],
  );
  return rows[0] && { person: rows[0].person, at: rows[0].at.toISOString() };
}

/** What one page changed of a row after a version, oldest first: the columns before and after. */
export async function changesOfPage(
  tx: Tx,
  table: Table,
  key: Row,
  sinceVersion: number,
  page: string,
): Promise<{ readonly was: Row; readonly became: Row }[]> {
  const { rows } = await tx.query<{ was: Row; became: Row }>(
    `select r.was, r.became from change_row as r join change as c on c.id = r.change_id
     where r.tbl = $1 and r.row_key = ($2::jsonb)::text and r.op = 'update' and r.version > $3 and c.page = $4
     order by r.version`,
    [table, JSON.stringify(key), sinceVersion, page],
  );
  return rows;
}
