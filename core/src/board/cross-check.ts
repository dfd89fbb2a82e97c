import type { Bom } from "../bom/bom.ts";
import { lettersOf } from "../bom/refs.ts";
import type { Placements } from "../placement/placement.ts";
import type { Finding } from "./findings.ts";

/** Parts list against placement file. */
export interface CrossCheck {
  readonly inBomNotPlaced: readonly string[];
  readonly placedNotInBom: readonly string[];
  readonly placedButDnp: readonly string[];
  readonly partsOnBottom: readonly string[];
}

const NOT_PARTS = new Set(["TP", "FID", "MH", "H"]);

/** Compares references of the two files; what is placed though nobody buys it becomes a finding. */
export function crossCheck(bom: Bom, placements: Placements, findings: Finding[]): CrossCheck {
  const fitted = new Set(bom.lines.filter((l) => !l.dnp).flatMap((l) => l.refs));
  const dnp = new Set(bom.lines.filter((l) => l.dnp).flatMap((l) => l.refs));
  const placed = new Set(placements.parts.map((p) => p.ref));
  const placedNotInBom = [...placed].filter(
    (r) => !fitted.has(r) && !dnp.has(r) && !NOT_PARTS.has(lettersOf(r)),
  );
  const inBomNotPlaced = [...fitted].filter((r) => !placed.has(r));
  const placedButDnp = [...placed].filter((r) => dnp.has(r));
  if (placedNotInBom.length > 0)
    findings.push({
      tag: "placement-unknown-part",
      level: "warning",
      about: placedNotInBom,
      text: `Placed but in no line of the parts list: ${placedNotInBom.join(", ")}.`,
      do: "Add them to the parts list, or mark them do-not-place.",
    });
  return {
    inBomNotPlaced,
    placedNotInBom,
    placedButDnp,
    partsOnBottom: placements.parts.filter((p) => p.side === "bottom").map((p) => p.ref),
  };
}
