import { request } from "node:http";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { BenchAnswer, HistoryAnswer } from "@kobbin/contract";
import { readConfig } from "@kobbin/server";
import { startDemoServer, startServer, strangerFiles, type TestServer, Visitor } from "../../test/kit.ts";
import type { Pool } from "../db/pool.ts";
import { countFiguresDue } from "../resources/health/queries.ts";

let server: TestServer;
beforeAll(async () => {
  server = await startDemoServer();
});
afterAll(() => server.close());

test("alive, ready, and metrics that a collector reads", async () => {
  expect((await fetch(`${server.url}/health`)).status).toBe(200);
  expect(await (await fetch(`${server.url}/ready`)).json()).toEqual({ status: "ready" });
  await new Visitor(server).get("/api/session");
  const metrics = await fetch(`${server.url}/metrics`);
  expect(metrics.headers.get("content-type")).toMatch(/^text\/plain; version=0\.0\.4/);
  const text = await metrics.text();
  expect(text).toMatch(/^# TYPE kobbin_request_seconds histogram$/m);
  expect(text).toMatch(
    /^kobbin_request_seconds_count\{method="GET",route="\/api\/session",status="200"\} \d+$/m,
  );
  expect(text).toMatch(/^kobbin_figures_due \d+$/m);
  // no line names a person, a shop or an id
  expect(text).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}/);
});

test("metrics are for this machine, or for who shows the token; readiness says when the database is away", async () => {
  const guarded = await startServer({ trustsProxy: true, metricsToken: "let-me-count" });
  const far = { "X-Forwarded-For": "203.0.113.7" };
  expect((await fetch(`${guarded.url}/metrics`, { headers: far })).status).toBe(403);
  const shown = { ...far, Authorization: "Bearer let-me-count" };
  expect((await fetch(`${guarded.url}/metrics`, { headers: shown })).status).toBe(200);
  await guarded.deps.pool.end();
  const away = await fetch(`${guarded.url}/ready`);
  expect([away.status, (await away.json()).status]).toEqual([503, "the database does not answer"]);
  Object.assign(guarded.deps, { pool: { end: () => undefined } });
  await guarded.close();
});

test("every answer carries the headers that keep a page to itself", async () => {
  for (const path of ["/api/session", "/api/nowhere", "/api/bench"]) {
    const { headers } = await new Visitor(server).get(path);
    const policy = headers.get("content-security-policy")!;
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toMatch(/script-src[^;]*'unsafe-inline'|script-src[^;]*'unsafe-eval'|\*/);
    expect(headers.get("x-content-type-options")).toBe("nosniff");
    expect(headers.get("referrer-policy")).toBe("same-origin");
    expect(headers.get("cross-origin-opener-policy")).toBe("same-origin");
    expect(headers.get("cross-origin-resource-policy")).toBe("same-origin");
    expect(headers.get("permissions-policy")).toContain("camera=()");
    expect(headers.get("x-request-id")).toMatch(/^[\w-]{8,}$/);
  }
  const secure = await startServer({ trustsProxy: true });
  const r = await new Visitor(secure).call("GET", "/api/session", undefined, {
    "X-Forwarded-Proto": "https",
  });
  expect(r.headers.get("strict-transport-security")).toMatch(/max-age=\d{7,}/);
  await secure.close();
});

test("what a configuration lacks or has wrong is said in a sentence each", () => {
  expect(() => readConfig({})).toThrow("DATABASE_URL is missing: the address of the PostgreSQL database.");
  const wrong = { DATABASE_URL: "postgres://x", ROLE: "king", SIGN_UP: "maybe", PORT: "70000" };
  expect(() => readConfig(wrong)).toThrow(
    /PORT(.|\n)*ROLE is “all”, “web” or “worker”\.(.|\n)*SIGN_UP is “open”, “first” or “closed”\./,
  );
  expect(readConfig({ DATABASE_URL: "postgres://x" })).toMatchObject({
    signUp: "first",
    role: "all",
    trustsProxy: false,
  });
});

test("an upload beyond its bound is refused while it comes, and one that breaks off keeps nothing", async () => {
  const v = new Visitor(server);
  await v.startShop("Bounds");
  const big = await v.drop({ "big.zip": new Uint8Array(61 * 1024 * 1024) });
  expect([big.status, (big.body as { code: string }).code]).toEqual([413, "ARCHIVE_TOO_LARGE"]);
  const many = await v.drop(Object.fromEntries(Array.from({ length: 201 }, (_, i) => [`f${i}.txt`, "x"])));
  expect(many.status).toBe(413);
  const before = (await server.owner.query("select count(*)::int as n from product")).rows[0];
  await new Promise<void>((done) => {
    const { hostname, port } = new URL(server.url);
    const r = request({
      hostname,
      port,
      path: "/api/products",
      method: "POST",
      headers: {
        Origin: server.url,
        Cookie: v.cookies(),
        "Content-Type": "multipart/form-data; boundary=x",
        "Content-Length": "5000",
      },
    });
    r.on("error", () => done());
    r.write('--x\r\nContent-Disposition: form-data; name="files"; filename="a.gtl"\r\n\r\nG04 half');
    setTimeout(() => r.destroy(new Error("gone")), 100);
  });
  await new Promise((done) => setTimeout(done, 200));
  expect((await server.owner.query("select count(*)::int as n from product")).rows[0]).toEqual(before);
});

test("the demo shop is reset for everybody in it; a shop of one's own cannot be", async () => {
  const v = new Visitor(server);
  expect((await v.post("/api/session/demo")).status).toBe(204);
  await v.drop(strangerFiles(), { name: "tried" });
  await v.patch("/api/shop", { name: "Renamed" });
  const { token } = (await v.post("/api/invitations", { role: "bench" })).body as { token: string };
  const guest = new Visitor(server);
  await guest.post(`/api/invited/${token}`, { email: "demo guest", password: "a long password" });
  // asked for five times at one moment it is done once, and the others are told
  const resets = await Promise.all(Array.from({ length: 5 }, () => v.post("/api/demo/reset")));
  expect(resets.filter((r) => r.status === 204)).toHaveLength(1);
  expect(
    new Set(resets.filter((r) => r.status !== 204).map((r) => (r.body as { code: string }).code)),
  ).toEqual(new Set(["BUSY"]));
  for (const one of [v, guest]) {
    const bench = (await one.get("/api/bench")).body as BenchAnswer;
    expect(bench.products.map((p) => p.name)).toEqual(["Kiln Watch", "Probe Tail", "Rack Card"]);
    expect(bench.runs.every((r) => r.summary)).toBe(true);
    expect((await one.get("/api/session")).body).toMatchObject({
      shop: { name: "Ashglaze Works", isDemo: true },
    });
  }
  const { changes } = (await v.get("/api/history")).body as HistoryAnswer;
  expect(changes.map((c) => c.sentence)).toContain("product Kiln Watch added with 36 lines of parts");
  expect((await server.owner.query("select count(*)::int as n from workshop where is_demo")).rows[0]).toEqual(
    { n: 1 },
  );
  const own = new Visitor(server);
  await own.startShop("Own");
  expect((await own.post("/api/demo/reset")).status).toBe(403);
});

test("runs whose figures wait are counted, those that were given up are not", async () => {
  const v = new Visitor(server);
  await v.startShop("Waiting");
  const { revisionId } = (await v.drop(strangerFiles())).body as { revisionId: string };
  await v.post("/api/runs", { revisionId, name: "one", goodBoards: 10 });
  await server.figures();
  const tx = await server.owner.connect();
  try {
    await tx.query("begin");
    const before = await countFiguresDue(tx as unknown as Pool);
    await tx.query(
      "insert into figures_due (run_id, workshop_id) select id, workshop_id from run on conflict do nothing",
    );
    const after = await countFiguresDue(tx as unknown as Pool);
    expect(after).toBeGreaterThan(before);
    await tx.query("update figures_due set parked = 'given up'");
    expect(await countFiguresDue(tx as unknown as Pool)).toBe(0);
  } finally {
    await tx.query("rollback");
    tx.release();
  }
});
