import type { talk } from "../db/talk.ts";
import { withWorkshop } from "../db/tx.ts";
import { tell } from "../history/change.ts";
import type { WorkerDeps } from "./deps.ts";

/** How often somebody is asked one thing before it is given up. */
export const MOST_TRIES = 4;

/**
 * Puts a question off that was not answered, each time for twice as long, and gives it up after {@link MOST_TRIES}; open
 * pages are told.
 *
 * @param later called with the milliseconds after which it is due again
 * @param againMs what is not given up for good is due again after that
 */
export async function tryAgain(
  { pool, config }: Pick<WorkerDeps, "pool" | "config">,
  workshopId: string,
  of: ReturnType<typeof talk>,
  ask: { readonly id: string; readonly runId: string; readonly tries: number },
  reason: string,
  later: (inMs: number) => void,
  againMs?: number,
): Promise<void> {
  const waitMs = config.feedRetryMs * 2 ** (ask.tries - 1);
  const isOver = ask.tries >= MOST_TRIES;
  await withWorkshop(pool, workshopId, async (tx) => {
    if (isOver) await of.end(tx, ask.id, "failed", reason, againMs);
    else await of.putOff(tx, ask.id, reason, waitMs);
    await tell(tx, { kind: "asking", workshop: workshopId, runId: ask.runId });
  });
  if (!isOver) later(waitMs);
}
