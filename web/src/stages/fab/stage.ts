import type { WebStage } from "../../run/stages.ts";

export const fab: WebStage = {
  key: "fab",
  label: "Fab",
  says: (_, r) => (r.house ? `${r.stages.fab.days} days, ${r.house.name}` : "no house"),
  load: async () => ({ Component: (await import("./FabPage.tsx")).FabPage }),
};
