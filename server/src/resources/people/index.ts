/** What other resources may use of people. */
export { FORMER } from "./forget-queries.ts";
export { checkNewPassword, checkPassword } from "./password.ts";
export { insertAccount, insertAudit, insertMember, manyShopsOf, updateSessionShop } from "./queries.ts";
