// Kills the server, PostgreSQL, or both, at a random moment of real work, starts them again, and looks: nothing that
// was confirmed is lost, nothing is half there, background work goes on.
//   npm run crash -- [rounds] [--seed N]
import { spawn } from "node:child_process";
import { randomUUID } from "node:crypto";
import { chmodSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import { ensureDatabase, freePort, startCluster } from "./cluster.mjs";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, migrateDatabase, ROOT } from "./setup.mjs";

/** A photo of twelve by eight pixels, as base 64. */
const PHOTO =
  "/9j/2wBDABsSFBcUERsXFhceHBsgKEIrKCUlKFE6PTBCYFVlZF9VXVtqeJmBanGQc1tdhbWGkJ6jq62rZ4C8ybqmx5moq6T/2wBDARweHigjKE4rK06kbl1upKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKSkpKT/wAARCAAIAAwDASIAAhEBAxEB/8QAFgABAQEAAAAAAAAAAAAAAAAAAAIE/8QAIBAAAQIFBQAAAAAAAAAAAAAAABIUAgQREyExUVJhcf/EABUBAQEAAAAAAAAAAAAAAAAAAAMF/8QAFhEBAQEAAAAAAAAAAAAAAAAAAAER/9oADAMBAAIRAxEAPwCVyjJFqNzzrjX3bozAAqcmP//Z";

checkEngine();
ensurePackagesInstalled();
await ensureBuilt();
const args = process.argv.slice(2);
const rounds = Number(args.find((a) => /^\d+$/.test(a)) ?? 300);
const seed = args.includes("--seed") ? Number(args[args.indexOf("--seed") + 1]) : 1;

// mulberry32: the same seed kills at the same moments, as far as the machine lets it
let state = seed;
const random = () => {
  state = (state + 0x6d2b79f5) | 0;
  let t = Math.imul(state ^ (state >>> 15), 1 | state);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
};
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

// the first starts after a kill fail until the last process of the old cluster is gone
process.env.KOBBIN_QUIET = "yes";
const folder = mkdtempSync(join(tmpdir(), "kobbin-crash-"));
chmodSync(folder, 0o755);
let cluster = await startCluster(folder);
await ensureDatabase(cluster.url, "crash");
migrateDatabase(cluster.ownerUrl("crash"));
const databaseUrl = cluster.appUrl("crash");
const adminUrl = cluster.url("crash");
const pgPort = cluster.port;
const serverPort = await freePort();
const url = `http://127.0.0.1:${serverPort}`;
let server;
const startServer = async () => {
  server = spawn(process.execPath, ["server/dist/main.js"], {
    cwd: ROOT,
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      PORT: String(serverPort),
      LOG: "quiet",
      SIGN_UP: "open",
      DEMO: "no",
      STANDINS_URL: "",
    },
    stdio: ["ignore", "ignore", process.env.SHOW ? "inherit" : "ignore"],
  });
};
const isReady = async () => {
  for (let i = 0; i < 1200; i++) {
    const r = await fetch(`${url}/ready`, { signal: AbortSignal.timeout(3000) }).catch(() => undefined);
    if (r?.status === 200) return true;
    // a server that found no database at its start has ended; a supervisor starts it again
    if (server.exitCode !== null) await startServer();
    await pause(50);
  }
  return false;
};
const killPostgres = () => {
  const postmaster = Number(readFileSync(join(cluster.data, "postmaster.pid"), "utf8").split("\n")[0]);
  const children = readdirSync("/proc")
    .filter((d) => /^\d+$/.test(d))
    .filter((d) => {
      try {
        const stat = readFileSync(`/proc/${d}/stat`, "utf8");
        // after the name in brackets: state, parent
        return Number(stat.slice(stat.lastIndexOf(")") + 2).split(" ")[1]) === postmaster;
      } catch {
        return false;
      }
    })
    .map(Number);
  for (const pid of [postmaster, ...children]) {
    try {
      process.kill(pid, "SIGKILL");
    } catch {
      // gone already
    }
  }
};

let cookie = "";
/** One request; undefined when no answer came, which says nothing about what was done. */
async function call(method, path, body, key) {
  const isForm = body instanceof FormData;
  try {
    const r = await fetch(`${url}${path}`, {
      method,
      headers: {
        Origin: url,
        Cookie: cookie,
        ...(key ? { "X-Request-Key": key } : {}),
        ...(body && !isForm ? { "Content-Type": "application/json" } : {}),
      },
      ...(body ? { body: isForm ? body : JSON.stringify(body) } : {}),
      signal: AbortSignal.timeout(20_000),
    });
    const set = r.headers.getSetCookie()[0];
    if (set) cookie = set.split(";")[0];
    const text = await r.text();
    return { status: r.status, change: r.headers.get("X-Change"), body: text ? JSON.parse(text) : undefined };
  } catch {
    return undefined;
  }
}

const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
const line = (x1, y1, x2, y2) => `X${x1}000000Y${y1}000000D02*\nG01X${x2}000000Y${y2}000000D01*\n`;
const FILES = {
  "a.gtl": `${HEAD}%ADD10R,1X1*%\nD10*\nX5000000Y5000000D03*\nX9000000Y5000000D03*\nM02*\n`,
  "a.gko": `${HEAD}%ADD10C,0.1*%\nD10*\n${line(0, 0, 20, 0)}${line(20, 0, 20, 10)}${line(20, 10, 0, 10)}${line(0, 10, 0, 0)}M02*\n`,
  "a-bom.csv": "Ref;Qty;Value;Package;MPN\nR1;1;4k7;1206;ZZ-1\nR2;1;1k;1206;ZZ-2\n",
};
const drop = (name) => {
  const form = new FormData();
  form.set("name", name);
  form.set("revision", "A");
  for (const [path, text] of Object.entries(FILES)) form.append("files", new Blob([text]), path);
  return form;
};

await startServer();
if (!(await isReady())) throw new Error("the server did not start");
await call("POST", "/api/shops", {
  name: "Crash",
  currency: "EUR",
  hourlyRate: "20",
  email: "crash",
  password: "a long password",
});
const owner = new pg.Pool({ connectionString: adminUrl, max: 2 });
owner.on("error", () => undefined);
const rowsOf = async (sql, values) => (await owner.query(sql, values)).rows;
const base = (await call("POST", "/api/products", drop("base"))).body;
const run = (await call("POST", "/api/runs", { revisionId: base.revisionId, name: "base", goodBoards: 1 }))
  .body.id;
const [{ id: lineId }] = await rowsOf(
  "select id from bom_line where revision_id = $1 order by position limit 1",
  [base.revisionId],
);
// a run that is released, so that parcels come and boards are built while everything falls over
const gone = await releasedRun();
await owner.query("select set_config('app.change', 'off', false)");

/** Something that is wrong with a revision. */
function wrong(revisionId, title) {
  const spot = { side: "top", diameterMm: 1 };
  return { revisionId, title, harm: "looks", spot, foundOn: "2026-12-01" };
}

/** A second product with a run that was released: one supplier, offers for its lines, what else blocks accepted. */
async function releasedRun() {
  const must = async (method, path, body) => {
    const r = await call(method, path, body);
    if (!r || r.status >= 300) throw new Error(`${method} ${path}: ${JSON.stringify(r?.body)}`);
    return r.body;
  };
  const { revisionId } = await must("POST", "/api/products", drop("gone out"));
  const { id } = await must("POST", "/api/runs", { revisionId, name: "built", goodBoards: 3 });
  const supplier = await must("POST", "/api/suppliers", {
    name: "Corner Shop",
    currency: "EUR",
    shipping: "1",
    daysMin: 1,
    daysMax: 2,
  });
  const offers = [];
  for (const l of (await must("GET", `/api/runs/${id}`)).document.lines)
    offers.push(
      await must("POST", `/api/lines/${l.id}/offers`, {
        supplierId: supplier.id,
        stock: 1e6,
        currency: "EUR",
        breaks: [{ qty: 1, price: "0.1" }],
      }),
    );
  const rail = { id: "rail", name: "rail", state: "powered", drives: [], reads: [], through: [] };
  await must("PATCH", `/api/runs/${id}`, {
    version: (await must("GET", `/api/runs/${id}`)).version,
    assembly: {
      tests: [{ ...rail, expect: "", minutes: 1, unit: "V", min: "3", max: "4" }],
      images: [
        {
          ...{ id: "watch", at: "J1", name: "watch", version: "1", file: "", from: "", tool: "", wires: [] },
          ...{ settings: "", command: "", expect: "", fits: [], values: [] },
        },
      ],
    },
  });
  for (let i = 0; i < 5; i++) {
    const r = await call("POST", `/api/runs/${id}/release`, {});
    if (r?.status === 201) {
      const [board] = (await must("GET", `/api/runs/${id}`)).boardIds;
      const fault = await must("POST", "/api/errata", wrong(revisionId, "known"));
      // bare boards came long ago, as many as are put by; of a house that is gone since
      await owner.query(
        "with quiet as materialized (select set_config('app.change', 'off', true)) insert into receipt (workshop_id, run_id, order_key, item, label, qty, arrived_on) select r.workshop_id, r.id, 'boards ' || gen_random_uuid(), $2, 'boards', 10000000, current_date from run as r, quiet where r.id = $1",
        [id, board],
      );
      return { id, order: `parts ${supplier.id}`, item: offers[0].id, board, revisionId, fault: fault.id };
    }
    const { version } = await must("GET", `/api/runs/${id}`);
    const accepted = Object.fromEntries((r?.body?.details ?? []).map((key) => [key, "for the crash"]));
    await must("PATCH", `/api/runs/${id}`, { version, accepted });
  }
  throw new Error("nothing could be released");
}

const violations = [];
const counts = {
  rounds: 0,
  server: 0,
  postgres: 0,
  both: 0,
  confirmed: 0,
  unanswered: 0,
  refused: 0,
  kinds: {},
};
let serial = 0;
/** What each client knows: the last value it was told is saved, and those sent after it without an answer. */
const knows = { goodBoards: { sure: 1, maybe: [] }, maker: { sure: "", maybe: [] } };
const imports = [];
const pastes = [];
/** What happened to the run that is out and was learned from it, with its key, what was answered and how it is found. */
const happened = [];

const verdict = (kind, r) => {
  counts.kinds[kind] = (counts.kinds[kind] ?? 0) + 1;
  if (r && r.status < 300) {
    counts.confirmed++;
    return "sure";
  }
  // 503 and a lost answer leave it open; anything else was refused and must not be there
  if (!r || r.status >= 500) {
    counts.unanswered++;
    return "maybe";
  }
  counts.refused++;
  return "no";
};

function clients() {
  let isOn = true;
  const loop = async (work) => {
    while (isOn) await work().catch(() => undefined);
  };
  const editor = loop(async () => {
    const n = 1 + (++serial % 90_000);
    const r = await call("PATCH", `/api/runs/${run}`, {
      version: (await call("GET", `/api/runs/${run}`))?.body?.version ?? 1,
      goodBoards: n,
    });
    const v = verdict("edit of a run", r);
    if (v === "sure") knows.goodBoards = { sure: n, maybe: [] };
    else if (v === "maybe") knows.goodBoards.maybe.push(n);
  });
  const writer = loop(async () => {
    const text = `m${++serial}`;
    const r = await call("PATCH", `/api/lines/${lineId}`, { maker: text });
    const v = verdict("edit of a line", r);
    if (v === "sure") knows.maker = { sure: text, maybe: [] };
    else if (v === "maybe") knows.maker.maybe.push(text);
    if (v !== "sure" || serial % 3 !== 0) return;
    // taken back and brought again: the value stands as before; in between, either may be found
    knows.isLoose = true;
    const back = await call("POST", `/api/changes/${r.change}/undo`, {}, randomUUID());
    verdict("taking back", back);
    if (back?.status !== 200) return;
    const again = await call("POST", `/api/changes/${back.change}/undo`, {}, randomUUID());
    if (verdict("bringing again", again) === "sure") knows.isLoose = false;
  });
  const importer = loop(async () => {
    const item = { name: `P${++serial}`, key: randomUUID() };
    item.verdict = verdict("import", await call("POST", "/api/products", drop(item.name), item.key));
    imports.push(item);
  });
  const paster = loop(async () => {
    const item = { tag: `paste${++serial}`, key: randomUUID() };
    const lines = Array.from({ length: 5 }, (_, i) => ({ valueText: item.tag, qty: i + 1 }));
    item.lines = lines;
    item.verdict = verdict(
      "paste of five lines",
      await call("POST", `/api/revisions/${base.revisionId}/lines`, lines, item.key),
    );
    pastes.push(item);
    await pause(60);
  });
  const releaser = loop(async () => {
    const made = await call(
      "POST",
      "/api/runs",
      { revisionId: base.revisionId, name: `r${++serial}`, goodBoards: 2 },
      randomUUID(),
    );
    if (made?.status !== 201) return;
    verdict("release", await call("POST", `/api/runs/${made.body.id}/release`, {}));
    await pause(40);
  });
  const ON = "2026-12-01";
  const RUN = `/api/runs/${gone.id}`;
  const happens = async (kind, method, path, tag, body, sql) => {
    const item = { tag, method, path, body, sql, key: randomUUID() };
    item.verdict = verdict(kind, await call(method, path, body, item.key));
    happened.push(item);
  };
  const builder = loop(async () => {
    // counts that could never be are refused whatever happens meanwhile
    const isOdd = serial % 5 === 0;
    const note = `go${++serial}`;
    const counts = { started: isOdd ? 0 : 2, good: isOdd ? 1e5 : 1, scrapped: 0 };
    const go = { on: ON, ...counts, minutes: 1, note };
    await happens("go at the bench", "POST", `${RUN}/work`, note, go, "work where note = $1");
    await pause(15);
  });
  const receiver = loop(async () => {
    const tag = `parcel${++serial}`;
    const items = [{ item: gone.item, qty: 3, unitCost: "0.1", because: tag, place: tag }];
    const parcel = { order: gone.order, arrivedOn: ON, items };
    await happens("parcel", "POST", `${RUN}/receipts`, tag, parcel, "receipt where because = $1");
    await pause(25);
  });
  const sitter = loop(async () => {
    const unit = ++serial;
    const piece = `piece${unit}`;
    const sitting = {
      unit,
      step: 1,
      lost: {},
      minutes: { desk: 1 },
      isDone: true,
      marks: { [piece]: "done" },
    };
    const sat = "sitting where is_done and marks ? $1";
    await happens("step at the bench", "PUT", `${RUN}/sittings`, piece, sitting, sat);
    const words = `reading${unit}`;
    const reading = { unit, item: "rail", on: ON, value: "3.3", words };
    const passed = "test_try where words = $1 and verdict = 'pass'";
    await happens("a try of a test", "POST", `${RUN}/tries`, words, reading, passed);
    const towards = `fair${unit}`;
    const out = { units: [unit], on: ON, towards, holder: "somebody" };
    await happens("a board that went out", "PUT", `${RUN}/outs`, towards, out, "unit_out where towards = $1");
    const loaded = `load${unit}`;
    const load = { unit, image: "watch", on: ON, isRight: true, said: loaded };
    await happens("a loaded image", "POST", `${RUN}/loads`, loaded, load, "image_load where said = $1");
    const note = `fault${unit}`;
    const fault = { unit, at: "R1", code: "bridge", on: ON, note };
    await happens("a defect", "POST", `${RUN}/defects`, note, fault, "defect where note = $1");
    await pause(15);
  });
  const looker = loop(async () => {
    const label = `board${++serial}`;
    const board = { item: gone.board, label, on: ON, readings: { width: [1] }, looks: {} };
    await happens(
      "a measured board",
      "POST",
      `${RUN}/measured`,
      label,
      board,
      "board_measured where label = $1",
    );
    const place = `put${serial}`;
    const kept = { item: gone.board, boards: [{ purpose: "gift", pieces: 1 }], place, on: ON };
    await happens("a board put by", "POST", `${RUN}/kept`, place, kept, "bare_kept where place = $1");
    const note = `photo${serial}`;
    const photo = { unit: 1, on: ON, note, jpeg: PHOTO };
    await happens("a photo", "POST", `${RUN}/photos`, note, photo, "photo where note = $1");
    const because = `claim${serial}`;
    const claim = { order: gone.order, pieces: 1, because, on: ON };
    await happens("a claim", "POST", `${RUN}/claims`, because, claim, "claim where because = $1");
    await pause(25);
  });
  const learner = loop(async () => {
    const unit = ++serial;
    const title = `learned${unit}`;
    const lesson = { title, check: { kind: "part", mpn: "ZZ-1" }, since: ON };
    await happens("a lesson", "POST", "/api/lessons", title, lesson, "lesson where title = $1");
    const what = `wrong${unit}`;
    const fault = wrong(gone.revisionId, what);
    await happens("an erratum", "POST", "/api/errata", what, fault, "erratum where title = $1");
    const note = `rework${unit}`;
    const rework = { runId: gone.id, unit, on: ON, note };
    const around = `/api/errata/${gone.fault}/reworks`;
    await happens("a workaround", "PUT", around, note, rework, "rework where note = $1");
    const because = `because${unit}`;
    const plan = { isNeeded: unit % 2 === 0, because, on: ON };
    const planned = "change where sentence like '%' || $1";
    await happens(
      "a decision",
      "PUT",
      `/api/products/${base.productId}/next-revision`,
      because,
      plan,
      planned,
    );
    const says = `says${unit}`;
    const report = { productId: base.productId, on: ON, says };
    await happens("a report", "POST", "/api/reports", says, report, "owner_report where says = $1");
    const owner = `emblem${unit}`;
    const right = { kind: "logo", what: "emblem", owner };
    const rights = `/api/products/${base.productId}/rights`;
    await happens("a right", "POST", rights, owner, right, "right_row where owner = $1");
    await pause(40);
  });
  return async () => {
    isOn = false;
    await Promise.all([
      editor,
      writer,
      importer,
      paster,
      releaser,
      builder,
      receiver,
      sitter,
      looker,
      learner,
    ]);
  };
}

const HALF = {
  "a product without a revision":
    "select 1 from product as p where not exists (select 1 from revision where product_id = p.id)",
  "a revision without a board":
    "select 1 from revision as v where not exists (select 1 from board where revision_id = v.id)",
  "a board without all its files":
    "select 1 from board as b where (select count(*) from board_file where board_id = b.id) <> 3",
  "a bill that is not whole":
    "select 1 from revision as v join product as p on p.id = v.product_id where p.name like 'P%' and (select count(*) from bom_line where revision_id = v.id) <> 2",
  "a run without choices": "select 1 from run as r where not exists (select 1 from fork where run_id = r.id)",
  "a released run without its package":
    "select 1 from run as r where state = 'released' and not exists (select 1 from release as x join blob as b on b.workshop_id = x.workshop_id and b.sha256 = x.sha256 where x.run_id = r.id)",
  "a package of a run that is not released":
    "select 1 from release as x join run as r on r.id = x.run_id where r.state <> 'released'",
  "a change without a row":
    "select 1 from change as c where not exists (select 1 from change_row where change_id = c.id)",
  "a paste that is not whole":
    "select value_text from bom_line where value_text like 'paste%' group by value_text having count(*) <> 5",
  "a state that the record does not end in (quantity)":
    "select 1 from fork as f where run_id = '%RUN%' and f.good_boards::text <> (select r.became ->> 'good_boards' from change_row as r where r.tbl = 'fork' and r.key ->> 'id' = f.id::text and r.became ? 'good_boards' order by r.id desc limit 1)",
  "a state that the record does not end in (maker)":
    "select 1 from bom_line as l where l.id = '%LINE%' and l.maker <> (select r.became ->> 'maker' from change_row as r where r.tbl = 'bom_line' and r.key ->> 'id' = l.id::text and r.became ? 'maker' order by r.id desc limit 1)",
  "boards that are good or lost without being begun":
    "select run_id from work group by run_id having sum(good) + sum(scrapped) > sum(started)",
  "a step at the bench that is half there": "select 1 from sitting where marks = '{}' or not is_done",
  "a parcel without its lot, or a lot that is kept for nobody":
    "select 1 from receipt as r where r.order_key like 'parts %' and (r.lot_id is null or not exists (select 1 from lot as o join reservation as x on x.lot_id = o.id and x.run_id = r.run_id and x.qty = o.qty where o.id = r.lot_id and o.qty = r.qty))",
  "a lot of a parcel that never came":
    "select 1 from lot as o where o.place like 'parcel%' and not exists (select 1 from receipt as r where r.lot_id = o.id)",
  "a lesson that was caught and is gone, or a board that is worked around for nothing":
    "select 1 from lesson_catch as c where not exists (select 1 from lesson where id = c.lesson_id) union all select 1 from rework as r where not exists (select 1 from erratum where id = r.erratum_id)",
  "a version that skips":
    "select 1 from (select key, version, lag(version) over (partition by key order by id) as before from change_row where tbl = 'fork' and op = 'update') as v where before is not null and version <> before + 1",
};

async function look(round) {
  const bad = (what, more = "") => {
    violations.push(`round ${round}: ${what}${more ? ` (${more})` : ""}`);
    console.log(`violation: ${violations.at(-1)}`);
  };
  for (const [what, sql] of Object.entries(HALF)) {
    const rows = await rowsOf(sql.replace("%RUN%", run).replace("%LINE%", lineId));
    if (rows.length > 0) bad(what, JSON.stringify(rows[0]));
  }
  const now = (await call("GET", `/api/runs/${run}`)).body;
  const fits = (k, value) => value === k.sure || k.maybe.includes(value);
  if (!fits(knows.goodBoards, now.document.goodBoards))
    bad(
      "a confirmed quantity is lost",
      `${now.document.goodBoards} instead of ${JSON.stringify(knows.goodBoards)}`,
    );
  const maker = now.document.lines.find((l) => l.id === lineId).maker;
  if (!knows.isLoose && !fits(knows.maker, maker))
    bad("a confirmed text is lost", `${maker} instead of ${JSON.stringify(knows.maker)}`);
  knows.goodBoards = { sure: now.document.goodBoards, maybe: [] };
  knows.maker = { sure: maker, maybe: [] };
  knows.isLoose = false;
  // what got no answer is sent again with its key: then it is there, once
  for (const item of imports.splice(0)) {
    if (item.verdict === "maybe") await call("POST", "/api/products", drop(item.name), item.key);
    const [{ n }] = await rowsOf("select count(*)::int as n from product where name = $1", [item.name]);
    if (n !== (item.verdict === "no" ? 0 : 1))
      bad("an import", `${item.name} is there ${n} times, was ${item.verdict}`);
  }
  for (const item of pastes.splice(0)) {
    if (item.verdict === "maybe")
      await call("POST", `/api/revisions/${base.revisionId}/lines`, item.lines, item.key);
    const [{ n }] = await rowsOf("select count(*)::int as n from bom_line where value_text = $1", [item.tag]);
    if (n !== (item.verdict === "no" ? 0 : 5))
      bad("a paste", `${item.tag} has ${n} lines, was ${item.verdict}`);
  }
  for (const item of happened.splice(0)) {
    if (item.verdict === "maybe") await call(item.method, item.path, item.body, item.key);
    const [{ n }] = await rowsOf(`select count(*)::int as n from ${item.sql}`, [item.tag]);
    const isRefused = item.verdict === "no" || item.body.good > 1000;
    if (n !== (isRefused ? 0 : 1))
      bad("what happened to a run", `${item.tag} is there ${n} times, was ${item.verdict}`);
  }
  // background work goes on: the list empties, and every open run has its figures
  let due = 1;
  for (let i = 0; i < 600 && due > 0; i++) {
    [{ due }] = await rowsOf("select count(*)::int as due from figures_due");
    if (due > 0) await pause(100);
  }
  if (due > 0) bad("figures were never computed", `${due} runs`);
  const without = await rowsOf(
    "select r.name from run as r join fork as f on f.run_id = r.id where r.state = 'open' and f.summary is null",
  );
  if (without.length > 0) bad("an open run without figures", without[0].name);
  // the bill and the shelf of runs stay small, so that a round stays short
  await owner.query(
    "begin; set local app.change = 'off'; delete from bom_line where value_text like 'paste%'; delete from product where name like 'P%'; delete from run where name ~ '^r[0-9]+$' and state = 'open'; delete from lot where place like 'parcel%'; delete from receipt where order_key not like 'boards %'; delete from work; delete from sitting; delete from test_try; delete from image_load; delete from photo; delete from bare_kept; delete from defect; delete from board_measured; delete from claim; delete from lesson; delete from erratum where title like 'wrong%'; delete from rework; delete from unit_out; delete from owner_report; delete from revision_plan; delete from right_row; commit",
  );
}

const started = Date.now();
for (let round = 1; round <= rounds; round++) {
  const stop = clients();
  await pause(30 + random() * 1800);
  const what = ["server", "postgres", "both"][Math.floor(random() * 3)];
  if (what !== "postgres") server.kill("SIGKILL");
  if (what !== "server") killPostgres();
  counts[what]++;
  counts.rounds++;
  await stop();
  if (what !== "server") {
    await pause(100);
    for (let i = 0; ; i++) {
      try {
        cluster = await startCluster(folder, pgPort);
        break;
      } catch (error) {
        // children of the killed postmaster may hold its memory for a moment
        if (i > 20) throw error;
        await pause(300);
      }
    }
  }
  if (what !== "postgres") {
    if (server.exitCode === null && server.signalCode === null)
      await new Promise((done) => server.once("exit", done));
    await startServer();
  }
  if (!(await isReady())) {
    violations.push(`round ${round}: the server was not ready in a minute after ${what} was killed`);
    console.log(`violation: ${violations.at(-1)}`);
    break;
  }
  await look(round);
  if (round % 10 === 0 || violations.length > 0)
    console.log(
      `round ${round}: ${counts.confirmed} confirmed, ${counts.unanswered} without an answer, ${violations.length} violations`,
    );
  if (violations.length > 5) break;
}
server.kill("SIGTERM");
await new Promise((done) =>
  server.exitCode === null && server.signalCode === null ? server.once("exit", done) : done(),
);
await owner.end();
cluster.stop();
rmSync(folder, { recursive: true, force: true });
console.log(
  JSON.stringify({
    ...counts,
    violations: violations.length,
    seconds: Math.round((Date.now() - started) / 1000),
    seed,
  }),
);
process.exit(violations.length > 0 ? 1 : 0);
