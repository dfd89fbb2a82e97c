import type { RunResult } from "@kobbin/core";
import type { WebStage } from "../../run/stages.ts";
import { fixed } from "../../ui/text/format.ts";

const METHOD = { iron: "own iron", stencil: "own stencil", house: "by a house" } as const;
/** Where parts go several ways. */
const SHORT = { iron: "iron", stencil: "paste", house: "house" } as const;

const saysWays = (goes: RunResult["goes"]): string => {
  const ways = [...goes];
  return ways.length === 1 ? METHOD[ways[0]!] : ways.map((m) => SHORT[m]).join(" + ");
};

export const assemble: WebStage = {
  key: "assemble",
  label: "Assemble",
  says: (_, r) => `${saysWays(r.goes)}, ${fixed(r.ownMinutes / 60, 1)} h`,
  load: async () => ({ Component: (await import("./AssemblePage.tsx")).AssemblePage }),
};
