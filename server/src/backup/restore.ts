import { readFile } from "node:fs/promises";
import type { Tx } from "../db/pool.ts";
import type { OpenedBackup } from "./open.ts";
import { insertRows } from "./statements.ts";

type Row = Record<string, unknown>;
const BATCH = 500;

/** How far it is: so many of so many rows are stored. May throw to end it. */
export type OnRows = (done: number, of: number) => void;

/**
 * Puts an opened backup into the database as a new workshop, beside whatever is there. Runs in the caller's transaction
 * and leaves the workshop set.
 *
 * @returns the id of the new workshop
 */
export async function restoreBackup(
  tx: Tx,
  backup: OpenedBackup,
  name?: string,
  onRows: OnRows = () => undefined,
): Promise<string> {
  const { workshopId } = backup;
  await tx.query(
    `select set_config('app.workshop', $1, true), set_config('app.change', 'off', true),
       set_config('statement_timeout', '60s', true), set_config('idle_in_transaction_session_timeout', '5min', true)`,
    [workshopId],
  );
  const [own, ...rest] = backup.batches;
  // the shop's own row goes before its files and everything else
  const [shop] = JSON.parse(own!.rows) as Row[];
  const row = { ...shop, ...(name ? { name } : {}), is_demo: false };
  await tx.query(insertRows("workshop", Object.keys(row)), [JSON.stringify([row])]);
  for (const f of backup.files)
    await tx.query("insert into blob (workshop_id, sha256, bytes) values ($1, $2, $3)", [
      workshopId,
      f.sha256,
      await readFile(f.file),
    ]);
  const { changes, changeRows } = backup;
  const of = rest.reduce((n, b) => n + b.count, changes.length + changeRows.length);
  let done = 0;
  const stored = (n: number) => {
    done += n;
    onRows(done, of);
  };
  for (const { table, columns, rows, count } of rest) {
    await tx.query(insertRows(table, columns), [rows]);
    stored(count);
  }
  await restoreHistory(tx, changes, changeRows, stored);
  await tx.query(
    `insert into figures_due (run_id, workshop_id) select r.id, r.workshop_id from run as r
     where r.workshop_id = $1
       and (r.state = 'open' or not exists (select 1 from fork as f where f.run_id = r.id and f.summary ? 'orders'))`,
    [workshopId],
  );
  return workshopId;
}

/** History keeps its order and its words; who did it stays as a name, since accounts do not travel. */
async function restoreHistory(
  tx: Tx,
  changes: readonly Row[],
  rows: readonly Row[],
  stored: (n: number) => void,
): Promise<void> {
  if (changes.length === 0) return;
  const { rows: ids } = await tx.query<{ id: string }>(
    "select nextval('change_id_seq')::text as id from generate_series(1, $1::int)",
    [changes.length],
  );
  const map = new Map(changes.map((c, i) => [String(c.id), ids[i]!.id]));
  const moved = (id: unknown) => (id == null ? null : (map.get(String(id)) ?? null));
  const columns = [
    "id",
    "at",
    "person",
    "sentence",
    "product_id",
    "revision_id",
    "run_id",
    "is_final",
    "page",
    "result",
  ];
  const pick = (row: Row, names: readonly string[]) =>
    Object.fromEntries(names.map((n) => [n, row[n] ?? null]));
  // first the changes, then what points from one to another
  for (const some of batchesOf(changes)) {
    await tx.query(insertRows("change", columns), [
      JSON.stringify(
        some.map((c) => ({
          ...pick(c, columns),
          id: moved(c.id),
          sentence: c.sentence ?? "",
          is_final: c.is_final ?? false,
        })),
      ),
    ]);
    stored(some.length);
  }
  const links = changes
    .filter((c) => c.undoes != null || c.undone_by != null)
    .map((c) => ({ id: moved(c.id), undoes: moved(c.undoes), undone_by: moved(c.undone_by) }));
  await tx.query(
    `update change as c set undoes = x.undoes, undone_by = x.undone_by
     from jsonb_to_recordset($1::jsonb) as x (id bigint, undoes bigint, undone_by bigint) where c.id = x.id`,
    [JSON.stringify(links)],
  );
  const recorded = ["change_id", "tbl", "key", "op", "name", "version", "was", "became"];
  for (const some of batchesOf(rows)) {
    await tx.query(insertRows("change_row", recorded), [
      JSON.stringify(some.map((r) => ({ ...pick(r, recorded), change_id: moved(r.change_id) }))),
    ]);
    stored(some.length);
  }
}

const batchesOf = (rows: readonly Row[]): (readonly Row[])[] =>
  Array.from({ length: Math.ceil(rows.length / BATCH) }, (_, i) => rows.slice(i * BATCH, (i + 1) * BATCH));
