import { readFileSync } from "node:fs";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { ORDER_STATES } from "@kobbin/core";
import { descriptorOf, readConfig, TABLE_ORDER, whatStandsAgainst } from "@kobbin/server";
import { startServer, strangerFiles, type TestServer, Visitor } from "../../test/kit.ts";
import { endAll, startProcess } from "../../test/processes.ts";

// what the server may in the database and under which names, tried against the database itself

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(async () => {
  endAll();
  await server.close();
});

test("the server's role owns nothing, cannot leave itself, and a server that signs in as more does not start", async () => {
  const { pool } = server.deps;
  const refused = async (sql: string) =>
    expect([
      sql,
      await pool.query(sql).then(
        () => "done",
        (e: Error) => e.message,
      ),
    ]).toEqual([
      sql,
      expect.stringMatching(
        /permission denied|must be (owner|superuser)|cannot|not permitted|does not exist/,
      ),
    ]);
  for (const sql of [
    "set role kobbin_owner",
    "set role kobbin",
    "set session authorization kobbin",
    "create table evil (x int)",
    "create temporary table evil (x int)",
    "create schema evil",
    "create function evil() returns int language sql as 'select 1'",
    "alter table run disable row level security",
    "drop policy own_workshop on run",
    "alter table change_row drop constraint change_row_tbl_check",
    "create role evil",
    "copy (select 1) to program 'id'",
    "copy (select 1) to '/tmp/evil'",
    "select pg_read_file('/etc/passwd')",
    "select lo_import('/etc/passwd')",
    "create extension file_fdw",
    "truncate audit",
    "delete from audit",
    "update audit set what = 'nothing'",
  ])
    await refused(sql);
  expect(await whatStandsAgainst(pool)).toBeUndefined();
  for (const variable of ["TEST_DATABASE_URL", "TEST_OWNER_URL"]) {
    const url = Object.assign(new URL(process.env[variable]!), {
      pathname: new URL(server.deps.config.databaseUrl).pathname,
    }).href;
    await expect(startProcess({ DATABASE_URL: url })).rejects.toThrow(/signs in as/);
  }
});

test("functions with their owner's rights look for names in our schema first", async () => {
  const { rows } = await server.owner.query<{ name: string; config: string[] | null }>(
    "select proname as name, proconfig as config from pg_proc where prosecdef and pronamespace = 'public'::regnamespace",
  );
  expect(rows.map((r) => r.name).sort()).toEqual(["calendar_of", "demo_orphans", "find_parts", "invited"]);
  for (const r of rows) expect(r.config).toContain("search_path=public, pg_temp");
});

test("the record takes no name of a table that is none, and a key over shop and id stands behind every reference", async () => {
  const { rows: keys } = await server.owner.query<{ t: string; c: string }>(
    `select c.conrelid::regclass::text as t, a.attname as c from pg_constraint as c
     join pg_attribute as a on a.attrelid = c.conrelid and a.attnum = c.conkey[1]
     where c.contype = 'f' and cardinality(c.conkey) = 1 and a.attname <> 'workshop_id' and c.connamespace = 'public'::regnamespace
       and exists (select 1 from pg_attribute as w where w.attrelid = c.confrelid and w.attname = 'workshop_id')`,
  );
  expect(keys).toEqual([]);
  // an index over the shop alone beside that key is taken for a shop no statistics know: each check then reads all its rows
  const { rows: alone } = await server.owner.query<{ index: string }>(
    `select i.indexrelid::regclass::text as index from pg_index as i
     join pg_attribute as a on a.attrelid = i.indrelid and a.attnum = i.indkey[0] and a.attname = 'workshop_id'
     where i.indnatts = 1 and exists (
       select 1 from pg_constraint as c where c.contype = 'f' and c.confrelid = i.indrelid and cardinality(c.confkey) > 1)`,
  );
  expect(alone).toEqual([]);
  const v = new Visitor(server);
  await v.startShop("Recorded");
  await v.drop(strangerFiles());
  await expect(
    server.owner.query(
      "insert into change_row (change_id, workshop_id, tbl, key, op) select id, workshop_id, 'pg_authid', '{}', 'delete' from change limit 1",
    ),
  ).rejects.toThrow("change_row_tbl_check");
});

test("the descriptors say what the database holds: columns, keys, policy, grants, record, and who owns it", async () => {
  const { rows } = await server.owner.query<{
    table: string;
    columns: string[];
    policies: string[];
    isForced: boolean;
    grants: string[];
    triggers: string[];
    owner: string;
  }>(
    `select c.relname as table, pg_get_userbyid(c.relowner) as owner, c.relforcerowsecurity and c.relrowsecurity as "isForced",
       array(select a.attname::text from pg_attribute as a where a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped and a.attname <> 'workshop_id' order by 1) as columns,
       array(select p.polname || ' ' || pg_get_expr(p.polqual, c.oid) || pg_get_expr(p.polwithcheck, c.oid) from pg_policy as p where p.polrelid = c.oid) as policies,
       array(select distinct privilege_type::text from information_schema.role_table_grants as g where g.grantee = 'kobbin_app' and g.table_name = c.relname order by 1) as grants,
       array(select pg_get_triggerdef(t.oid) from pg_trigger as t where t.tgrelid = c.oid and t.tgname in ('record_row', 'bump_version') order by t.tgname) as triggers
     from pg_class as c where c.relname = any($1) and c.relnamespace = 'public'::regnamespace order by 1`,
    [TABLE_ORDER],
  );
  expect(rows.map((r) => r.table)).toEqual([...TABLE_ORDER].sort());
  // one function each reads parts and shops as their owner: the search, and demo shops nobody belongs to
  const isSearched = (table: string) => table === "part" || table === "workshop";
  for (const r of rows) {
    const d = descriptorOf(r.table);
    const [isShop, own] = r.table === "workshop" ? [true, "id"] : [false, "workshop_id"];
    const on = `ON public.${r.table} FOR EACH ROW EXECUTE FUNCTION`;
    const key = d.key.map((k) => `'${k}'`).join(", ");
    expect(r).toEqual({
      table: r.table,
      owner: "kobbin_owner",
      isForced: !isSearched(r.table),
      columns: Object.keys(d.columns).sort(),
      // asked once a question, not once a row
      policies: [
        `own_workshop (${own} = ${isShop ? "current_workshop()" : "( SELECT current_workshop() AS current_workshop)"})(${own} = current_workshop())`,
      ],
      grants: ["DELETE", "INSERT", "SELECT", "UPDATE"],
      triggers: [
        ...("version" in d.columns ? [`CREATE TRIGGER bump_version BEFORE UPDATE ${on} bump_version()`] : []),
        `CREATE TRIGGER record_row AFTER ${isShop ? "UPDATE" : "INSERT OR DELETE OR UPDATE"} ${on} record_row(${key})`,
      ],
    });
  }
  // every other table without one, or whose owner is not bound by it, stands with its reason in the page on security
  const { rows: bare } = await server.owner.query<{ name: string }>(
    `select c.relname as name from pg_class as c
     where c.relkind in ('r', 'p') and c.relnamespace = 'public'::regnamespace
       and not (c.relrowsecurity and c.relforcerowsecurity) order by 1`,
  );
  const page = readFileSync(new URL("../../../docs/security.md", import.meta.url), "utf8");
  const [, list] = /## Tables without a policy([\s\S]*?)\n## /.exec(page)!;
  expect(bare.map((b) => b.name)).toEqual([...list!.matchAll(/^\| `(\w+)`/gm)].map((m) => m[1]));
});

test("bound beyond this machine, sign-up and the demo are closed unless each is asked for; names are whole addresses", () => {
  const read = (env: Record<string, string>) => readConfig({ DATABASE_URL: "postgres://x", ...env });
  expect(read({})).toMatchObject({ signUp: "first", hasDemo: false });
  for (const HOST of ["0.0.0.0", "::", "192.168.1.5", "kobbin.example"])
    expect(read({ HOST })).toMatchObject({ signUp: "closed", hasDemo: false });
  expect(read({ HOST: "0.0.0.0", SIGN_UP: "first", DEMO: "yes" })).toMatchObject({
    signUp: "first",
    hasDemo: true,
  });
  expect(read({ ORIGINS: "https://kobbin.example, HTTP://Host:8080" }).origins).toEqual([
    "https://kobbin.example",
    "http://host:8080",
  ]);
  for (const ORIGINS of ["kobbin.example", "https://a@kobbin.example", "ftp://x", "https://x/path", "*"])
    expect(() => read({ ORIGINS })).toThrow("ORIGINS is a list");
});

test("what an order may come to the database holds as the one table of it has it", async () => {
  const { rows } = await server.deps.pool.query<{ text: string }>(
    "select pg_get_constraintdef(oid) as text from pg_constraint where conname = 'order_step_state_check'",
  );
  expect([...rows[0]!.text.matchAll(/'([a-z]+)'/g)].map((m) => m[1])).toEqual([...ORDER_STATES]);
});
