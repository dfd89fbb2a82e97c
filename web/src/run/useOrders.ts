import {
  arrivedOf,
  type OrderStand,
  orderStand,
  type PlannedItem,
  type PlannedOrder,
  plannedOrders,
  type RunDocument,
  type RunRecord,
  type RunResult,
} from "@kobbin/core";
import { useMemo } from "react";
import { todayIso } from "../ui/text/dates.ts";
import { useRun } from "./runState.ts";

/** What a run orders by its figures. */
export const ordersOf = (doc: RunDocument, r: RunResult): readonly PlannedOrder[] =>
  plannedOrders({ doc, ...r, plan: r.assembly });

/** What the run orders, by whom, as it will be invoiced. */
export function useOrders(): readonly PlannedOrder[] {
  const { doc, result } = useRun();
  // figures may be a moment older than the document; orders are of the document they were computed for
  return useMemo(() => ordersOf(doc, result), [doc, result]);
}

/** How far an order has come: items of which nothing is missing, and pieces still on their way. */
export function comeOf(record: RunRecord, order: PlannedOrder): { whole: number; some: number; of: number } {
  const came = order.items.map((i) => {
    const { usable, apart } = arrivedOf(record, order.key, i.key);
    return { i, usable, n: usable + apart };
  });
  return {
    // what is set apart is here and serves nobody
    whole: came.filter(({ i, usable }) => usable >= i.qty).length,
    some: came.filter(({ n }) => n > 0).length,
    of: order.items.length,
  };
}

/** Pieces of an item that have not come yet. */
export function openOf(record: RunRecord, order: PlannedOrder, item: PlannedItem): number {
  const { usable, apart } = arrivedOf(record, order.key, item.key);
  return Math.max(0, item.qty - usable - apart);
}

/** How an order at a house stands today, and whether all of it came. */
export function standOf(
  record: RunRecord,
  order: PlannedOrder,
): { stand: OrderStand; isHere: boolean; promisedOn: string | undefined } {
  const { whole, of } = comeOf(record, order);
  const isHere = of > 0 && whole === of;
  const steps = (record.steps ?? []).filter((s) => s.order === order.key);
  const promisedOn = record.purchases.find((p) => p.order === order.key)?.promisedOn;
  return {
    stand: orderStand(steps, { today: todayIso(), isHere, promisedOn, kind: order.kind }),
    isHere,
    promisedOn,
  };
}

/** Whether an order was taken back and nothing was sent since: nobody brings what it was for. */
export const isBack = (record: RunRecord, order: PlannedOrder): boolean =>
  record.steps !== undefined && standOf(record, order).stand.state === "withdrawn";
