/** What other resources may use of houses. */
export { insertHouse, manyHouses, manyHouseVersions, manyMadeUp, maybeHouseKey } from "./queries.ts";
