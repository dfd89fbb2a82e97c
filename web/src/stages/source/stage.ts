import type { WebStage } from "../../run/stages.ts";
import { count } from "../../ui/text/format.ts";

export const source: WebStage = {
  key: "source",
  label: "Source",
  says: (_, r) =>
    r.basket.suppliers.length === 0
      ? "no offers yet"
      : `${count(r.basket.suppliers.length, "parcel")}, ${r.stages.source.days} days`,
  load: async () => ({ Component: (await import("./SourcePage.tsx")).SourcePage }),
};
