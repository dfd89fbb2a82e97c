import { writeFileSync } from "node:fs";
import { dirname, isAbsolute, join } from "node:path";
import {
  AppError,
  type BasketCache,
  costDocument,
  type RunDocument,
  rollUp,
  toRunDocument,
} from "@kobbin/core";
import { type PackedBoard, packRun, readAsBoard } from "@kobbin/packing";
import { proveBaskets } from "@kobbin/solver";
import { readPaths } from "../drop.ts";
import { readJson } from "../json-file.ts";
import { printJson, printRows, UsageError } from "../print.ts";

/** For the proof of a run's basket; what is left open then is told by its gap. */
export const PROOF_SECONDS = 20;

/** The run document a command is given. */
export function readRun(path: string | undefined, command: string): RunDocument {
  if (!path)
    throw new UsageError(
      `usage: kobbin ${command} <run.json>${command === "package" ? " --out <file.zip>" : " [--json]"}`,
    );
  return toRunDocument(readJson(path, "Export the run again."));
}

/** `kobbin cost`: prints cost/1. */
export async function cost(paths: readonly string[], json: boolean): Promise<number> {
  const run = readRun(paths[0], "cost");
  const cache: BasketCache = new Map();
  await proveBaskets(run, cache, PROOF_SECONDS);
  const doc = costDocument(run, cache);
  if (json) printJson(doc);
  else {
    const money = (v: number) => `${v.toFixed(2)} ${doc.currency}`;
    printRows([
      ["per good board", money(doc.perGoodBoard)],
      ["cash needed", money(doc.cashNeeded)],
      ["boards to start", String(doc.start)],
      ["ready by", `${doc.readyBy.p10} to ${doc.readyBy.p90}`],
      ...doc.tree.children.map((c) => [`  ${c.label}`, money(c.perGood)]),
    ]);
    for (const b of doc.blockers) process.stdout.write(`blocker: ${b.text}\n`);
  }
  return 0;
}

/** `kobbin package`: writes the order package of a run whose archives lie beside it. */
export async function pack(paths: readonly string[], out: string | undefined): Promise<number> {
  const doc = readRun(paths[0], "package");
  if (!out) throw new UsageError("usage: kobbin package <run.json> --out <file.zip>");
  const cache: BasketCache = new Map();
  await proveBaskets(doc, cache, PROOF_SECONDS);
  const result = rollUp(doc, { cache });
  const boards: PackedBoard[] = [];
  for (const b of [...doc.boards, ...(doc.guests ?? [])]) {
    if (!b.archive)
      throw new AppError(
        "DOCUMENT_INVALID",
        `The run names no archive for ${b.name}.`,
        "Export the run with its files.",
      );
    if (isAbsolute(b.archive))
      throw new AppError(
        "DOCUMENT_INVALID",
        `The archive of ${b.name} is not named from where the document lies: ${b.archive}`,
        "Name it by a path that begins at the document's own folder.",
      );
    const given = readPaths([join(dirname(paths[0]!), b.archive)]);
    boards.push({ name: b.name, ...(await readAsBoard(given)) });
  }
  const built = await packRun(doc, result, boards, `${doc.today}T00:00:00Z`);
  try {
    writeFileSync(out, built.zip);
  } catch (error) {
    throw new UsageError(`${out} cannot be written: ${(error as NodeJS.ErrnoException).code ?? "unknown"}`);
  }
  process.stderr.write(`${out}: ${built.manifest.files.length} files\n`);
  return 0;
}
