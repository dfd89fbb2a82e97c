import { readdirSync } from "node:fs";
import type { Pool } from "./pool.ts";

/** Names of the numbered steps that ship with this server. */
const STEPS = readdirSync(new URL("../../migrations/", import.meta.url))
  .filter((f) => f.endsWith(".sql"))
  .map((f) => f.replace(/\.sql$/, ""))
  .sort();

/**
 * What stands against serving from this database: its steps are not this server's, or the role the server signed in as
 * could do more than serve.
 *
 * @returns a sentence with what to do, or undefined
 */
export async function whatStandsAgainst(pool: Pool): Promise<string | undefined> {
  const { rows } = await pool.query<{ role: string; may: string | null }>(ROLE);
  const { role, may } = rows[0]!;
  if (may)
    return `DATABASE_URL signs in as “${role}”, which ${may}. The server signs in as a role that owns nothing, is a member of nothing and is no superuser (kobbin_app); MIGRATION_URL is the owner's. docs/operations.md has the four statements that make both.`;
  const has = await pool.query<{ has: boolean }>("select to_regclass('public.migration') is not null as has");
  const done = has.rows[0]!.has
    ? (await pool.query<{ name: string }>("select name from migration")).rows.map((r) => r.name)
    : [];
  const open = STEPS.filter((s) => !done.includes(s));
  if (open.length > 0)
    return `The database is not brought forward yet (${open.join(", ")}). Run: MIGRATION_URL=… npm run migrate`;
  const unknown = done.filter((d) => !STEPS.includes(d));
  return unknown.length > 0
    ? `The database is newer than this Kobbin: it knows ${unknown.join(", ")}. Run the newer Kobbin.`
    : undefined;
}

const ROLE = `
select session_user as role,
  case
    when r.rolsuper then 'is a superuser'
    when r.rolbypassrls then 'passes row-level security'
    when r.rolcreaterole then 'may make roles'
    when r.rolreplication then 'may copy the whole cluster'
    when current_user <> session_user then 'acts as another'
    when exists (select 1 from pg_auth_members as m where m.member = r.oid) then 'may become another role'
    when exists (select 1 from pg_database as d where d.datname = current_database() and d.datdba = r.oid) then 'owns the database'
    when exists (select 1 from pg_class as c where c.relowner = r.oid and c.relkind in ('r', 'p', 'v', 'S')) then 'owns tables'
    when exists (select 1 from pg_proc as p where p.proowner = r.oid) then 'owns functions'
    when has_database_privilege(current_database(), 'temporary') then 'may make temporary tables'
    when has_database_privilege(current_database(), 'create') or has_schema_privilege('public', 'create') then 'may make tables'
  end as may
from pg_roles as r where r.rolname = session_user`;
