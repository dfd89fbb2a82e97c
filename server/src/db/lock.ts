import type { Tx } from "./pool.ts";
import { one } from "./tx.ts";

/**
 * Holds a run until the transaction ends: who releases, counts or closes it does so one after the other.
 * @throws AppError NOT_FOUND
 */
export async function lockRun(tx: Tx, runId: string): Promise<void> {
  one((await tx.query<{ id: string }>("select id from run where id = $1 for update", [runId])).rows, "run");
}

/**
 * Holds what is counted of a run until the transaction ends. Rows of the run may be written before: two that have each
 * written one do not wait for each other, as they would for the run itself.
 * @throws AppError NOT_FOUND
 */
export async function lockCounts(tx: Tx, runId: string): Promise<void> {
  const { rows } = await tx.query<{ id: string }>("select id from run where id = $1 for no key update", [
    runId,
  ]);
  one(rows, "run");
}
