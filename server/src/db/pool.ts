import pg from "pg";

// dates stay text: the driver's default makes local midnight of them
pg.types.setTypeParser(1082, (v) => v);

/**
 * A pool whose sessions act as kobbin_app: not the owner, bound by row-level security. Statements are sent without
 * waiting for the answer to the one before, so what begins a transaction costs no way of its own.
 */
export function createPool(databaseUrl: string): pg.Pool {
  return new pg.Pool({
    connectionString: databaseUrl,
    max: 12,
    options: "-c role=kobbin_app",
    application_name: "kobbin",
    pipeline: true,
  } as pg.PoolConfig);
}

export type Pool = pg.Pool;
/** A client inside a transaction. */
export type Tx = pg.PoolClient;
