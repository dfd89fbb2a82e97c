/** What other resources may use of the bill. */
export { insertSum, manySums, manyVariants } from "./queries.ts";
