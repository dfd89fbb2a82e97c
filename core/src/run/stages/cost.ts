import type { Asking, WhatIf } from "../effect.ts";
import { testNode } from "../test-cost.ts";
import type { Stage } from "./stage.ts";

export const cost: Stage = {
  key: "cost",
  cost: ({ doc, start }) => testNode(doc, start),
  effects: costEffects,
};

/** What left-over parts count as. */
function costEffects({ doc, effect }: Asking): Pick<WhatIf, "leftovers"> {
  return {
    leftovers: (["stock", "expense"] as const).map((v) =>
      effect(
        v,
        v === "stock" ? "kept as stock value" : "charged to this run",
        { ...doc, choices: { ...doc.choices, leftovers: v } },
        (doc.choices.leftovers ?? "stock") === v,
      ),
    ),
  };
}
