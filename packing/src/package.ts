import {
  AppError,
  boardFolder,
  drawSide,
  isSentWith,
  PACKAGE_FILES,
  panelOf,
  planPackage,
  type RunDocument,
  type RunResult,
  sheetFolder,
  slug,
} from "@kobbin/core";
import { type BuiltPackage, buildPackage, type FileEntry, type SheetPicture } from "@kobbin/formats";
import type { ReadAsBoard } from "./board.ts";
import { blocked, packRunSheet, pasteOf } from "./run-sheet.ts";

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
  const panel = await panelFiles(document, boards, createdAt);
  const guests = document.guests ?? [];
  // what lies on the sheet is ordered by the sheet's files; its own are kept beside, so that the run can be packed again
  const folderOf = (name: string, i: number) =>
    i >= document.boards.length
      ? `${PACKAGE_FILES.design.at}shared-${i - document.boards.length + 1}-${slug(name)}/`
      : panel?.isOn[i]
        ? `${PACKAGE_FILES.design.at}${slug(name)}/`
        : boardFolder(name);
  const files: FileEntry[] = boards.flatMap(({ name, set, entries }, i) =>
    set.files.flatMap((f) => {
      const entry = KEPT_BACK.has(f.role) ? undefined : entries.find((e) => e.path === f.path);
      return entry ? [{ path: `${folderOf(name, i)}${f.path}`, bytes: entry.bytes }] : [];
    }),
  );
  // boards ordered singly keep their files as they are: a foil cut otherwise is cut from a layer of its own
  const pastes: FileEntry[] = document.boards.flatMap((b, i) =>
    panel?.isOn[i] || document.assembly.method !== "stencil"
      ? []
      : pasteOf(document, b, boards[i]!.set).map((c) => ({
          path: `${PACKAGE_FILES.stencil.at}${slug(b.name)}-paste-${c.side}.gbr`,
          bytes: new TextEncoder().encode(c.text),
        })),
  );
  const pictures: SheetPicture[] = boards
    .slice(0, document.boards.length)
    .flatMap(({ set }) => (["top", "bottom"] as const).flatMap((side) => drawSide(set, side) ?? []));
  const { name, product, revision } = document;
  const plan = planPackage(document, result);
  const archiveOf = (name: string, i: number) => folderOf(name, i).slice(0, -1);
  const bodies = [...files, ...pastes, ...(panel?.files ?? [])];
  const sent = bodies.filter((f) => isSentWith(f.path, "boards"));
  const folders = new Set(sent.map((f) => f.path.split("/")[1]));
  return buildPackage({
    files: bodies,
    listed: sent.map((f) => ({
      name: f.path
        .split("/")
        .slice(folders.size > 1 ? 1 : 2)
        .join("/"),
      bytes: f.bytes,
    })),
    tables: plan.tables,
    sheets: plan.sheets,
    documents: plan.documents,
    pictures,
    run: {
      ...document,
      boards: document.boards.map((b, i) => ({ ...b, archive: archiveOf(b.name, i) })),
      ...(guests.length > 0
        ? {
            guests: guests.map((g, k) => ({ ...g, archive: archiveOf(g.name, document.boards.length + k) })),
          }
        : {}),
    },
    about: { run: name, product, revision, createdAt },
  });
}

/**
 * Files of the sheet a run's boards are ordered on, written and read back: they go out in the place of the boards' own.
 * @throws AppError BLOCKED where the sheet cannot be written or does not prove itself
 */
async function panelFiles(
  document: RunDocument,
  boards: readonly PackedBoard[],
  createdAt: string,
): Promise<{ readonly files: readonly FileEntry[]; readonly isOn: readonly boolean[] } | undefined> {
  const panel = panelOf(document);
  if (!panel) return undefined;
  const packed = await packRunSheet(
    document,
    boards.map((b) => b.set),
    { mode: "copies", createdAt, isMeasured: false },
  );
  if (!packed.proof.agrees)
    throw blocked(
      packed.proof.wrong
        .map((w) => w.text)
        .join(" ")
        .slice(0, 500),
    );
  return {
    // lists and places go to whoever solders
    files: packed.files.map((f) => ({
      ...f,
      path: f.path.endsWith(".csv")
        ? `${PACKAGE_FILES.sheetPlaced.at}${f.path}`
        : `${sheetFolder(document.product)}${f.path}`,
    })),
    isOn: panel.perSheet.map((n) => n > 0),
  };
}
