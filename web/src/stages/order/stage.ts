import type { RunDocument, RunRecord, RunResult } from "@kobbin/core";
import type { WebStage } from "../../run/stages.ts";
import { comeOf, isBack, ordersOf, standOf } from "../../run/useOrders.ts";

/** Orders of the run, and how many are placed: their date is written down, or something of them came. */
function placedOf(doc: RunDocument, r: RunResult, record: RunRecord): { placed: number; of: number } {
  const orders = ordersOf(doc, r);
  const dated = new Set(record.purchases.filter((p) => p.orderedOn).map((p) => p.order));
  const placed = orders.filter((o) => (dated.has(o.key) && !isBack(record, o)) || comeOf(record, o).some > 0);
  return { placed: placed.length, of: orders.length };
}

/** Orders that wait for the shop, or that a house is silent about for too long. */
const waitingOf = (doc: RunDocument, r: RunResult, record: RunRecord): number =>
  record.steps === undefined
    ? 0
    : ordersOf(doc, r).filter((o) => {
        const { waits, isOverdue } = standOf(record, o).stand;
        return waits?.on === "shop" || isOverdue || isBack(record, o);
      }).length;

export const order: WebStage = {
  key: "order",
  label: "Order",
  says: (doc, r, isReleased, record) => {
    if (!isReleased) return "after release";
    const { placed, of } = placedOf(doc, r, record);
    return of === 0 ? "nothing to order" : `${placed} of ${of} ordered`;
  },
  state: (doc, r, isReleased, record) => {
    if (!isReleased) return { kind: "open" };
    const waiting = record.closedOn ? 0 : waitingOf(doc, r, record);
    if (waiting > 0) return { kind: "look", count: waiting };
    const { placed, of } = placedOf(doc, r, record);
    return { kind: record.closedOn || placed === of ? "ready" : "open" };
  },
  goesOn: true,
  load: async () => ({ Component: (await import("./OrderPage.tsx")).OrderPage }),
};
