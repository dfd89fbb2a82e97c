import { TABLE_ORDER } from "../history/rows.ts";

/** The major version of the archive; a reader takes every archive of a version up to its own. */
export const BACKUP_VERSION = 1;

/** What stands at the front of a backup, `manifest.json`. */
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
