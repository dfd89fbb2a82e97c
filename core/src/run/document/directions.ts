import { bothSizes } from "../../bom/chip-size.ts";
import { numberKey } from "../../bom/number.ts";
import { compareRefs } from "../../bom/refs.ts";
import { partsByNumber } from "../../library/candidates.ts";
import type { RunDocument } from "./document.ts";
import type { LinePart } from "./parts.ts";

/** A line whose parts must not be turned round. */
export interface Directed {
  readonly line: string;
  readonly refs: readonly string[];
  /** What the part is, in the bill's words. */
  readonly part: string;
  readonly package: string;
  /** How its direction is marked on the body; undefined where nobody wrote it down yet. */
  readonly mark?: string;
}

/**
 * Parts of a run that have a direction: by their kind (diodes, chips, polarised capacitors), or since the library says
 * how it is marked. Those whose mark is not known come first: they are to be looked up before the first one is placed.
 */
export function directedParts(doc: RunDocument, parts: readonly LinePart[]): Directed[] {
  const known = partsByNumber(doc.library ?? []);
  return parts
    .filter((p) => p.isPolarised && p.kind !== "loose")
    .map((p): Directed => {
      const mark = known.get(numberKey(p.line.mpn))?.direction;
      return {
        line: p.line.id,
        refs: [...p.line.refs].sort(compareRefs),
        part: p.line.valueText || p.line.mpn,
        package: bothSizes(p.line.package),
        ...(mark ? { mark } : {}),
      };
    })
    .sort(
      (a, b) =>
        Number(a.mark !== undefined) - Number(b.mark !== undefined) ||
        compareRefs(a.refs[0] ?? "", b.refs[0] ?? ""),
    );
}
