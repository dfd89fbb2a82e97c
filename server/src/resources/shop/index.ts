/** What other resources may use of shops. */
export { createShop, fetchStandIns, firstRates } from "./create.ts";
export { oneShop } from "./queries.ts";
