import pg from "pg";
import { createShare, type Share } from "./share.ts";

// dates stay text: the driver's default makes local midnight of them
pg.types.setTypeParser(1082, (v) => v);

/** Connections of one process. */
const CONNECTIONS = 12;

/** How long the database works on one statement, waits for a lock, or holds a transaction nobody goes on with. */
const TIMEOUTS = "-c statement_timeout=20s -c lock_timeout=6s -c idle_in_transaction_session_timeout=20s";

/**
 * A pool of the server's role, bound by row-level security. Statements are sent without waiting for the answer to the
 * one before, so what begins a transaction costs no way of its own.
 */
export function createPool(databaseUrl: string): pg.Pool {
  return new pg.Pool({
    connectionString: databaseUrl,
    max: CONNECTIONS,
    options: TIMEOUTS,
    connectionTimeoutMillis: 10_000,
    application_name: "kobbin",
    pipeline: true,
  } as pg.PoolConfig);
}

export type Pool = pg.Pool;
/** A client inside a transaction. */
export type Tx = pg.PoolClient;

const shares = new WeakMap<Pool, Share>();

/**
 * How a pool's connections are shared out: a shop has two thirds of them at most, a person half; two are kept for the
 * door, which is asked before any shop is known.
 */
export function shareOf(pool: Pool): Share {
  let share = shares.get(pool);
  if (!share) {
    share = createShare({
      inAll: CONNECTIONS - 2,
      perShop: 8,
      perPerson: 6,
      waitMs: 10_000,
      mostWaiting: 400,
    });
    shares.set(pool, share);
  }
  return share;
}
