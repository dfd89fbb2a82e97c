import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { FoundRow } from "@kobbin/contract";
import { startServer, strangerFiles, type TestServer, Visitor, zipOf } from "../../test/kit.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.close());

const TABLES = [
  "blob",
  "product",
  "revision",
  "board",
  "board_file",
  "bom_line",
  "correction",
  "supplier",
  "offer",
  "offer_break",
  "house",
  "run",
  "fork",
  "quotation",
  "release",
  "workshop",
  "change",
  "change_row",
  "remark",
  "presence",
  "invitation",
];

test("a new shop is signed in with a cookie no script can read, and has suppliers and houses", async () => {
  const v = new Visitor(server);
  const made = await v.post("/api/shops", {
    name: "Potter",
    currency: "EUR",
    hourlyRate: "30",
    email: "Potter@x",
    password: "a long password",
  });
  expect(made.status).toBe(201);
  expect(made.headers.getSetCookie()[0]).toMatch(/httponly/i);
  expect(made.headers.getSetCookie()[0]).toMatch(/samesite=lax/i);
  expect((await v.get("/api/session")).body).toMatchObject({
    shop: { name: "Potter", currency: "EUR", hourlyRate: "30.00", isDemo: false },
    person: "potter@x",
    demo: false,
  });
  expect((await v.get("/api/suppliers")).body).toHaveLength(4);
  expect((await v.get("/api/houses")).body).toHaveLength(6);
});

test("signing in: the right password opens, a wrong one does not, and tries are limited", async () => {
  await new Visitor(server).startShop("Lock");
  const v = new Visitor(server);
  expect((await v.post("/api/session", { email: "LOCK", password: "a long password" })).status).toBe(204);
  expect((await v.get("/api/session")).body).toMatchObject({ shop: { name: "Lock" } });
  expect((await v.call("DELETE", "/api/session")).status).toBe(204);
  expect((await v.get("/api/bench")).status).toBe(401);
  const stranger = new Visitor(server);
  const answers = [];
  for (let i = 0; i < 12; i++)
    answers.push((await stranger.post("/api/session", { email: "lock", password: `guess ${i}` })).status);
  expect(answers.slice(0, 9)).toEqual(Array(9).fill(401));
  expect(answers.at(-1)).toBe(429);
});

test("a write from another site is refused, and one that names no site", async () => {
  const v = new Visitor(server);
  await v.startShop("Origin");
  for (const origin of ["http://evil.example", "null", ""]) {
    const r = await v.call("PATCH", "/api/shop", { hourlyRate: "1" }, { Origin: origin });
    expect([r.status, (r.body as { code: string }).code]).toEqual([403, "WRONG_ORIGIN"]);
  }
  expect((await v.get("/api/session")).body).toMatchObject({ shop: { hourlyRate: "24.00" } });
});

test("every route but the door wants a session", async () => {
  const v = new Visitor(server);
  const id = "00000000-0000-4000-8000-000000000000";
  for (const [method, path] of [
    ["GET", "/api/bench"],
    ["POST", "/api/products"],
    ["GET", `/api/runs/${id}`],
    ["PATCH", `/api/runs/${id}`],
    ["POST", `/api/runs/${id}/release`],
    ["GET", `/api/boards/${id}/files`],
    ["POST", "/api/houses"],
    ["PATCH", "/api/shop"],
    ["GET", "/api/suppliers"],
  ] as const) {
    const r = await v.call(
      method,
      path,
      method === "GET" ? undefined : { version: 1, revisionId: id, name: "x", goodBoards: 1, copyOf: id },
    );
    expect([path, r.status]).toEqual([path, 401]);
  }
});

test("two shops do not see each other, over HTTP or in SQL", async () => {
  const [a, b] = [new Visitor(server), new Visitor(server)];
  await a.startShop("Anna");
  await b.startShop("Bert");
  const kept = (await a.drop({ "mine.zip": zipOf(strangerFiles()) })).body as {
    revisionId: string;
    boardId: string;
  };
  const run = (await a.post("/api/runs", { revisionId: kept.revisionId, name: "one", goodBoards: 3 }))
    .body as { id: string };
  for (const path of [
    `/api/runs/${run.id}`,
    `/api/revisions/${kept.revisionId}`,
    `/api/boards/${kept.boardId}/files`,
    `/api/runs/${run.id}/document`,
  ])
    expect((await b.get(path)).status).toBe(404);
  expect(
    (await b.post("/api/runs", { revisionId: kept.revisionId, name: "theft", goodBoards: 3 })).status,
  ).toBe(404);
  expect((await b.patch(`/api/runs/${run.id}`, { version: 1, goodBoards: 9 })).status).toBe(404);
  expect((await b.get("/api/bench")).body).toEqual({ products: [], runs: [] });

  const workshop = async (name: string) =>
    (await server.owner.query<{ id: string }>("select id from workshop where name = $1", [name])).rows[0]!.id;
  const [anna, bert] = [await workshop("Anna"), await workshop("Bert")];
  const app = await server.deps.pool.connect();
  try {
    expect((await app.query("select current_user")).rows[0]).toEqual({ current_user: "kobbin_app" });
    for (const t of TABLES)
      expect([t, (await app.query(`select count(*)::int as n from ${t}`)).rows[0]]).toEqual([t, { n: 0 }]);
    await app.query("begin");
    await app.query("select set_config('app.workshop', $1, true)", [bert]);
    expect((await app.query("select count(*)::int as n from product")).rows[0]).toEqual({ n: 0 });
    await expect(
      app.query("insert into product (workshop_id, name) values ($1, 'smuggled')", [anna]),
    ).rejects.toThrow(/row-level security/);
    await app.query("rollback");
    // what is due of a shop is seen by that shop and by the worker, which names none
    for (const [shop, n] of [
      [anna, 1],
      [bert, 0],
      ["", 1],
    ] as const) {
      await app.query("begin");
      await app.query("select set_config('app.workshop', $1, true)", [anna]);
      await app.query(
        "insert into figures_due (run_id, workshop_id) values ($1, $2) on conflict (run_id) do nothing",
        [run.id, anna],
      );
      await app.query("select set_config('app.workshop', $1, true)", [shop]);
      const { rows: due } = await app.query("select from figures_due where run_id = $1", [run.id]);
      expect([shop, due.length]).toEqual([shop, n]);
      await app.query("rollback");
    }
    await expect(app.query("alter table product disable row level security")).rejects.toThrow(/owner/);
  } finally {
    app.release();
  }
  // no table of a workshop was forgotten
  const { rows } = await server.owner.query<{ name: string }>(
    "select c.relname as name from pg_class as c join pg_attribute as a on a.attrelid = c.oid and a.attname = 'workshop_id' where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace and not c.relrowsecurity",
  );
  expect(rows.map((r) => r.name).sort()).toEqual(["member", "session"]);
});

test("settings are checked field by field and nothing is half saved", async () => {
  const v = new Visitor(server);
  await v.startShop("Settings");
  const bad = await v.patch("/api/shop", { hourlyRate: "-3", taxRate: 4, name: "New name" });
  expect(bad.status).toBe(422);
  expect(bad.body).toMatchObject({
    kind: "error",
    code: "OUT_OF_RANGE",
    details: { hourlyRate: expect.any(String), taxRate: expect.any(String) },
  });
  expect((await v.get("/api/session")).body).toMatchObject({ shop: { name: "Settings" } });
  expect((await v.patch("/api/shop", { rates: { USD: "0.9215" }, taxRate: 0.2 })).body).toMatchObject({
    rates: { USD: "0.9215" },
    taxRate: 0.2,
  });
  expect((await v.patch("/api/shop", { rates: { USD: "free" } })).status).toBe(422);
  expect(
    (
      await v.post("/api/shops", {
        name: "Twice",
        currency: "EUR",
        hourlyRate: "1",
        email: "settings",
        password: "a long password",
      })
    ).body,
  ).toMatchObject({ message: "That sign-in name is taken." });
});

test("an address that is not there answers in words", async () => {
  expect(await new Visitor(server).get("/api/nowhere")).toMatchObject({
    status: 404,
    body: { code: "NOT_FOUND", message: "There is nothing at /api/nowhere." },
  });
});

test("a shop in any currency offered knows what the simulated houses charge", async () => {
  for (const currency of ["JPY", "CHF", "SEK"]) {
    const v = new Visitor(server);
    await v.post("/api/shops", {
      name: `In ${currency}`,
      currency,
      hourlyRate: "30",
      email: `in ${currency}`,
      password: "a long password",
    });
    const { shop } = (await v.get("/api/session")).body as { shop: { rates: Record<string, string> } };
    expect(Number(shop.rates.EUR)).toBeGreaterThan(0);
    expect(Number(shop.rates.USD) / Number(shop.rates.EUR)).toBeCloseTo(0.92, 2);
  }
});

test("the command box finds products, runs and parts by all of its words, as they are written, of this shop only", async () => {
  const [v, other] = [new Visitor(server), new Visitor(server)];
  await v.startShop("Finding");
  await other.startShop("Finding elsewhere");
  for (const who of [v, other]) {
    const { revisionId } = (await who.drop(strangerFiles(), { name: "Rain_gauge 50%" })).body as {
      revisionId: string;
    };
    if (who === v) await v.post("/api/runs", { revisionId, name: "Spring", goodBoards: 12 });
  }
  const found = async (q: string) =>
    ((await v.get(`/api/find?q=${encodeURIComponent(q)}`)).body as FoundRow[]).map((r) => [
      r.kind,
      r.text,
      r.more,
      r.to.replace(/[0-9a-f-]{36}/, "…"),
    ]);
  const run = ["run", "Rain_gauge 50%, Spring", "revision A, 12 good boards", "/runs/…/board"];
  const product = ["product", "Rain_gauge 50%", "", "/products/…/history"];
  const part = ["part", "ZZ-UNKNOWN-1", "R1 4k7 in Rain_gauge 50% A", "/runs/…/parts?find=ZZ-UNKNOWN-1"];
  expect(await found("RAIN")).toEqual([run, product]);
  expect(await found("  gauge   spring ")).toEqual([run]);
  expect(await found("zz-unk r1")).toEqual([part]);
  // signs of patterns are letters
  expect(await found("50%")).toEqual([run, product]);
  expect(await found("n_g")).toEqual([run, product]);
  for (const none of ["r%g", "r_in", "\\", "rain snow", "", "   "])
    expect([none, await found(none)]).toEqual([none, []]);
  expect((await v.get("/api/find")).body).toEqual([]);
  // the seventh word and what is longer than sixty letters are not asked for
  expect(await found("r a i n g a snow")).toEqual([run, product]);
  expect(await found(`rain ${"x".repeat(60)}`)).toEqual([]);
});
