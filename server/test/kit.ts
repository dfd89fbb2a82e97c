import { randomBytes } from "node:crypto";
import { readFileSync } from "node:fs";
import { Agent, request, type Server } from "node:http";
import type { PassThrough } from "node:stream";
import { deserialize, serialize } from "node:v8";
import type { RunAnswer } from "@kobbin/contract";
import { fromWire } from "@kobbin/core";
import {
  type Compute,
  type Config,
  createApp,
  createCompute,
  createHub,
  createPool,
  type Deps,
  loadDemo,
  startWorker,
} from "@kobbin/server";
import { createStandIns } from "@kobbin/standins";
import { strToU8, zipSync } from "fflate";
import pg from "pg";
import { makeDatabase, template } from "./database.ts";

/** The threads of all tests of this run (tools/compute.mjs), asked over a socket. */
function sharedCompute(socketPath: string): Compute {
  const agent = new Agent({ keepAlive: true });
  return {
    run: async (task, shop) => {
      const answer = await new Promise<Buffer>((done, fail) => {
        const asked = request({ socketPath, agent, method: "POST" }, async (res) => {
          const chunks: Buffer[] = [];
          for await (const chunk of res) chunks.push(chunk as Buffer);
          done(Buffer.concat(chunks));
        });
        asked.on("error", fail);
        asked.end(serialize({ task, shop }));
      }).then(deserialize);
      if (answer.kind === "error") throw fromWire(answer);
      if (answer.kind === "defect") throw new Error(answer.message);
      return answer;
    },
    close: async () => agent.destroy(),
  };
}

/**
 * The pool of a test's server: that of all tests, where a run of them has one. Its threads run what was built where a run of all tests has built it just before: read and
 * translated anew in each thread, the sources take four times as long as the work. Alone, they run the sources.
 */
export const testCompute = (onDefect: (error: unknown) => void = () => undefined): Compute =>
  process.env.KOBBIN_COMPUTE
    ? sharedCompute(process.env.KOBBIN_COMPUTE)
    : process.env.KOBBIN_THREADS === "built"
      ? createCompute(onDefect, {}, new URL("../dist/jobs/compute.bundle.js", import.meta.url))
      : createCompute(onDefect);

/** A server on a database of its own, with stand-ins that may fail on purpose. */
export interface TestServer {
  readonly url: string;
  readonly deps: Deps;
  readonly failing: Set<string>;
  /** As the cluster's superuser, past row-level security. */
  readonly owner: pg.Pool;
  /** Where those who own the tables and bring them forward sign in. */
  readonly ownerUrl: string;
  /** The same database behind a second app, as after a restart. */
  restart(): Promise<void>;
  /** Waits until every run's figures are computed. */
  figures(): Promise<void>;
  close(): Promise<void>;
  /** Ends it, and looks whether two transactions waited for each other: each time took a second, until one was begun again. */
  closeUnentangled(): Promise<void>;
}

const listen = (app: {
  listen: (port: number, host: string, done: () => void) => Server;
}): Promise<{ server: Server; url: string }> =>
  new Promise((resolve) => {
    const server = app.listen(0, "127.0.0.1", () => {
      const { port } = server.address() as { port: number };
      // asker and asked are one process here: a connection that is closed for being idle could just be taken up again
      server.keepAliveTimeout = 600_000;
      resolve({ server, url: `http://127.0.0.1:${port}` });
    });
  });

/** A server with the demo shop in it as it is at first: a copy of one that was filled once for all tests. */
export async function startDemoServer(): Promise<TestServer> {
  const admin = new pg.Client({ connectionString: process.env.TEST_DATABASE_URL });
  await admin.connect();
  try {
    const filled = await template(admin, "demo_shop", async () => {
      const server = await startServer({ hasDemo: true }, {}, { name: "demo_shop" });
      await loadDemo(server.deps);
      await server.figures();
      await server.close();
    });
    return await startServer({ hasDemo: true }, {}, { copyOf: filled });
  } finally {
    await admin.end();
  }
}

/** A server's pool that waits for a loaded machine: no test asks how long a connection takes. */
function patientPool(databaseUrl: string): ReturnType<typeof createPool> {
  const pool = createPool(databaseUrl).on("error", () => undefined);
  Object.assign(pool.options, { connectionTimeoutMillis: 120_000 });
  return pool;
}

/**
 * @param over configuration that is not as usual
 * @param more what the server is given in the place of its own
 * @param on a database to stay when it is closed, by name; or what the server's own database is a copy of
 */
export async function startServer(
  over: Partial<Config> = {},
  more: Partial<Deps> = {},
  on: { name?: string; copyOf?: string } = {},
): Promise<TestServer> {
  const base = process.env.TEST_DATABASE_URL;
  if (!base) throw new Error("TEST_DATABASE_URL is not set: run the tests by npm test");
  const name = on.name ?? `t_${randomBytes(6).toString("hex")}`;
  const admin = new pg.Client({ connectionString: base });
  await admin.connect();
  const { databaseUrl, ownerUrl, adminUrl } = await makeDatabase(
    admin,
    name,
    on.copyOf ? { template: on.copyOf } : "migrated",
  );
  const failing = new Set<string>();
  const standIns = await listen(createStandIns({ seed: "test", latencyMs: 0, failing }));
  const config: Config = {
    databaseUrl,
    port: 0,
    host: "127.0.0.1",
    standInsUrl: standIns.url,
    feedRetryMs: 20,
    orderLookMs: 3_600_000,
    hasDemo: false,
    isDemoLived: false,
    webRoot: "",
    role: "all",
    signUp: "open",
    setUpCode: "",
    origins: [],
    shopQuotaBytes: 2 ** 31,
    newShops: 30,
    metricsToken: "",
    trustsProxy: false,
    ...over,
  };
  const own = more.compute ? undefined : testCompute();
  const make = (): Deps => ({
    pool: patientPool(databaseUrl),
    compute: (more.compute ?? own)!,
    config,
    log: (entry) => {
      // a defect in a test is shown whole
      if (entry.level === "error") process.stderr.write(`${JSON.stringify(entry)}\n`);
    },
    today: () => "2026-11-24",
    // a loaded machine answers late, and no test asks how late
    patienceMs: 120_000,
    hub: createHub(databaseUrl, () => undefined),
    live: new Set<PassThrough>(),
    ...more,
  });
  let deps = make();
  let app = await listen(createApp(deps));
  const work = async () => (config.role === "web" ? undefined : await startWorker(databaseUrl, deps, 1000));
  let worker = await work();
  const owner = new pg.Pool({ connectionString: adminUrl });
  // dropping the database at the end may cut a session that is just saying goodbye
  owner.on("error", () => undefined);
  const stop = async () => {
    for (const stream of deps.live) stream.end();
    app.server.closeAllConnections();
    await new Promise((done) => app.server.close(done));
    await worker?.stop();
    await deps.hub.close();
    await deps.pool.end();
  };
  return {
    get url() {
      return app.url;
    },
    get deps() {
      return deps;
    },
    failing,
    owner,
    ownerUrl,
    async restart() {
      await stop();
      deps = make();
      app = await listen(createApp(deps));
      worker = await work();
    },
    async figures() {
      for (let i = 0; i < 2400; i++) {
        if (worker === undefined || (await worker.waiting()) === 0) return;
        await new Promise((done) => setTimeout(done, 50));
      }
      throw new Error("the figures were not computed in two minutes");
    },
    close: () => close(),
    async closeUnentangled() {
      let times = 0;
      await close(async () => {
        const { rows } = await admin.query<{ n: number }>(
          "select deadlocks::int as n from pg_stat_database where datname = $1",
          [name],
        );
        times = rows[0]!.n;
      });
      if (times > 0) throw new Error(`${times} times two transactions waited for each other`);
    },
  };
  async function close(last?: () => Promise<void>): Promise<void> {
    await stop();
    await own?.close();
    await owner.end();
    standIns.server.closeAllConnections();
    standIns.server.close();
    await last?.();
    if (!on.name) await admin.query(`drop database ${name} with (force)`);
    await admin.end();
  }
}

/** Keys of answers that may be null (contract). */
const MAY_BE_NULL = ["boardId", "look"];

/** The key of a null in an answer, as a path; undefined where there is none. */
function nullIn(value: unknown, path = ""): string | undefined {
  if (typeof value !== "object" || value === null) return undefined;
  for (const [key, v] of Object.entries(value)) {
    if (v === null && !MAY_BE_NULL.includes(key)) return `${path}${key}`;
    const inner = nullIn(v, `${path}${key}.`);
    if (inner) return inner;
  }
  return undefined;
}

/** What a browser would do: keeps the cookie, sends the origin. */
export class Visitor {
  private cookie = "";
  private readonly server: TestServer;

  /** @param cookie of somebody who is in already */
  constructor(server: TestServer, cookie = "") {
    this.server = server;
    this.cookie = cookie;
  }

  async call(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<{ status: number; headers: Headers; body: never; bytes: Uint8Array }> {
    const isForm = body instanceof FormData;
    const response = await fetch(`${this.server.url}${path}`, {
      method,
      headers: {
        Origin: this.server.url,
        ...(this.cookie ? { Cookie: this.cookie } : {}),
        ...(body !== undefined && !isForm ? { "Content-Type": "application/json" } : {}),
        ...headers,
      },
      ...(body === undefined ? {} : { body: isForm ? body : JSON.stringify(body) }),
    });
    if (response.ok && ![200, 201, 202, 204].includes(response.status))
      throw new Error(`${method} ${path} answers ${response.status}, which no answer of ours is`);
    const set = response.headers.getSetCookie()[0];
    if (set) this.cookie = set.split(";")[0]!;
    const bytes = new Uint8Array(await response.arrayBuffer());
    let parsed: unknown;
    try {
      parsed = JSON.parse(new TextDecoder().decode(bytes));
    } catch {
      parsed = undefined;
    }
    const key = nullIn(parsed);
    if (key) throw new Error(`${method} ${path} answers null for ${key}: what is not known is left out`);
    return { status: response.status, headers: response.headers, body: parsed as never, bytes };
  }

  cookies(): string {
    return this.cookie;
  }

  /** An answer that goes on: the event stream. */
  stream(path: string): Promise<Response> {
    return fetch(`${this.server.url}${path}`, { headers: { Cookie: this.cookie } });
  }

  get = (path: string) => this.call("GET", path);
  post = (path: string, body?: unknown) => this.call("POST", path, body);
  patch = (path: string, body: unknown) => this.call("PATCH", path, body);

  async startShop(name: string): Promise<void> {
    const r = await this.post("/api/shops", {
      name,
      currency: "EUR",
      hourlyRate: "24.00",
      email: name.toLowerCase(),
      password: "a long password",
    });
    if (r.status !== 201) throw new Error(JSON.stringify(r.body));
  }

  put(path: string, body?: unknown) {
    return this.call("PUT", path, body);
  }
  drop(files: Readonly<Record<string, Uint8Array | string>>, fields: Readonly<Record<string, string>> = {}) {
    const form = new FormData();
    for (const [k, v] of Object.entries({ name: "Thing", revision: "A", ...fields })) form.set(k, v);
    for (const [path, bytes] of Object.entries(files))
      form.append(
        "files",
        new Blob([typeof bytes === "string" ? bytes : (bytes as Uint8Array<ArrayBuffer>)]),
        path,
      );
    return this.call("POST", "/api/products", form);
  }
}

export const demoArchive = (name: string): Uint8Array =>
  new Uint8Array(readFileSync(new URL(`../../demo/boards/${name}.zip`, import.meta.url)));

/** A shop of its own with one demo board in a run of ten; what reads the run, and what takes a change back. */
export async function shopWithRun(server: TestServer, name: string, board = "probe-tail") {
  const v = new Visitor(server);
  await v.startShop(name);
  const { revisionId } = (await v.drop({ [`${board}.zip`]: demoArchive(board) })).body as {
    revisionId: string;
  };
  const made = await v.post("/api/runs", { revisionId, name: "one", goodBoards: 10 });
  const { id } = made.body as { id: string };
  const read = async () => (await v.get(`/api/runs/${id}`)).body as RunAnswer;
  const back = (headers: Headers) => v.post(`/api/changes/${headers.get("X-Change")}/undo`);
  return { v, id, revisionId, read, back };
}

const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
const line = (x1: number, y1: number, x2: number, y2: number) =>
  `X${x1}000000Y${y1}000000D02*\nG01X${x2}000000Y${y2}000000D01*\n`;

/** A stranger's board, written by hand: 20 × 10 mm, two pads, a parts list of one line. */
export const strangerFiles = (): Record<string, string> => ({
  "mine.gtl": `${HEAD}%ADD10R,1X1*%\n%ADD11C,0.3*%\nD10*\nX5000000Y5000000D03*\nX9000000Y5000000D03*\nD11*\n${line(5, 5, 5, 8)}M02*\n`,
  "mine.gts": `${HEAD}%ADD10R,1.1X1.1*%\nD10*\nX5000000Y5000000D03*\nX9000000Y5000000D03*\nM02*\n`,
  "mine.gtp": `${HEAD}%ADD10R,1X1*%\nD10*\nX5000000Y5000000D03*\nX9000000Y5000000D03*\nM02*\n`,
  "mine.gko": `${HEAD}%ADD10C,0.1*%\nD10*\n${line(0, 0, 20, 0)}${line(20, 0, 20, 10)}${line(20, 10, 0, 10)}${line(0, 10, 0, 0)}M02*\n`,
  "mine-bom.csv": "Ref;Qty;Value;Package;MPN\nR1;1;4k7;1206;ZZ-UNKNOWN-1\n",
  "mine-pos.csv": "Ref,X,Y,Rot,Side\nR1,7,5,0,top\n",
});
export const zipOf = (files: Readonly<Record<string, string>>): Uint8Array =>
  zipSync(Object.fromEntries(Object.entries(files).map(([k, v]) => [k, strToU8(v)])));
