import { AppError, addTo, isDecided, type MemberRole, mayTakeBack } from "@kobbin/core";
import type { Tx } from "../db/pool.ts";
import { descriptorOf, TABLE_ORDER, type Table } from "../schema/tables.ts";
import { type ChangeNow, manyChangedRows, stateOfRun } from "./change.ts";
import { type Clash, isSame, type Json, mergeThree } from "./merge.ts";
import { clashError } from "./merge-row.ts";
import { maybeRow, putBack, removeRows, writeColumns } from "./rows.ts";
import type { ChangedRow } from "./sentence.ts";

interface StoredChange {
  readonly id: string;
  readonly sentence: string;
  readonly productId: string | null;
  readonly revisionId: string | null;
  readonly runId: string | null;
  readonly undoneBy: string | null;
  readonly undoes: string | null;
  readonly isFinal: boolean;
  /** For a taking back: what it took back stands again. */
  readonly isBrought: boolean;
}

const place = (r: ChangedRow) => TABLE_ORDER.indexOf(r.table);
const keyText = (r: Pick<ChangedRow, "table" | "key">) =>
  `${r.table} ${descriptorOf(r.table)
    .key.map((c) => String(r.key[c]))
    .join(" ")}`;

/**
 * Takes a change back, whole or not at all: added rows go, removed rows return, changed columns get their old values.
 * Taking back what took something back brings it again.
 *
 * @param isForced also where somebody set the same field since
 * @throws AppError STALE_VERSION with both values where somebody did; NOT_ALLOWED where it cannot be taken back
 */
export async function undoChange(
  tx: Tx,
  now: ChangeNow,
  id: string,
  isForced: boolean,
  role: MemberRole,
): Promise<void> {
  const change = await oneChange(tx, id);
  if (change.undoneBy)
    throw new AppError(
      "NOT_ALLOWED",
      `“${change.sentence}” was taken back already.`,
      "The history shows who did; it can be brought again from there.",
    );
  const rows = await manyChangedRows(tx, id);
  const tables = [...new Set(rows.map((r) => r.table))];
  const state = change.runId ? await stateOfRun(tx, change.runId) : undefined;
  if (role !== "owner" && !mayTakeBack(tables, undefined, role))
    throw new AppError(
      "NOT_ALLOWED",
      `“${change.sentence}” is an owner’s to take back.`,
      "At the bench you may take back what came, what was built, and remarks.",
    );
  if (change.isFinal || !mayTakeBack(tables, state, role)) {
    const isOpenedAgain = state === "closed" && !change.isFinal && !tables.some(isDecided);
    throw new AppError(
      "NOT_ALLOWED",
      `“${change.sentence}” cannot be taken back: ${isOpenedAgain ? "the run is closed" : "what was ordered stays as it was"}.`,
      isOpenedAgain ? "Take the closing back first." : "Start a new run to change something.",
    );
  }
  if (change.undoes && change.isBrought)
    throw new AppError(
      "NOT_ALLOWED",
      `“${change.sentence}” stands no more: it was brought again already.`,
      "Reload the history to see how things stand.",
    );
  await turnAllBack(tx, rows, change, isForced);

  // what hangs on a row that goes would go with it: then nothing is done
  const own = new Set(rows.map(keyText));
  const more = (await manyChangedRows(tx, now.id)).filter((r) => !own.has(keyText(r)));
  if (more.length > 0) {
    const first = more.find((r) => r.name) ?? more[0]!;
    throw new AppError(
      "STALE_VERSION",
      `“${change.sentence}” cannot be taken back any more: ${first.name ? `“${first.name}”` : "something"} was built on it since.`,
      "Take back the later changes first; the history lists them.",
    );
  }
  await tx.query("update change set undone_by = $2 where id = $1", [id, now.id]);
  await tx.query("update change set undoes = $2 where id = $1", [now.id, id]);
  // what is brought again can be taken back once more
  if (change.undoes) await tx.query("update change set undone_by = null where id = $1", [change.undoes]);
  now.about({
    ...(change.productId ? { productId: change.productId } : {}),
    ...(change.revisionId ? { revisionId: change.revisionId } : {}),
    ...(change.runId ? { runId: change.runId } : {}),
  });
  const inner = /^(?:taken back|brought again): (.*)$/.exec(change.sentence)?.[1];
  now.says(change.undoes ? `brought again: ${inner ?? change.sentence}` : `taken back: ${change.sentence}`);
}

async function turnAllBack(
  tx: Tx,
  rows: readonly ChangedRow[],
  change: StoredChange,
  isForced: boolean,
): Promise<void> {
  const down = [...rows].sort((a, b) => place(a) - place(b));
  for (const [table, gone] of byTable(down, "delete"))
    await putBack(
      tx,
      table,
      gone.map((r) => r.was!),
    );
  // newest first: a row that changed twice in one change ends as it was before the first
  for (const r of [...rows].reverse()) if (r.op === "update") await turnBack(tx, r, change, isForced);
  for (const [table, came] of byTable(down.reverse(), "insert"))
    await removeRows(
      tx,
      table,
      came.map((r) => r.key),
    );
}

/** The rows of a kind by their tables, the tables in the order they come in. */
function byTable(rows: readonly ChangedRow[], op: ChangedRow["op"]): Map<Table, ChangedRow[]> {
  const tables = new Map<Table, ChangedRow[]>();
  for (const r of rows) if (r.op === op) addTo(tables, r.table, r);
  return tables;
}

async function turnBack(tx: Tx, r: ChangedRow, change: StoredChange, isForced: boolean): Promise<void> {
  const current = await maybeRow(tx, r.table, r.key);
  if (!current)
    throw new AppError(
      "STALE_VERSION",
      `“${change.sentence}” cannot be taken back: ${r.name ? `“${r.name}”` : "what it changed"} was removed since.`,
      "Take back the removal first; the history lists it.",
    );
  const columns: Record<string, Json> = {};
  const clashes: Clash[] = [];
  for (const column of Object.keys(r.became!)) {
    const merged = mergeThree(r.became![column], r.was![column], current[column], [column]);
    clashes.push(...merged.clashes);
    const value = isForced && merged.clashes.length > 0 ? r.was![column] : merged.value;
    if (!isSame(value, current[column])) columns[column] = value ?? null;
  }
  if (clashes.length > 0 && !isForced)
    throw await clashError(
      tx,
      r.table,
      r.key,
      clashes,
      r.table === "fork" ? "this run" : (r.name ?? "it"),
      Number(change.id),
    );
  await writeColumns(tx, r.table, r.key, columns);
}

async function oneChange(tx: Tx, id: string): Promise<StoredChange> {
  const { rows } = await tx.query<StoredChange>(
    `select c.id, c.sentence, c.product_id as "productId", c.revision_id as "revisionId", c.run_id as "runId",
            c.undone_by as "undoneBy", c.undoes, c.is_final as "isFinal",
            not exists (select 1 from change as o where o.id = c.undoes and o.undone_by = c.id) as "isBrought"
     from change as c
     where c.id = $1 for update of c`,
    [/^\d{1,18}$/.test(id) ? id : "0"],
  );
  if (!rows[0])
    throw new AppError("NOT_FOUND", "There is no such change here.", "Look it up in the history.");
  return rows[0];
}
