/** What other resources may use of what happened to runs. */

export {
  fillPurchaseDates,
  insertStep,
  isOrderOver,
  manyOrderAsks,
  manySteps,
  manyWaiting,
  type OrderAsked,
  orderTalk,
  updateOrderNumber,
} from "./order-queries.ts";
export { manyPast, manyRecordVersions, oneRecord, upsertPurchase } from "./queries.ts";
export { waitingOf } from "./waiting.ts";
