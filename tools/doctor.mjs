// Says what is wrong with an installation, and what to do.
//   npm run doctor -- [--data FOLDER]
import { existsSync, readdirSync, statfsSync, statSync } from "node:fs";
import { freemem, totalmem } from "node:os";
import { join, resolve } from "node:path";
import { option, ROOT } from "./setup.mjs";

let bad = 0;
const say = (isFine, what, todo) => {
  if (!isFine) bad++;
  console.log(`${isFine ? "fine " : "WRONG"}  ${what}`);
  if (!isFine && todo) console.log(`       → ${todo}`);
};
const note = (what) => console.log(`note   ${what}`);

const [major, minor] = process.versions.node.split(".").map(Number);
say(major === 20 && minor >= 19, `Node ${process.versions.node}`, "Kobbin runs on Node 20.19 or a later 20.");
const lock = join(ROOT, "node_modules", ".package-lock.json");
const hasPackages =
  existsSync(lock) && statSync(lock).mtimeMs >= statSync(join(ROOT, "package-lock.json")).mtimeMs;
say(hasPackages, "packages are installed and match the lock file", "npm ci");
say(
  existsSync(join(ROOT, "server/dist/main.js")) && existsSync(join(ROOT, "web/dist/index.html")),
  "server and page are built",
  "npm start builds them, or npm run build",
);
const disk = statfsSync(ROOT);
const freeGb = (disk.bavail * disk.bsize) / 1e9;
say(
  freeGb > 1,
  `${freeGb.toFixed(1)} GB free on the disk`,
  "Free at least 1 GB: archives and packages lie in the database.",
);
say(
  freemem() > 300e6 || totalmem() > 2e9,
  `${(totalmem() / 1e9).toFixed(1)} GB of memory`,
  "The workers that measure boards want 1 GB.",
);

const { dataFolder, findPrograms } = await import("./cluster.mjs");
let url = process.env.MIGRATION_URL ?? process.env.DATABASE_URL;
let appUrl = process.env.DATABASE_URL;
let stop = () => undefined;
if (url) note("the database is the one DATABASE_URL names");
else {
  const folder = dataFolder(ROOT, option("--data") ? resolve(option("--data")) : undefined);
  const programs = findPrograms();
  say(
    Boolean(programs),
    `PostgreSQL's programs${programs ? ` in ${programs}` : ""}`,
    "npm start installs them as root, or: apt-get install postgresql",
  );
  const isMade = existsSync(join(folder, "pg", "PG_VERSION"));
  say(isMade, `a private database in ${folder}`, "npm start makes it.");
  if (programs && isMade) {
    const { ensureDatabase, startCluster } = await import("./cluster.mjs");
    try {
      const cluster = await startCluster(folder);
      stop = cluster.stop;
      await ensureDatabase(cluster.url, "kobbin");
      url = cluster.ownerUrl("kobbin");
      appUrl = cluster.appUrl("kobbin");
      say(true, `the private database runs on port ${cluster.port}`);
    } catch (error) {
      say(
        false,
        `the private database does not start: ${error.message.split("\n")[0]}`,
        `Read ${join(folder, "pg", "server.log")}.`,
      );
    }
  }
}
if (url && hasPackages) {
  const { default: pg } = await import("pg");
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 5000 });
  try {
    await client.connect();
    const one = async (sql, values) => (await client.query(sql, values)).rows[0];
    const { v } = await one("select current_setting('server_version') as v");
    say(
      Number.parseInt(v, 10) >= 15,
      `the database answers, PostgreSQL ${v}`,
      "Kobbin is tested on PostgreSQL 15.",
    );
    const has = async (table) =>
      (await one("select to_regclass($1) is not null as has", [`public.${table}`])).has;
    if (await has("migration")) {
      const files = readdirSync(join(ROOT, "server/migrations"))
        .filter((f) => f.endsWith(".sql"))
        .map((f) => f.replace(/\.sql$/, ""));
      const done = (await client.query("select name from migration")).rows.map((r) => r.name);
      const open = files.filter((f) => !done.includes(f));
      const unknown = done.filter((d) => !files.includes(d));
      say(
        unknown.length === 0,
        "the database is not newer than this Kobbin",
        `It knows ${unknown.join(", ")}: run the newer Kobbin, or read a backup into a fresh database.`,
      );
      if (open.length > 0)
        note(
          `the next start brings the database forward by ${open.join(", ")}; take a backup first: npm run backup`,
        );
      else say(true, "the database is at the newest step");
      const { createPool, whatStandsAgainst } = await import("../server/dist/index.js");
      const pool = createPool(appUrl);
      const against = await whatStandsAgainst(pool).finally(() => pool.end());
      say(!against || open.length > 0, "the server signs in as a role that can only serve", against);
      const open_tables = (
        await client.query(
          "select c.relname from pg_class as c join pg_attribute as a on a.attrelid = c.oid and a.attname = 'workshop_id' where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace and not c.relrowsecurity and c.relname not in ('member', 'session', 'figures_due', 'feed_due')",
        )
      ).rows.map((r) => r.relname);
      say(
        open_tables.length === 0,
        "every table of a shop has its policy",
        `${open_tables.join(", ")}: restore the policy of the migration.`,
      );
      if (await has("figures_due")) {
        const due = await one(
          "select count(*)::int as n, coalesce(extract(epoch from now() - min(since) filter (where parked is null)), 0)::int as oldest, count(parked)::int as parked, min(parked) as why from figures_due",
        );
        say(
          due.oldest < 300 && due.parked === 0,
          `${due.n} runs wait for their figures`,
          due.parked > 0
            ? `${due.parked} were set aside: ${due.why}`
            : `The oldest waits for ${due.oldest} s: is a server with ROLE=all or ROLE=worker running?`,
        );
      }
      // shop by shop, since the policies bind the owner of the tables too
      const shops = (await client.query("select id from workshop")).rows;
      let [runs, missing] = [0, 0];
      for (const { id } of shops) {
        await client.query("select set_config('app.workshop', $1, false)", [id]);
        runs += (await one("select count(*)::int as n from run where workshop_id = $1", [id])).n;
        missing += (
          await one(
            "select count(*)::int as n from board_file as f left join blob as b on b.workshop_id = f.workshop_id and b.sha256 = f.sha256 where f.workshop_id = $1 and b.sha256 is null",
            [id],
          )
        ).n;
      }
      say(missing === 0, "every board has its files", `${missing} files are missing: read the last backup.`);
      const { size } = await one("select pg_size_pretty(pg_database_size(current_database())) as size");
      note(`${shops.length} shops, ${runs} runs, ${size}`);
    } else note("the database is empty; the first start fills it");
  } catch (error) {
    say(
      false,
      `the database does not answer: ${error.message || error.code}`,
      "Is PostgreSQL running, and is the address right?",
    );
  } finally {
    await client.end().catch(() => undefined);
  }
}
for (const [name, values] of [
  ["ROLE", ["all", "web", "worker"]],
  ["SIGN_UP", ["open", "first", "closed"]],
  ["TRUST_PROXY", ["yes", "no"]],
])
  if (process.env[name] !== undefined)
    say(
      values.includes(process.env[name]),
      `${name} is ${process.env[name]}`,
      `It is one of ${values.join(", ")}.`,
    );
if (process.env.STANDINS_URL) {
  const r = await fetch(`${process.env.STANDINS_URL}/suppliers`, { signal: AbortSignal.timeout(3000) }).catch(
    () => undefined,
  );
  say(
    Boolean(r?.ok),
    `the simulated suppliers at ${process.env.STANDINS_URL} answer`,
    "Start them: STANDINS_PORT=… node standins/dist/main.js",
  );
}
stop();
console.log(bad === 0 ? "\nNothing is wrong." : `\n${bad} ${bad === 1 ? "thing is" : "things are"} wrong.`);
process.exit(bad === 0 ? 0 : 1);
