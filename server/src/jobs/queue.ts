import type PgBoss from "pg-boss";
import type { Beside } from "./beside.ts";

/** A piece of work that must be done, as the list behind a queue holds it. */
export interface DueJob<D extends object> {
  readonly key: string;
  readonly data: D;
}

/** A queue over a list in the database: the list is what counts, the queue spreads it over the workers. */
export interface DurableQueue<D extends object> {
  readonly name: string;
  readonly batchSize: number;
  /** Most of the work is waiting for others: each is done beside the rest, by its key, in its shop's share. */
  readonly beside?: { readonly room: Beside; readonly of: (data: D) => { key: string; shop: string } };
  /** What is due now, oldest first. */
  readonly due: () => Promise<readonly DueJob<D>[]>;
  /** Does one of them, false where there was nothing to do; throwing lets the queue try it again with back-off. */
  readonly work: (data: D) => Promise<boolean | undefined>;
}

/** A running queue. */
export interface RunningQueue {
  /** Looks through the list and sends what is due; never throws. */
  sweep(): Promise<void>;
  stop(): void;
  /** Ends when the work in hand is done. */
  idle(): Promise<void>;
}

/**
 * Starts working on a durable queue that was made. Whatever a crash loses of the queue, the next sweep puts there again; a job that
 * is there twice finds its work done.
 */
export async function runQueue<D extends object>(
  boss: PgBoss,
  queue: DurableQueue<D>,
  onProblem: (error: Error) => void,
): Promise<RunningQueue> {
  const { name } = queue;
  let isStopping = false;
  let inHand: Promise<void> = Promise.resolve();
  let again: () => void = () => undefined;
  const worker = await boss.work<D>(
    name,
    { pollingIntervalSeconds: 2, batchSize: queue.batchSize },
    (jobs) => {
      // fetched in the moment of the stop: back to the queue with it, whose connections are about to close
      if (isStopping) return Promise.reject(new Error("the worker stops"));
      if (queue.beside) {
        for (const { data } of jobs) handOn(queue, data, onProblem, () => void running.sweep());
        again();
        return Promise.resolve();
      }
      const work = all(jobs);
      inHand = work.catch(() => undefined);
      return work;
    },
  );
  async function all(jobs: readonly { readonly data: D }[]): Promise<void> {
    // one that fails lets the rest be done, then all are tried again, which changes nothing for those
    const failures: unknown[] = [];
    for (const job of jobs) await queue.work(job.data).catch((error) => failures.push(error));
    if (failures.length > 0) {
      onProblem(failures[0] as Error);
      throw failures[0];
    }
    // there may be more: looked for at once, not at the next beat
    again();
  }
  again = () => boss.notifyWorker(worker);
  let isSweeping = false;
  let wantsMore = false;
  const running: RunningQueue = {
    async sweep() {
      if (isStopping) return;
      if (isSweeping) {
        wantsMore = true;
        return;
      }
      isSweeping = true;
      try {
        do {
          wantsMore = false;
          const due = await queue.due();
          for (const { key, data } of due)
            await boss.send(name, data, {
              singletonKey: key,
              retryLimit: 6,
              retryDelay: 1,
              retryBackoff: true,
              expireInSeconds: 60,
            });
          if (due.length > 0) boss.notifyWorker(worker);
        } while (wantsMore && !isStopping);
      } catch (error) {
        onProblem(error as Error);
      } finally {
        isSweeping = false;
      }
    },
    stop() {
      isStopping = true;
    },
    idle: async () => {
      await inHand;
      await queue.beside?.room.stop();
    },
  };
  return running;
}

/** Off the queue at once: the list has it until it is done, and no batch waits for its slowest. */
function handOn<D extends object>(
  { beside, work }: DurableQueue<D>,
  data: D,
  onProblem: (error: Error) => void,
  lookAgain: () => void,
): void {
  const { key, shop } = beside!.of(data);
  beside!.room.start(
    key,
    shop,
    () => work(data),
    (error, done) => {
      if (error) onProblem(error);
      // a shop may have more than was put on the queue at once
      if (done) lookAgain();
    },
  );
}
