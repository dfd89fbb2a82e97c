// npm test: everything set up, everything checked. Ends with one line: N passed, N failed.
import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createLauncher } from "./launch.mjs";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, migrateDatabase, ROOT } from "./setup.mjs";

checkEngine();
ensurePackagesInstalled();
const { ensureDatabase, ensurePackages, startCluster } = await import("./cluster.mjs");
const chromium = () => spawnSync("which", ["chromium"], { encoding: "utf8" }).stdout.trim();
if (!process.env.CHROMIUM_PATH && !chromium())
  ensurePackages(["chromium"], "Debian's Chromium is not installed");

let passed = 0;
let failed = 0;
const failures = [];
const count = (name, ok) => {
  if (ok) passed++;
  else {
    failed++;
    failures.push(name);
  }
};
const step = (name, file, args, env = {}) => {
  console.log(`\n— ${name}`);
  const started = Date.now();
  const done = spawnSync(file, args, {
    cwd: ROOT,
    stdio: ["ignore", "inherit", "inherit"],
    env: { ...process.env, npm_config_loglevel: "error", ...env },
  });
  console.log(`  ${((Date.now() - started) / 1000).toFixed(1)} s`);
  return done.status === 0;
};
const node = (name, args, env) => step(name, process.execPath, args, env);

const folder = mkdtempSync(join(tmpdir(), "kobbin-test-"));
const launcher = createLauncher((name, code) => console.error(`${name} ended with ${code}`));
let cluster;
let code = 1;
try {
  count(
    "types",
    node("types", ["node_modules/typescript/bin/tsc", "-b"]) &&
      node("types of the tests", ["node_modules/typescript/bin/tsc", "-p", "tsconfig.test.json"]),
  );
  count("lint", node("lint", ["node_modules/@biomejs/biome/bin/biome", "check", "--error-on-warnings", "."]));
  count("imports", node("imports", ["tools/check-imports.mjs"]));
  count("statements", node("statements", ["tools/check-sql.mjs"]));
  ensureBuilt();
  cluster = await startCluster(folder, undefined, true);

  const jestReport = join(folder, "jest.json");
  node(
    "unit and server tests",
    [
      "--experimental-vm-modules",
      "--disable-warning=ExperimentalWarning",
      "node_modules/jest/bin/jest.js",
      "--json",
      `--outputFile=${jestReport}`,
      "--silent",
      // one more than it would take by itself on two cores
      "--maxWorkers=2",
    ],
    {
      TEST_DATABASE_URL: cluster.url("postgres"),
      TEST_OWNER_URL: cluster.ownerUrl("postgres"),
      TEST_APP_URL: cluster.appUrl("postgres"),
    },
  );
  if (existsSync(jestReport)) {
    const report = JSON.parse(readFileSync(jestReport, "utf8"));
    passed += report.numPassedTests;
    failed += report.numFailedTests + report.numRuntimeErrorTestSuites;
    for (const suite of report.testResults) {
      if (suite.status === "failed" && suite.assertionResults.length === 0)
        failures.push(suite.name.replace(`${ROOT}/`, ""));
      for (const t of suite.assertionResults) if (t.status === "failed") failures.push(t.fullName);
    }
  } else count("unit tests ran", false);

  // the short form; the long one is npm run crash
  count(
    "four kills at random moments leave nothing lost and nothing half there",
    node("kills at random moments", ["tools/crash.mjs", "4", "--seed", "3"], { DATABASE_URL: "" }),
  );

  await ensureDatabase(cluster.url, "journeys");
  migrateDatabase(cluster.ownerUrl("journeys"));
  const standIns = await launcher.launch(
    "stand-ins",
    process.execPath,
    ["standins/dist/main.js"],
    { STANDINS_PORT: "0", STANDINS_LATENCY_MS: "20" },
    /port (\d+)/,
  );
  const port = await launcher.launch(
    "server",
    process.execPath,
    ["server/dist/main.js"],
    {
      DATABASE_URL: cluster.appUrl("journeys"),
      PORT: "0",
      STANDINS_URL: `http://127.0.0.1:${standIns}`,
      DEMO: "yes",
      WEB_ROOT: join(ROOT, "web/dist"),
      LOG: "quiet",
      SIGN_UP: "open",
      FEED_RETRY_MS: "1500",
    },
    /listening on (\d+)/,
  );
  const journeyReport = join(folder, "journeys.json");
  node("journeys", ["node_modules/@playwright/test/cli.js", "test"], {
    BASE_URL: `http://127.0.0.1:${port}`,
    STANDINS_URL: `http://127.0.0.1:${standIns}`,
    JOURNEY_REPORT: journeyReport,
    CHROMIUM_PATH: process.env.CHROMIUM_PATH ?? chromium(),
  });
  if (existsSync(journeyReport)) {
    const { stats, suites } = JSON.parse(readFileSync(journeyReport, "utf8"));
    passed += stats.expected;
    failed += stats.unexpected + stats.flaky;
    const walk = (list) => {
      for (const s of list ?? []) {
        walk(s.suites);
        for (const spec of s.specs ?? []) if (!spec.ok) failures.push(spec.title);
      }
    };
    walk(suites);
    if (stats.expected + stats.unexpected === 0) count("journeys ran", false);
  } else count("journeys ran", false);
  code = failed === 0 ? 0 : 1;
} catch (error) {
  console.error(error instanceof Error ? error.stack : String(error));
  failed++;
} finally {
  await launcher.end();
  cluster?.stop();
  rmSync(folder, { recursive: true, force: true });
}
for (const f of failures) console.log(`failed: ${f}`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(code);
