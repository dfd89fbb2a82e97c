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
 * @param from what it begins with
 */
export async function makeDatabase(
  admin: pg.Client,
  name: string,
  from: "migrated" | "nothing" | { template: string } = "migrated",
): Promise<{ databaseUrl: string; ownerUrl: string; adminUrl: string }> {
  if (from === "nothing") await makeEmpty(admin, name);
  else await copyDatabase(admin, from === "migrated" ? await migratedTemplate(admin) : from.template, name);
  return {
    databaseUrl: at("TEST_APP_URL", name),
    ownerUrl: at("TEST_OWNER_URL", name),
    adminUrl: at("TEST_DATABASE_URL", name),
  };
}

/** Makes a database that holds what another holds, which nobody may be connected to. */
async function copyDatabase(admin: pg.Client, from: string, name: string): Promise<void> {
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

/**
 * A database that is made once for all tests, in whatever process needs it first, and copied by each; the others wait.
 * @param make fills the empty database of this name
 */
export async function template(
  admin: pg.Client,
  name: string,
  make: () => Promise<unknown>,
): Promise<string> {
  await admin.query("select pg_advisory_lock(hashtext($1))", [name]);
  try {
    const { rows } = await admin.query<{ datistemplate: boolean }>(
      "select datistemplate from pg_database where datname = $1",
      [name],
    );
    if (rows[0]?.datistemplate) return name;
    // left by a run that was cut off
    if (rows[0]) await admin.query(`drop database ${name} with (force)`);
    await make();
    await admin.query(`alter database ${name} is_template true`);
    return name;
  } finally {
    await admin.query("select pg_advisory_unlock(hashtext($1))", [name]);
  }
}

const MIGRATIONS = new URL("../migrations/", import.meta.url);
const MIGRATING = new URL("../src/db/migrate.ts", import.meta.url);

/** The name of the database that was brought forward by the steps there are. */
function migratedTemplate(admin: pg.Client): Promise<string> {
  const hash = createHash("sha256");
  for (const file of readdirSync(MIGRATIONS).sort()) hash.update(readFileSync(new URL(file, MIGRATIONS)));
  const name = `migrated_${hash.update(readFileSync(MIGRATING)).digest("hex").slice(0, 12)}`;
  return template(admin, name, async () => {
    await makeEmpty(admin, name);
    await migrate(at("TEST_OWNER_URL", name));
  });
}
