/** What other resources may use of runs. */
export { buildDocument, releasedDocument } from "./document.ts";
export {
  insertLines,
  insertRun,
  manyBoardNames,
  manyBoards,
  manyLines,
  manyRuns,
  nextPosition,
  oneLine,
  oneRun,
  requireRevision,
  type StoredRun,
  updateSummary,
} from "./queries.ts";
