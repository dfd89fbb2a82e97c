import { scaledTerm } from "../ledger/actual.ts";
import type { Asking, WhatIf } from "../stage/effect.ts";
import { hoursUsed } from "../stage/own-hours.ts";
import type { Stage } from "../stage/stage.ts";
import { testNode } from "../stage/test-cost.ts";

export const cost: Stage = {
  key: "cost",
  cost: ({ doc, start, quality }) => testNode(doc, start, quality.record?.timeFactor),
  actual: ({ planned, counts, ...h }) => [
    scaledTerm(
      { key: planned.key, label: "own hours: test and packing", planned: planned.micros },
      counts,
      hoursUsed({ counts, ...h }),
    ),
  ],
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
