import { fileURLToPath } from "node:url";
import { runner } from "node-pg-migrate";
import pg from "pg";
import PgBoss from "pg-boss";

const FOLDER = new URL("../../migrations/", import.meta.url);
/** The queues there are. */
export const QUEUES = ["feeds", "figures"] as const;

/**
 * Brings a database to the newest numbered migration and makes what the queue needs; as the tables' owner, who is not
 * whom the server signs in as. Safe when several start at once (advisory lock).
 *
 * @returns the names of the steps that were done
 */
export async function migrate(ownerUrl: string): Promise<string[]> {
  const done = await runner({
    databaseUrl: ownerUrl,
    dir: fileURLToPath(FOLDER),
    direction: "up",
    migrationsTable: "migration",
    checkOrder: true,
    // who comes second waits, and finds nothing left to do
    advisoryLockMode: "wait",
    log: () => undefined,
  });
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  try {
    await client.query("select pg_advisory_lock(41804181)");
    await makeQueues(ownerUrl);
    await client.query(GRANTS);
  } finally {
    await client.end();
  }
  return done.map((m) => m.name);
}

/** What the server's role may do beside its tables: work on the queue's, and see which steps were done. */
const GRANTS = `
grant select on migration to kobbin_app;
grant usage on schema pgboss to kobbin_app;
grant select, insert, update, delete on all tables in schema pgboss to kobbin_app;
grant usage on all sequences in schema pgboss to kobbin_app;
revoke execute on all functions in schema pgboss from public;
`;

async function makeQueues(ownerUrl: string): Promise<void> {
  const boss = new PgBoss({ connectionString: ownerUrl, supervise: false, schedule: false, max: 2 });
  boss.on("error", () => undefined);
  await boss.start();
  try {
    // short: one waiting job a key, however often it is asked for
    for (const name of QUEUES)
      if (!(await boss.getQueue(name))) await boss.createQueue(name, { name, policy: "short" });
  } finally {
    await boss.stop({ graceful: false, wait: true });
  }
}
