import { createApp } from "./app.ts";
import { readConfig } from "./config.ts";
import { migrate } from "./db/migrate.ts";
import { createPool } from "./db/pool.ts";
import { loadDemo } from "./demo.ts";
import type { Deps } from "./deps.ts";
import { createCompute } from "./jobs/pool.ts";

const isQuiet = process.env.LOG === "quiet";
const log = (entry: Record<string, unknown>) => {
  if (!isQuiet || entry.level === "error")
    process.stderr.write(`${JSON.stringify({ at: new Date().toISOString(), ...entry })}\n`);
};

try {
  const config = readConfig(process.env);
  await migrate(config.databaseUrl);
  const pool = createPool(config.databaseUrl);
  pool.on("error", (error) => log({ level: "error", message: `database connection lost: ${error.message}` }));
  const compute = createCompute((error) => log({ level: "error", message: `worker: ${String(error)}` }));
  const deps: Deps = { pool, compute, config, log, today: () => new Date().toISOString().slice(0, 10) };
  if (config.hasDemo && (await loadDemo(deps))) log({ level: "info", message: "demo shop loaded" });
  const server = createApp(deps).listen(config.port, config.host, () => {
    const address = server.address();
    // the supervisor waits for this line
    process.stdout.write(
      `listening on ${typeof address === "object" && address ? address.port : config.port}\n`,
    );
  });
  let isStopping = false;
  const stop = () => {
    if (isStopping) return;
    isStopping = true;
    server.close(async () => {
      await compute.close();
      await pool.end();
      process.exit(0);
    });
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), 5000).unref();
  };
  process.on("SIGINT", stop);
  process.on("SIGTERM", stop);
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
}
