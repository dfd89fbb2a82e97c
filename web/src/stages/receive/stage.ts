import { plannedOrders } from "@kobbin/core";
import type { WebStage } from "../../run/stages.ts";
import { comeOf } from "../../run/useOrders.ts";

export const receive: WebStage = {
  key: "receive",
  label: "Receive",
  says: (doc, r, isReleased, record) => {
    if (!isReleased) return "after release";
    const orders = plannedOrders({ doc, ...r, plan: r.assembly }).filter((o) => o.kind !== "assembly");
    const whole = orders.filter((o) => {
      const c = comeOf(record, o);
      return c.whole === c.of;
    });
    return `${whole.length} of ${orders.length} came`;
  },
  state: (_, __, record) => {
    const apart = record.receipts.filter((r) => r.isApart).length;
    return apart > 0 ? { kind: "look", count: apart } : { kind: record.closedOn ? "ready" : "open" };
  },
  goesOn: true,
  load: async () => ({ Component: (await import("./ReceivePage.tsx")).ReceivePage }),
};
