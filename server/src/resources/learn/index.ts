/** What other resources may use of what was learned. */

export { insertErratum, oneErratum, reworksOf, updateDecision } from "./erratum-queries.ts";
export { learnedFor } from "./for-run.ts";
export { insertCatches, insertLesson, manyNewCatches, updateLesson } from "./lesson-queries.ts";
export {
  manyUnreadLearned,
  oneMeasure,
  type Unread,
  upsertLearned,
} from "./reading-queries.ts";
