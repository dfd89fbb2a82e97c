import { execFileSync } from "node:child_process";
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";

interface Last {
  readonly rows: readonly { readonly work: string; readonly ms: number; readonly ratio: number }[];
}

const ROOT = resolve(import.meta.dirname, "..");
/** Each commit is measured so often, in turn, so that neither has the quiet half of the hour. */
const TURNS = 2;
/** A work that takes so much longer than before is worth a look; below it is the machine's noise. */
const WORTH = 1.15;

/** A checkout of a revision that uses the packages installed here and its own code. */
function checkOut(rev: string): string {
  const folder = join(mkdtempSync(join(tmpdir(), "kobbin-bench-")), "tree");
  execFileSync("git", ["worktree", "add", "--detach", "--quiet", folder, rev], { cwd: ROOT });
  const modules = join(folder, "node_modules");
  mkdirSync(join(modules, "@kobbin"), { recursive: true });
  for (const name of readdirSync(join(ROOT, "node_modules")))
    if (name !== "@kobbin") symlinkSync(join(ROOT, "node_modules", name), join(modules, name));
  for (const name of readdirSync(join(ROOT, "node_modules", "@kobbin")))
    if (existsSync(join(folder, name))) symlinkSync(join(folder, name), join(modules, "@kobbin", name));
  return folder;
}

function measure(folder: string): Last {
  execFileSync(
    process.execPath,
    ["--conditions=source", "--preserve-symlinks", "--import", "tsx", "bench/run.ts"],
    {
      cwd: folder,
      stdio: ["ignore", "ignore", "inherit"],
    },
  );
  return JSON.parse(readFileSync(join(folder, "bench/last.json"), "utf8")) as Last;
}

/**
 * Measures a revision and the tree as it stands in one go, in turns, and says what of the work has become slower. Ratios to
 * each run's own floor are compared, so that a slower hour is none of the code's.
 *
 * @returns how many works have become slower
 */
export function benchAgainst(rev: string): number {
  const before = checkOut(rev);
  // the record of the last whole run is not this one's to change
  const record = join(ROOT, "bench/last.json");
  const last = existsSync(record) ? readFileSync(record) : undefined;
  const least = new Map<string, [before: number, now: number]>();
  try {
    for (let turn = 0; turn < TURNS; turn++)
      for (const [side, folder] of [before, ROOT].entries())
        for (const { work, ratio } of measure(folder).rows) {
          const known = least.get(work) ?? [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
          known[side] = Math.min(known[side]!, ratio);
          least.set(work, known);
        }
  } finally {
    if (last) writeFileSync(record, last);
    else rmSync(record, { force: true });
    execFileSync("git", ["worktree", "remove", "--force", before], { cwd: ROOT });
    rmSync(resolve(before, ".."), { recursive: true, force: true });
  }
  let slower = 0;
  console.log(`${"".padEnd(66)} ${rev.slice(0, 12).padStart(12)} ${"now".padStart(10)}`);
  for (const [work, [old, now]] of least) {
    const times = now / old;
    const says =
      !Number.isFinite(old) || !Number.isFinite(now)
        ? "only in one of them"
        : times >= WORTH
          ? `${times.toFixed(2)} × slower`
          : times <= 1 / WORTH
            ? `${(1 / times).toFixed(2)} × faster`
            : "";
    if (times >= WORTH && Number.isFinite(times)) slower++;
    const shown = (v: number) => (Number.isFinite(v) ? `${v.toFixed(1)} ×` : "–");
    console.log(`${work.padEnd(66)} ${shown(old).padStart(12)} ${shown(now).padStart(10)}  ${says}`);
  }
  return slower;
}
