import type { WebStage } from "../../run/stages.ts";
import { count, mm } from "../../ui/text/format.ts";

export const board: WebStage = {
  key: "board",
  label: "Board",
  says: (doc) => {
    const [first] = doc.boards;
    if (doc.boards.length > 1)
      return `${count(doc.boards.length, "board")}: ${doc.boards.map((b) => (b.perProduct > 1 ? `${b.perProduct} × ${b.name}` : b.name)).join(", ")}`;
    const outline = first?.measure.outline;
    if (outline?.widthMm === undefined) return outline ? "outline open" : "no outline";
    return `${mm(outline.widthMm)} × ${mm(outline.heightMm)} mm, ${count(first!.measure.copperLayers, "layer")}`;
  },
  load: async () => ({ Component: (await import("./BoardPage.tsx")).BoardPage }),
};
