import { ofBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import { type RunRecord, tallyOf } from "../document/record.ts";
import type { RunNeed } from "../document/run-need.ts";

/** Pieces of a purchase as the bench wrote them down. */
export interface BenchUse {
  /** Put on, and lost on the way. */
  readonly on: number;
  readonly lost: number;
}

/**
 * What the boards took of a purchase by what was pressed at the bench: every piece that went on, and every one that was
 * lost. Known only where all of it went through these hands: each of its parts is soldered here, and as many pieces are on
 * as the boards that were started have; a board or a step that was built without pressing leaves it an estimate.
 *
 * @returns nothing where it is not known whole
 */
export function benchUse(
  doc: RunDocument,
  n: Pick<RunNeed, "lines" | "terms">,
  record: Pick<RunRecord, "work" | "sittings">,
): BenchUse | undefined {
  const { started } = tallyOf(record.work);
  const sittings = record.sittings ?? [];
  if (started === 0 || sittings.length === 0) return undefined;
  // what a machine places, or goes loose with the finished product, is never pressed
  if (n.terms.some((t) => t.by !== "hand" || t.kind === "loose")) return undefined;
  const lines = doc.lines.filter((l) => n.lines.includes(l.id));
  const names = new Set(lines.flatMap((l) => l.refs.map((ref) => `${ref}${ofBoard(doc, l)}`)));
  const each = lines.reduce((sum, l) => sum + l.refs.length, 0);
  // a line without references, or of several boards in one product, has pieces that are called alike
  if (each === 0 || names.size !== each || doc.boards.some((b) => (b.perProduct ?? 1) > 1)) return undefined;
  const on = sittings.reduce(
    (sum, s) =>
      sum + Object.entries(s.marks).filter(([name, m]) => m !== "skipped" && names.has(name)).length,
    0,
  );
  if (on !== started * each) return undefined;
  const ids = new Set(n.lines);
  const lost = sittings.reduce(
    (sum, s) =>
      sum + Object.entries(s.lost).reduce((k, [line, pieces]) => (ids.has(line) ? k + pieces : k), 0),
    0,
  );
  return { on, lost };
}
