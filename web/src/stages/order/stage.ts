import type { WebStage } from "../../run/stages.ts";

export const order: WebStage = {
  key: "order",
  label: "Order",
  says: (_, __, isReleased) => (isReleased ? "package ready" : "after release"),
  state: () => ({ kind: "open" }),
  load: async () => ({ Component: (await import("./OrderPage.tsx")).OrderPage }),
};
