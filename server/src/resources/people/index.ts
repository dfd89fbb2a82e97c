/** What other resources may use of people. */
export { checkNewPassword, checkPassword } from "./password.ts";
export { insertAccount, insertAudit, insertMember, manyShopsOf, updateSessionShop } from "./queries.ts";
