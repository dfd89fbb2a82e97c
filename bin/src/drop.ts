import { readdirSync, readFileSync, statSync } from "node:fs";
import { basename, join, relative } from "node:path";
import { type BoardSet, type Corrections, type Entry, kindOf, readBoard } from "@kobbin/core";
import { type FileEntry, openDrop, readTable } from "@kobbin/formats";
import { UsageError } from "./print.ts";

/** Files named on the command line; folders are walked, archives opened. */
export function readPaths(paths: readonly string[]): FileEntry[] {
  const out: FileEntry[] = [];
  for (const p of paths) {
    const stat = statSync(p, { throwIfNoEntry: false });
    if (!stat) throw new UsageError(`there is no file ${p}`);
    if (stat.isDirectory()) {
      for (const f of readdirSync(p, { recursive: true, encoding: "utf8" }).sort()) {
        const full = join(p, f);
        if (statSync(full).isFile()) out.push({ path: relative(p, full), bytes: readFileSync(full) });
      }
    } else out.push({ path: basename(p), bytes: readFileSync(p) });
  }
  return out;
}

/** A drop read as a board: opened, tables split, roles given. */
export async function readDrop(
  files: readonly FileEntry[],
  corrections?: Corrections,
): Promise<{ set: BoardSet; entries: readonly Entry[]; rejected?: string }> {
  const opened = openDrop(files);
  const entries: Entry[] = [];
  for (const f of opened.files) {
    const cells = kindOf(f.bytes) === "table" ? await readTable(f.bytes) : undefined;
    entries.push({ ...f, ...(cells ? { cells } : {}) });
  }
  const set = readBoard(entries, corrections);
  return {
    set: { ...set, findings: [...opened.notes, ...set.findings] },
    entries,
    ...(opened.rejected ? { rejected: opened.rejected } : {}),
  };
}
