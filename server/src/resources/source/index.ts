/** What other resources may use of suppliers and their offers. */
export {
  type Answered,
  askSupplier,
  PATIENCE_MS,
  rulesWanted,
  searchSupplier,
  wantedOf,
} from "./ask.ts";
export { type Asked, insertAsks, settleAsk, supplierTalk } from "./ask-queries.ts";
export { withFound } from "./found.ts";
export {
  deleteNeedlessFound,
  insertSupplier,
  manyOffers,
  manySuppliers,
  replaceFeedOffers,
} from "./queries.ts";
