// People clicking through runs: how long they wait, what fails, what the server's memory does.
//   npm run load -- [--people 50] [--seconds 120]
import { randomUUID } from "node:crypto";
import { readFileSync, writeFileSync } from "node:fs";
import { cpus, totalmem } from "node:os";
import { join } from "node:path";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, ROOT } from "../tools/setup.mjs";
import { serve } from "./serve.mjs";

checkEngine();
ensurePackagesInstalled();
await ensureBuilt();
const option = (name, other) => {
  const i = process.argv.indexOf(name);
  return i < 0 ? other : Number(process.argv[i + 1]);
};
const people = option("--people", 50);
const seconds = option("--seconds", 120);
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

// behind a proxy the counters are told to nobody without it
const token = randomUUID();
const { url, end } = await serve("load", 50, {
  DEMO: "no",
  SIGN_UP: "open",
  TRUST_PROXY: "yes",
  METRICS_TOKEN: token,
});

const times = new Map();
const failures = new Map();
let isCounting = false;
const archive = readFileSync(join(ROOT, "demo/boards/probe-tail.zip"));

class Person {
  constructor(n) {
    this.n = n;
    this.cookie = "";
  }
  async call(what, method, path, body) {
    const isForm = body instanceof FormData;
    const started = performance.now();
    let status = 0;
    try {
      const r = await fetch(`${url}${path}`, {
        method,
        headers: {
          Origin: url,
          Cookie: this.cookie,
          // everybody from an address of their own, as behind a proxy
          "X-Forwarded-For": `10.0.${this.n >> 8}.${this.n & 255}`,
          ...(method === "GET" ? {} : { "X-Request-Key": randomUUID() }),
          ...(body && !isForm ? { "Content-Type": "application/json" } : {}),
        },
        ...(body ? { body: isForm ? body : JSON.stringify(body) } : {}),
      });
      const set = r.headers.getSetCookie()[0];
      if (set) this.cookie = set.split(";")[0];
      status = r.status;
      const bytes = await r.arrayBuffer();
      if (isCounting) times.set(what, [...(times.get(what) ?? []), performance.now() - started]);
      if (status >= 400) throw new Error(`${status}`);
      return (r.headers.get("content-type") ?? "").includes("json")
        ? JSON.parse(Buffer.from(bytes).toString())
        : undefined;
    } catch (error) {
      if (isCounting || status === 0)
        failures.set(`${what}: ${error.message}`, (failures.get(`${what}: ${error.message}`) ?? 0) + 1);
      if (!isCounting) throw error;
      return undefined;
    }
  }
  async moveIn() {
    await this.call("start", "POST", "/api/shops", {
      name: `Shop ${this.n}`,
      currency: "EUR",
      hourlyRate: "24",
      email: `person-${this.n}`,
      password: "a long password",
    });
    const form = new FormData();
    form.set("name", "Probe Tail");
    form.set("revision", "A");
    form.append("files", new Blob([archive]), "probe-tail.zip");
    const { revisionId } = await this.call("drop a board", "POST", "/api/products", form);
    this.revisionId = revisionId;
    const { id } = await this.call("start a run", "POST", "/api/runs", {
      revisionId,
      name: "load",
      goodBoards: 20,
    });
    this.run = id;
    await this.call("ask the suppliers", "POST", `/api/runs/${id}/ask`);
  }
  async click() {
    const answer = await this.call("open the run", "GET", `/api/runs/${this.run}`);
    if (!answer) return;
    const dice = Math.random();
    const lines = answer.document.lines;
    if (dice < 0.3)
      await this.call("change a choice", "PATCH", `/api/runs/${this.run}`, {
        version: answer.version,
        goodBoards: 10 + Math.floor(Math.random() * 90),
      });
    else if (dice < 0.5) {
      const line = lines[Math.floor(Math.random() * lines.length)];
      await this.call("change a line", "PATCH", `/api/lines/${line.id}`, {
        version: answer.versions[line.id],
        description: `note ${Math.floor(Math.random() * 1e6)}`,
      });
    } else if (dice < 0.6) {
      // what was just changed, taken back
      await this.call("change a choice", "PATCH", `/api/runs/${this.run}`, {
        version: answer.version,
        goodBoards: 10 + Math.floor(Math.random() * 9000),
      });
      await this.call("take back", "POST", `/api/runs/${this.run}/undo`, {});
    } else if (dice < 0.72) await this.call("open the history", "GET", `/api/history?run=${this.run}`);
    else if (dice < 0.84) await this.call("open the bench", "GET", "/api/bench");
    else if (dice < 0.92) await this.call("find", "GET", "/api/find?q=probe");
    else if (dice < 0.97)
      await this.call("download the files", "GET", `/api/boards/${answer.boardIds[0]}/files`);
    else await this.call("ask the suppliers", "POST", `/api/runs/${this.run}/ask`);
  }
}

const metric = async (name) => {
  const r = await fetch(`${url}/metrics`, { headers: { Authorization: `Bearer ${token}` } });
  if (!r.ok) throw new Error(`the counters were not told: ${r.status}`);
  return Number(new RegExp(`^${name} (.*)$`, "m").exec(await r.text())?.[1] ?? Number.NaN);
};
const sample = async () => ({
  at: Math.round(performance.now() / 1000),
  residentMb: Math.round((await metric("process_resident_memory_bytes")) / 1e6),
  heapMb: Math.round((await metric("nodejs_heap_size_used_bytes")) / 1e6),
  lagP99Ms: Math.round((await metric("nodejs_eventloop_lag_p99_seconds")) * 1e4) / 10,
  figuresDue: await metric("kobbin_figures_due"),
});

console.log(`${people} people move in …`);
const list = Array.from({ length: people }, (_, i) => new Person(i + 1));
for (let i = 0; i < list.length; i += 4) await Promise.all(list.slice(i, i + 4).map((p) => p.moveIn()));
await pause(3000);
const floor = [];
for (let i = 0; i < 200; i++) {
  const t = performance.now();
  await (await fetch(`${url}/health`)).arrayBuffer();
  floor.push(performance.now() - t);
}
const at = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];
console.log(`${seconds} seconds of clicking …`);
isCounting = true;
const until = performance.now() + seconds * 1000;
const memory = [];
const watch = (async () => {
  while (performance.now() < until) {
    memory.push(await sample());
    await pause(Math.min(60_000, Math.max(5000, seconds * 50)));
  }
})();
await Promise.all(
  list.map(async (p) => {
    await pause(Math.random() * 2000);
    while (performance.now() < until) {
      await p.click();
      // somebody who looks at what came before the next click
      await pause(500 + Math.random() * 2000);
    }
  }),
);
await watch;
isCounting = false;
memory.push(await sample());
let wait = 0;
for (; wait < 300 && (await metric("kobbin_figures_due")) > 0; wait++) await pause(100);
const all = [...times.values()].flat();
const row = (what, values) => ({
  what,
  count: values.length,
  p50: round(at(values, 0.5)),
  p95: round(at(values, 0.95)),
  p99: round(at(values, 0.99)),
  most: round(Math.max(...values)),
});
const round = (v) => Math.round(v * 10) / 10;
const rows = [...times].map(([what, values]) => row(what, values)).sort((a, b) => b.p95 - a.p95);
const errors = [...failures.values()].reduce((a, b) => a + b, 0);
const result = {
  node: process.version,
  cpus: cpus().length,
  memoryGb: Math.round(totalmem() / 1e9),
  people,
  seconds,
  requests: all.length,
  perSecond: round(all.length / seconds),
  errors,
  failures: Object.fromEntries(failures),
  floorP95Ms: round(at(floor, 0.95)),
  p95Ms: round(at(all, 0.95)),
  ratio: round(at(all, 0.95) / at(floor, 0.95)),
  figuresCaughtUpSeconds: wait / 10,
  rows,
  memory,
};
for (const r of rows)
  console.log(
    `${r.what.padEnd(20)} ${String(r.count).padStart(7)}  p50 ${String(r.p50).padStart(7)}  p95 ${String(r.p95).padStart(7)}  p99 ${String(r.p99).padStart(7)} ms`,
  );
console.log(
  `all: ${all.length} requests, ${result.perSecond} a second, p95 ${result.p95Ms} ms (floor ${result.floorP95Ms}), ${errors} errors; resident ${memory[0].residentMb} → ${memory.at(-1).residentMb} MB`,
);
for (const [what, n] of failures) console.log(`  failed ${n} times: ${what}`);
writeFileSync(
  join(ROOT, seconds >= 1800 ? "bench/soak.json" : "bench/load.json"),
  `${JSON.stringify(result, null, 1)}\n`,
);
await end();
process.exit(errors > 0 ? 1 : 0);
