import type { WebStage } from "../../run/stages.ts";
import { fixed } from "../../ui/text/format.ts";

const METHOD = { iron: "own iron", stencil: "own stencil", house: "by a house" } as const;

export const assemble: WebStage = {
  key: "assemble",
  label: "Assemble",
  says: (doc, r) => `${METHOD[doc.assembly.method]}, ${fixed(r.ownMinutes / 60, 1)} h`,
  load: async () => ({ Component: (await import("./AssemblePage.tsx")).AssemblePage }),
};
