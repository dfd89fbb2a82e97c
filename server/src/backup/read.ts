import { createHash, randomUUID } from "node:crypto";
import { AppError } from "@kobbin/core";
import { openDrop, sha256Hex } from "@kobbin/formats";
import type { Tx } from "../db/pool.ts";
import { BACKUP_TABLES, BACKUP_VERSION, type BackupManifest } from "./format.ts";

const LIMITS = { maxBytes: 2 * 1024 * 1024 * 1024, maxEntries: 200_000, maxRatio: 1000 };
const UUIDS = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g;

type Row = Record<string, unknown>;

/** An opened backup: checked, nothing stored yet. */
export interface OpenedBackup {
  readonly manifest: BackupManifest;
  readonly tables: ReadonlyMap<string, string>;
  readonly files: ReadonlyMap<string, Uint8Array>;
}

const refuse = (what: string) =>
  new AppError(
    "ARCHIVE_INVALID",
    `This is no backup Kobbin can read: ${what}.`,
    "Nothing was changed. Try another archive.",
  );

/**
 * Opens a backup and checks it whole: its version, every table's count and hash, every file against its name.
 * @throws AppError ARCHIVE_INVALID saying what is wrong
 */
export function openBackup(bytes: Uint8Array): OpenedBackup {
  const opened = openDrop([{ path: "backup.zip", bytes }], LIMITS);
  const damaged = opened.rejected ?? opened.notes[0]?.text;
  if (damaged) throw refuse(damaged.replace(/\.$/, ""));
  const by = new Map(opened.files.map((f) => [f.path, f.bytes]));
  const text = (path: string) => {
    const b = by.get(path);
    return b && new TextDecoder().decode(b);
  };
  let manifest: BackupManifest;
  try {
    manifest = JSON.parse(text("manifest.json") ?? "") as BackupManifest;
  } catch {
    throw refuse("it has no manifest");
  }
  const version = /^workshop\/(\d+)$/.exec(manifest.kobbin ?? "")?.[1];
  if (!version) throw refuse("it is not the backup of a workshop");
  if (Number(version) > BACKUP_VERSION)
    throw refuse(
      `it was written by a newer Kobbin (${manifest.kobbin}, this one reads up to workshop/${BACKUP_VERSION})`,
    );
  const tables = new Map<string, string>();
  for (const [table, count] of Object.entries(manifest.tables)) {
    const lines = text(`tables/${table}.jsonl`);
    if (lines === undefined) throw refuse(`the table ${table} is missing`);
    if (lines.split("\n").length - 1 !== count) throw refuse(`the table ${table} is cut off`);
    if (createHash("sha256").update(lines).digest("hex") !== manifest.sha256[table])
      throw refuse(`the table ${table} was altered`);
    tables.set(table, lines);
  }
  const files = new Map<string, Uint8Array>();
  for (const [path, b] of by)
    if (path.startsWith("files/")) {
      const hash = path.slice("files/".length);
      if (sha256Hex(b) !== hash) throw refuse(`the file ${hash.slice(0, 12)}… is damaged`);
      files.set(hash, b);
    }
  if (files.size !== manifest.files) throw refuse("original files are missing");
  return { manifest, tables, files };
}

/**
 * Puts a backup into the database as a new workshop, beside whatever is there: every id is a new one, so that the same
 * backup may be read twice. Runs in the caller's transaction and leaves the workshop set.
 *
 * @returns the id of the new workshop
 */
export async function restoreBackup(tx: Tx, backup: OpenedBackup, name?: string): Promise<string> {
  const fresh = newIds(backup);
  const rowsOf = (table: string): Row[] =>
    (backup.tables.get(table) ?? "")
      .split("\n")
      .filter((l) => l !== "")
      .map((l) => JSON.parse(l.replace(UUIDS, (id) => fresh.get(id) ?? id)) as Row);
  const [shop] = rowsOf("workshop");
  if (!shop) throw refuse("it holds no workshop");
  const workshopId = String(shop.id);
  await tx.query("select set_config('app.workshop', $1, true), set_config('app.change', 'off', true)", [
    workshopId,
  ]);
  await insertRows(tx, "workshop", [{ ...shop, ...(name ? { name } : {}), is_demo: false }], false);
  for (const [hash, bytes] of backup.files)
    await tx.query("insert into blob (workshop_id, sha256, bytes) values ($1, $2, $3)", [
      workshopId,
      hash,
      Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength),
    ]);
  for (const table of BACKUP_TABLES)
    if (!["workshop", "change", "change_row"].includes(table))
      await insertRows(
        tx,
        table,
        table === "bom_line" ? onBoards(rowsOf("bom_line"), rowsOf("board")) : rowsOf(table),
        true,
      );
  await restoreHistory(tx, rowsOf("change"), rowsOf("change_row"));
  await tx.query(
    "insert into figures_due (run_id, workshop_id) select id, workshop_id from run where state = 'open'",
  );
  return workshopId;
}

/** Lines written before lines knew their board are on the only one of their revision, as migration 0008 has it. */
function onBoards(lines: readonly Row[], boards: readonly Row[]): readonly Row[] {
  return lines.map((l) => {
    const own = "board_id" in l ? [] : boards.filter((b) => b.revision_id === l.revision_id);
    return own.length === 1 ? { ...l, board_id: own[0]!.id } : l;
  });
}

/** A new id for every id a row of the backup carries. */
function newIds(backup: OpenedBackup): Map<string, string> {
  const fresh = new Map<string, string>();
  for (const [table, lines] of backup.tables)
    if (table !== "change" && table !== "change_row")
      for (const line of lines.split("\n")) {
        const id = line && (JSON.parse(line) as Row).id;
        if (typeof id === "string") fresh.set(id, randomUUID());
      }
  return fresh;
}

/** History keeps its order and its words; who did it stays as a name, since accounts do not travel. */
async function restoreHistory(tx: Tx, changes: readonly Row[], rows: readonly Row[]): Promise<void> {
  if (changes.length === 0) return;
  const { rows: ids } = await tx.query<{ id: string }>(
    "select nextval('change_id_seq')::text as id from generate_series(1, $1::int)",
    [changes.length],
  );
  const map = new Map(changes.map((c, i) => [String(c.id), ids[i]!.id]));
  const moved = (id: unknown) => (id == null ? null : (map.get(String(id)) ?? null));
  const list = changes.map((c) => ({ ...c, id: moved(c.id), account_id: null, request_key: null }));
  // first the changes, then what points from one to another
  await insertRows(
    tx,
    "change",
    list.map((c) => ({ ...c, undoes: null, undone_by: null })),
    true,
  );
  for (const c of changes as readonly { id: unknown; undoes?: unknown; undone_by?: unknown }[])
    if (c.undoes != null || c.undone_by != null)
      await tx.query("update change set undoes = $2, undone_by = $3 where id = $1", [
        moved(c.id),
        moved(c.undoes),
        moved(c.undone_by),
      ]);
  await insertRows(
    tx,
    "change_row",
    rows.map(({ id: _, ...r }) => ({ ...r, change_id: moved(r.change_id) })),
    true,
  );
}

/** Inserts rows with the columns they carry and the table still has; columns that came later take their defaults. */
async function insertRows(tx: Tx, table: string, rows: readonly Row[], isOwned: boolean): Promise<void> {
  if (rows.length === 0) return;
  const { rows: known } = await tx.query<{ name: string }>(
    "select column_name as name from information_schema.columns where table_schema = 'public' and table_name = $1",
    [table],
  );
  const columns = known.map((c) => c.name).filter((c) => rows.some((r) => c in r));
  const list = columns.map((c) => `"${c}"`).join(", ");
  const from = columns.map((c) => `r."${c}"`).join(", ");
  for (let i = 0; i < rows.length; i += 500)
    await tx.query(
      `insert into ${table} (${isOwned ? "workshop_id, " : ""}${list}) overriding system value
       select ${isOwned ? "current_workshop(), " : ""}${from} from jsonb_populate_recordset(null::${table}, $1::jsonb) as r`,
      [JSON.stringify(rows.slice(i, i + 500))],
    );
}
