import pg from "pg";

// dates stay text: the driver's default makes local midnight of them
pg.types.setTypeParser(1082, (v) => v);

/** A pool whose sessions act as kobbin_app: not the owner, bound by row-level security. */
export function createPool(databaseUrl: string): pg.Pool {
  return new pg.Pool({
    connectionString: databaseUrl,
    max: 12,
    options: "-c role=kobbin_app",
    application_name: "kobbin",
  });
}

export type Pool = pg.Pool;
/** A client inside a transaction. */
export type Tx = pg.PoolClient;
