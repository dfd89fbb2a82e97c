// Unit and server tests over a throw-away cluster: npm run unit -- [what jest takes]
import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { writeGroups } from "./grouped/groups.mjs";
import { checkEngine, ensureBuilt, ensurePackagesInstalled, isCalled, ROOT } from "./setup.mjs";
import { keepTimes } from "./times.mjs";

/** Jest as this clone runs it: modules as they are written, no warning of it. */
export const JEST = [
  "--experimental-vm-modules",
  // several processes share the cores: helpers of each for its own heap stand in the others' way
  "--single-threaded-gc",
  "--disable-warning=ExperimentalWarning",
  "node_modules/jest/bin/jest.js",
];

/** Where the tests find their databases; threads of the server's are those that were built. */
export const testEnv = (cluster) => ({
  TEST_DATABASE_URL: cluster.url("postgres"),
  TEST_OWNER_URL: cluster.ownerUrl("postgres"),
  TEST_APP_URL: cluster.appUrl("postgres"),
  KOBBIN_THREADS: "built",
});

const ended = (child) =>
  new Promise((done, fail) => {
    child.on("exit", done);
    child.on("error", fail);
  });

/** The threads that measure, count and pack for every test's server. */
async function startCompute(socket) {
  const child = spawn(process.execPath, ["tools/compute.mjs", socket], {
    cwd: ROOT,
    stdio: ["pipe", "pipe", "inherit"],
  });
  await new Promise((done, fail) => {
    child.stdout.once("data", done);
    child.once("exit", (code) => fail(new Error(`tools/compute.mjs ended with ${code}`)));
  });
  return { socket, process: child };
}

/**
 * @param args what jest takes besides
 * @returns how many passed and failed, the names of what failed, and seconds by file; undefined counts where jest fell over
 */
export async function runUnits(cluster, args = [], isSilent = true) {
  const folder = mkdtempSync(join(tmpdir(), "kobbin-units-"));
  const report = join(folder, "jest.json");
  const fileTimes = join(folder, "files.jsonl");
  const groups = join(folder, "groups.json");
  // a run of everything
  const isGrouped = args.length === 0;
  if (isGrouped) writeFileSync(groups, JSON.stringify(writeGroups(ROOT, join(ROOT, ".kobbin/groups"))));
  const compute = cluster && (await startCompute(join(folder, "compute.sock")));
  try {
    await ended(
      spawn(
        process.execPath,
        [
          ...JEST,
          "--json",
          `--outputFile=${report}`,
          ...(isSilent ? ["--silent"] : []),
          // one more than there are cores here: a server's tests wait for the database as long as they work
          "--maxWorkers=3",
          ...args,
        ],
        {
          cwd: ROOT,
          stdio: ["ignore", "inherit", "inherit"],
          env: {
            ...process.env,
            ...(cluster ? testEnv(cluster) : {}),
            ...(compute ? { KOBBIN_COMPUTE: compute.socket } : {}),
            ...(isGrouped ? { KOBBIN_GROUPS: groups, KOBBIN_FILE_TIMES: fileTimes } : {}),
          },
        },
      ),
    );
    if (!existsSync(report)) return undefined;
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites, testResults } = JSON.parse(
      readFileSync(report, "utf8"),
    );
    const seconds = {};
    const failures = [];
    for (const suite of testResults) {
      const name = suite.name.replace(`${ROOT}/`, "");
      if (!name.startsWith(".kobbin/")) seconds[name] = (suite.endTime - suite.startTime) / 1000;
      if (suite.status === "failed" && suite.assertionResults.length === 0) failures.push(name);
      for (const t of suite.assertionResults) if (t.status === "failed") failures.push(t.fullName);
    }
    if (existsSync(fileTimes))
      for (const line of readFileSync(fileTimes, "utf8").split("\n").filter(Boolean)) {
        const [name, took] = JSON.parse(line);
        seconds[name] = took;
      }
    keepTimes(seconds);
    return { passed: numPassedTests, failed: numFailedTests + numRuntimeErrorTestSuites, failures, seconds };
  } finally {
    compute?.process.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}

if (isCalled(import.meta.url)) {
  checkEngine();
  ensurePackagesInstalled();
  await ensureBuilt();
  const { withCluster } = await import("./cluster.mjs");
  const done = await withCluster((cluster) => runUnits(cluster, process.argv.slice(2), false));
  process.exitCode = done?.failed === 0 ? 0 : 1;
}
