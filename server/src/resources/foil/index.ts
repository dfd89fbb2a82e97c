/** What other resources may use of foils. */
export { manyFoils } from "./queries.ts";
