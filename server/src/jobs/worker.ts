import PgBoss from "pg-boss";
import type { WorkerDeps } from "./deps.ts";
import { feedsQueue } from "./feeds.ts";
import { figuresQueue } from "./figures.ts";
import { patientDb } from "./patient-db.ts";
import { runQueue } from "./queue.ts";

const OLD_TRIES = "delete from tries where since < now() - interval '1 hour'";
const OLD_SESSIONS = "delete from session where expires_at < now() - interval '1 day'";

/**
 * Works on what is due in the background: figures of runs, questions to suppliers. The lists in the database are what
 * counts and are written with the change itself; the queue only spreads them over workers, so that several servers
 * share the work and none is needed.
 */
export async function startWorker(
  databaseUrl: string,
  deps: WorkerDeps,
  sweepMs = 15_000,
): Promise<{ stop(): Promise<void>; waiting(): Promise<number> }> {
  const onProblem = (error: Error) => deps.log({ level: "warning", message: `jobs: ${error.message}` });
  const db = patientDb(databaseUrl, (error) =>
    deps.log({ level: "warning", message: `jobs wait for the database: ${error.message}` }),
  );
  const boss = new PgBoss({
    db,
    schedule: false,
    // what the queue needs was made with the tables, by their owner
    migrate: false,
    maintenanceIntervalSeconds: 30,
    archiveCompletedAfterSeconds: 3600,
    deleteAfterHours: 24,
  });
  boss.on("error", onProblem);
  await boss.start();
  let isStopping = false;
  const timers = new Set<NodeJS.Timeout>();
  const feeds = await runQueue(
    boss,
    feedsQueue(deps, (inMs) => {
      // tried again when its time has come; should this process end before, any other's sweep finds it
      const timer = setTimeout(() => {
        timers.delete(timer);
        if (!isStopping) void feeds.sweep();
      }, inMs + 5);
      timers.add(timer);
    }),
    onProblem,
  );
  const queues = [await runQueue(boss, figuresQueue(deps), onProblem), feeds];
  const sweep = () => {
    for (const q of queues) void q.sweep();
  };
  // counts of tries and sessions that are over are of no more use
  const tidy = () => {
    deps.pool.query(OLD_TRIES).catch(() => undefined);
    deps.pool.query(OLD_SESSIONS).catch(() => undefined);
  };
  const tidying = setInterval(tidy, 600_000);
  tidying.unref();
  const unsubscribe = deps.hub.subscribe((event) => {
    if (event.kind === "change" || event.kind === "asking" || event.kind === "resync") sweep();
  });
  const timer = setInterval(sweep, sweepMs);
  sweep();
  return {
    async stop() {
      isStopping = true;
      clearInterval(timer);
      clearInterval(tidying);
      for (const t of timers) clearTimeout(t);
      unsubscribe();
      for (const q of queues) q.stop();
      // a job that does not end in time goes back to the queue
      await boss.stop({ graceful: true, timeout: 8000 });
      await Promise.race([
        Promise.all(queues.map((q) => q.idle())),
        new Promise((done) => setTimeout(done, 8000).unref()),
      ]);
      await db.close();
    },
    async waiting() {
      const { rows } = await deps.pool.query<{ n: number }>(
        `select ((select count(*) from figures_due where parked is null)
           + (select count(*) from feed_due)
           + (select count(*) from house_due)
           + (select count(*) from order_due where next_at <= clock_timestamp() + interval '1 minute'))::int as n`,
      );
      return rows[0]!.n;
    },
  };
}
