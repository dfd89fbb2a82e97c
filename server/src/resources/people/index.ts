/** What other resources may use of people. */
export { checkNewPassword, checkPassword } from "./password.ts";
export { insertAudit, manyShopsOf } from "./queries.ts";
