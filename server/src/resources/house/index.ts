/** What other resources may use of houses. */
export { insertHouse, manyHouses, manyHouseVersions, maybeHouseKey } from "./queries.ts";
