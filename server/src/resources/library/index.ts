/** What other resources may use of the library and the shelf. */
export {
  deleteLot,
  freeOf,
  insertLot,
  insertLots,
  insertReservations,
  manyFreeLots,
  manyLotsNumbered,
  putReservation,
} from "./lot-queries.ts";
export {
  insertParts,
  manyPartsFor,
  manyUnknownNumbers,
  mountsByNumber,
  onePart,
  partFromLine,
  upsertAlternate,
} from "./queries.ts";
