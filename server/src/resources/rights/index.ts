/** What other resources may use of marks and borrowed things. */
export { manyRights } from "./queries.ts";
