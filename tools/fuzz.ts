// Reads broken and made-up files until something throws or takes long:  npm run fuzz -- [cases] [seed]
import { runFuzz } from "../core/test/fuzz.ts";

const cases = Number(process.argv[2] ?? 100_000);
const seed = Number(process.argv[3] ?? 1);
const t = performance.now();
const step = 20_000;
let [slowest, at, objects] = [0, "", 0];
for (let from = 0, part = 0; from < cases; from += step, part++) {
  const r = runFuzz(Math.min(step, cases - from), seed * 1000 + part);
  objects += r.objects;
  if (r.slowestMs > slowest) [slowest, at] = [r.slowestMs, `case ${r.slowest} of seed ${seed * 1000 + part}`];
  console.log(
    `${from + r.cases} cases, slowest ${slowest.toFixed(0)} ms (${at}), ${Math.round(process.memoryUsage().rss / 1e6)} MB`,
  );
}
console.log(
  `${cases} cases in ${((performance.now() - t) / 1000).toFixed(0)} s, ${objects} objects read, nothing thrown.`,
);
