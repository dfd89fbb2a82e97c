import { type Micros, microsToNumber } from "../../money/money.ts";
import type { Asking, WhatIf } from "../stage/effect.ts";

/** Effects of each way to solder, and of each certainty. */
export function assembleEffects({ doc, base, effect }: Asking): Pick<WhatIf, "methods" | "confidence"> {
  const makers = (doc.houses ?? []).filter((h) => h.assembly);
  const hasHandParts = base.parts.some(
    (p) => p.kind !== "loose" && (p.kind === "through" || p.line.mount === "hand"),
  );
  const hasPaste = doc.boards.every((b) => Object.values(b.measure.paste).some((p) => p.count > 0));
  return {
    methods: [
      effect(
        "iron",
        "own iron, part by part",
        { ...doc, assembly: { ...doc.assembly, method: "iron" } },
        doc.assembly.method === "iron",
      ),
      effect(
        "stencil",
        "own stencil and hot plate",
        { ...doc, assembly: { ...doc.assembly, method: "stencil" } },
        doc.assembly.method === "stencil",
        hasPaste ? undefined : "there is no paste layer",
      ),
      ...makers.flatMap((h) =>
        (hasHandParts ? (["here", "house"] as const) : (["here"] as const)).map((handParts) =>
          effect(
            handParts === "here" ? `house:${h.id}` : `house:${h.id}:all`,
            !hasHandParts
              ? `${h.name} places`
              : handParts === "here"
                ? `${h.name} places, hand parts stay here`
                : `${h.name} solders all`,
            { ...doc, assembly: { ...doc.assembly, method: "house", house: h.id, handParts } },
            doc.assembly.method === "house" &&
              base.assembly?.house.id === h.id &&
              (!hasHandParts || (doc.assembly.handParts ?? "here") === handParts),
            doc.placements.length === 0 ? "there is no placement file" : undefined,
          ),
        ),
      ),
    ],
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
