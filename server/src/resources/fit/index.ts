/** What other resources may use of fit sheets. */
export { manyPlaces, manyUnreadPlaces, type UnreadPlace, upsertPlaces } from "./place-queries.ts";
export { insertFit, manyFits } from "./queries.ts";
