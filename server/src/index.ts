/** What tests and tools may use of the server. */
export { boundTimes, createApp, routers } from "./app.ts";
export { openBackup } from "./backup/open.ts";
export { restoreBackup } from "./backup/restore.ts";
export { writeBackup } from "./backup/write.ts";
export { type Config, isLoopbackHost, readConfig } from "./config.ts";
export { migrate } from "./db/migrate.ts";
export { createPool } from "./db/pool.ts";
export { whatStandsAgainst } from "./db/standing.ts";
export { readWorkshop, withTransaction, withWorkshop } from "./db/tx.ts";
export { loadDemo } from "./demo.ts";
export type { Deps } from "./deps.ts";
export { type By, recordChange } from "./history/change.ts";
export { type Compute, createCompute } from "./jobs/pool.ts";
export { startWorker } from "./jobs/worker.ts";
export { createHub } from "./live/hub.ts";
export { ACCESS, routeKeys, type Who } from "./middleware/access.ts";
export {
  insertLots,
  manyBoardsWith,
  manyFreeLots,
  manyLotChanges,
} from "./resources/library/lot-queries.ts";
export { manyParts } from "./resources/library/queries.ts";
export { descriptorOf, TABLE_ORDER } from "./schema/tables.ts";
