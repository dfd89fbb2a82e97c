import { AppError } from "@kobbin/core";
import type { Pool, Tx } from "./pool.ts";

/** Runs inside one transaction; rolls back on any throw. */
export async function withTransaction<T>(pool: Pool, work: (tx: Tx) => Promise<T>): Promise<T> {
  const tx = await pool.connect();
  // a connection that breaks between two statements speaks up here; the next statement fails and says so
  let lost: Error | undefined;
  const hear = (error: Error) => {
    lost = error;
  };
  tx.on("error", hear);
  try {
    await tx.query("begin");
    const value = await work(tx);
    await tx.query("commit");
    return value;
  } catch (error) {
    await tx.query("rollback").catch((e: Error) => {
      lost = e;
    });
    throw error;
  } finally {
    tx.off("error", hear);
    tx.release(lost);
  }
}

/** As above, with the workshop set for row-level security; it ends with the transaction. */
export function withWorkshop<T>(pool: Pool, workshopId: string, work: (tx: Tx) => Promise<T>): Promise<T> {
  return withTransaction(pool, async (tx) => {
    await tx.query("select set_config('app.workshop', $1, true)", [workshopId]);
    return work(tx);
  });
}

/** The one row of a statement. @throws AppError NOT_FOUND naming the thing */
export function one<T>(rows: readonly T[], thing: string): T {
  const row = rows[0];
  if (row === undefined)
    throw new AppError(
      "NOT_FOUND",
      `There is no such ${thing} here.`,
      "Go back to the bench and open it from there.",
    );
  return row;
}
