import { createHash } from "node:crypto";
import { createZip } from "@kobbin/formats";
import type { Pool, Tx } from "../db/pool.ts";
import { one } from "../db/tx.ts";
import { BACKUP_TABLES, BACKUP_VERSION, type BackupManifest } from "./format.ts";

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
  const tx = await pool.connect();
  try {
    await tx.query("begin isolation level repeatable read read only");
    await tx.query("select set_config('app.workshop', $1, true)", [workshopId]);
    const waiting: Uint8Array[] = [];
    const zip = createZip((chunk) => waiting.push(chunk));
    const flush = async () => {
      for (const chunk of waiting.splice(0)) await write(chunk);
    };
    const tables: Record<string, number> = {};
    const sha256: Record<string, string> = {};
    for (const table of BACKUP_TABLES) {
      const lines = await tableLines(tx, table);
      const bytes = new TextEncoder().encode(lines.join(""));
      tables[table] = lines.length;
      sha256[table] = createHash("sha256").update(bytes).digest("hex");
      zip.add(`tables/${table}.jsonl`, [bytes], now);
      await flush();
    }
    const { rows: blobs } = await tx.query<{ sha256: string }>("select sha256 from blob order by sha256");
    for (const { sha256: hash } of blobs) {
      const { rows } = await tx.query<{ bytes: Buffer }>("select bytes from blob where sha256 = $1", [hash]);
      zip.add(`files/${hash}`, [new Uint8Array(rows[0]!.bytes)], now);
      await flush();
    }
    const { rows: shop } = await tx.query<{ name: string }>(
      "select name from workshop where id = current_workshop()",
    );
    const manifest: BackupManifest = {
      kobbin: `workshop/${BACKUP_VERSION}`,
      createdAt: now.toISOString(),
      shop: one(shop, "shop").name,
      tables,
      sha256,
      files: blobs.length,
    };
    zip.add("manifest.json", [new TextEncoder().encode(`${JSON.stringify(manifest, null, 1)}\n`)], now);
    zip.end();
    await flush();
    await tx.query("commit");
    return manifest;
  } catch (error) {
    await tx.query("rollback").catch(() => undefined);
    throw error;
  } finally {
    tx.release();
  }
}

/** All rows of a table as lines of JSON, in the order of their keys, fetched in batches. */
async function tableLines(tx: Tx, table: string): Promise<string[]> {
  const lines: string[] = [];
  const whose = table === "workshop" ? "where t.id = current_workshop()" : "";
  await tx.query(
    `declare rows_of_backup no scroll cursor for select (to_jsonb(t) - 'workshop_id')::text as line from ${table} as t ${whose} order by ${table.startsWith("change") ? "t.id" : "1"}`,
  );
  for (;;) {
    const { rows } = await tx.query<{ line: string }>(`fetch ${BATCH} from rows_of_backup`);
    if (rows.length === 0) break;
    for (const r of rows) lines.push(`${r.line}\n`);
  }
  await tx.query("close rows_of_backup");
  return lines;
}
