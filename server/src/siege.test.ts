import { randomBytes, randomUUID } from "node:crypto";
import { readdirSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, beforeEach, expect, test } from "@jest/globals";
import type { RunAnswer } from "@kobbin/contract";
import { packZip } from "@kobbin/formats";
import pg from "pg";
import { bare, raw, watchHealth } from "../test/attack/raw.ts";
import { invite } from "../test/fixture.ts";
import {
  makeDatabase,
  shopWithRun,
  startServer,
  strangerFiles,
  type TestServer,
  Visitor,
} from "../test/kit.ts";
import { endAll, type Running, startProcess } from "../test/processes.ts";

let server: TestServer;
const defects: string[] = [];
const endless = { burst: 1e9, perSecond: 1e9 };
beforeAll(async () => {
  server = await startServer(
    { shopQuotaBytes: 3 * 1024 * 1024 },
    {
      limits: { read: endless, write: endless },
      // what ends a stream is told, not found at the next beat
      beatMs: 3_600_000,
      log: (e) => {
        if (e.level === "error") defects.push(JSON.stringify(e).slice(0, 300));
      },
    },
  );
}, 60_000);
beforeEach(() => server.owner.query("delete from tries"));
afterAll(async () => {
  endAll();
  await server.close();
}, 30_000);

const until = async (is: () => Promise<boolean> | boolean, what: string) => {
  for (let i = 0; i < 400; i++) {
    if (await is()) return;
    await new Promise((done) => setTimeout(done, 50));
  }
  throw new Error(`never: ${what}`);
};
const codeOf = (r: { body: unknown }) => (r.body as { code?: string } | undefined)?.code;
const spooled = () =>
  readdirSync(tmpdir())
    .filter((d) => d.startsWith(`kobbin-spool-${process.pid}-`))
    .flatMap((d) => readdirSync(join(tmpdir(), d)));

/** A process of its own, as it is run in earnest. */
async function ownProcess(
  env: Record<string, string> = {},
): Promise<Running & { visitor: () => Visitor; drop: () => Promise<void> }> {
  const admin = new pg.Client({ connectionString: process.env.TEST_DATABASE_URL! });
  await admin.connect();
  const name = `siege_${randomBytes(5).toString("hex")}`;
  const { databaseUrl } = await makeDatabase(admin, name);
  const running = await startProcess({ DATABASE_URL: databaseUrl, ...env });
  return {
    ...running,
    visitor: () => new Visitor({ url: running.url } as never),
    drop: async () => {
      running.child.kill("SIGKILL");
      await running.ended;
      await admin.query(`drop database ${name} with (force)`);
      await admin.end();
    },
  };
}

test("an upload without boundary whose body stays open ends a request, not the server; neither do half requests", async () => {
  const p = await ownProcess();
  try {
    const v = p.visitor();
    await v.startShop("Open");
    const { host } = new URL(p.url);
    const head = (type: string, more = "") =>
      `POST /api/products HTTP/1.1\r\nHost: ${host}\r\nOrigin: http://${host}\r\nCookie: ${v.cookies()}\r\nContent-Type: ${type}\r\n${more}`;
    const open = [
      head("multipart/form-data", "Content-Length: 1000000\r\n\r\nabc"),
      head("multipart/form-data; boundary=", "Transfer-Encoding: chunked\r\n\r\n3\r\nabc\r\n"),
      head(`multipart/form-data; boundary=${"b".repeat(5000)}`, "Content-Length: 9\r\n\r\nabc"),
      head("text/plain", "Content-Length: 1000000\r\n\r\nabc"),
    ].map((bytes) => bare(p, bytes));
    await until(() => open.every((o) => /^HTTP\/1\.1 4\d\d/.test(o.heard())), "an answer to each");
    // parsers that are fed nonsense, and let go in the middle
    const b = "----x";
    for (const bytes of [
      `--${b}\r\nContent-Disposition: form-data; name="files"; filename="a"\r\n\r\nabc`,
      `--${b}\r\n\r\n\r\n--${b}--\r\n`,
      `--${b}\r\nContent-Disposition: ${"x".repeat(100_000)}\r\n\r\n`,
      `--${b}--`,
      "\r\n\r\n\r\n",
      `--${b}\r\nContent-Disposition: form-data; name="__proto__"\r\n\r\nx\r\n--${b}--\r\n`,
    ]) {
      const o = bare(
        p,
        head(`multipart/form-data; boundary=${b}`, `Content-Length: ${bytes.length + 50}\r\n\r\n${bytes}`),
      );
      await new Promise((done) => setTimeout(done, 60));
      o.end();
    }
    bare(p, `GET / HTTP/1.1\r\nHost: ${host}\r\nX: `);
    bare(p, "\u0000\u0001\u0002 nonsense\r\n\r\n");
    expect((await raw(p, "GET", "/health", { Host: host })).status).toBe(200);
    expect((await v.drop(strangerFiles())).status).toBe(201);
    expect(p.child.exitCode).toBeNull();
    for (const o of open) o.end();
  } finally {
    await p.drop();
  }
}, 60_000);

test("an error nobody caught fails its request, lets the others be answered, and ends the process for its watcher", async () => {
  const p = await ownProcess({
    NODE_OPTIONS: `--import ${new URL("../test/attack/throw-later.mjs", import.meta.url).pathname}`,
  });
  try {
    const v = p.visitor();
    await v.startShop("Uncaught");
    const slow = v.drop(strangerFiles());
    const failed = await v.call("GET", "/api/bench", undefined, { "X-Throw-Later": "yes" });
    expect([failed.status, codeOf(failed)]).toEqual([500, "DEFECT"]);
    expect((await slow).status).toBe(201);
    expect(await p.ended).toBe(70);
  } finally {
    await p.drop();
  }
}, 60_000);

test("texts where mappings are meant are refused before anything is written, and one shop cannot keep the rest waiting", async () => {
  const greedy = await shopWithRun(server, "Greedy");
  const { v: other, id } = await shopWithRun(server, "Patient");
  const boards = ((await greedy.read()) as RunAnswer).boardIds;
  const before = (await server.owner.query("select count(*)::int as n from correction")).rows[0].n;
  const long = "x".repeat(1_000_000);
  const spread = await Promise.all(
    Array.from({ length: 12 }, () =>
      greedy.v.post(`/api/boards/${boards[0]}/corrections`, { roles: long, columns: long, moves: long }),
    ),
  );
  expect(new Set(spread.map((r) => r.status))).toEqual(new Set([422]));
  expect((await server.owner.query("select count(*)::int as n from correction")).rows[0].n).toBe(before);
  // two hundred at once of one shop: the other is answered while they wait
  const order: string[] = [];
  const heap = Array.from({ length: 200 }, () =>
    greedy.v
      .post(`/api/revisions/${greedy.revisionId}/lines`, { valueText: "x" })
      .then(() => order.push("greedy")),
  );
  await other.get(`/api/runs/${id}`).then((r) => order.push(`patient ${r.status}`));
  await Promise.all(heap);
  expect(order.indexOf("patient 200")).toBeLessThan(100);
}, 120_000);

test("small files that ask for large work end in a sentence, and the server answers others all the while", async () => {
  const v = new Visitor(server);
  await v.startShop("Small files");
  const archive = (files: Record<string, string>) =>
    packZip(
      Object.entries(files).map(([path, text]) => ({ path, bytes: new TextEncoder().encode(text) })),
      new Date("2026-01-01T00:00:00Z"),
    );
  const head = "%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,0.1*%\nD10*\n";
  const nested = `${head}${Array.from({ length: 50 }, (_, i) => `%SRX30Y30I${i}J${i}*%`).join("\n")}\nX0Y0D03*\nM02*\n`;
  const blocks = `${head}${Array.from({ length: 12 }, (_, i) => `%ABD${11 + i}*%\n${Array.from({ length: 30 }, () => `D${10 + i}*\nX0Y0D03*`).join("\n")}\n%AB*%`).join("\n")}\nD22*\nX0Y0D03*\nM02*\n`;
  const drops: Record<string, Record<string, Uint8Array | string>> = {
    "repeats in repeats": { "top.gtl": nested },
    "blocks in blocks": { "top.gtl": blocks },
    "many archives": Object.fromEntries(
      Array.from({ length: 150 }, (_, i) => [`${i}.zip`, archive({ [`${i}.gtl`]: "0".repeat(900_000) })]),
    ),
    "a text of separators": { "top.gtl": head, "list.csv": ",".repeat(3_000_000) },
    "thousands of names": Object.fromEntries(
      Array.from({ length: 190 }, (_, i) => [
        `${i}.zip`,
        archive(Object.fromEntries(Array.from({ length: 5 }, (_, k) => [`${i}-${k}.gtl`, "x"]))),
      ]),
    ),
  };
  const watched = watchHealth(server.url);
  for (const [what, files] of Object.entries(drops)) {
    const r = await v.drop(files, { name: what });
    expect([what, r.status < 500, codeOf(r) === "DEFECT"]).toEqual([what, true, false]);
  }
  const health = await watched();
  expect(health.failed).toBe(0);
  if (process.env.ATTACK_ONE_OF)
    process.stdout.write(
      `attack: ${JSON.stringify({ "slowest /health, ms": Math.round(health.slowestMs), "times asked": health.asked })}\n`,
    );
  expect(defects).toEqual([]);
}, 300_000);

test("uploads of a person are bounded, what is half open is dropped, and nothing of it stays on the disk", async () => {
  const v = new Visitor(server);
  await v.startShop("Half open");
  const { host } = new URL(server.url);
  const half = () =>
    bare(
      server,
      `POST /api/products HTTP/1.1\r\nHost: ${host}\r\nOrigin: http://${host}\r\nCookie: ${v.cookies()}\r\nContent-Type: multipart/form-data; boundary=b\r\nContent-Length: 100000\r\n\r\n--b\r\nContent-Disposition: form-data; name="files"; filename="a.gtl"\r\n\r\nabc`,
    );
  const halves = [half(), half(), half()];
  await until(() => spooled().length >= 3, "three folders");
  const fourth = await v.drop(strangerFiles());
  expect([fourth.status, codeOf(fourth)]).toEqual([429, "TOO_MANY_TRIES"]);
  for (const h of halves) h.end();
  await until(() => spooled().length === 0, "nothing spooled");
  expect((await v.drop(strangerFiles())).status).toBe(201);
  expect(spooled()).toEqual([]);
}, 60_000);

test("a shop's files have so much room; beyond it a drop is refused whole, in a sentence", async () => {
  const v = new Visitor(server);
  await v.startShop("Full");
  const big = () => new Uint8Array(randomBytes(1_100_000));
  const names = ["first", "second", "third"];
  const answers = [];
  for (const name of names) answers.push(await v.drop({ ...strangerFiles(), "photo.png": big() }, { name }));
  expect(answers.map((r) => r.status).slice(0, 2)).toEqual([201, 201]);
  expect([answers[2]!.status, codeOf(answers[2]!)]).toEqual([413, "SHOP_FULL"]);
  const bench = (await v.get("/api/bench")).body as { products: { name: string }[] };
  expect(bench.products.map((p) => p.name)).toEqual(["first", "second"]);
}, 60_000);

test("a release packs what is: a bill, a file's reading, a house changed while it is packed is told and not released", async () => {
  const v = new Visitor(server);
  await v.startShop("Packing");
  const { revisionId, boardId } = (await v.drop(strangerFiles())).body as {
    revisionId: string;
    boardId: string;
  };
  const { id } = (await v.post("/api/runs", { revisionId, name: "one", goodBoards: 5 })).body as {
    id: string;
  };
  const { document } = (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const line = document.lines[0]!.id;
  const offer = {
    supplierId: document.suppliers[0]!.id,
    stock: 500,
    currency: "EUR",
    breaks: [{ qty: 1, price: "0.05" }],
  };
  await v.post(`/api/lines/${line}/offers`, offer);
  const { compute } = server.deps;
  const run = compute.run;
  const changes: Record<string, () => Promise<unknown>> = {
    "a line": () => v.patch(`/api/lines/${line}`, { description: "changed while packed" }),
    "an offer": () => v.post(`/api/lines/${line}/offers`, { ...offer, stock: 7 }),
    "a house": () => v.post("/api/houses", { copyOf: document.house!.id, name: "copied while packed" }),
    "the shop's rate": () => v.patch("/api/shop", { hourlyRate: "31.00" }),
    "how a file is read": () =>
      v.post(`/api/boards/${boardId}/corrections`, { roles: { "mine-pos.csv": { role: "unknown" } } }),
  };
  for (const [what, change] of Object.entries(changes)) {
    Object.assign(compute, {
      run: async (task: { kind: string }, shop: string) => {
        const packed = await run(task as never, shop);
        if (task.kind === "package") {
          Object.assign(compute, { run });
          await change();
        }
        return packed;
      },
    });
    const r = await v.post(`/api/runs/${id}/release`);
    Object.assign(compute, { run });
    expect([what, r.status, codeOf(r)]).toEqual([what, 409, "STALE_VERSION"]);
    expect(((await v.get(`/api/runs/${id}`)).body as RunAnswer).state).toBe("open");
  }
  // two at once: one releases it
  const both = await Promise.all([v.post(`/api/runs/${id}/release`), v.post(`/api/runs/${id}/release`)]);
  expect(both.map((r) => r.status).sort()).toEqual([201, 403]);
}, 120_000);

test("who is taken out of a shop hears no more of it, at once; so does who leaves for another shop", async () => {
  const owner = new Visitor(server);
  await owner.startShop("Live");
  const guest = await invite(server, owner, "live guest", "bench");
  const stream = await guest.stream(`/api/live?page=${randomUUID()}`);
  const reader = stream.body!.getReader();
  await reader.read();
  const people = (await owner.get("/api/people")).body as { members: { id: string; isMe: boolean }[] };
  expect((await owner.call("DELETE", `/api/people/${people.members.find((m) => !m.isMe)!.id}`)).status).toBe(
    204,
  );
  let text = "";
  for (;;) {
    const { value, done } = await reader.read();
    if (done) break;
    text += new TextDecoder().decode(value);
  }
  await owner.patch("/api/shop", { name: "Secret now" });
  expect(text).not.toContain("Secret");
  expect((await guest.get("/api/bench")).status).toBe(401);
  const { rows } = await server.owner.query(
    "select 1 from session as s join account as a on a.id = s.account_id where a.email = 'live guest'",
  );
  expect(rows).toEqual([]);
}, 60_000);

test("two who change the same lines in opposite orders, twenty times at once: all are done or told, none is a defect", async () => {
  const { v, revisionId, read } = await shopWithRun(server, "Crossing", "kiln-watch-a");
  const lines = (await read()).document.lines.map((l) => l.id).slice(0, 12);
  const change = (order: readonly string[], n: number) =>
    v.patch(`/api/revisions/${revisionId}/lines`, {
      lines: order.map((id) => ({ id, description: `by ${n}` })),
    });
  const answers = await Promise.all(
    Array.from({ length: 20 }, (_, n) => change(n % 2 === 0 ? lines : [...lines].reverse(), n)),
  );
  const bad = answers.filter((r) => r.status >= 500 && codeOf(r) !== "BUSY");
  expect(bad.map((r) => r.body)).toEqual([]);
  expect(answers.some((r) => r.status === 204)).toBe(true);
  const after = (await read()).document.lines.filter((l) => lines.includes(l.id)).map((l) => l.description);
  expect(new Set(after).size).toBe(1);
}, 60_000);

test("a request's key belongs to what was asked with it", async () => {
  const { v, revisionId } = await shopWithRun(server, "Keys");
  const key = { "X-Request-Key": randomUUID() };
  const path = `/api/revisions/${revisionId}/lines`;
  const first = await v.call("POST", path, { valueText: "a" }, key);
  const again = await v.call("POST", path, { valueText: "a" }, key);
  expect([first.status, again.status, (again.body as { id: string }).id]).toEqual([
    201,
    200,
    (first.body as { id: string }).id,
  ]);
  for (const r of [
    await v.call("POST", path, { valueText: "b" }, key),
    await v.call(
      "POST",
      "/api/suppliers",
      { name: "S", currency: "EUR", shipping: "1", daysMin: 1, daysMax: 2 },
      key,
    ),
  ])
    expect([r.status, codeOf(r)]).toEqual([409, "KEY_REUSED"]);
}, 60_000);

test("guesses are counted together however many come at once: per name, per network; common passwords are refused", async () => {
  await new Visitor(server).startShop("Guessed");
  await server.owner.query("delete from tries");
  const v = new Visitor(server);
  const burst = await Promise.all(
    Array.from({ length: 30 }, (_, i) =>
      v.post("/api/session", { email: "guessed", password: `wrong word ${i}` }),
    ),
  );
  expect(burst.filter((r) => r.status === 401)).toHaveLength(10);
  expect(burst.filter((r) => r.status === 429)).toHaveLength(20);
  // over many names from one network
  await server.owner.query("delete from tries");
  const many = await Promise.all(
    Array.from({ length: 60 }, (_, i) =>
      v.post("/api/session", { email: `nobody ${i}`, password: "wrong word" }),
    ),
  );
  expect(many.filter((r) => r.status === 401)).toHaveLength(40);
  await server.owner.query("delete from tries");
  for (const password of ["password123", "QWERTY12345", "aaaaaaaaaaaa", "common shop1"]) {
    const r = await new Visitor(server).post("/api/shops", {
      name: "Common shop",
      currency: "EUR",
      hourlyRate: "1",
      email: "common",
      password,
    });
    expect([password, r.status, codeOf(r)]).toEqual([password, 422, "OUT_OF_RANGE"]);
  }
}, 60_000);

test("of ten first owners at one moment one wins", async () => {
  const p = await ownProcess({ SIGN_UP: "first" });
  try {
    const ten = await Promise.all(
      Array.from({ length: 10 }, (_, i) =>
        p.visitor().post("/api/shops", {
          name: `Shop ${i}`,
          currency: "EUR",
          hourlyRate: "1",
          email: `first ${i}`,
          password: "four words of ours",
        }),
      ),
    );
    expect(ten.map((r) => r.status).sort()).toEqual([201, ...Array(9).fill(403)]);
  } finally {
    await p.drop();
  }
}, 60_000);

test("a database that takes no writes, or holds a lock, is said in a sentence; nothing is lost, and all goes on after", async () => {
  const { v, id, read } = await shopWithRun(server, "Frozen");
  const name = new URL(server.deps.config.databaseUrl).pathname.slice(1);
  const drain = () =>
    server.owner.query(
      "select pg_terminate_backend(pid) from pg_stat_activity where datname = $1 and application_name = 'kobbin'",
      [name],
    );
  await server.owner.query(`alter database ${name} set default_transaction_read_only = on`);
  try {
    await drain();
    await until(async () => (await v.get(`/api/runs/${id}`)).status === 200, "reads go on");
    const r = await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 11 });
    expect([r.status, codeOf(r)]).toEqual([507, "STORAGE_FULL"]);
    const ready = await fetch(`${server.url}/ready`);
    expect([ready.status, ((await ready.json()) as { status: string }).status]).toEqual([
      503,
      expect.stringMatching(/no room|nothing new/),
    ]);
  } finally {
    await server.owner.query(`alter database ${name} reset default_transaction_read_only`);
    await drain();
  }
  await until(
    async () => (await v.patch(`/api/runs/${id}`, { version: 1, goodBoards: 12 })).status === 200,
    "writes again",
  );
  expect((await read()).document.goodBoards).toBe(12);
  // a lock that does not go
  const holder = await server.owner.connect();
  try {
    await holder.query("begin");
    await holder.query("select 1 from fork where run_id = $1 for update", [id]);
    const waited = await v.patch(`/api/runs/${id}`, { version: 2, goodBoards: 13 });
    expect([waited.status, codeOf(waited)]).toEqual([503, "BUSY"]);
  } finally {
    await holder.query("rollback");
    holder.release();
  }
}, 90_000);

test("a run whose figures cannot be computed is set aside with its reason, and comes up again with its next change", async () => {
  const { v, id, revisionId } = await shopWithRun(server, "Parked");
  await server.figures();
  await server.owner.query("select set_config('app.change', 'off', false)");
  await server.owner.query(
    "begin; set local app.change = 'off'; update board set measure = '{\"kobbin\":\"measure/1\"}' where revision_id = '".concat(
      revisionId,
      "'; commit",
    ),
  );
  await v.post(`/api/revisions/${revisionId}/lines`, { valueText: "x" });
  const row = async () =>
    (
      await server.owner.query<{ tries: number; parked: string | null }>(
        "select tries, parked from figures_due where run_id = $1",
        [id],
      )
    ).rows[0];
  await until(async () => (await row())?.parked != null, "set aside");
  expect(await row()).toMatchObject({ tries: 4, parked: expect.stringMatching(/\w/) });
  await v.post(`/api/revisions/${revisionId}/lines`, { valueText: "y" });
  await until(async () => ((await row())?.tries ?? 9) < 4 || (await row())?.parked == null, "tried again");
  defects.length = 0;
}, 120_000);

test("servers that start at once on an empty database make one demo shop; one cut off in the middle leaves none behind", async () => {
  const admin = new pg.Client({ connectionString: process.env.TEST_DATABASE_URL! });
  await admin.connect();
  const name = `demo_${randomBytes(5).toString("hex")}`;
  const { databaseUrl, adminUrl } = await makeDatabase(admin, name);
  const owner = new pg.Pool({ connectionString: adminUrl, max: 2 });
  owner.on("error", () => undefined);
  const shops = async () => {
    const { rows } = await owner.query<{ name: string; members: number }>(
      "select name, (select count(*)::int from member as m where m.workshop_id = w.id) as members from workshop as w",
    );
    return rows;
  };
  const env = { DATABASE_URL: databaseUrl, DEMO: "yes", STANDINS_URL: server.deps.config.standInsUrl };
  try {
    // cut off as soon as the shop is there and nobody belongs to it
    const first = startProcess(env).catch(() => undefined);
    await until(async () => (await shops()).length === 1, "the shop begins");
    endAll();
    await first;
    expect(await shops()).toEqual([{ name: "Ashglaze Works", members: 0 }]);
    const three = await Promise.all([1, 2, 3].map(() => startProcess(env)));
    expect(await shops()).toEqual([{ name: "Ashglaze Works", members: 1 }]);
    // set up anew, five times at one moment
    const v = new Visitor({ url: three[0]!.url } as never);
    expect((await v.post("/api/session/demo")).status).toBe(204);
    const resets = await Promise.all(Array.from({ length: 5 }, () => v.post("/api/demo/reset")));
    expect(resets.filter((r) => r.status === 204)).toHaveLength(1);
    expect(new Set(resets.filter((r) => r.status !== 204).map(codeOf))).toEqual(new Set(["BUSY"]));
    expect(await shops()).toEqual([{ name: "Ashglaze Works", members: 1 }]);
    expect((await v.get("/api/bench")).status).toBe(200);
  } finally {
    endAll();
    await owner.end();
    await admin.query(`drop database ${name} with (force)`);
    await admin.end();
  }
}, 120_000);
