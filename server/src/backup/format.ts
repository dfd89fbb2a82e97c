import { AppError, shapes } from "@kobbin/core";
import { TABLE_ORDER } from "../schema/tables.ts";

/** The major version of the archive; a reader takes every archive of a version up to its own. */
export const BACKUP_VERSION = 1;

/** What stands in a backup's `manifest.json`. */
export interface BackupManifest {
  readonly kobbin: `workshop/${number}`;
  readonly createdAt: string;
  readonly shop: string;
  /** Rows by table; a table is `tables/<name>.jsonl`, one row a line. */
  readonly tables: Readonly<Record<string, number>>;
  /** SHA-256 of each table's text. */
  readonly sha256: Readonly<Record<string, string>>;
  /** Original files, `files/<sha256>`. */
  readonly files: number;
}

/** Tables of an archive in the order they are written and read: parents first, the history last. */
export const BACKUP_TABLES: readonly string[] = [...TABLE_ORDER, "change", "change_row"];

const { fields, instant, mapOf, matching, text, whole } = shapes;
const hash = matching(/^[0-9a-f]{64}$/, "a hash");
const shape = fields({
  kobbin: matching(/^workshop\/\d{1,6}$/, "the word of a workshop's backup"),
  createdAt: instant,
  shop: text(120, 1),
  tables: mapOf(whole(0, 5_000_000), 100),
  sha256: mapOf(hash, 100),
  files: whole(0, 200_000),
});

/** What a backup that cannot be taken is answered with. */
export const refuse = (what: string, problems?: readonly string[]) =>
  new AppError(
    "ARCHIVE_INVALID",
    `This is no backup Kobbin can read: ${what}.`,
    "Nothing was changed. Try another archive.",
    problems ? { details: { problems } } : {},
  );

/** @throws AppError ARCHIVE_INVALID */
export function readManifest(json: string | undefined): BackupManifest {
  let value: unknown;
  try {
    value = JSON.parse(json ?? "");
  } catch {
    throw refuse("it has no manifest");
  }
  const said = (value as { kobbin?: unknown } | null)?.kobbin;
  const version = /^workshop\/(\d{1,6})$/.exec(typeof said === "string" ? said : "")?.[1];
  if (!version) throw refuse("it is not the backup of a workshop");
  if (Number(version) > BACKUP_VERSION)
    throw refuse(
      `it was written by a newer Kobbin (${String(said)}, this one reads up to workshop/${BACKUP_VERSION})`,
    );
  const wrong = shape(value, "");
  if (wrong) throw refuse(`in its manifest ${wrong}`);
  const manifest = value as BackupManifest;
  const strange = Object.keys(manifest.tables).find((t) => !BACKUP_TABLES.includes(t));
  if (strange) throw refuse(`it holds a table “${strange.slice(0, 60)}” that Kobbin does not have`);
  return manifest;
}
