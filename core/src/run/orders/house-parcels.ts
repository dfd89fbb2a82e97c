import type { House } from "../../fab/house.ts";
import { PACKING_KG } from "../../fab/price.ts";
import { roundMoney, toMicros } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";
import { assemblyHouse } from "../document/who-places.ts";
import type { BoardOrder } from "./order-boards.ts";

/** A parcel between the shop and the house that places, micros of the house's currency. */
export interface HouseParcel {
  readonly label: string;
  readonly micros: number;
  readonly note: string;
}

/** Parcels to the assembly house and back, and the days they are on their way. */
export interface HouseParcels {
  readonly terms: readonly HouseParcel[];
  /** Days that parts need beyond the shop before the house can begin, where boards wait there for them. */
  readonly partsOnDays: number;
  /** Days of the way there and back for what all waits for. */
  readonly days: number;
}

const NOTHING: HouseParcels = { terms: [], partsOnDays: 0, days: 0 };

/**
 * Ways of parts and boards to the house that places them, by its own freight (base and each started half kilogram).
 *
 * Boards made elsewhere come to the shop, are counted, and go with the parts; the finished ones come back, over the
 * border where the house takes a sum for that. A house that makes the boards too gets the parts only: its boards'
 * freight is the way back. The parts' weight is not known and left out, which the terms say.
 */
export function houseParcels(doc: RunDocument, orders: readonly BoardOrder[], started: number): HouseParcels {
  const house = assemblyHouse(doc);
  if (!house) return NOTHING;
  const p = house.price;
  const isOwnBoards = doc.house?.id === house.id && orders.length > 0;
  const goods = orders.reduce((n, o, i) => {
    const boards = started * (doc.boards[i]?.perProduct ?? 1);
    return n + ((o.quote.kg - PACKING_KG) * Math.min(boards, o.quote.pieces)) / Math.max(1, o.quote.pieces);
  }, 0);
  const freight = (kg: number) => freightOf(house, kg);
  const there: HouseParcel = {
    label: isOwnBoards ? "parts to the house" : "parts and boards to the house",
    micros: freight(isOwnBoards ? PACKING_KG : goods + PACKING_KG),
    note: `${(isOwnBoards ? PACKING_KG : goods + PACKING_KG).toFixed(2)} kg, the parts' weight not counted`,
  };
  if (isOwnBoards) return { terms: [there], partsOnDays: p.transitDays, days: 0 };
  const handling = toMicros(p.importHandling);
  return {
    terms: [
      there,
      {
        label: "finished boards back",
        micros: freight(goods + PACKING_KG),
        note: `${(goods + PACKING_KG).toFixed(2)} kg, the parts' weight not counted`,
      },
      ...(handling > 0 ? [{ label: "import handling", micros: handling, note: "on the way back" }] : []),
    ],
    partsOnDays: 0,
    days: 2 * p.transitDays,
  };
}

const freightOf = (house: House, kg: number): number =>
  roundMoney(
    toMicros(house.price.freightBase) + Math.ceil(kg / 0.5) * toMicros(house.price.freightPerHalfKg),
    house.currency,
  );
