import type { RunSummary } from "@kobbin/contract";
import {
  AppError,
  type BasketCache,
  type BoardSet,
  type Corrections,
  drawSide,
  type Entry,
  isComplete,
  kindOf,
  type Memory,
  measureBoard,
  measureToKeep,
  microsToNumber,
  planPackage,
  type RunDocument,
  type RunResult,
  readBoard,
  rollUp,
  saysUnpriced,
  slug,
  toWire,
  withMemory,
} from "@kobbin/core";
import { buildPackage, type FileEntry, readDrop, type SheetPicture } from "@kobbin/formats";
import { proveBaskets } from "@kobbin/solver";
import { openBackup } from "../backup/open.ts";
import type { Answer, DroppedFile, Task } from "./messages.ts";

/** One task of the pool: data in, data out. */
export default async function compute(task: Task): Promise<Answer> {
  try {
    if (task.kind === "measure") return await measure(task);
    if (task.kind === "backup") return { kind: "backup", backup: await openBackup(task.archive, task.own) };
    if (task.kind === "summary") return { kind: "summary", summary: await summarise(task.document) };
    return await pack(task);
  } catch (error) {
    const wire = toWire(error);
    if (wire) return wire;
    throw error;
  }
}

async function read(
  files: readonly DroppedFile[],
  explicit: Corrections,
  memory: Memory = {},
): Promise<{ set: BoardSet; entries: readonly Entry[]; corrections: Corrections; rejected?: string }> {
  const opened = await readDrop(files, (b) => kindOf(b) === "table");
  const { entries } = opened;
  const corrections = withMemory(
    entries.map((e) => e.path),
    explicit,
    memory,
  );
  const set = readBoard(entries, corrections);
  return {
    set: { ...set, findings: [...opened.notes, ...set.findings] },
    entries,
    corrections,
    ...(opened.rejected ? { rejected: opened.rejected } : {}),
  };
}

async function measure(task: Extract<Task, { kind: "measure" }>): Promise<Answer> {
  const { set, corrections, rejected } = await read(task.files, task.corrections, task.memory);
  if (rejected)
    throw new AppError("ARCHIVE_INVALID", rejected, "Pack the files again and drop the new archive.");
  const m = measureBoard(set);
  if (m.outcome === "reject") {
    const why = m.findings.find((f) => f.text === m.reason);
    throw new AppError(
      why?.tag === "budget-reached" ? "TOO_MUCH_WORK" : "NO_BOARD_FILE",
      m.reason ?? "Nothing in the drop has a role on a board.",
      why?.do ?? "Drop the layers and drills your layout program wrote.",
      { details: m.layers },
    );
  }
  return {
    kind: "measured",
    measure: JSON.stringify(measureToKeep(m)),
    corrections,
    lines: set.bom?.lines ?? [],
    placements: set.placements?.parts ?? [],
  };
}

/** For the proof of a run's basket; what is left open then is told by its gap. */
const PROOF_SECONDS = 10;

/** A gap below this changes no figure a list shows; it is closed where the run is packed. */
const NO_MATTER = 0.0005;

/** Figures for lists: often computed, so a basket that is cheapest to a twentieth of a per cent is left at that. */
async function rollUpNearly(document: RunDocument): Promise<RunResult> {
  const quick = rollUp(document, undefined, "the best");
  return (quick.baskets[0]?.proof?.gap ?? 0) > NO_MATTER ? rollUpProven(document) : quick;
}

async function rollUpProven(document: RunDocument): Promise<RunResult> {
  const cache: BasketCache = new Map();
  await proveBaskets(document, cache, PROOF_SECONDS);
  return rollUp(document, cache);
}

/** The figures a list shows of a run. */
export async function summarise(document: RunDocument): Promise<RunSummary> {
  const r = await rollUpNearly(document);
  const open = r.notes.filter((n) => !n.acceptedBecause && n.level !== "remark");
  const shelf = r.needs.flatMap((n) => n.shelf);
  const next = r.blockers[0] ?? open[0];
  return {
    perGood: microsToNumber(r.perGood),
    cashNeeded: microsToNumber(r.cashNeeded),
    start: r.start,
    readyFrom: r.ready.p10,
    readyTo: r.ready.p90,
    blockers: r.blockers.length,
    cautions: open.filter((n) => n.level === "warning").length,
    ...(isComplete(r.unpriced) ? {} : { unpriced: saysUnpriced(r.unpriced) }),
    ...(shelf.length > 0 ? { shelf: Object.fromEntries(shelf.map((t) => [t.lot.id, t.qty])) } : {}),
    ...(next ? { next: { stage: next.stage, text: next.text } } : {}),
  };
}

async function pack(task: Extract<Task, { kind: "package" }>): Promise<Answer> {
  const result = await rollUpProven(task.document);
  if (result.blockers.length > 0)
    throw new AppError(
      "BLOCKED",
      `${result.blockers.length} blockers are open.`,
      "Close them, or accept them with a reason.",
      { details: result.blockers.map((b) => b.key) },
    );
  const files: FileEntry[] = [];
  const pictures: SheetPicture[] = [];
  for (const b of task.boards) {
    const { set, entries } = await read(b.files, b.corrections);
    for (const f of set.files) {
      const entry = entries.find((e) => e.path === f.path);
      if (entry && !["bom", "placement", "unknown"].includes(f.role))
        files.push({ path: `fabrication/${slug(b.name)}/${f.path}`, bytes: entry.bytes });
    }
    for (const side of ["top", "bottom"] as const) {
      const drawing = drawSide(set, side);
      if (drawing) pictures.push(drawing);
    }
  }
  const plan = planPackage(task.document, result);
  const document = {
    ...task.document,
    boards: task.document.boards.map((b) => ({ ...b, archive: `fabrication/${slug(b.name)}` })),
  };
  const { name, product, revision } = task.document;
  const built = await buildPackage({
    files,
    tables: plan.tables,
    sheets: plan.sheets,
    pictures,
    run: document,
    about: { run: name, product, revision, createdAt: task.createdAt },
  });
  return { kind: "package", zip: built.zip, manifest: built.manifest };
}
