/** What other resources may use of what happened to runs. */
export { manyPast, manyRecordVersions, oneRecord } from "./queries.ts";
