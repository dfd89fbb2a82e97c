/** What other resources may use of runs. */
export { buildDocument, refreshRun, refreshRuns } from "./document.ts";
export { insertLine, insertRun, manyBoards, manyLines, manyRuns, oneRun } from "./queries.ts";
