import { microsToText, type PlannedOrder, type RunPurchase, toMicros } from "@kobbin/core";

/** Pieces of an item as they were counted. */
export interface Counted {
  readonly item: string;
  readonly qty: number;
  readonly isApart: boolean;
  readonly because: string;
  readonly place: string;
  /** The number that stands on it, where that is another than was ordered. */
  readonly cameAs?: string;
  /** Its date code, where that is asked for. */
  readonly made?: string;
  /** More than is to come, and so it was counted. */
  readonly isMeant?: boolean;
}

/** What a piece of an item costs: by its invoice where it is known, else as planned. Nothing for boards, which make no lot. */
export function unitCostOf(
  order: PlannedOrder,
  item: string,
  purchase: RunPurchase | undefined,
): string | undefined {
  const i = order.items.find((x) => x.key === item);
  if (order.kind !== "parts" || !i) return undefined;
  const paid = purchase?.paid[item];
  return microsToText(Math.round((paid === undefined ? i.total : toMicros(paid)) / i.qty));
}
