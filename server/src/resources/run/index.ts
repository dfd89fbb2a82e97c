/** What other resources may use of runs. */
export { buildDocument } from "./document.ts";
export {
  insertLine,
  insertRun,
  manyBoardNames,
  manyBoards,
  manyLines,
  manyRuns,
  oneLine,
  oneRun,
  updateSummary,
} from "./queries.ts";
