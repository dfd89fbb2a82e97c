import { AppError, drawSide, planPackage, type RunDocument, type RunResult, slug } from "@kobbin/core";
import { type BuiltPackage, buildPackage, type FileEntry, type SheetPicture } from "@kobbin/formats";
import type { ReadAsBoard } from "./board.ts";

/** A board of the run with its files as they were read. */
export interface PackedBoard extends Pick<ReadAsBoard, "set" | "entries"> {
  readonly name: string;
}

/** Roles that do not go to the board house. */
const KEPT_BACK = new Set(["bom", "placement", "unknown"]);

/**
 * The order package of a run: fabrication files byte for byte, baskets, lists, sheets with pictures, the run itself.
 *
 * @param createdAt ISO time that stands in it
 * @throws AppError BLOCKED while blockers are open, with their keys
 */
export async function packRun(
  document: RunDocument,
  result: RunResult,
  boards: readonly PackedBoard[],
  createdAt: string,
): Promise<BuiltPackage> {
  const { blockers } = result;
  if (blockers.length > 0)
    throw new AppError(
      "BLOCKED",
      `${blockers.length === 1 ? "A blocker is" : `${blockers.length} blockers are`} open: ${blockers.map((b) => b.text).join(" ")}`.slice(
        0,
        2000,
      ),
      "Close them, or accept them with a reason, in the run's Release stage.",
      { details: blockers.map((b) => b.key) },
    );
  const folder = (name: string) => `fabrication/${slug(name)}`;
  const files: FileEntry[] = boards.flatMap(({ name, set, entries }) =>
    set.files.flatMap((f) => {
      const entry = KEPT_BACK.has(f.role) ? undefined : entries.find((e) => e.path === f.path);
      return entry ? [{ path: `${folder(name)}/${f.path}`, bytes: entry.bytes }] : [];
    }),
  );
  const pictures: SheetPicture[] = boards.flatMap(({ set }) =>
    (["top", "bottom"] as const).flatMap((side) => drawSide(set, side) ?? []),
  );
  const { name, product, revision } = document;
  const plan = planPackage(document, result);
  return buildPackage({
    files,
    tables: plan.tables,
    sheets: plan.sheets,
    pictures,
    run: { ...document, boards: document.boards.map((b) => ({ ...b, archive: folder(b.name) })) },
    about: { run: name, product, revision, createdAt },
  });
}
