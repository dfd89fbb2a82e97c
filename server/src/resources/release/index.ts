/** What other resources may use of what a run was released with. */
export { onePackage } from "./queries.ts";
