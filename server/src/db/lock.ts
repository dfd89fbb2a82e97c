import type { Tx } from "./pool.ts";
import { one } from "./tx.ts";

/**
 * Holds a run until the transaction ends: who releases, counts or closes it does so one after the other.
 * @throws AppError NOT_FOUND
 */
export async function lockRun(tx: Tx, runId: string): Promise<void> {
  one((await tx.query<{ id: string }>("select id from run where id = $1 for update", [runId])).rows, "run");
}
