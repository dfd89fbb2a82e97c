import type { WebStage } from "../../run/stages.ts";

export const cost: WebStage = {
  key: "cost",
  label: "Cost",
  says: () => "test and packing",
  load: async () => ({ Component: (await import("./CostPage.tsx")).CostPage }),
};
