import { panelOf, sheetsFor } from "@kobbin/core";
import type { WebStage } from "../../run/stages.ts";
import { count } from "../../ui/text/format.ts";

export const panel: WebStage = {
  key: "panel",
  label: "Panel",
  says: (doc, r) => {
    const p = panelOf(doc);
    if (!p) return "single boards";
    return `${count(sheetsFor(doc, p, r.start), "sheet")} of ${p.choice.places.length}`;
  },
  load: async () => ({ Component: (await import("./PanelPage.tsx")).PanelPage }),
};
