/** What other resources may use of the bill. */
export { insertSum, insertVariant, manySums, manyVariants } from "./queries.ts";
