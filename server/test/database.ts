import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { migrate } from "@kobbin/server";
import pg from "pg";

/** The address of another database at the same cluster, as one of the three roles. */
const at = (variable: string, name: string): string => {
  const base = process.env[variable];
  if (!base) throw new Error(`${variable} is not set: run the tests by npm test`);
  return Object.assign(new URL(base), { pathname: `/${name}` }).href;
};

/**
 * Makes a database as an installation has it: the owner's, brought forward, and served by a role that owns nothing. It is
 * a copy of one that was brought forward once for all tests, which takes a tenth of the time.
 */
export async function makeDatabase(
  admin: pg.Client,
  name: string,
  isMigrated = true,
): Promise<{ databaseUrl: string; ownerUrl: string; adminUrl: string }> {
  if (isMigrated) await copyDatabase(admin, await migratedTemplate(admin), name);
  else await makeEmpty(admin, name);
  return {
    databaseUrl: at("TEST_APP_URL", name),
    ownerUrl: at("TEST_OWNER_URL", name),
    adminUrl: at("TEST_DATABASE_URL", name),
  };
}

/** Makes a database that holds what another holds, which nobody may be connected to. */
export async function copyDatabase(admin: pg.Client, from: string, name: string): Promise<void> {
  await admin.query(`create database ${name} template ${from} owner kobbin_owner`);
  await servedByApp(admin, name);
}

async function makeEmpty(admin: pg.Client, name: string): Promise<void> {
  await admin.query(`create database ${name} owner kobbin_owner`);
  await servedByApp(admin, name);
  const inside = new pg.Client({ connectionString: at("TEST_DATABASE_URL", name) });
  await inside.connect();
  await inside.query("alter schema public owner to kobbin_owner");
  await inside.end();
}

async function servedByApp(admin: pg.Client, name: string): Promise<void> {
  await admin.query(`revoke all on database ${name} from public`);
  await admin.query(`grant connect on database ${name} to kobbin_app`);
}

const MIGRATIONS = new URL("../migrations/", import.meta.url);
const MIGRATING = new URL("../src/db/migrate.ts", import.meta.url);
let template: Promise<string> | undefined;

/** The name of the database that was brought forward; made by whoever needs it first, the others wait for it. */
function migratedTemplate(admin: pg.Client): Promise<string> {
  template ??= (async () => {
    const hash = createHash("sha256");
    for (const file of readdirSync(MIGRATIONS).sort()) hash.update(readFileSync(new URL(file, MIGRATIONS)));
    const name = `migrated_${hash.update(readFileSync(MIGRATING)).digest("hex").slice(0, 12)}`;
    await admin.query("select pg_advisory_lock(41804182)");
    try {
      const { rows } = await admin.query<{ datistemplate: boolean }>(
        "select datistemplate from pg_database where datname = $1",
        [name],
      );
      if (rows[0]?.datistemplate) return name;
      // left by a run that was cut off
      if (rows[0]) await admin.query(`drop database ${name} with (force)`);
      await makeEmpty(admin, name);
      await migrate(at("TEST_OWNER_URL", name));
      await admin.query(`alter database ${name} is_template true`);
      return name;
    } finally {
      await admin.query("select pg_advisory_unlock(41804182)");
    }
  })();
  return template;
}
