// People clicking through runs: how long they wait, what fails, what the server's memory does.
//   npm run load -- [--people 50] [--seconds 120]
import { randomUUID } from "node:crypto";
import { writeFileSync } from "node:fs";
import { cpus, totalmem } from "node:os";
import { join } from "node:path";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, numberOption, ROOT } from "../tools/setup.mjs";
import { at, clicking, moveIn, pause, peopleOf, round } from "./people.mjs";
import { serve } from "./serve.mjs";

checkEngine();
ensurePackagesInstalled();
await ensureBuilt();
const people = numberOption("--people", 50);
const seconds = numberOption("--seconds", 120);

// behind a proxy the counters are told to nobody without it
const token = randomUUID();
const { url, end } = await serve("load", 50, {
  DEMO: "no",
  SIGN_UP: "open",
  TRUST_PROXY: "yes",
  METRICS_TOKEN: token,
});

const { Person, told } = peopleOf(url);

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
await moveIn(list);
await pause(3000);
const floor = [];
for (let i = 0; i < 200; i++) {
  const t = performance.now();
  await (await fetch(`${url}/health`)).arrayBuffer();
  floor.push(performance.now() - t);
}
console.log(`${seconds} seconds of clicking …`);
told.isCounting = true;
const until = performance.now() + seconds * 1000;
const memory = [];
const watch = (async () => {
  while (performance.now() < until) {
    memory.push(await sample());
    await pause(Math.min(60_000, Math.max(5000, seconds * 50)));
  }
})();
await clicking(list, until);
await watch;
told.isCounting = false;
const { times, failures } = told;
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
