/** What other resources may use of houses. */
export { insertHouse, manyHouses, manyHouseVersions } from "./queries.ts";
