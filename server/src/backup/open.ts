import { createHash } from "node:crypto";
import { createWriteStream } from "node:fs";
import { readFile } from "node:fs/promises";
import { join } from "node:path";
import type { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { promisify } from "node:util";
import { PHOTO_BYTES, plainJpeg } from "@kobbin/formats";
import yauzl from "yauzl";
import { BACKUP_TABLES, type BackupManifest, readManifest, refuse } from "./format.ts";
import { type CheckedRows, checkRows } from "./rows.ts";

/** Bounds of a backup; counted while it is unpacked. */
export const BACKUP_LIMITS = {
  /** The archive itself. */
  archiveBytes: 512 * 1024 * 1024,
  /** Rows, all tables together, as text. */
  tableBytes: 192 * 1024 * 1024,
  fileBytes: 1024 * 1024 * 1024,
  entries: 100_000,
};

/** A backup that was read whole: every row checked and numbered anew, every file on the disk under its hash. */
export interface OpenedBackup extends CheckedRows {
  readonly manifest: BackupManifest;
  readonly files: readonly { readonly sha256: string; readonly file: string; readonly size: number }[];
}

/**
 * Opens a backup and checks it whole: version, counts and hashes, every file against its name, every row against what
 * its table holds, every reference against what is there. Reads the archive from the disk a piece at a time.
 *
 * @param archive the archive's place on the disk
 * @param own a folder for its files
 * @throws AppError ARCHIVE_INVALID saying what is wrong, with the first problems as details
 */
export async function openBackup(archive: string, own: string): Promise<OpenedBackup> {
  const { texts, files } = await unpack(archive, own);
  const manifest = readManifest(texts.get("manifest.json"));
  const tables = new Map<string, string>();
  for (const [table, count] of Object.entries(manifest.tables)) {
    const lines = texts.get(`tables/${table}.jsonl`);
    if (lines === undefined) throw refuse(`the table ${table} is missing`);
    if (lines.split("\n").length - 1 !== count) throw refuse(`the table ${table} is cut off`);
    if (createHash("sha256").update(lines).digest("hex") !== manifest.sha256[table])
      throw refuse(`the table ${table} was altered`);
    tables.set(table, lines);
  }
  if (files.length !== manifest.files) throw refuse("original files are missing");
  const checked = checkRows(tables, new Set(files.map((f) => f.sha256)));
  await checkPhotos(checked.photos, new Map(files.map((f) => [f.sha256, f])));
  return { manifest, files, ...checked };
}

/** What is shown as a photo is one, bounded and without what a camera writes beside it, as if it had been taken here. */
async function checkPhotos(
  hashes: ReadonlySet<string>,
  files: ReadonlyMap<string, { readonly file: string; readonly size: number }>,
): Promise<void> {
  for (const hash of hashes) {
    const { file, size } = files.get(hash)!;
    const photo = size <= PHOTO_BYTES && plainJpeg(new Uint8Array(await readFile(file)));
    if (!photo || "wrong" in photo || photo.bytes.length !== size)
      throw refuse(`the file ${hash.slice(0, 12)}… is no photo that may be kept`);
  }
}

type Zip = yauzl.ZipFile;

async function unpack(
  archive: string,
  own: string,
): Promise<{ texts: Map<string, string>; files: { sha256: string; file: string; size: number }[] }> {
  const texts = new Map<string, string>();
  const files: { sha256: string; file: string; size: number }[] = [];
  const seen = new Set<string>();
  const left = { table: BACKUP_LIMITS.tableBytes, file: BACKUP_LIMITS.fileBytes };
  let zip: Zip;
  try {
    zip = await promisify<string, yauzl.Options, Zip>(yauzl.open)(archive, {
      lazyEntries: true,
      validateEntrySizes: true,
      autoClose: false,
    });
  } catch {
    throw refuse("it is no zip archive, or is cut off");
  }
  try {
    if (zip.entryCount > BACKUP_LIMITS.entries) throw refuse("it holds too many entries");
    for await (const entry of entriesOf(zip)) {
      const name = entry.fileName;
      if (name.endsWith("/")) continue;
      if (seen.has(name)) throw refuse(`the entry ${name.slice(0, 80)} stands twice`);
      seen.add(name);
      if ((entry.generalPurposeBitFlag & 1) !== 0) throw refuse("it is encrypted");
      const hash = /^files\/([0-9a-f]{64})$/.exec(name)?.[1];
      const isText = name === "manifest.json" || BACKUP_TABLES.some((t) => name === `tables/${t}.jsonl`);
      if (!hash && !isText) continue;
      const kind = hash ? "file" : "table";
      left[kind] -= entry.uncompressedSize;
      if (left[kind] < 0) throw refuse("unpacked it is larger than a backup may be");
      const stream = await promisify<yauzl.Entry, Readable>(zip.openReadStream.bind(zip))(entry);
      if (hash) {
        const file = join(own, hash);
        const sum = createHash("sha256");
        stream.on("data", (c: Buffer) => sum.update(c));
        await pipeline(stream, createWriteStream(file, { mode: 0o600 }));
        if (sum.digest("hex") !== hash) throw refuse(`the file ${hash.slice(0, 12)}… is damaged`);
        files.push({ sha256: hash, file, size: entry.uncompressedSize });
      } else {
        const parts: Buffer[] = [];
        for await (const c of stream) parts.push(c as Buffer);
        texts.set(name, new TextDecoder().decode(Buffer.concat(parts)));
      }
    }
  } catch (error) {
    if ((error as { code?: unknown }).code === "ARCHIVE_INVALID") throw error;
    throw refuse("it is damaged, or cut off");
  } finally {
    zip.close();
  }
  return { texts, files };
}

async function* entriesOf(zip: Zip): AsyncGenerator<yauzl.Entry> {
  for (let n = 0; n < zip.entryCount; n++)
    yield await new Promise<yauzl.Entry>((resolve, reject) => {
      const done = () => {
        zip.off("entry", entry);
        zip.off("error", failed);
        zip.off("end", ended);
      };
      const entry = (e: yauzl.Entry) => {
        done();
        resolve(e);
      };
      const failed = (e: Error) => {
        done();
        reject(e);
      };
      const ended = () => failed(new Error("fewer entries than announced"));
      zip.on("entry", entry);
      zip.on("error", failed);
      zip.on("end", ended);
      zip.readEntry();
    });
}
