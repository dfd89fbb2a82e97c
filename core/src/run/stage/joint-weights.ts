import { defectsOf } from "../../assembly/yield.ts";
import { boardOf } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";

/**
 * How likely one joint of a part is bad, as it is soldered: expected defects of its line by its pieces and their joints
 * (domain.md 7.4). By reference, of several boards with the board's name; nothing of what is not soldered here.
 */
export function jointWeights(doc: RunDocument, parts: readonly LinePart[]): ReadonlyMap<string, number> {
  const weights = new Map<string, number>();
  for (const p of parts) {
    const { joints, placing } = defectsOf(p);
    const of = doc.boards.length > 1 ? ` of ${boardOf(doc, p.line)?.name}` : "";
    for (const ref of p.line.refs)
      weights.set(`${ref}${of}`, (joints + placing) / Math.max(1, p.count * Math.max(1, p.joints)));
  }
  return weights;
}
