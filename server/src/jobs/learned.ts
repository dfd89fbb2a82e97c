import { addTo, erratumPlaces, type LessonPlace, lessonPlaces } from "@kobbin/core";
import { withWorkshop } from "../db/tx.ts";
import { recordChange, tell } from "../history/change.ts";
import { manyOpenRevisions, manyOpenRuns } from "../resources/fit/index.ts";
import {
  insertCatches,
  manyNewCatches,
  manyUnreadLearned,
  oneMeasure,
  type Unread,
  upsertLearned,
} from "../resources/learn/index.ts";
import type { WorkerDeps } from "./deps.ts";
import { readAt } from "./places.ts";

type Needs = Pick<WorkerDeps, "pool" | "compute" | "log">;

/**
 * Reads the files of every open run's boards for what was just learned, begun at once by whoever wrote it down and waited
 * for by nobody: what figures are counted for does it anyway.
 *
 * @param productId the one product it is about; every one where left out
 */
export function readLearnedSoon(deps: Needs, workshopId: string, productId: string | undefined): void {
  withWorkshop(deps.pool, workshopId, (tx) => manyOpenRevisions(tx, productId))
    .then(async (revisions) => {
      for (const id of revisions) await readLearned(deps, workshopId, id);
    })
    .catch((error: unknown) =>
      deps.log({ level: "warning", message: "lessons not read", reason: String(error) }),
    );
}

/**
 * Reads the files of a revision's boards at the places of lessons and errata that were not read since they or the board
 * changed, keeps it, and tells the pages of its open runs. A board whose files cannot be read keeps them unjudged.
 */
export async function readLearned(deps: Needs, workshopId: string, revisionId: string): Promise<void> {
  const { pool } = deps;
  const unread = await withWorkshop(pool, workshopId, (tx) => manyUnreadLearned(tx, revisionId));
  if (unread.length === 0) return;
  const byBoard = new Map<string, Unread[]>();
  for (const u of unread) addTo(byBoard, u.boardId, u);
  for (const [boardId, list] of byBoard) {
    const read = await readBoardFor(deps, workshopId, boardId, list);
    if (!read) continue;
    await withWorkshop(pool, workshopId, async (tx) => {
      await upsertLearned(tx, boardId, read);
      for (const runId of await manyOpenRuns(tx, revisionId))
        await tell(tx, { kind: "places", workshop: workshopId, runId });
    });
  }
}

async function readBoardFor(
  deps: Needs,
  workshopId: string,
  boardId: string,
  list: readonly Unread[],
): Promise<{ of: string; readOf: string; places: LessonPlace[] }[] | undefined> {
  const measure = await withWorkshop(deps.pool, workshopId, (tx) => oneMeasure(tx, boardId));
  const wanted = list.map((u) => ({
    ...u,
    spots: u.check ? lessonPlaces(u.check, measure) : u.spot ? erratumPlaces(u.spot, measure) : [],
  }));
  const asked = wanted.flatMap(({ of, spots }) =>
    spots.map(({ x, y, diameterMm }, i) => [`${of} ${i}`, { at: [x, y] as const, diameterMm }] as const),
  );
  const read = await readAt(deps, workshopId, boardId, Object.fromEntries(asked));
  return (
    read &&
    wanted.map(({ of, readOf, spots }) => ({
      of,
      readOf,
      places: spots.map(({ pin, x, y }, i) => ({ pin, x, y, reading: read[`${of} ${i}`]! })),
    }))
  );
}

/** Writes down which lessons do not hold on a revision they were not learned from: once each, in the history by name. */
export async function keepCatches(
  { pool, today }: Pick<WorkerDeps, "pool" | "today">,
  workshopId: string,
  { revisionId, about }: { readonly revisionId: string; readonly about: string },
  broken: Readonly<Record<string, string>>,
): Promise<void> {
  const ids = Object.keys(broken);
  if (ids.length === 0) return;
  const fresh = await withWorkshop(pool, workshopId, (tx) => manyNewCatches(tx, revisionId, ids));
  if (fresh.length === 0) return;
  await recordChange(pool, { workshopId, accountId: null, person: "Kobbin" }, async (tx, change) => {
    change.about({ revisionId });
    change.isFinal();
    change.says(`${about}: ${fresh.length === 1 ? "a lesson does" : `${fresh.length} lessons do`} not hold`);
    await insertCatches(
      tx,
      revisionId,
      fresh.map((lesson) => ({ lesson, found: broken[lesson]! })),
      today(),
    );
  });
}
