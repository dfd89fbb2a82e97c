// Reads broken and made-up files until something throws or takes long, then lists, places and drills in random dialects
// whose meaning is known, until one is read as something else without a word:  npm run fuzz -- [cases] [seed]
import { runFuzz } from "../core/test/fuzz.ts";
import { roundTrips, WRITERS } from "../core/test/round-trip.ts";

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

for (const what of Object.keys(WRITERS) as (keyof typeof WRITERS)[]) {
  const count = Math.ceil(cases / 20);
  const { right, said, silent } = roundTrips(what, count, seed);
  console.log(`${what}: ${count} files written, ${right} read as meant, ${said} not and said`);
  if (!silent) continue;
  console.error(`${what}, case ${silent.n} of seed ${seed} is read as something else without a word:`);
  console.error(`${silent.file}\n— meant\n${silent.meant}\n— read\n${silent.read}`);
  process.exitCode = 1;
}
