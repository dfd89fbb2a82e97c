import type { WebStage } from "../../run/stages.ts";
import { count } from "../../ui/text/format.ts";

export const parts: WebStage = {
  key: "parts",
  label: "Parts",
  says: (_, r) =>
    `${count(r.parts.length, "line")}, ${Math.round(r.parts.reduce((n, p) => n + p.count, 0))} pieces`,
  load: async () => ({ Component: (await import("./PartsPage.tsx")).PartsPage }),
};
