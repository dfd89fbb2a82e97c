import { Unzip, UnzipInflate, unzipSync, Zip, ZipDeflate, zipSync } from "fflate";

/** A file out of an archive, or a loose one. */
export interface FileEntry {
  readonly path: string;
  readonly bytes: Uint8Array;
}

/** Something about the archive itself that a person should know. */
export interface ArchiveNote {
  readonly tag: "archive-invalid" | "archive-too-large" | "unsafe-path" | "duplicate-name";
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

/** Bounds of an archive; beyond them it is refused before it fills the memory. */
export interface ArchiveLimits {
  readonly maxBytes: number;
  readonly maxEntries: number;
  readonly maxRatio: number;
}

export const ARCHIVE_LIMITS: ArchiveLimits = { maxBytes: 100 * 1024 * 1024, maxEntries: 500, maxRatio: 200 };

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
 * written anywhere. Sizes are counted while unpacking, so a bomb stops at the bound.
 */
export function openDrop(dropped: readonly FileEntry[], limits: ArchiveLimits = ARCHIVE_LIMITS): Opened {
  const files: FileEntry[] = [];
  const notes: ArchiveNote[] = [];
  let rejected: string | undefined;
  for (const d of dropped) {
    if (!isZip(d.bytes) || isSheet(d.bytes)) {
      if (/\.zip$/i.test(d.path)) {
        rejected = `${d.path} is not a zip archive, or it is cut off at the front.`;
        notes.push({
          tag: "archive-invalid",
          level: "error",
          file: d.path,
          text: rejected,
          do: "Pack the files again and drop the new archive.",
        });
        continue;
      }
      files.push(d);
      continue;
    }
    const one = unpack(d, limits);
    files.push(...one.files);
    notes.push(...one.notes);
    if (one.rejected && one.files.length === 0) rejected = one.rejected;
  }
  const seen = new Set<string>();
  const unique = files.filter((f) => {
    const isNew = !seen.has(f.path);
    seen.add(f.path);
    if (!isNew) notes.push(twice(f.path));
    return isNew;
  });
  if (unique.length === 0 && !rejected) rejected = "The drop holds no files.";
  return { files: unique, notes, ...(rejected && unique.length === 0 ? { rejected } : {}) };
}

const twice = (file: string): ArchiveNote => ({
  tag: "duplicate-name",
  level: "warning",
  file,
  text: "The name stands twice in the drop; the first one is used.",
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
const tooMany = (limits: ArchiveLimits) => `The archive holds more than ${limits.maxEntries} files.`;
const tooLarge = (limits: ArchiveLimits) =>
  `Unpacked, the archive is larger than ${Math.round(limits.maxBytes / 1048576)} MB.`;
const tooDense = (limits: ArchiveLimits) =>
  `The archive unpacks to more than ${limits.maxRatio} times its size.`;

/** An archive by its directory where that is sound, else entry by entry as far as it goes. */
const unpack = (d: FileEntry, limits: ArchiveLimits): Opened =>
  unpackByDirectory(d, limits) ?? unpackAsFound(d, limits);

/**
 * Unpacks by the directory at the archive's end, which says where each entry lies and how long it is: an archive inside
 * holds marks that would be taken for the outer one's otherwise. Each entry gets the room the directory says, no more.
 *
 * @returns undefined where the directory, or an entry of it, is damaged
 */
function unpackByDirectory(d: FileEntry, limits: ArchiveLimits): Opened | undefined {
  if (!endsWithDirectory(d.bytes)) return undefined;
  const notes: ArchiveNote[] = [];
  const sizes = new Map<string, number>();
  let total = 0;
  let count = 0;
  let stop: string | undefined;
  let found: Record<string, Uint8Array>;
  try {
    found = unzipSync(d.bytes, {
      filter: ({ name, originalSize }) => {
        if (stop || name.endsWith("/") || UNWANTED.test(name)) return false;
        if (isUnsafe(name)) {
          notes.push(unsafePath(name));
          return false;
        }
        if (sizes.has(name)) {
          notes.push(twice(name));
          return false;
        }
        total += originalSize;
        if (++count > limits.maxEntries) stop = tooMany(limits);
        else if (total > limits.maxBytes) stop = tooLarge(limits);
        else if (originalSize > 1_000_000 && originalSize > limits.maxRatio * d.bytes.length)
          stop = tooDense(limits);
        sizes.set(name, originalSize);
        return stop === undefined;
      },
    });
  } catch {
    return undefined;
  }
  if (stop) return tooMuch(d, stop);
  const files: FileEntry[] = [];
  for (const [name, size] of sizes) {
    const bytes = found[name];
    if (bytes?.length !== size) return undefined;
    files.push({ path: name.replaceAll("\\", "/"), bytes });
  }
  return { files, notes };
}

const tooMuch = (d: FileEntry, stop: string): Opened => ({
  files: [],
  notes: [
    {
      tag: "archive-too-large",
      level: "error",
      file: d.path,
      text: stop,
      do: "Drop only the board's own files.",
    },
  ],
  rejected: stop,
});

/** Unpacks entry after entry as they come: what can be had of an archive that is cut off or damaged. */
function unpackAsFound(d: FileEntry, limits: ArchiveLimits): Opened {
  const notes: ArchiveNote[] = [];
  const files: FileEntry[] = [];
  let total = 0;
  let count = 0;
  let stop: string | undefined;
  let isDamaged = false;
  const names = new Set<string>();
  const unzip = new Unzip((file) => {
    if (stop || file.name.endsWith("/") || UNWANTED.test(file.name)) return;
    names.add(file.name);
    if (isUnsafe(file.name)) {
      notes.push(unsafePath(file.name));
      return;
    }
    if (++count > limits.maxEntries) {
      stop = tooMany(limits);
      return;
    }
    const parts: Uint8Array[] = [];
    let size = 0;
    file.ondata = (error, chunk, isLast) => {
      if (error) {
        notes.push({
          tag: "archive-invalid",
          level: "warning",
          file: file.name,
          text: "The entry is damaged and was left out.",
          do: "Pack the files again.",
        });
        return;
      }
      if (stop) return;
      size += chunk.length;
      total += chunk.length;
      if (total > limits.maxBytes) {
        stop = tooLarge(limits);
        file.terminate();
        return;
      }
      if (size > 1_000_000 && size > limits.maxRatio * d.bytes.length) {
        stop = tooDense(limits);
        file.terminate();
        return;
      }
      parts.push(chunk);
      if (isLast) files.push({ path: file.name.replaceAll("\\", "/"), bytes: join(parts, size) });
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  try {
    const step = 65536;
    for (let p = 0; p < d.bytes.length && !stop; p += step)
      unzip.push(d.bytes.subarray(p, p + step), p + step >= d.bytes.length);
  } catch {
    isDamaged = true;
  }
  if (stop) return tooMuch(d, stop);
  // entries announced but never finished: the archive is cut off
  const missing = [...names].filter(
    (n) => !files.some((f) => f.path === n.replaceAll("\\", "/")) && !notes.some((x) => x.file === n),
  );
  const hasDirectory = endsWithDirectory(d.bytes);
  if (missing.length > 0 || !hasDirectory || isDamaged) {
    const text = `The archive is ${hasDirectory ? "damaged" : "cut off"}${missing.length > 0 ? `; ${missing.join(", ")} could not be unpacked` : ""}.`;
    notes.push({
      tag: "archive-invalid",
      level: files.length > 0 ? "warning" : "error",
      file: d.path,
      text,
      do: "Pack the files again and drop the new archive.",
    });
    if (files.length === 0) return { files, notes, rejected: text };
  }
  return { files, notes };
}

function endsWithDirectory(u8: Uint8Array): boolean {
  for (let i = u8.length - 22; i >= Math.max(0, u8.length - 65557); i--)
    if (u8[i] === 0x50 && u8[i + 1] === 0x4b && u8[i + 2] === 5 && u8[i + 3] === 6) return true;
  return false;
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

/** Packs files into a zip; the same input and time give the same bytes. */
export function packZip(files: readonly FileEntry[], modified: Date): Uint8Array {
  return zipSync(Object.fromEntries(files.map((f) => [f.path, [f.bytes, { mtime: modified, level: 6 }]])));
}

/** Reads a zip of our own back. */
export function unpackZip(bytes: Uint8Array): FileEntry[] {
  return Object.entries(unzipSync(bytes)).map(([path, b]) => ({ path, bytes: b }));
}

/** A zip that is written while it grows: each file is handed on as it is packed, so that a large one never lies whole in memory. */
export function createZip(onChunk: (chunk: Uint8Array) => void): {
  readonly add: (path: string, parts: Iterable<Uint8Array>, modified: Date) => void;
  readonly end: () => void;
} {
  const zip = new Zip((error, chunk) => {
    if (error) throw error;
    onChunk(chunk);
  });
  return {
    add(path, parts, modified) {
      // always deflated: a stored archive inside could not be told from the outer one by a reader that streams
      const file = new ZipDeflate(path, { level: 6 });
      file.mtime = modified;
      zip.add(file);
      for (const p of parts) file.push(p, false);
      file.push(new Uint8Array(0), true);
    },
    end: () => zip.end(),
  };
}
