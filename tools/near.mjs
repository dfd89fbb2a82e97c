// A quick check for the hand: types, rules, and the tests that can notice what changed since the last commit, by what they
// import, the nearest first, as many as fit into a moment. npm run near -- [commit] [--seconds 30]
import { execFileSync, spawnSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { reachedBy, sources } from "./mutate/reached.mjs";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, ROOT } from "./setup.mjs";
import { readTimes } from "./times.mjs";
import { runUnits } from "./units.mjs";

checkEngine();
ensurePackagesInstalled();
const args = process.argv.slice(2);
const at = args.indexOf("--seconds");
const budget = at < 0 ? 30 : Number(args[at + 1]);
const since = args.find((a, i) => !a.startsWith("--") && args[i - 1] !== "--seconds") ?? "HEAD";
const git = (...of) => execFileSync("git", of, { cwd: ROOT, encoding: "utf8" }).split("\n").filter(Boolean);
const changed = [
  ...git("diff", "--name-only", since),
  ...git("ls-files", "--others", "--exclude-standard"),
].filter((f) => existsSync(join(ROOT, f)));
if (changed.length === 0) {
  console.log(`nothing changed since ${since}`);
  process.exit(0);
}

const node = (...of) =>
  spawnSync(process.execPath, of, { cwd: ROOT, stdio: ["ignore", "inherit", "inherit"] }).status === 0;
const failures = [];
const check = (what, ok) => ok || failures.push(what);
const tsc = "node_modules/typescript/bin/tsc";
const kept = "node_modules/.cache/kobbin/tests.tsbuildinfo";
check(
  "types",
  node(tsc, "-b") && node(tsc, "-p", "tsconfig.test.json", "--incremental", "--tsBuildInfoFile", kept),
);
const readable = changed.filter((f) => /\.(ts|tsx|mjs|json|css)$/.test(f));
if (readable.length > 0)
  check("lint", node("node_modules/@biomejs/biome/bin/biome", "check", "--error-on-warnings", ...readable));
check("imports", node("tools/check-imports.mjs"));
check("lengths", node("tools/check-lengths.mjs"));
check("statements", node("tools/check-sql.mjs"));

/** What a test reads besides what it imports: kept files beside it, steps of the database, what it names. */
const readsToo = (test, file) => {
  if (/\.(ts|tsx|mjs)$/.test(file)) return false;
  if (file.startsWith("server/migrations/")) return test.startsWith("server/");
  return (
    dirname(file).startsWith(dirname(test)) || readFileSync(join(ROOT, test), "utf8").includes(basename(file))
  );
};
const reached = reachedBy();
const times = readTimes();
const near = sources()
  .filter((f) => /\.test\.ts$/.test(f))
  .flatMap((test) => {
    const files = reached(test);
    const distances = changed.flatMap((f) => files.get(f) ?? (readsToo(test, f) ? 1 : []));
    return distances.length > 0 ? [{ test, far: Math.min(...distances), seconds: times[test] ?? 2 }] : [];
  })
  .sort((a, b) => a.far - b.far || a.seconds - b.seconds);
let planned = 0;
const taken = near.filter(({ far, seconds }) => {
  // two at a time; what is changed itself is run however long it takes
  if (far > 0 && planned + seconds / 2 > budget) return false;
  planned += seconds / 2;
  return true;
});
if (taken.length > 0) {
  const isServed = taken.some(({ test }) => test.startsWith("server/"));
  if (isServed || taken.some(({ test }) => test.startsWith("bin/"))) await ensureBuilt();
  const run = (cluster) => runUnits(cluster, ["--runTestsByPath", ...taken.map(({ test }) => test)]);
  const done = isServed ? await (await import("./cluster.mjs")).withCluster(run) : await run();
  if (!done) failures.push("the tests did not run");
  else failures.push(...done.failures);
}
const left = near.length - taken.length;
console.log(
  `\n${taken.length} of ${near.length} test files that can notice it${left > 0 ? `; ${left} further away are for npm test` : ""}`,
);
if (changed.some((f) => /^(web|e2e|server)\//.test(f)))
  console.log("what it does in the browser: npm run journeys -- <words of a title>");
for (const f of failures) console.log(`failed: ${f}`);
process.exit(failures.length === 0 ? 0 : 1);
