/** What other resources may use of runs. */
export { buildDocument, releasedDocument } from "./document.ts";
export {
  type HouseAsked,
  houseTalk,
  insertHouseAsks,
  manyAnswering,
  manyHouseAsks,
} from "./house-ask-queries.ts";
export { insertLines, manyLines, nextPosition, oneLine } from "./line-queries.ts";
export {
  forgetLessons,
  insertRun,
  manyBoardNames,
  manyBoards,
  manyRuns,
  maybeRelease,
  oneRun,
  requireRevision,
  type StoredRun,
  updateSummary,
  upsertQuote,
} from "./queries.ts";
