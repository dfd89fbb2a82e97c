import { AppError } from "@kobbin/core";
import type { talk } from "../db/talk.ts";
import { withWorkshop } from "../db/tx.ts";
import { tell } from "../history/change.ts";
import { countJob } from "../metrics.ts";
import { ofDatabase } from "../middleware/errors.ts";
import { InTurnError, OutsideError, plainWords, type Reader, readApart } from "../outside/index.ts";
import type { WorkerDeps } from "./deps.ts";
import { MOST_TRIES, tryAgain } from "./try-again.ts";

/** A question that waits, as its list names it. */
export interface Waiting {
  readonly workshopId: string;
  readonly askId: string;
}

/** What every question has, whomever it is to. */
interface Taken {
  readonly id: string;
  readonly runId: string;
  readonly tries: number;
}

/** Who was to be asked cannot be asked any more; in words for the person. */
export class NoLongerAsked extends Error {}

/** Reads what is answered to a shop's question, what is long in a thread. */
export const readerFor = (compute: WorkerDeps["compute"], shop: string): Reader =>
  readApart((answer, as) => compute.run({ kind: "answer", answer, as }, shop));

/** Troubles of the database that pass: no fault of who was asked, and not counted. */
const PASSING = ["DATABASE_AWAY", "STORAGE_FULL", "BUSY"];

/** What passes by itself, and after how many times the usual wait it is tried again; undefined of all else. */
function passing(error: unknown): { words: string; times: number } | undefined {
  if (error instanceof InTurnError) return { words: error.message, times: 1 };
  const known = error instanceof AppError ? error : ofDatabase(error);
  return known && PASSING.includes(known.code) ? { words: known.message, times: 4 } : undefined;
}

/**
 * Takes one question up and sees it to an end, whatever happens: what goes wrong counts as a try, the other end's fault or
 * ours, so that nobody is asked for ever; at the limit the question fails with a reason a person can read, and can be
 * asked again by hand. Only what passes by itself at the database is not counted.
 *
 * @param work asks, and keeps what is said; throws where it cannot
 * @param heldMs a question held longer than that was lost with its worker
 * @param later called with the milliseconds after which it is due again
 * @param againMs what failed is due again after that; never where left out
 * @returns false where there was nothing to take up: done, not due, or in another worker's hands
 */
export async function asking<A extends Taken>(
  deps: Pick<WorkerDeps, "pool" | "config" | "log">,
  { workshopId, askId }: Waiting,
  of: ReturnType<typeof talk<A>>,
  work: (ask: A) => Promise<void>,
  heldMs: number,
  later: (inMs: number) => void,
  againMs?: number,
): Promise<boolean> {
  const { pool, log } = deps;
  // committed before anything else is done: a try that takes the process with it counts too
  const ask = await withWorkshop(pool, workshopId, async (tx) => {
    const taken = await of.claim(tx, askId, heldMs);
    if (taken) await tell(tx, { kind: "asking", workshop: workshopId, runId: taken.runId });
    return taken;
  });
  if (!ask) return false;
  const fail = async (reason: string): Promise<true> => {
    await tryAgain(deps, workshopId, of, ask, reason, later, againMs);
    return true;
  };
  if (ask.tries > MOST_TRIES && againMs === undefined)
    return fail("It was begun several times and never finished.");
  try {
    await work(ask);
    countJob("done");
    return true;
  } catch (error) {
    countJob("failed");
    const passes = passing(error);
    if (passes) {
      // where not even that is taken, it is found again once it was held too long
      const waitMs = deps.config.feedRetryMs * passes.times;
      await withWorkshop(pool, workshopId, async (tx) => {
        await of.putOff(tx, ask.id, passes.words, waitMs, false);
        await tell(tx, { kind: "asking", workshop: workshopId, runId: ask.runId });
      });
      later(waitMs);
      return true;
    }
    if (error instanceof OutsideError) return fail(error.message);
    const known = error instanceof AppError ? error : ofDatabase(error);
    // what the shop's own state refuses (a run released or closed meanwhile) is not otherwise the next time
    if (error instanceof NoLongerAsked || error instanceof AppError) {
      await withWorkshop(pool, workshopId, async (tx) => {
        await of.end(tx, ask.id, "failed", error.message);
        await tell(tx, { kind: "asking", workshop: workshopId, runId: ask.runId });
      });
      return true;
    }
    log({
      level: known ? "warning" : "error",
      message: `question ${ask.id}: ${plainWords(error instanceof Error ? error.stack : String(error), 1500)}`,
    });
    return fail(
      known
        ? "What it answered cannot be kept."
        : "A fault on our side: it was not asked, or its answer was not kept.",
    );
  }
}
