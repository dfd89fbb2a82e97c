import type { RunAssembly } from "../document/document.ts";
import { cutsFoils } from "../orders/foil-order.ts";
import type { Asking, WhatIf } from "../stage/effect.ts";
import { standingOf } from "./foils.ts";

/** Effects of each foil the shop has, and of each place where a new one can be bought. */
export function foilEffects({ doc, effect }: Asking): Pick<WhatIf, "foils" | "foilsAt"> {
  return {
    foils: [
      effect("", "a new foil", { ...doc, assembly: withoutFoil(doc.assembly) }, !doc.assembly.foil),
      ...(doc.foils ?? [])
        .filter((f) => f.state !== "gone" || f.id === doc.assembly.foil)
        .map((f) =>
          effect(
            f.id,
            f.name,
            { ...doc, assembly: { ...doc.assembly, foil: f.id } },
            doc.assembly.foil === f.id,
            standingOf(doc, f).cannot,
          ),
        ),
    ],
    foilsAt: [
      effect(
        "",
        `at your own price of ${doc.assembly.stencilPrice} a side`,
        { ...doc, assembly: { ...doc.assembly, foilHouse: "" } },
        !doc.assembly.foilHouse,
      ),
      ...(doc.houses ?? [])
        .filter(cutsFoils)
        .flatMap((h) =>
          (["loose", "framed"] as const).map((foilForm) =>
            effect(
              `${h.id}:${foilForm}`,
              `${h.name}, ${foilForm === "framed" ? "in a frame" : "loose"}`,
              { ...doc, assembly: { ...doc.assembly, foilHouse: h.id, foilForm } },
              doc.assembly.foilHouse === h.id && (doc.assembly.foilForm ?? "loose") === foilForm,
            ),
          ),
        ),
    ],
  };
}

const withoutFoil = ({ foil: _, ...rest }: RunAssembly): RunAssembly => rest;
