import { AppError } from "@kobbin/core";
import type { Tx } from "../db/pool.ts";
import type { Table } from "../schema/tables.ts";
import { type Clash, isSame, type Json, mergeThree } from "./merge.ts";
import { changesOfPage, lastChange, maybeRow, type Row, rowAt, writeColumns } from "./rows.ts";
import { fieldsOf } from "./sentence.ts";

/**
 * Changes a row somebody saw at an earlier version: other fields that changed since stay as they are now.
 *
 * @param lay what the person wants, laid over the row as they saw it; only the columns named count
 * @param page the open page it comes from; what that page set itself since is no clash
 * @throws AppError STALE_VERSION where the same field was set differently since, with both values, by whom and when
 */
export async function mergeRow(
  tx: Tx,
  table: Table,
  key: Row,
  seen: number,
  lay: (row: Row) => Row,
  thing: string,
  page?: string,
): Promise<Row> {
  const now = await maybeRow(tx, table, key);
  if (!now)
    throw new AppError(
      "NOT_FOUND",
      `The ${thing} is not there any more.`,
      "Somebody removed it; the history says who, and can take it back.",
    );
  const base = await asSeen(tx, table, key, await rowAt(tx, table, key, now, seen), seen, page);
  const mine = lay(base);
  const columns: Record<string, Json> = {};
  const clashes: Clash[] = [];
  for (const [column, wanted] of Object.entries(mine)) {
    const merged = mergeThree(base[column], wanted, now[column], [column]);
    clashes.push(...merged.clashes);
    if (!isSame(merged.value, now[column])) columns[column] = merged.value ?? null;
  }
  if (clashes.length > 0) throw await clashError(tx, table, key, clashes, thing);
  await writeColumns(tx, table, key, columns);
  return { ...now, ...columns };
}

/**
 * The row as a page showed it when its person went on: as it was fetched, with what that page itself changed since laid over it.
 * A value that is set back to what was fetched is a change then, not the absence of one.
 */
async function asSeen(
  tx: Tx,
  table: Table,
  key: Row,
  fetched: Row,
  version: number,
  page: string | undefined,
): Promise<Row> {
  if (page === undefined) return fetched;
  const row: Record<string, Json> = { ...fetched };
  for (const { was, became } of await changesOfPage(tx, table, key, version, page))
    for (const column of Object.keys(became))
      row[column] = mergeThree(was[column], became[column], row[column]).value ?? null;
  return row;
}

/** The error that carries both values of everything that clashes. */
export async function clashError(
  tx: Tx,
  table: Table,
  key: Row,
  clashes: readonly Clash[],
  thing: string,
  since = 0,
): Promise<AppError> {
  const details = [];
  for (const c of clashes) {
    const by = await lastChange(tx, table, key, c.path[0]!, since);
    const [told] = fieldsOf({ [c.path[0]!]: null }, { [c.path[0]!]: nest(c.path.slice(1)) });
    details.push({
      field: told?.label ?? c.path.join(" "),
      path: c.path,
      mine: c.mine ?? null,
      theirs: c.theirs ?? null,
      ...(by ? { person: by.person, at: by.at } : {}),
    });
  }
  const first = details[0]!;
  return new AppError(
    "STALE_VERSION",
    `${first.person ?? "Somebody"} changed the ${first.field} of ${thing} in between.`,
    "Choose which of the two is to stand.",
    { details: { clashes: details } },
  );
}

const nest = (path: readonly string[]): Json =>
  path.length === 0 ? "value" : { [path[0]!]: nest(path.slice(1)) };
