/** What other resources may use of fit sheets. */
export { insertFit, manyFits } from "./queries.ts";
