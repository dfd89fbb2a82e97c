import { randomBytes } from "node:crypto";
import type { PassThrough } from "node:stream";
import { boundTimes, createApp } from "./app.ts";
import { isLoopbackHost, readConfig } from "./config.ts";
import { createPool } from "./db/pool.ts";
import { whatStandsAgainst } from "./db/standing.ts";
import { loadDemo } from "./demo.ts";
import type { Deps } from "./deps.ts";
import { createCompute } from "./jobs/pool.ts";
import { startWorker } from "./jobs/worker.ts";
import { fillLife } from "./life/story.ts";
import { createHub } from "./live/hub.ts";
import { onUncaught } from "./uncaught.ts";

const isQuiet = process.env.LOG === "quiet";
const log = (entry: Record<string, unknown>) => {
  if (!isQuiet || entry.level === "error")
    process.stderr.write(`${JSON.stringify({ at: new Date().toISOString(), ...entry })}\n`);
};

try {
  const read = readConfig(process.env);
  const setUpCode = read.setUpCode || randomBytes(6).toString("base64url");
  const config = { ...read, setUpCode };
  const pool = createPool(config.databaseUrl);
  pool.on("error", (error) =>
    log({ level: "warning", message: `database connection lost: ${error.message}` }),
  );
  const against = await whatStandsAgainst(pool);
  if (against) throw new Error(against);
  const compute = createCompute((error) => log({ level: "error", message: `worker: ${String(error)}` }));
  const hub = createHub(config.databaseUrl, log);
  const live = new Set<PassThrough>();
  let isStopping = false;
  const today = () => new Date().toISOString().slice(0, 10);
  const deps: Deps = {
    pool,
    compute,
    config,
    log,
    today,
    hub,
    live,
    isStopping: () => isStopping,
    ...(config.isDemoLived ? { fillLife } : {}),
  };
  if (config.hasDemo && (await loadDemo(deps))) log({ level: "info", message: "demo shop loaded" });
  const worker =
    config.role === "web"
      ? undefined
      : await startWorker(config.databaseUrl, { pool, compute, config, hub, log, today });
  // a worker serves its health, readiness and metrics too
  const server = boundTimes(
    createApp(deps).listen(config.port, config.host, () => {
      const address = server.address();
      // the supervisor waits for this line
      process.stdout.write(
        `listening on ${typeof address === "object" && address ? address.port : config.port}\n`,
      );
      if (!isLoopbackHost(config.host) && config.origins.length === 0)
        log({
          level: "error",
          message:
            "HOST lets other machines in, but ORIGINS names no address they could use: only this machine is answered",
        });
      if (config.signUp === "first" && read.setUpCode === "" && !isLoopbackHost(config.host))
        log({
          level: "notice",
          message: `the first owner, from another machine, needs the set-up code ${setUpCode}`,
        });
    }),
  );
  server.on("error", (error) => {
    process.stderr.write(`${error.message}\n`);
    process.exit(1);
  });

  // requests in flight are answered, jobs end or go back to the queue, then the process goes; at most ten seconds
  const stop = async (signal: string, code = 0) => {
    if (isStopping) return;
    isStopping = true;
    log({ level: "info", message: `stopping on ${signal}` });
    setTimeout(() => process.exit(1), 10_000).unref();
    const closed = new Promise<void>((done) => server.close(() => done()));
    for (const stream of live) stream.end();
    server.closeIdleConnections();
    const idle = setInterval(() => server.closeIdleConnections(), 100);
    await Promise.all([closed, worker?.stop()]);
    clearInterval(idle);
    await hub.close();
    await compute.close();
    await pool.end();
    process.exit(code);
  };
  const uncaught = onUncaught(log, (why) => void stop(why, 70));
  process.on("uncaughtException", uncaught);
  process.on("unhandledRejection", uncaught);
  process.on("SIGINT", () => void stop("SIGINT"));
  process.on("SIGTERM", () => void stop("SIGTERM"));
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
}
