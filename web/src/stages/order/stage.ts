import type { WebStage } from "../../run/stages.ts";
import { count } from "../../ui/format.ts";

export const order: WebStage = {
  key: "order",
  label: "Order",
  says: (_, __, isReleased, record) => {
    if (!isReleased) return "after release";
    const n = record.purchases.filter((p) => p.orderedOn).length;
    return n === 0 ? "package ready" : `${count(n, "order")} placed`;
  },
  state: () => ({ kind: "open" }),
  load: async () => ({ Component: (await import("./OrderPage.tsx")).OrderPage }),
};
