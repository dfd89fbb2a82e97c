import { estimateYield, type YieldEstimate } from "../../assembly/yield.ts";
import type { RunDocument } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";
import { isMixed } from "../document/ways.ts";

/**
 * Own minutes to find and mend defects, for a board started. A house mends its own: where it places all that is placed,
 * none; where parts go several ways, those of what is soldered here.
 */
export function mendMinutes(doc: RunDocument, parts: readonly LinePart[], quality: YieldEstimate): number {
  if (!isMixed(doc)) return doc.assembly.method === "house" ? 0 : quality.reworkMin;
  return estimateYield(parts.filter((p) => p.method !== "house")).reworkMin;
}
