// People clicking through runs while others do their worst beside them: a large backup read back again and again, bombs
// dropped and sent as backups, partners that answer a megabyte of nothing or never. How long the people wait is held
// against how long they wait without it, and a process of its own asks whether the server is there all the while.
//   npm run beside -- [--people 30] [--seconds 60] [--rows 75000]
import { fork } from "node:child_process";
import { createServer } from "node:http";
import { fileURLToPath } from "node:url";
import { gzipSync } from "node:zlib";
import { zipSync } from "fflate";
import pg from "pg";
import { createStandIns } from "../standins/dist/index.js";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, numberOption } from "../tools/setup.mjs";
import { at, clicking, moveIn, pause, peopleOf, round } from "./people.mjs";
import { serve } from "./serve.mjs";

if (process.argv[2] === "--ask") {
  const times = [];
  process.on("disconnect", () => process.exit());
  process.on("message", () => process.send(times.splice(0)));
  for (;;) {
    const began = performance.now();
    await (await fetch(`${process.argv[3]}/health`)).arrayBuffer();
    times.push(performance.now() - began);
    await pause(20);
  }
}

checkEngine();
ensurePackagesInstalled();
await ensureBuilt();
const people = numberOption("--people", 30);
const seconds = numberOption("--seconds", 60);
const rows = numberOption("--rows", 75_000);

// partners who answer as they do, and those of one shop that mean no good
const MB = 1024 * 1024;
const DEEP = `${"[".repeat(MB / 2 - 10)}${"]".repeat(MB / 2 - 10)}`;
const MANY = `[${Array(340_000).fill("{}").join(",")}]`;
const PACKED = gzipSync(Buffer.alloc(200 * MB));
const ANSWERS = [
  (res) => res.end(DEEP),
  (res) => res.end(MANY),
  (res) => res.setHeader("Content-Encoding", "gzip").end(PACKED),
  () => undefined,
];
const bombs = [
  ["/api/restore", zipSync({ "manifest.json": new Uint8Array(150 * MB) })],
  [
    "/api/restore",
    zipSync({ "tables/part.jsonl": new Uint8Array(150 * MB), "manifest.json": new Uint8Array(2) }),
  ],
  ["/api/products", zipSync({ "board.gbr": new Uint8Array(150 * MB) })],
];
let answered = 0;
const honest = createStandIns({ seed: "beside", latencyMs: 50 }).callback();
const partners = createServer((req, res) =>
  req.url.includes("/never/") ? ANSWERS[answered++ % ANSWERS.length](res) : honest(req, res),
).listen(0, "127.0.0.1");
await new Promise((done) => partners.once("listening", done));

const { url, ownerUrl, end } = await serve("beside", 50, {
  DEMO: "no",
  SIGN_UP: "open",
  TRUST_PROXY: "yes",
  NEW_SHOPS: "300",
  STANDINS_URL: `http://127.0.0.1:${partners.address().port}`,
});
const { Person, told } = peopleOf(url);
const list = Array.from({ length: people }, (_, i) => new Person(i + 1));
const [large, bomber, trusting] = [1, 2, 3].map((n) => new Person(people + n));
console.log(`${people} people and three others move in …`);
await moveIn([...list, large, bomber, trusting]);
const backup = await largeBackup();

const began = performance.now();
await send(large, "/api/restore", "b.kobbin.zip", backup);
console.log(`read back, with nothing beside it, in ${round((performance.now() - began) / 1000)} s`);

const asker = fork(fileURLToPath(import.meta.url), ["--ask", url]);
const asked = () =>
  new Promise((done) => {
    asker.once("message", done);
    asker.send("told");
  });

/** What people wait for meanwhile, and how long the server takes to say that it is there. */
async function measured(what, beside) {
  await pause(3000);
  await asked();
  told.times.clear();
  told.isCounting = true;
  const until = performance.now() + seconds * 1000;
  const others = beside(until);
  await clicking(list, until);
  told.isCounting = false;
  const all = [...told.times.values()].flat();
  const health = await asked();
  const figures = {
    requests: all.length,
    p50: round(at(all, 0.5)),
    p95: round(at(all, 0.95)),
    health95: round(at(health, 0.95)),
    healthMost: round(Math.max(...health)),
  };
  console.log(what, JSON.stringify(figures), await others);
  return figures;
}

const alone = await measured("without", async () => "");
const beside = await measured("beside ", async (until) => {
  const [restores, refused] = await Promise.all([restoring(until), bombing(until), asking(until)]);
  return JSON.stringify({ restoreSeconds: restores, refused });
});
const failures = [...told.failures];
for (const [what, n] of failures) console.log(`  failed ${n} times: ${what}`);
console.log(`p95 ${round(beside.p95 / alone.p95)} times as long; health p95 ${beside.health95} ms`);
asker.kill();
await end();
partners.closeAllConnections();
partners.close();
process.exit(failures.length > 0 || beside.p95 > 3 * alone.p95 || beside.health95 > 50 ? 1 : 0);

/** A backup of so many rows, of a shop that has them. */
async function largeBackup() {
  const db = new pg.Client({ connectionString: ownerUrl });
  await db.connect();
  const { rows: shops } = await db.query(
    "select workshop_id as id from member join account on account.id = member.account_id where email = $1",
    [`person-${large.n}`],
  );
  await db.query("begin");
  await db.query("select set_config('app.change', 'off', true), set_config('app.workshop', $1, true)", [
    shops[0].id,
  ]);
  const third = Math.floor(rows / 3);
  await db.query(
    `insert into part (workshop_id, mpn, mpn_key, words)
     select current_workshop(), 'PX-' || n, 'px' || n, 'px' || n from generate_series(1, $1::int) as n`,
    [third],
  );
  await db.query(
    `insert into lot (workshop_id, mpn, mpn_key, qty, received_on, unit_cost, currency)
     select current_workshop(), 'PX-' || n, 'px' || n, n, '2026-11-01', 0.05, 'EUR' from generate_series(1, $1::int) as n`,
    [third],
  );
  const changes = Math.max(1, Math.floor(third / 10));
  await db.query(
    `with c as (insert into change (workshop_id, person, sentence)
       select current_workshop(), 'x', 'imported' from generate_series(1, $1::int) returning id)
     insert into change_row (workshop_id, change_id, tbl, key, op, name, version)
     select current_workshop(), c.id, 'lot', jsonb_build_object('id', gen_random_uuid()), 'insert', 'x', 1
     from c, generate_series(1, 10)`,
    [changes],
  );
  await db.query("commit");
  await db.query("begin");
  await db.query("select set_config('app.change', 'off', true)");
  await db.query(
    `update supplier set feed_key = 'never' where workshop_id =
       (select workshop_id from member join account on account.id = member.account_id where email = $1)`,
    [`person-${trusting.n}`],
  );
  await db.query("commit");
  await db.end();
  const r = await fetch(`${url}/api/backup`, { headers: large.headers("GET") });
  if (!r.ok) throw new Error(`no backup: ${r.status} ${await r.text()}`);
  const bytes = Buffer.from(await r.arrayBuffer());
  console.log(`a backup of ${rows} rows and more: ${round(bytes.length / MB)} MB`);
  return bytes;
}

async function send(person, path, name, bytes) {
  const form = new FormData();
  form.append("files", new Blob([bytes]), name);
  const r = await fetch(`${url}${path}`, { method: "POST", headers: person.headers("POST"), body: form });
  await r.arrayBuffer();
  return r.status;
}

async function restoring(until) {
  const took = [];
  while (performance.now() < until) {
    const began = performance.now();
    const status = await send(large, "/api/restore", "b.kobbin.zip", backup);
    if (status !== 201) throw new Error(`the backup was answered ${status}`);
    took.push(round((performance.now() - began) / 1000));
  }
  return took;
}

async function bombing(until) {
  const refused = {};
  for (let i = 0; performance.now() < until; i++) {
    const [path, bytes] = bombs[i % bombs.length];
    // what is refused while it comes may be cut off
    const status = await send(bomber, path, "b.zip", bytes).catch((e) => e.cause?.code ?? e.message);
    refused[status] = (refused[status] ?? 0) + 1;
    await pause(1000);
  }
  return refused;
}

async function asking(until) {
  while (performance.now() < until) {
    await trusting.call("ask", "POST", `/api/runs/${trusting.run}/ask`).catch(() => undefined);
    await pause(4000);
  }
}
