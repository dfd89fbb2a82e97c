/** What tests and tools may use of the server. */
export { createApp } from "./app.ts";
export type { Config } from "./config.ts";
export { migrate } from "./db/migrate.ts";
export { createPool } from "./db/pool.ts";
export { withWorkshop } from "./db/tx.ts";
export { loadDemo } from "./demo.ts";
export type { Deps } from "./deps.ts";
export { createCompute } from "./jobs/pool.ts";
