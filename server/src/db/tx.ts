import { AppError } from "@kobbin/core";
import { type Pool, shareOf, type Tx } from "./pool.ts";

/** Runs inside one transaction; rolls back on any throw. */
export const withTransaction = <T>(pool: Pool, work: (tx: Tx) => Promise<T>): Promise<T> =>
  transaction(pool, (tx) => [tx.query("begin")], work);

/** As above, with the workshop set for row-level security; it ends with the transaction. */
export const withWorkshop = <T>(pool: Pool, workshopId: string, work: (tx: Tx) => Promise<T>): Promise<T> =>
  inTurn(pool, workshopId, () =>
    again(() => transaction(pool, (tx) => [tx.query("begin"), setWorkshop(tx, workshopId)], work)),
  );

/** As above, seeing one moment throughout: what somebody else changes meanwhile makes it begin again. */
export const withMoment = <T>(pool: Pool, workshopId: string, work: (tx: Tx) => Promise<T>): Promise<T> =>
  inTurn(pool, workshopId, () =>
    again(() =>
      transaction(
        pool,
        (tx) => [tx.query("begin isolation level repeatable read"), setWorkshop(tx, workshopId)],
        work,
      ),
    ),
  );

/** Reads of one workshop; a write in it is refused. What was read is there before the transaction has ended. */
export const readWorkshop = <T>(pool: Pool, workshopId: string, work: (tx: Tx) => Promise<T>): Promise<T> =>
  inTurn(pool, workshopId, () =>
    transaction(pool, (tx) => [tx.query("begin read only"), setWorkshop(tx, workshopId)], work, true),
  );

/**
 * Does work while nobody else does any under the same key, in any process; it may take minutes.
 * @param onTaken what is done instead where somebody is at it already; without it one waits
 */
export async function alone<T>(
  pool: Pool,
  key: number,
  work: () => Promise<T>,
  onTaken?: () => never,
): Promise<T> {
  return transaction(
    pool,
    (tx) => [tx.query("begin")],
    async (tx) => {
      await tx.query(
        `select set_config('statement_timeout', '0', true), set_config('lock_timeout', '5min', true),
         set_config('idle_in_transaction_session_timeout', '0', true)`,
      );
      if (onTaken) {
        const { rows } = await tx.query<{ is: boolean }>("select pg_try_advisory_xact_lock($1) as is", [key]);
        if (!rows[0]!.is) onTaken();
      } else await tx.query("select pg_advisory_xact_lock($1)", [key]);
      return work();
    },
  );
}

/** A shop's share of the connections is kept while it works. */
async function inTurn<T>(pool: Pool, workshopId: string, work: () => Promise<T>): Promise<T> {
  const release = await shareOf(pool).take(workshopId);
  try {
    return await work();
  } finally {
    release();
  }
}

/** How often what stood in another's way is begun again before it is told. */
const MOST_TRIES = 5;

/** Begins again where two transactions waited for each other, or one saw what the other had changed: nothing was done. */
async function again<T>(work: () => Promise<T>): Promise<T> {
  for (let n = 1; ; n++)
    try {
      return await work();
    } catch (error) {
      const code = (error as { code?: string }).code ?? "";
      if (!["40P01", "40001"].includes(code) || n >= MOST_TRIES) throw error;
      // apart by chance, so that the two do not meet again
      await new Promise((done) => setTimeout(done, n * 15 * (1 + Math.random())));
    }
}

const setWorkshop = (tx: Tx, workshopId: string) =>
  tx.query({
    name: "set workshop",
    text: "select set_config('app.workshop', $1, true)",
    values: [workshopId],
  });

/**
 * @param begin statements before the work's own; they are sent with its first one and not waited for
 * @param isRead nobody needs to wait for its end
 */
async function transaction<T>(
  pool: Pool,
  begin: (tx: Tx) => readonly Promise<unknown>[],
  work: (tx: Tx) => Promise<T>,
  isRead = false,
): Promise<T> {
  const tx = await pool.connect();
  // a connection that breaks between two statements speaks up here; the next statement fails and says so
  let lost: Error | undefined;
  const hear = (error: Error) => {
    lost = error;
  };
  tx.on("error", hear);
  const done = (error?: Error) => {
    tx.off("error", hear);
    tx.release(error ?? lost);
  };
  const begun = begin(tx);
  // heard below, once the work has ended
  for (const b of begun) b.catch(() => undefined);
  let value: T;
  try {
    try {
      value = await work(tx);
    } finally {
      // where it did not begin, that is what went wrong, not what came of it
      await Promise.all(begun);
    }
    if (!isRead) await tx.query("commit");
  } catch (error) {
    await tx.query("rollback").catch((e: Error) => {
      lost = e;
    });
    done();
    throw error;
  }
  if (isRead)
    tx.query("commit").then(
      () => done(),
      (error: Error) => done(error),
    );
  else done();
  return value;
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
