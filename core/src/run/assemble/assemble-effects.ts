import { type Micros, microsToNumber } from "../../money/money.ts";
import type { Asking, WhatIf } from "../stage/effect.ts";
import { routesOf } from "./routes.ts";

/** Effects of each way to solder, and of each certainty. */
export function assembleEffects({ doc, base, effect }: Asking): Pick<WhatIf, "methods" | "confidence"> {
  return {
    methods: routesOf(doc, base).map((r) =>
      effect(r.key, r.label, { ...doc, assembly: r.assembly }, r.isOwn, r.cannot),
    ),
    confidence: [0.5, 0.8, 0.9, 0.95, 0.99].map((c) =>
      effect(
        String(c),
        `${Math.round(c * 100)} % sure`,
        { ...doc, confidence: c },
        doc.confidence === c,
        undefined,
        (r) => ({
          run: microsToNumber((r.total - base.total) as Micros),
          spares: Math.max(0, r.expectedGood - doc.goodBoards),
        }),
      ),
    ),
  };
}
