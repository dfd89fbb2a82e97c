import { judgeLot, type RunDocument, type RunRecord, type RunResult } from "@kobbin/core";
import type { WebStage } from "../../run/stages.ts";
import { comeOf, ordersOf } from "../../run/useOrders.ts";

/** Orders of things that come here, and how many are whole. */
function cameOf(doc: RunDocument, r: RunResult, record: RunRecord): { whole: number; of: number } {
  const orders = ordersOf(doc, r).filter((o) => o.kind !== "assembly");
  const whole = orders.filter((o) => {
    const c = comeOf(record, o);
    return c.whole === c.of;
  });
  return { whole: whole.length, of: orders.length };
}

export const receive: WebStage = {
  key: "receive",
  label: "Receive",
  says: (doc, r, isReleased, record) => {
    if (!isReleased) return "after release";
    const { whole, of } = cameOf(doc, r, record);
    return `${whole} of ${of} came`;
  },
  state: (doc, r, _, record) => {
    const lots = record.measured
      ? doc.boards.filter((__, i) => judgeLot(doc, r, record, i).verdict === "fails").length
      : 0;
    const apart = record.receipts.filter((x) => x.isApart).length;
    const bad = (record.bareTests ?? []).filter((t) => t.faults.length > 0).length;
    const looks = apart + bad + lots;
    if (looks > 0) return { kind: "look", count: looks };
    const { whole, of } = cameOf(doc, r, record);
    return { kind: record.closedOn || (of > 0 && whole === of) ? "ready" : "open" };
  },
  goesOn: true,
  load: async () => ({ Component: (await import("./ReceivePage.tsx")).ReceivePage }),
};
