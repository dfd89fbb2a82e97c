import { createHash } from "node:crypto";
import { type Pool, shareOf, type Tx } from "../db/pool.ts";
import { one } from "../db/tx.ts";
import { type LazyEntry, zipStream } from "../zip.ts";
import { BACKUP_TABLES, BACKUP_VERSION, type BackupManifest } from "./format.ts";
import { backupRows } from "./statements.ts";

const BATCH = 200;

/**
 * Writes a whole workshop as one archive: every row as JSON, every original file, a manifest with counts and hashes.
 * Taken from one moment (repeatable read), while others go on working.
 *
 * @param write takes a piece of the archive; awaited, so that a slow reader slows the writing, not the memory
 */
export async function writeBackup(
  pool: Pool,
  workshopId: string,
  write: (chunk: Uint8Array) => Promise<void> | void,
  now: Date,
): Promise<BackupManifest> {
  const release = await shareOf(pool).take(workshopId);
  const tx = await pool.connect();
  try {
    await tx.query("begin isolation level repeatable read read only");
    // a reader may be slow; between two pieces the transaction waits for it
    await tx.query(
      "select set_config('app.workshop', $1, true), set_config('idle_in_transaction_session_timeout', '10min', true)",
      [workshopId],
    );
    const tables: Record<string, number> = {};
    const sha256: Record<string, string> = {};
    const { rows: blobs } = await tx.query<{ sha256: string }>("select sha256 from blob order by sha256");
    const { rows: shop } = await tx.query<{ name: string }>(
      "select name from workshop where id = current_workshop()",
    );
    let manifest: BackupManifest | undefined;
    const entries: LazyEntry[] = [
      ...BACKUP_TABLES.map((table) => ({
        path: `tables/${table}.jsonl`,
        bytes: async () => {
          const lines = await tableLines(tx, table);
          const bytes = new TextEncoder().encode(lines.join(""));
          tables[table] = lines.length;
          sha256[table] = createHash("sha256").update(bytes).digest("hex");
          return bytes;
        },
      })),
      ...blobs.map(({ sha256: hash }) => ({
        path: `files/${hash}`,
        bytes: async () => {
          const { rows } = await tx.query<{ bytes: Buffer }>("select bytes from blob where sha256 = $1", [
            hash,
          ]);
          return one(rows, "file").bytes;
        },
      })),
      {
        path: "manifest.json",
        bytes: async () => {
          manifest = {
            kobbin: `workshop/${BACKUP_VERSION}`,
            createdAt: now.toISOString(),
            shop: one(shop, "shop").name,
            tables,
            sha256,
            files: blobs.length,
          };
          return new TextEncoder().encode(`${JSON.stringify(manifest, null, 1)}\n`);
        },
      },
    ];
    for await (const chunk of zipStream(entries, now)) await write(chunk as Uint8Array);
    await tx.query("commit");
    return manifest!;
  } catch (error) {
    await tx.query("rollback").catch(() => undefined);
    throw error;
  } finally {
    tx.release();
    release();
  }
}

/** All rows of a table as lines of JSON, in the order of their keys, fetched in batches. */
async function tableLines(tx: Tx, table: string): Promise<string[]> {
  const lines: string[] = [];
  await tx.query(`declare rows_of_backup no scroll cursor for ${backupRows(table)}`);
  for (;;) {
    const { rows } = await tx.query<{ line: string }>(`fetch ${BATCH} from rows_of_backup`);
    if (rows.length === 0) break;
    for (const r of rows) lines.push(`${r.line}\n`);
  }
  await tx.query("close rows_of_backup");
  return lines;
}
