import { AppError, addTo, type PlaceReading } from "@kobbin/core";
import { withWorkshop } from "../db/tx.ts";
import { tell } from "../history/change.ts";
import {
  manyOpenRevisions,
  manyOpenRuns,
  manyUnreadPlaces,
  type UnreadPlace,
  upsertPlaces,
} from "../resources/fit/index.ts";
import { manyBoardFiles, oneBoard } from "../resources/product/index.ts";
import type { WorkerDeps } from "./deps.ts";
import type { Task } from "./messages.ts";

type Needs = Pick<WorkerDeps, "pool" | "compute" | "log">;

/**
 * The same for every open run of a product, begun at once by whoever changed a row and waited for by nobody: what figures are
 * counted for does it anyway, after all that is on their list before.
 */
export function readPlacesSoon(deps: Needs, workshopId: string, productId: string): void {
  withWorkshop(deps.pool, workshopId, (tx) => manyOpenRevisions(tx, productId))
    .then(async (revisions) => {
      for (const id of revisions) await readPlaces(deps, workshopId, id);
    })
    .catch((error: unknown) =>
      deps.log({ level: "warning", message: "places not read", product: productId, reason: String(error) }),
    );
}

/**
 * What a board's files have at some places, by their keys; nothing where they cannot be read, which is logged.
 *
 * @throws AppError BUSY where its turn did not come: whoever waits for it tries again
 */
export async function readAt(
  { pool, compute, log }: Needs,
  workshopId: string,
  boardId: string,
  places: Extract<Task, { kind: "places" }>["places"],
): Promise<Readonly<Record<string, PlaceReading>> | undefined> {
  if (Object.keys(places).length === 0) return {};
  const { files, corrections } = await withWorkshop(pool, workshopId, async (tx) => ({
    files: await manyBoardFiles(tx, boardId),
    corrections: (await oneBoard(tx, boardId)).corrections,
  }));
  return compute.run({ kind: "places", files, corrections, places }, workshopId).then(
    (a) => a.readings,
    (error: unknown) => {
      if (error instanceof AppError && error.code === "BUSY") throw error;
      log({ level: "warning", message: "places not read", board: boardId, reason: String(error) });
      return undefined;
    },
  );
}

/**
 * Reads the files of a revision's boards at places that are meant to be something and were not read since row or board changed,
 * keeps it, and tells the pages of its open runs. A board whose files cannot be read keeps its rows unjudged.
 */
export async function readPlaces(deps: Needs, workshopId: string, revisionId: string): Promise<void> {
  const { pool } = deps;
  const unread = await withWorkshop(pool, workshopId, (tx) => manyUnreadPlaces(tx, revisionId));
  if (unread.length === 0) return;
  const byBoard = new Map<string, UnreadPlace[]>();
  for (const p of unread) addTo(byBoard, p.boardId, p);
  for (const [boardId, places] of byBoard) {
    const read = await readAt(
      deps,
      workshopId,
      boardId,
      Object.fromEntries(places.map((p) => [p.fitId, { at: p.at, diameterMm: p.diameterMm }])),
    );
    if (!read) continue;
    await withWorkshop(pool, workshopId, async (tx) => {
      await upsertPlaces(
        tx,
        boardId,
        places.map((p) => ({ ...p, reading: read[p.fitId]! })),
      );
      for (const runId of await manyOpenRuns(tx, revisionId))
        await tell(tx, { kind: "places", workshop: workshopId, runId });
    });
  }
}
