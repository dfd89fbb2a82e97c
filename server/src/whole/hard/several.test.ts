import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import type { BenchAnswer, RunAnswer } from "@kobbin/contract";
import { migrate } from "@kobbin/server";
import pg from "pg";
import { makeDatabase } from "../../../test/database.ts";
import { strangerFiles, Visitor } from "../../../test/kit.ts";
import { endAll, freePort, type Running, startBalancer, startProcess } from "../../../test/processes.ts";

let databaseUrl: string;
let admin: pg.Client;
let owner: pg.Pool;
let servers: Running[];
let workers: Running[];
let balancer: Awaited<ReturnType<typeof startBalancer>> | undefined;
const name = `several_${process.pid}`;

beforeAll(async () => {
  const base = process.env.TEST_DATABASE_URL;
  if (!base) throw new Error("TEST_DATABASE_URL is not set: run the tests by npm test");
  admin = new pg.Client({ connectionString: base });
  await admin.connect();
  const made = await makeDatabase(admin, name);
  databaseUrl = made.databaseUrl;
  owner = new pg.Pool({ connectionString: made.adminUrl, max: 2 });
  owner.on("error", () => undefined);
  // what stands in front of them is known before they start: they go by its name
  const port = await freePort();
  const env = { DATABASE_URL: databaseUrl, ORIGINS: `http://127.0.0.1:${port}` };
  [servers, workers] = await Promise.all([
    Promise.all([1, 2].map(() => startProcess({ ...env, ROLE: "web" }))),
    Promise.all([1, 2].map(() => startProcess({ ...env, ROLE: "worker" }))),
  ]);
  balancer = await startBalancer(
    servers.map((s) => s.url),
    port,
  );
});
afterAll(async () => {
  endAll();
  await balancer?.close();
  await owner.end();
  await admin.query(`drop database ${name} with (force)`);
  await admin.end();
});

const visitor = () => new Visitor({ url: balancer!.url } as never);
const jobsDone = async (w: Running) => {
  const text = await (await fetch(`${w.url}/metrics`)).text();
  return Number(/^kobbin_jobs_total\{outcome="done"\} (\d+)/m.exec(text)?.[1] ?? 0);
};
const figuresCome = async (seconds: number) => {
  for (let i = 0; i < seconds * 10; i++) {
    const { rows } = await owner.query<{ n: number }>("select count(*)::int as n from figures_due");
    if (rows[0]!.n === 0) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error("figures are still due");
};
let v: Visitor;
let revisionId: string;
const runs: string[] = [];

test("six that bring an empty database forward at one moment, and six workers that start, do not stand in each other's way", async () => {
  const fresh = `${name}_start`;
  const { databaseUrl: url, ownerUrl } = await makeDatabase(admin, fresh, "nothing");
  try {
    // before, a server says what is missing and goes
    await expect(startProcess({ DATABASE_URL: url })).rejects.toThrow("not brought forward yet");
    const steps = await Promise.all(Array.from({ length: 6 }, () => migrate(ownerUrl)));
    expect(steps.filter((s) => s.length > 0)).toHaveLength(1);
    const six = await Promise.all(
      Array.from({ length: 6 }, () => startProcess({ DATABASE_URL: url, ROLE: "worker" })),
    );
    for (const p of six) p.child.kill("SIGKILL");
    await Promise.all(six.map((p) => p.ended));
  } finally {
    await admin.query(`drop database ${fresh} with (force)`);
  }
});

test("sessions, uploads and changes work whichever server answers; the jobs are shared by two workers", async () => {
  v = visitor();
  await v.startShop("Several");
  revisionId = ((await v.drop(strangerFiles())).body as { revisionId: string }).revisionId;
  for (let i = 0; i < 24; i++)
    runs.push(
      (
        (await v.post("/api/runs", { revisionId, name: `run ${i}`, goodBoards: 3 + i })).body as {
          id: string;
        }
      ).id,
    );
  expect([...balancer!.hits.values()].every((n) => n > 8)).toBe(true);
  // one change of the bill makes the figures of every run due
  await v.post(`/api/revisions/${revisionId}/lines`, { valueText: "screw", qty: 2 });
  await figuresCome(30);
  const done = await Promise.all(workers.map(jobsDone));
  expect(Math.min(...done)).toBeGreaterThan(0);
  const bench = (await v.get("/api/bench")).body as BenchAnswer;
  expect(bench.runs.every((r) => r.summary !== undefined)).toBe(true);
});

test("a change made over one server is heard by a page that listens at the other", async () => {
  const cookie = await v.stream("/api/session");
  expect(cookie.status).toBe(200);
  const [a, b] = servers;
  const listen = new Visitor({ url: a!.url } as never);
  const change = new Visitor({ url: b!.url } as never);
  for (const x of [listen, change])
    expect((await x.post("/api/session", { email: "several", password: "a long password" })).status).toBe(
      204,
    );
  const stream = await listen.stream(`/api/live?page=${randomUUID()}`);
  const reader = stream.body!.getReader();
  await change.patch(`/api/runs/${runs[0]}`, { version: 1, goodBoards: 77 });
  let text = "";
  while (!text.includes("good boards 3 → 77")) {
    const { value, done } = await reader.read();
    if (done) break;
    text += new TextDecoder().decode(value);
  }
  await reader.cancel();
  expect(text).toContain('"kind":"change"');
});

test("a server and a worker are killed under load: nobody notices more than a retry, nothing is lost", async () => {
  const before = [...balancer!.hits.values()];
  let retries = 0;
  let most = 0;
  const saved: string[] = [];
  let isOn = true;
  // what a page does: the same request with the same key, until an answer comes
  const send = async (method: string, path: string, body: unknown) => {
    const key = { "X-Request-Key": randomUUID() };
    for (let n = 0; ; n++) {
      try {
        const r = await v.call(method, path, body, key);
        if (r.status < 500) {
          most = Math.max(most, n);
          return r;
        }
      } catch {
        // the connection broke in the middle
      }
      retries++;
      if (n > 5) throw new Error(`${method} ${path} found no server`);
      await new Promise((done) => setTimeout(done, 50));
    }
  };
  const person = async (i: number) => {
    for (let k = 0; isOn; k++) {
      const text = `p${i}-${k}`;
      expect(
        (await send("POST", `/api/revisions/${revisionId}/lines`, { valueText: text, qty: 1 })).status,
      ).toBeLessThan(300);
      saved.push(text);
      expect((await send("GET", `/api/runs/${runs[i]}`, undefined)).status).toBe(200);
    }
  };
  const people = Promise.all(Array.from({ length: 8 }, (_, i) => person(i)));
  // so many changes, however long this machine takes for them
  const until = async (n: number) => {
    while (saved.length < n) await Promise.race([people, new Promise((done) => setTimeout(done, 20))]);
  };
  await until(12);
  servers[0]!.child.kill("SIGKILL");
  workers[0]!.child.kill("SIGKILL");
  await until(36);
  isOn = false;
  await people;
  expect([...balancer!.hits.values()][1]).toBeGreaterThan(before[1]! + 20);
  // a request that was in the killed server is sent once more, and no more than once
  expect(most).toBeLessThanOrEqual(1);
  expect(retries).toBeLessThanOrEqual(8);
  const { document } = (await v.get(`/api/runs/${runs[1]}`)).body as RunAnswer;
  const there = document.lines.map((l) => l.valueText).filter((t) => t.startsWith("p"));
  expect(there.sort()).toEqual(saved.sort());
  // what the killed worker had in hand is done by the other
  await figuresCome(60);
});

test("told to stop, a server answers what is in flight and goes; it says so while it does", async () => {
  const one = servers[1]!;
  const at = new Visitor({ url: one.url } as never);
  await at.post("/api/session", { email: "several", password: "a long password" });
  expect((await fetch(`${one.url}/ready`)).status).toBe(200);
  const slow = at.drop(strangerFiles(), { name: "in flight" });
  await new Promise((done) => setTimeout(done, 30));
  one.child.kill("SIGTERM");
  expect((await slow).status).toBe(201);
  expect(await one.ended).toBe(0);
  const other = workers[1]!;
  other.child.kill("SIGTERM");
  expect(await other.ended).toBe(0);
});
