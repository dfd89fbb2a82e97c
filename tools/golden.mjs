// npm run golden: writes what the tests keep anew, to be read in review. What is wrong by other tests stays wrong.
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { checkEngine, ensureBuilt, ROOT } from "./setup.mjs";
import { JEST, testEnv } from "./units.mjs";

checkEngine();
await ensureBuilt();
const { startCluster } = await import("./cluster.mjs");
const folder = mkdtempSync(join(tmpdir(), "kobbin-golden-"));
const cluster = await startCluster(folder, undefined, true);
const jest = (...args) =>
  spawnSync(process.execPath, [...JEST, ...args], {
    cwd: ROOT,
    stdio: "inherit",
    env: {
      ...process.env,
      KOBBIN_GOLDEN: "write",
      ...testEnv(cluster),
    },
  }).status === 0;
try {
  const near = jest("--selectProjects", "core", "formats", "packing", "bin", "demo");
  const server = jest(
    "--selectProjects",
    "server",
    "--testPathPatterns",
    "schema/(kept|bodies)",
    "whole/(demo|backup|hard/people)",
  );
  process.exitCode = near && server ? 0 : 1;
} finally {
  await cluster.stop();
  rmSync(folder, { recursive: true, force: true });
}
