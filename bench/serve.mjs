import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ensureDatabase, startCluster } from "../tools/cluster.mjs";
import { createLauncher } from "../tools/launch.mjs";
import { migrateDatabase } from "../tools/setup.mjs";

/**
 * Stand-ins and the server on a database of their own, to be measured from outside. @param name of the database
 * @param latencyMs how long a stand-in takes to answer @param env what the server is told besides
 * @returns where it answers, and how all of it is taken away
 */
export async function serve(name, latencyMs, env) {
  const folder = mkdtempSync(join(tmpdir(), `kobbin-${name}-`));
  chmodSync(folder, 0o755);
  const cluster = await startCluster(folder);
  await ensureDatabase(cluster.url, name);
  migrateDatabase(cluster.ownerUrl(name));
  const launcher = createLauncher((what, code) => {
    console.error(`${what} ended with ${code}`);
    process.exitCode = 1;
  });
  const standIns = await launcher.launch(
    "stand-ins",
    process.execPath,
    ["standins/dist/main.js"],
    { STANDINS_PORT: "0", STANDINS_LATENCY_MS: String(latencyMs) },
    /port (\d+)/,
  );
  const port = await launcher.launch(
    "server",
    process.execPath,
    ["server/dist/main.js"],
    {
      DATABASE_URL: cluster.appUrl(name),
      PORT: "0",
      STANDINS_URL: `http://127.0.0.1:${standIns}`,
      LOG: "quiet",
      ...env,
    },
    /listening on (\d+)/,
  );
  return {
    url: `http://127.0.0.1:${port}`,
    /** Of the database, as its owner. */
    ownerUrl: cluster.ownerUrl(name),
    end: async () => {
      await launcher.end();
      cluster.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
