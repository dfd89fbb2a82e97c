import { readdirSync, statSync } from "node:fs";
import { basename, join, relative } from "node:path";
import type { FileEntry } from "@kobbin/formats";
import { readBytes } from "./json-file.ts";
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
        if (statSync(full, { throwIfNoEntry: false })?.isFile())
          out.push({ path: relative(p, full), bytes: readBytes(full) });
      }
    } else out.push({ path: basename(p), bytes: readBytes(p) });
  }
  return out;
}
