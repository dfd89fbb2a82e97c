// what the other resources may take of this one
export { manyReports } from "./queries.ts";
