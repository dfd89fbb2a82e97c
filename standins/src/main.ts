import { createStandIns } from "./app.ts";

// Started by tools/start.mjs beside the server; loopback only.
const port = Number(process.env.STANDINS_PORT ?? 0);
const failing = new Set((process.env.STANDINS_FAILING ?? "").split(",").filter(Boolean));
const server = createStandIns({
  seed: process.env.STANDINS_SEED ?? "ashglaze",
  latencyMs: Number(process.env.STANDINS_LATENCY_MS ?? 120),
  failing,
  clock: () => new Date().toISOString().slice(0, 10),
  ...(process.env.STANDINS_DAY ? { day: process.env.STANDINS_DAY } : {}),
}).listen(port, "127.0.0.1", () => {
  const address = server.address();
  console.log(`stand-ins on port ${typeof address === "object" && address ? address.port : port}`);
});
for (const signal of ["SIGINT", "SIGTERM"] as const)
  process.on(signal, () => server.close(() => process.exit(0)));
