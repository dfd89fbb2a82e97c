import { Unzip, UnzipInflate, Zip, ZipDeflate } from "fflate";
import { BudgetError, DropBudget } from "./budget.ts";
import { endOf, readDirectory, unpackEntry, type ZipEntry } from "./directory.ts";
import { cleanPath } from "./path.ts";

/** A file out of an archive, or a loose one. */
export interface FileEntry {
  readonly path: string;
  readonly bytes: Uint8Array;
}

/** Something about the archive itself that a person should know. */
export interface ArchiveNote {
  readonly tag:
    | "archive-invalid"
    | "archive-encrypted"
    | "archive-too-large"
    | "budget-reached"
    | "unsafe-path"
    | "duplicate-name";
  readonly level: "error" | "warning" | "remark";
  readonly file?: string;
  readonly text: string;
  readonly do?: string;
}

/** Files of a drop and what was wrong with it; `rejected` when nothing of it can be used. */
export interface Opened {
  readonly files: readonly FileEntry[];
  readonly notes: readonly ArchiveNote[];
  readonly rejected?: string;
}

const isZip = (u8: Uint8Array) => u8[0] === 0x50 && u8[1] === 0x4b && (u8[2] === 3 || u8[2] === 5);
const isSheet = (u8: Uint8Array) => {
  // an XLSX begins like a zip; its first entry names tell
  let head = "";
  for (let i = 0; i < Math.min(u8.length, 2048); i++) head += String.fromCharCode(u8[i]!);
  return /\[Content_Types\]|xl\/|_rels/.test(head);
};

/**
 * Opens dropped files: archives are unpacked in memory, loose files taken as they are.
 *
 * Entries with `..` or an absolute path are skipped with a note; archives inside archives stay closed. Nothing is ever
 * written anywhere. Everything is counted against one budget for the whole drop, before it is unpacked. Whatever of an
 * archive could not be read is an error: the set is not whole then.
 */
export function openDrop(dropped: readonly FileEntry[], budget: DropBudget = new DropBudget()): Opened {
  const files: FileEntry[] = [];
  const notes: ArchiveNote[] = [];
  let rejected: string | undefined;
  for (const d of dropped) {
    try {
      if (isZip(d.bytes) && !isSheet(d.bytes)) {
        const one = unpack(d, budget);
        files.push(...one.files);
        notes.push(...one.notes);
        if (one.rejected && one.files.length === 0) rejected = one.rejected;
      } else if (/\.zip$/i.test(d.path)) {
        rejected = `${d.path} is not a zip archive, or it is cut off at the front.`;
        notes.push(invalid(d.path, rejected));
      } else {
        budget.spend("entries", 1, `The drop holds more than ${budget.limits.entries} files.`);
        budget.spend("bytes", d.bytes.length, tooLarge(budget));
        files.push({ path: cleanPath(d.path), bytes: d.bytes });
      }
    } catch (error) {
      if (!(error instanceof BudgetError)) throw error;
      rejected = error.message;
      notes.push({
        tag: "archive-too-large",
        level: "error",
        file: d.path,
        text: error.message,
        do: "Drop only the board's own files.",
      });
    }
  }
  const seen = new Map<string, Uint8Array>();
  const unique = files.filter((f) => {
    const first = seen.get(f.path);
    if (first === undefined) {
      seen.set(f.path, f.bytes);
      return true;
    }
    if (!isSame(first, f.bytes)) notes.push(twice(f.path));
    return false;
  });
  if (unique.length === 0 && !rejected) rejected = "The drop holds no files.";
  return { files: unique, notes, ...(rejected && unique.length === 0 ? { rejected } : {}) };
}

const isSame = (a: Uint8Array, b: Uint8Array) => a.length === b.length && a.every((x, i) => x === b[i]);
const invalid = (file: string, text: string): ArchiveNote => ({
  tag: "archive-invalid",
  level: "error",
  file,
  text,
  do: "Pack the files again and drop the new archive.",
});
const twice = (file: string): ArchiveNote => ({
  tag: "duplicate-name",
  level: "error",
  file,
  text: "The name stands twice in the drop; the first one is used, the other one is not read.",
  do: "Drop only the files of one board, or give the other file a name of its own.",
});

const UNWANTED = /(^|\/)(__MACOSX|\.DS_Store|Thumbs\.db)/;
const isUnsafe = (name: string) => /(^|[\\/])\.\.([\\/]|$)/.test(name) || /^([\\/]|[A-Za-z]:)/.test(name);
const unsafePath = (name: string): ArchiveNote => ({
  tag: "unsafe-path",
  level: "warning",
  file: name,
  text: "The entry's path leads out of the archive; it was skipped.",
  do: "Pack the file without a path and drop it again.",
});
const tooMany = (budget: DropBudget) => `The drop holds more than ${budget.limits.entries} files.`;
const tooLarge = (budget: DropBudget) =>
  `Unpacked, the drop is larger than ${Math.round(budget.limits.bytes / 1048576)} MB.`;

/** So many times its packed size an entry of a megabyte and more may have; no board's file comes near it. */
const MOST_RATIO = 200;

/** An archive by its directory where that is sound, else entry by entry as far as it goes. */
function unpack(d: FileEntry, budget: DropBudget): Opened {
  const entries = readDirectory(d.bytes, budget.limits.entries * 2);
  return entries ? unpackByDirectory(d, entries, budget) : unpackAsFound(d, budget);
}

function unpackByDirectory(d: FileEntry, entries: readonly ZipEntry[], budget: DropBudget): Opened {
  const notes: ArchiveNote[] = [];
  const wanted: ZipEntry[] = [];
  for (const e of entries) {
    if (e.name.endsWith("/") || UNWANTED.test(e.name)) continue;
    if (isUnsafe(e.name)) {
      notes.push(unsafePath(e.name));
      continue;
    }
    budget.spend("entries", 1, tooMany(budget));
    budget.spend("bytes", e.size, tooLarge(budget));
    if (e.size > 1_000_000 && e.size > MOST_RATIO * d.bytes.length)
      throw new BudgetError(`The archive unpacks to more than ${MOST_RATIO} times its size.`);
    wanted.push(e);
  }
  if (wanted.length > 0 && wanted.every((e) => e.isEncrypted)) {
    const text = `${d.path} is encrypted: nothing in it can be read.`;
    return { files: [], notes: [{ ...invalid(d.path, text), ...LOCKED }], rejected: text };
  }
  const files: FileEntry[] = [];
  for (const e of wanted) {
    const path = cleanPath(e.name);
    const bytes = e.isEncrypted ? undefined : unpackEntry(d.bytes, e);
    if (bytes) files.push({ path, bytes });
    else if (e.isEncrypted)
      notes.push({ ...invalid(path, "The entry is encrypted and could not be read."), ...LOCKED });
    else
      notes.push(
        invalid(
          path,
          e.method === 0 || e.method === 8
            ? "The entry is damaged and could not be read."
            : "The entry is packed in a way Kobbin does not read.",
        ),
      );
  }
  const rejected = files.length === 0 && notes.length > 0 ? `Nothing in ${d.path} could be read.` : undefined;
  return { files, notes, ...(rejected ? { rejected } : {}) };
}

const LOCKED = {
  tag: "archive-encrypted",
  do: "Pack the files without a password and drop the new archive.",
} as const;

/** Unpacks entry after entry as they come: what can be had of an archive that is cut off or damaged. */
function unpackAsFound(d: FileEntry, budget: DropBudget): Opened {
  const notes: ArchiveNote[] = [];
  const files: FileEntry[] = [];
  const names = new Set<string>();
  // what is thrown inside is the reader's to say; a budget that is spent ends it
  let spent: BudgetError | undefined;
  const spend = (kind: "entries" | "bytes", n: number, what: string) => {
    try {
      budget.spend(kind, n, what);
    } catch (error) {
      spent ??= error as BudgetError;
    }
  };
  const unzip = new Unzip((file) => {
    if (spent || file.name.endsWith("/") || UNWANTED.test(file.name)) return;
    names.add(file.name);
    if (isUnsafe(file.name)) {
      notes.push(unsafePath(file.name));
      return;
    }
    spend("entries", 1, tooMany(budget));
    if (spent) return;
    const parts: Uint8Array[] = [];
    let size = 0;
    file.ondata = (error, chunk, isLast) => {
      if (error) {
        notes.push(invalid(file.name, "The entry is damaged and could not be read."));
        return;
      }
      if (spent) return;
      size += chunk.length;
      spend("bytes", chunk.length, tooLarge(budget));
      if (!spent && size > 1_000_000 && size > MOST_RATIO * d.bytes.length)
        spent = new BudgetError(`The archive unpacks to more than ${MOST_RATIO} times its size.`);
      if (spent) {
        file.terminate();
        return;
      }
      parts.push(chunk);
      if (isLast) files.push({ path: cleanPath(file.name), bytes: join(parts, size) });
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  try {
    const step = 16_384;
    for (let p = 0; p < d.bytes.length && !spent; p += step)
      unzip.push(d.bytes.subarray(p, p + step), p + step >= d.bytes.length);
  } catch {
    // what is missing then is told below
  }
  if (spent) throw spent;
  // entries announced but never finished: the archive is cut off
  const missing = [...names].filter(
    (n) => !files.some((f) => f.path === cleanPath(n)) && !notes.some((x) => x.file === n),
  );
  const hasDirectory = endOf(d.bytes) !== undefined;
  const rest = missing.length > 0 ? `; ${missing.join(", ")} could not be unpacked` : "";
  const text = `The archive is ${hasDirectory ? "damaged" : "cut off"}${rest}. What could be unpacked may not be all of it.`;
  notes.push(invalid(d.path, text));
  return { files, notes, ...(files.length === 0 ? { rejected: text } : {}) };
}

function join(parts: readonly Uint8Array[], size: number): Uint8Array {
  if (parts.length === 1) return parts[0]!;
  const out = new Uint8Array(size);
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length;
  }
  return out;
}

/** Packs files into a zip; the same input and time give the same bytes. Names are cleaned. */
export function packZip(files: readonly FileEntry[], modified: Date): Uint8Array {
  const parts: Uint8Array[] = [];
  let size = 0;
  // entry by entry, not as an object of names: a file may have any name
  const zip = new Zip((error, chunk) => {
    if (error) throw error;
    parts.push(chunk);
    size += chunk.length;
  });
  for (const f of files) {
    const entry = new ZipDeflate(cleanPath(f.path), { level: 6 });
    entry.mtime = modified;
    zip.add(entry);
    entry.push(f.bytes, true);
  }
  zip.end();
  return join(parts, size);
}

/** Reads a zip of our own back. @throws Error where it is damaged */
export function unpackZip(bytes: Uint8Array): FileEntry[] {
  return (readDirectory(bytes, 100_000) ?? []).map((e) => {
    const b = unpackEntry(bytes, e);
    if (!b) throw new Error(`${e.name} is damaged`);
    return { path: e.name, bytes: b };
  });
}
