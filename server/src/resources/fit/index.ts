/** What other resources may use of fit sheets. */
export {
  manyOpenRevisions,
  manyOpenRuns,
  manyPlaces,
  manyUnreadPlaces,
  type UnreadPlace,
  upsertPlaces,
} from "./place-queries.ts";
export { insertFit, manyFits, oneProductName } from "./queries.ts";
