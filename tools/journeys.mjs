// Journeys in the browser over one built server with the demo shop: npm run journeys -- [what playwright takes]
import { spawnSync } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createLauncher } from "./launch.mjs";
import {
  checkEngine,
  ensureBuilt,
  ensurePackagesInstalled,
  isCalled,
  migrateDatabase,
  ROOT,
} from "./setup.mjs";
import { keepTimes } from "./times.mjs";

/** Debian's browser, installed where it is missing and may be. */
export async function findChromium() {
  const find = () => spawnSync("which", ["chromium"], { encoding: "utf8" }).stdout.trim();
  if (process.env.CHROMIUM_PATH || find()) return process.env.CHROMIUM_PATH ?? find();
  const { ensurePackages } = await import("./cluster.mjs");
  ensurePackages(["chromium"], "Debian's Chromium is not installed");
  return find();
}

/**
 * @param args what playwright takes besides
 * @returns how many passed and failed, the titles of what failed, seconds by journey; undefined where nothing ran
 */
export async function runJourneys(cluster, launcher, args = []) {
  const { ensureDatabase } = await import("./cluster.mjs");
  const chromium = await findChromium();
  const folder = mkdtempSync(join(tmpdir(), "kobbin-journeys-"));
  const report = join(folder, "journeys.json");
  try {
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
        // each makes what it needs of it
        DEMO: "first",
        WEB_ROOT: join(ROOT, "web/dist"),
        LOG: "quiet",
        SIGN_UP: "open",
        FEED_RETRY_MS: "700",
        // each journey has a shop of its own
        NEW_SHOPS: "300",
      },
      /listening on (\d+)/,
    );
    spawnSync(process.execPath, ["node_modules/@playwright/test/cli.js", "test", ...args], {
      cwd: ROOT,
      stdio: ["ignore", "inherit", "inherit"],
      env: {
        ...process.env,
        BASE_URL: `http://127.0.0.1:${port}`,
        STANDINS_URL: `http://127.0.0.1:${standIns}`,
        JOURNEY_REPORT: report,
        CHROMIUM_PATH: chromium,
      },
    });
    if (!existsSync(report)) return undefined;
    const { stats, suites } = JSON.parse(readFileSync(report, "utf8"));
    if (stats.expected + stats.unexpected === 0) return undefined;
    const seconds = {};
    const failures = [];
    const walk = (list, file) => {
      for (const s of list ?? []) {
        walk(s.suites, s.file ?? file);
        for (const spec of s.specs ?? []) {
          seconds[`e2e/${spec.file}: ${spec.title}`] =
            spec.tests.flatMap((t) => t.results).reduce((sum, r) => sum + r.duration, 0) / 1000;
          if (!spec.ok) failures.push(spec.title);
        }
      }
    };
    walk(suites);
    keepTimes(seconds);
    return { passed: stats.expected, failed: stats.unexpected + stats.flaky, failures, seconds };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

if (isCalled(import.meta.url)) {
  checkEngine();
  ensurePackagesInstalled();
  await ensureBuilt();
  const { withCluster } = await import("./cluster.mjs");
  const launcher = createLauncher((name, code) => console.error(`${name} ended with ${code}`));
  await withCluster(async (cluster) => {
    try {
      const done = await runJourneys(cluster, launcher, process.argv.slice(2));
      process.exitCode = done?.failed === 0 ? 0 : 1;
    } finally {
      await launcher.end();
    }
  });
}
