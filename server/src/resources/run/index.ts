/** What other resources may use of runs. */
export { buildDocument, releasedDocument } from "./document.ts";
export {
  claimHouseAsk,
  endHouseAsk,
  type HouseAsked,
  insertHouseAsks,
  manyHouseAsks,
  postponeHouseAsk,
} from "./house-ask-queries.ts";
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
  upsertQuote,
} from "./queries.ts";
