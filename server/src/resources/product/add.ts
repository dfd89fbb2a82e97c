import { createHash } from "node:crypto";
import {
  AppError,
  type Corrections,
  composeMoves,
  numberKey,
  patternOf,
  slug,
  toRunLines,
} from "@kobbin/core";
import { cleanPath } from "@kobbin/formats";
import type { Tx } from "../../db/pool.ts";
import { withWorkshop } from "../../db/tx.ts";
import type { Deps } from "../../deps.ts";
import { type By, type Done, recordChange } from "../../history/change.ts";
import type { DroppedFile, Measured } from "../../jobs/messages.ts";
import { mountsByNumber } from "../library/index.ts";
import { insertLines, manyBoardNames, manyLines, nextPosition, requireRevision } from "../run/index.ts";
import {
  deleteLinesOf,
  insertBlob,
  insertBoard,
  insertBoardFiles,
  insertProduct,
  insertRevision,
  lockBoard,
  lockRevision,
  manyBoardFiles,
  maybeProductName,
  oneBoard,
  readMemory,
  refuseBeyondQuota,
  updateBoard,
  upsertMemory,
} from "./queries.ts";

/** Where a drop goes: a new product, or a new revision of one. */
export interface NewRevision {
  readonly productName?: string;
  readonly productId?: string;
  readonly label: string;
  readonly files: readonly DroppedFile[];
  readonly corrections: Corrections;
}

/**
 * Measures a drop in the worker pool and keeps it: files byte for byte, measures, parts list; all or nothing.
 * @throws AppError of the reading where the drop is rejected; nothing is stored then
 */
export async function addRevision(
  deps: Deps,
  by: By,
  drop: NewRevision,
): Promise<Done<{ productId: string; revisionId: string; boardId: string }>> {
  if (drop.files.length === 0)
    throw new AppError("NO_BOARD_FILE", "The drop holds no files.", "Drop an archive or loose files.");
  const memory = await withWorkshop(deps.pool, by.workshopId, readMemory);
  const read = await deps.compute.run(
    { kind: "measure", files: drop.files, corrections: drop.corrections, memory },
    by.workshopId,
  );
  return recordChange(deps.pool, by, async (tx, change) => {
    const productId = drop.productId ?? (await insertProduct(tx, drop.productName ?? "New product"));
    const revisionId = await insertRevision(tx, productId, drop.label);
    const name = drop.productName ?? (await nameOfProduct(tx, productId));
    const boardId = await insertBoard(tx, {
      revisionId,
      name: `${name} ${drop.label}`,
      corrections: read.corrections,
      measure: read.measure,
      placements: read.placements,
    });
    await keepFiles(tx, boardId, drop.files, deps.config.shopQuotaBytes);
    await keepLines(tx, revisionId, boardId, read);
    await remember(tx, drop.corrections);
    change.about({ productId, revisionId });
    return { productId, revisionId, boardId };
  });
}

/** A further board of a product. */
export interface NewBoard {
  readonly revisionId: string;
  readonly name: string;
  readonly perProduct: number;
  readonly files: readonly DroppedFile[];
  readonly corrections: Corrections;
}

/** Measures a drop and keeps it as a further board of a revision, with the lines of its own parts list; all or nothing. */
export async function addBoard(deps: Deps, by: By, drop: NewBoard): Promise<Done<{ boardId: string }>> {
  const memory = await withWorkshop(deps.pool, by.workshopId, async (tx) => {
    await requireRevision(tx, drop.revisionId);
    await refuseSameName(tx, drop.revisionId, drop.name);
    return readMemory(tx);
  });
  if (drop.files.length === 0)
    throw new AppError("NO_BOARD_FILE", "The drop holds no files.", "Drop an archive or loose files.");
  const { corrections } = drop;
  const read = await deps.compute.run(
    { kind: "measure", files: drop.files, corrections, memory },
    by.workshopId,
  );
  return recordChange(deps.pool, by, async (tx, change) => {
    await lockRevision(tx, drop.revisionId);
    await refuseSameName(tx, drop.revisionId, drop.name);
    const { revisionId, name, perProduct } = drop;
    const { measure, placements } = read;
    const boardId = await insertBoard(tx, {
      revisionId,
      name,
      perProduct,
      corrections: read.corrections,
      measure,
      placements,
    });
    await keepFiles(tx, boardId, drop.files, deps.config.shopQuotaBytes);
    await keepLines(tx, revisionId, boardId, read);
    await remember(tx, drop.corrections);
    change.about({ revisionId });
    change.says(`the board ${name} was added${perProduct > 1 ? `, ${perProduct} in each product` : ""}`);
    return { boardId };
  });
}

/**
 * Files of the boards stand side by side in a package.
 * @throws AppError OUT_OF_RANGE where another board of the revision has the name
 */
export async function refuseSameName(tx: Tx, revisionId: string, name: string, but?: string): Promise<void> {
  const boards = await manyBoardNames(tx, revisionId);
  if (boards.some((b) => b.id !== but && slug(b.name) === slug(name)))
    throw new AppError(
      "OUT_OF_RANGE",
      `Another board of this product is called “${name}” already.`,
      "Give it a name of its own: files and places of the package go by it.",
    );
}

async function keepFiles(
  tx: Tx,
  boardId: string,
  files: readonly DroppedFile[],
  quotaBytes: number,
): Promise<void> {
  const kept = files.map((f, position) => ({
    position,
    path: cleanPath(f.path),
    sha256: f.sha256 ?? createHash("sha256").update(f.bytes).digest("hex"),
  }));
  await refuseBeyondQuota(
    tx,
    quotaBytes,
    files.reduce((n, f) => n + f.bytes.length, 0),
  );
  for (const [i, f] of files.entries()) await insertBlob(tx, kept[i]!.sha256, f.bytes);
  await insertBoardFiles(tx, boardId, kept);
}

/** Keeps the lines of a board's own parts list behind those that are there; who mounts a part the library may know. */
async function keepLines(
  tx: Tx,
  revisionId: string,
  boardId: string,
  read: Pick<Measured, "lines" | "placements">,
): Promise<void> {
  const lines = toRunLines(read.lines, read.placements);
  const mounts = await mountsByNumber(
    tx,
    lines.map((l) => l.mpn),
  );
  const kept = lines.map((line) => ({
    ...line,
    mount: mounts.get(numberKey(line.mpn)) ?? line.mount,
    board: boardId,
  }));
  await insertLines(tx, revisionId, await nextPosition(tx, revisionId), kept);
}

async function nameOfProduct(tx: Tx, id: string): Promise<string> {
  const name = await maybeProductName(tx, id);
  if (name === undefined)
    throw new AppError("NOT_FOUND", "There is no such product here.", "Go back to the bench.");
  return name;
}

/** Keeps corrections by name pattern for the next drop of this shop. */
async function remember(tx: Tx, corrections: Corrections): Promise<void> {
  const rows = (["roles", "columns"] as const).flatMap((key) =>
    Object.entries(corrections[key] ?? {}).map(([path, value]) => ({
      kind: key === "roles" ? ("role" as const) : ("column" as const),
      pattern: patternOf(path).slice(0, 1000),
      value,
    })),
  );
  await upsertMemory(tx, rows);
}

/** Reads a board's own files again under further corrections; the parts list is read anew only when its file changed role or columns. */
export async function correctBoard(
  deps: Deps,
  by: By,
  boardId: string,
  wanted: Corrections,
): Promise<Done<void>> {
  const { board, files } = await withWorkshop(deps.pool, by.workshopId, async (tx) => ({
    board: await oneBoard(tx, boardId),
    files: await manyBoardFiles(tx, boardId),
  }));
  const corrections: Corrections = {
    roles: { ...board.corrections.roles, ...wanted.roles },
    columns: { ...board.corrections.columns, ...wanted.columns },
    moves: {
      ...board.corrections.moves,
      ...Object.fromEntries(
        Object.entries(wanted.moves ?? {}).map(([path, m]) => [
          path,
          composeMoves(board.corrections.moves?.[path], m),
        ]),
      ),
    },
  };
  const read = await deps.compute.run({ kind: "measure", files, corrections, memory: {} }, by.workshopId);
  const touchesParts =
    Object.keys(wanted.columns ?? {}).length > 0 ||
    Object.values(wanted.roles ?? {}).some((r) => r.role === "bom" || r.role === "placement");
  return recordChange(deps.pool, by, async (tx, change) => {
    change.about({ revisionId: board.revisionId });
    // read again under the lock: two corrections at once must not lose one
    const { corrections: newest } = await lockBoard(tx, boardId);
    if (JSON.stringify(newest) !== JSON.stringify(board.corrections))
      throw new AppError(
        "STALE_VERSION",
        "Somebody corrected this board in the same moment; your correction was not saved.",
        "Look at theirs and correct again.",
      );
    await updateBoard(tx, boardId, { corrections, measure: read.measure, placements: read.placements });
    await remember(tx, wanted);
    const old = (await manyLines(tx, board.revisionId)).filter((l) => l.board === boardId);
    if (touchesParts || (old.length === 0 && read.lines.length > 0)) {
      await deleteLinesOf(tx, boardId);
      await keepLines(tx, board.revisionId, boardId, read);
    }
  });
}
