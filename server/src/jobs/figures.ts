import type { RunSummary } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import { withWorkshop } from "../db/tx.ts";
import { tell } from "../history/change.ts";
import { countJob } from "../metrics.ts";
import { ofDatabase } from "../middleware/errors.ts";
import {
  buildDocument,
  forgetLessons,
  oneRun,
  releasedDocument,
  updateSummary,
} from "../resources/run/index.ts";
import type { WorkerDeps } from "./deps.ts";
import { keepCatches, readLearned } from "./learned.ts";
import { readPlaces } from "./places.ts";
import type { DurableQueue } from "./queue.ts";

/** A run whose figures are older than its choices. */
export interface Due {
  readonly workshopId: string;
  readonly runId: string;
}

/** Figures of every run on the list figures_due, which is written with the change itself. */
export const figuresQueue = (deps: WorkerDeps): DurableQueue<Due> => ({
  name: "figures",
  batchSize: 4,
  due: async () => {
    const { rows } = await deps.pool.query<Due>(
      `select workshop_id as "workshopId", run_id as "runId" from figures_due where parked is null order by since limit 500`,
    );
    return rows.map((data) => ({ key: data.runId, data }));
  },
  work: async (data) => {
    try {
      await computeFigures(deps, data);
      countJob("done");
    } catch (error) {
      countJob("failed");
      // the database's own trouble is nobody's fault and passes; anything else is counted against the run
      if (ofDatabase(error) || (error instanceof AppError && error.code === "BUSY")) throw error;
      if (!(await countFailure(deps, data, error))) throw error;
    }
  },
});

/** How often a run's figures are tried before they are set aside. */
const MOST_TRIES = 4;

/** Counts a failure of a run's figures. @returns whether the run is set aside now, with its reason */
async function countFailure(deps: Omit<WorkerDeps, "hub">, { workshopId, runId }: Due, error: unknown) {
  const reason = (error instanceof Error ? error.message : String(error)).slice(0, 500);
  const { rows } = await deps.pool.query<{ parked: string | null }>(
    `update figures_due set tries = tries + 1, parked = case when tries + 1 >= $2 then $3 end
     where run_id = $1 returning parked`,
    [runId, MOST_TRIES, reason],
  );
  const isParked = rows[0]?.parked != null;
  if (isParked)
    deps.log({ level: "error", message: `figures set aside: ${reason}`, run: runId, workshop: workshopId });
  return isParked;
}

/** Computes one run's figures and stores them; a change that came meanwhile leaves the run on the list. */
export async function computeFigures(
  deps: Omit<WorkerDeps, "hub">,
  { workshopId, runId }: Due,
): Promise<void> {
  // when it was listed comes first: what changes while it is worked on lists it anew
  const due = await withWorkshop(deps.pool, workshopId, async (tx) => {
    const { rows } = await tx.query<{ since: string }>(
      "select since::text from figures_due where run_id = $1 and parked is null",
      [runId],
    );
    return rows[0] && { since: rows[0].since, run: await oneRun(tx, runId) };
  });
  if (!due) return;
  // a released run is frozen whole: its figures are those it was released with, whatever prices are today
  if (due.run.state !== "released") {
    await readPlaces(deps, workshopId, due.run.revisionId);
    await readLearned(deps, workshopId, due.run.revisionId);
  }
  const document = await withWorkshop(deps.pool, workshopId, async (tx) => {
    const run = await oneRun(tx, runId);
    const frozen = run.state === "released" ? await releasedDocument(tx, run.id) : undefined;
    return frozen ?? (await buildDocument(tx, run, deps.today())).document;
  });
  const counted = await deps.compute
    .run({ kind: "summary", document }, workshopId)
    .catch((error: unknown) => {
      // a run whose figures cannot be computed keeps its choices; the page says why when it is opened
      if (!(error instanceof AppError)) throw error;
      deps.log({
        level: "warning",
        message: "run not computed",
        run: runId,
        reason: error.message,
      });
      return undefined;
    });
  if (counted && due.run.state !== "released")
    await keepCatches(
      deps,
      workshopId,
      { revisionId: due.run.revisionId, about: `${due.run.product} ${due.run.revision}` },
      counted.broken,
    );
  await withWorkshop(deps.pool, workshopId, async (tx) => {
    // choices first and the list after them, as a change writes them: the other way round each waits for the other, a
    // second long
    await tx.query("select from fork where run_id = $1 for no key update", [runId]);
    // who began earlier may end later: what is not listed any more was computed by somebody who saw more
    const { rows } = await tx.query("select from figures_due where run_id = $1 for update", [runId]);
    if (rows.length === 0) return;
    // what is ordered is asked of a run only once it is released
    const { orders, ...figures } = counted?.summary ?? {};
    if (!counted) await forgetLessons(tx, runId);
    else
      await updateSummary(
        tx,
        runId,
        due.run.state === "released" ? counted.summary : (figures as RunSummary),
      );
    await tx.query("delete from figures_due where run_id = $1 and since = $2::timestamptz", [
      runId,
      due.since,
    ]);
    await tell(tx, { kind: "figures", workshop: workshopId, runId });
  });
}
