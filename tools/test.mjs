// npm test: everything set up, everything checked. Ends with one line: N passed, N failed.
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createLauncher } from "./launch.mjs";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, ROOT } from "./setup.mjs";
import { tellSlowest } from "./times.mjs";

checkEngine();
ensurePackagesInstalled();
const { startCluster } = await import("./cluster.mjs");
const { findChromium, runJourneys } = await import("./journeys.mjs");
const { runUnits } = await import("./units.mjs");
await findChromium();

let passed = 0;
let failed = 0;
const failures = [];
const parts = [];
/** Runs a part of it and says how long it took. */
const part = async (name, work) => {
  console.log(`\n— ${name}`);
  const started = Date.now();
  const done = await work();
  const seconds = (Date.now() - started) / 1000;
  parts.push([name, seconds]);
  console.log(`  ${seconds.toFixed(1)} s`);
  return done;
};
const count = (name, ok) => {
  if (ok) passed++;
  else {
    failed++;
    failures.push(name);
  }
};
const add = (name, done) => {
  if (!done) return count(`${name} ran`, false);
  passed += done.passed;
  failed += done.failed;
  failures.push(...done.failures);
};
const node = (...args) =>
  spawnSync(process.execPath, args, {
    cwd: ROOT,
    stdio: ["ignore", "inherit", "inherit"],
    env: { ...process.env, npm_config_loglevel: "error" },
  }).status === 0;

const folder = mkdtempSync(join(tmpdir(), "kobbin-test-"));
const launcher = createLauncher((name, code) => console.error(`${name} ended with ${code}`));
let cluster;
let code = 1;
try {
  await part("types, rules, imports, statements", () => {
    const tsc = "node_modules/typescript/bin/tsc";
    count("types", node(tsc, "-b") && node(tsc, "-p", "tsconfig.test.json"));
    count("lint", node("node_modules/@biomejs/biome/bin/biome", "check", "--error-on-warnings", "."));
    count("imports", node("tools/check-imports.mjs"));
    count("lengths", node("tools/check-lengths.mjs"));
    count("statements", node("tools/check-sql.mjs"));
  });
  await part("build", async () => {
    await ensureBuilt();
    cluster = await startCluster(folder, undefined, true);
  });
  await part("unit and server tests", async () => {
    const done = await runUnits(cluster);
    add("unit tests", done);
    if (done) tellSlowest("test files", done.seconds, 20);
  });
  // the short form; the long one is npm run nightly
  await part("kills at random moments", () =>
    count(
      "four kills at random moments leave nothing lost and nothing half there",
      node("tools/crash.mjs", "4", "--seed", "3"),
    ),
  );
  await part("journeys", async () => {
    const done = await runJourneys(cluster, launcher);
    add("journeys", done);
    if (done) tellSlowest("journeys", done.seconds, 15);
  });
  code = failed === 0 ? 0 : 1;
} catch (error) {
  console.error(error instanceof Error ? error.stack : String(error));
  failed++;
} finally {
  await launcher.end();
  cluster?.stop();
  rmSync(folder, { recursive: true, force: true });
}
console.log(`\n${parts.map(([name, s]) => `${name} ${s.toFixed(0)} s`).join(", ")}`);
for (const f of failures) console.log(`failed: ${f}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(code);
