import type { ByKind } from "../../assembly/fault-kinds.ts";
import { faultsOf } from "../../assembly/fault-prior.ts";
import { boardOf } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";

/**
 * How likely one joint of a part is bad, as it is soldered: expected defects of its line by its pieces and their joints
 * (domain.md 7.4), as the shop's own faults make it. By reference, of several boards with the board's name; nothing of what
 * is not soldered here.
 */
export function jointWeights(
  doc: RunDocument,
  parts: readonly LinePart[],
  factors: ByKind<number> = {},
): ReadonlyMap<string, number> {
  const weights = new Map<string, number>();
  for (const p of parts) {
    const faults = faultsOf(p, factors);
    const of = doc.boards.length > 1 ? ` of ${boardOf(doc, p.line)?.name}` : "";
    for (const ref of p.line.refs)
      weights.set(`${ref}${of}`, faults / Math.max(1, p.count * Math.max(1, p.joints)));
  }
  return weights;
}
