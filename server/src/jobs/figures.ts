import { AppError } from "@kobbin/core";
import PgBoss from "pg-boss";
import type { Pool } from "../db/pool.ts";
import { withWorkshop } from "../db/tx.ts";
import { tell } from "../history/change.ts";
import type { Hub } from "../live/hub.ts";
import { countJob } from "../metrics.ts";
import { buildDocument, oneRun, updateSummary } from "../resources/run/index.ts";
import { patientDb } from "./patient-db.ts";
import type { Compute } from "./pool.ts";

/** What the worker needs; the same parts the server has. */
export interface WorkerDeps {
  readonly pool: Pool;
  readonly compute: Compute;
  readonly hub: Hub;
  readonly log: (entry: Record<string, unknown>) => void;
  readonly today: () => string;
}

interface Due {
  readonly workshopId: string;
  readonly runId: string;
}

const QUEUE = "figures";

/**
 * Computes the figures of every run on the list. The list in figures_due is what counts and is written with the change
 * itself; the queue only spreads it over workers, one job a run, tried again with back-off. Whatever a crash loses of
 * the queue, the sweep puts there again.
 */
export async function startWorker(
  databaseUrl: string,
  deps: WorkerDeps,
  sweepMs = 15_000,
): Promise<{ stop(): Promise<void>; waiting(): Promise<number> }> {
  const db = patientDb(databaseUrl, (error) =>
    deps.log({ level: "warning", message: `jobs wait for the database: ${error.message}` }),
  );
  const boss = new PgBoss({
    db,
    schedule: false,
    maintenanceIntervalSeconds: 30,
    archiveCompletedAfterSeconds: 3600,
    deleteAfterHours: 24,
  });
  boss.on("error", (error) => deps.log({ level: "warning", message: `jobs: ${error.message}` }));
  await boss.start();
  // short: one waiting job a run, however often it is asked for
  await boss.createQueue(QUEUE, { name: QUEUE, policy: "short" });
  let again: () => void = () => undefined;
  let isStopping = false;
  let inHand: Promise<void> = Promise.resolve();
  const worker = await boss.work<Due>(QUEUE, { pollingIntervalSeconds: 2, batchSize: 4 }, (jobs) => {
    // fetched in the moment of the stop: back to the queue with it, whose connections are about to close
    if (isStopping) return Promise.reject(new Error("the worker stops"));
    const work = computeAll(jobs);
    inHand = work.catch(() => undefined);
    return work;
  });
  async function computeAll(jobs: readonly { readonly data: Due }[]): Promise<void> {
    // one after another; one that fails lets the rest be done, then all are tried again, which changes nothing for those
    let failure: unknown;
    for (const job of jobs)
      try {
        await computeFigures(deps, job.data);
        countJob("done");
      } catch (error) {
        countJob("failed");
        failure = error;
      }
    if (failure) throw failure;
    // there may be more: looked for at once, not at the next beat
    again();
  }
  again = () => boss.notifyWorker(worker);
  let isSweeping = false;
  let wantsMore = false;
  const sweep = async (): Promise<void> => {
    if (isStopping) return;
    if (isSweeping) {
      wantsMore = true;
      return;
    }
    isSweeping = true;
    try {
      do {
        wantsMore = false;
        const { rows } = await deps.pool.query<Due>(
          `select workshop_id as "workshopId", run_id as "runId" from figures_due order by since limit 500`,
        );
        for (const due of rows)
          await boss.send(QUEUE, due, {
            singletonKey: due.runId,
            retryLimit: 6,
            retryDelay: 1,
            retryBackoff: true,
            expireInSeconds: 60,
          });
        if (rows.length > 0) boss.notifyWorker(worker);
      } while (wantsMore && !isStopping);
    } catch (error) {
      deps.log({ level: "warning", message: `jobs: ${(error as Error).message}` });
    } finally {
      isSweeping = false;
    }
  };
  const unsubscribe = deps.hub.subscribe((event) => {
    if (event.kind === "change" || event.kind === "resync") void sweep();
  });
  const timer = setInterval(() => void sweep(), sweepMs);
  void sweep();
  return {
    async stop() {
      isStopping = true;
      clearInterval(timer);
      unsubscribe();
      // a job that does not end in time goes back to the queue
      await boss.stop({ graceful: true, timeout: 8000 });
      await Promise.race([inHand, new Promise((done) => setTimeout(done, 8000).unref())]);
      await db.close();
    },
    async waiting() {
      const { rows } = await deps.pool.query<{ n: number }>("select count(*)::int as n from figures_due");
      return rows[0]!.n;
    },
  };
}

/** Computes one run's figures and stores them; a change that came meanwhile leaves the run on the list. */
export async function computeFigures(
  deps: Omit<WorkerDeps, "hub">,
  { workshopId, runId }: Due,
): Promise<void> {
  const found = await withWorkshop(deps.pool, workshopId, async (tx) => {
    const { rows } = await tx.query<{ since: string }>(
      "select since::text from figures_due where run_id = $1",
      [runId],
    );
    if (!rows[0]) return undefined;
    const run = await oneRun(tx, runId);
    return { since: rows[0].since, state: run.state, ...(await buildDocument(tx, run, deps.today())) };
  });
  if (!found) return;
  const summary =
    found.state === "released"
      ? undefined
      : await deps.compute.run({ kind: "summary", document: found.document }).then(
          (s) => s.summary,
          (error) => {
            // a run whose figures cannot be computed keeps its choices; the page says why when it is opened
            if (!(error instanceof AppError)) throw error;
            deps.log({
              level: "warning",
              message: "run not computed",
              run: runId,
              reason: (error as Error).message,
            });
            return undefined;
          },
        );
  await withWorkshop(deps.pool, workshopId, async (tx) => {
    if (summary) await updateSummary(tx, runId, summary);
    await tx.query("delete from figures_due where run_id = $1 and since = $2::timestamptz", [
      runId,
      found.since,
    ]);
    await tell(tx, { kind: "figures", workshop: workshopId, runId });
  });
}
