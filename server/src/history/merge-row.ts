import { AppError } from "@kobbin/core";
import type { Tx } from "../db/pool.ts";
import type { Table } from "../schema/tables.ts";
import { type Clash, isSame, type Json, mergeThree } from "./merge.ts";
import { lastChange, maybeRow, type Row, rowAt, wasSetElsewhere, writeColumns } from "./rows.ts";
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
  const base = await rowAt(tx, table, key, now, seen);
  const mine = lay(base);
  const columns: Record<string, Json> = {};
  const clashes: Clash[] = [];
  for (const [column, wanted] of Object.entries(mine)) {
    const merged = mergeThree(base[column], wanted, now[column], [column]);
    clashes.push(...merged.clashes);
    if (!isSame(merged.value, now[column])) columns[column] = merged.value ?? null;
  }
  const quarrels: Clash[] = [];
  for (const c of clashes) {
    // what this same page set before is what the person saw when they went on
    if (page && !(await wasSetElsewhere(tx, table, key, c.path[0]!, seen, page))) {
      const column = c.path[0]!;
      columns[column] = setAt(columns[column] ?? now[column], c.path.slice(1), c.mine) ?? null;
    } else quarrels.push(c);
  }
  if (quarrels.length > 0) throw await clashError(tx, table, key, quarrels, thing);
  await writeColumns(tx, table, key, columns);
  return { ...now, ...columns };
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

/** A value with one place inside it set. */
function setAt(value: Json | undefined, path: readonly string[], to: Json | undefined): Json | undefined {
  const [key, ...rest] = path;
  if (key === undefined) return to;
  const { [key]: old, ...others } = (value ?? {}) as Row;
  const inner = setAt(old, rest, to);
  return inner === undefined ? others : { ...others, [key]: inner };
}

const nest = (path: readonly string[]): Json =>
  path.length === 0 ? "value" : { [path[0]!]: nest(path.slice(1)) };
