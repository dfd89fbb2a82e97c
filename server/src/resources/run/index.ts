/** What other resources may use of runs. */
export { buildDocument, releasedDocument } from "./document.ts";
export { insertLines, manyLines, nextPosition, oneLine } from "./line-queries.ts";
export {
  insertRun,
  manyBoardNames,
  manyBoards,
  manyRuns,
  oneRun,
  requireRevision,
  type StoredRun,
  updateSummary,
} from "./queries.ts";
