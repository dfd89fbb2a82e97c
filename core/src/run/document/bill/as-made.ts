import { shapeOf } from "../../../assembly/package-class.ts";
import { numberKey } from "../../../bom/number.ts";
import { WINDOWS } from "../../../heat/window.ts";
import { partsByNumber } from "../../../library/candidates.ts";
import type { LibraryPart } from "../../../library/part.ts";
import type { RunDocument, RunLine } from "../document.ts";
import { mayHeat } from "../ways.ts";
import { withVariant } from "./structure.ts";

/**
 * The document as it is made: the chosen variant laid over its bill, and by hand what the library says goes on after the
 * heat, or what does not stand it and can be soldered otherwise. Itself where nothing of that is so.
 */
export function asMade(given: RunDocument): RunDocument {
  const doc = withVariant(given);
  const library = doc.library ?? [];
  if (!library.some((p) => p.fitAfter !== undefined || p.peakC !== undefined)) return doc;
  const known = partsByNumber(library);
  const lines = doc.lines.map((l) => {
    const part = known.get(numberKey(l.mpn));
    return l.mount === "machine" && part && isAfterHeat(doc, l, part) ? { ...l, mount: "hand" as const } : l;
  });
  return lines.some((l, i) => l !== doc.lines[i]) ? { ...doc, lines } : doc;
}

/** What the heat of a run's paste needs of every body: the least peak of its alloy, and 5 °C (domain.md 7.8). */
export const heatNeeds = (doc: RunDocument): number => WINDOWS[doc.assembly.alloy ?? "silver"].peakC[0] + 5;

/** Whether an iron reaches the joints of such a package: no balls, no pad below. */
export const reachesByIron = (line: Pick<RunLine, "package" | "refs">): boolean =>
  !["ball", "leadless"].includes(shapeOf(line.package, line.refs[0], true).kind);

function isAfterHeat(doc: RunDocument, line: RunLine, part: LibraryPart): boolean {
  if (part.fitAfter !== undefined) return true;
  return mayHeat(doc) && part.peakC !== undefined && part.peakC < heatNeeds(doc) && reachesByIron(line);
}

/** Whether the boards are washed: it is said so, the flux has to come off, or some part of them goes on after it. */
export function isWashed(
  doc: RunDocument,
  parts: readonly { readonly line: RunLine; readonly method: string; readonly kind: string }[],
): boolean {
  if (doc.assembly.cleaner || doc.assembly.flux === "water")
    if (parts.some((p) => p.method !== "house" && p.kind !== "loose")) return true;
  if (!doc.library?.some((p) => p.fitAfter === "wash")) return false;
  const known = partsByNumber(doc.library);
  return parts.some(
    (p) =>
      (p.method !== "house" || p.kind === "loose") && known.get(numberKey(p.line.mpn))?.fitAfter === "wash",
  );
}
