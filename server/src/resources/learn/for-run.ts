import type { LessonPlace, RunErratum, RunLesson } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { manyErrata } from "./erratum-queries.ts";
import { manyLessons } from "./lesson-queries.ts";
import { manyLearned } from "./reading-queries.ts";

/** What was learned and counts for a run, with what its boards' files have at the places of it. */
export async function learnedFor(
  tx: Tx,
  run: { readonly productId: string; readonly revisionId: string },
): Promise<{
  readonly lessons: RunLesson[];
  readonly errata: RunErratum[];
  readonly places: ReadonlyMap<string, Readonly<Record<string, readonly LessonPlace[]>>>;
}> {
  const [lessons, errata, places] = await Promise.all([
    manyLessons(tx, run.productId),
    manyErrata(tx, run.productId, run.revisionId),
    manyLearned(tx, run.revisionId),
  ]);
  return { lessons, errata, places };
}
