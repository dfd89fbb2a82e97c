import { numberKey } from "../bom/number.ts";
import { type Comparison, compareParts } from "./compare.ts";
import type { FactLine } from "./fact-line.ts";
import { factsOfLine, factsOfPart, lineKey } from "./facts.ts";
import type { Alternate, LibraryPart } from "./part.ts";

/** What stands on a bag that came, against what was ordered for a line. */
export type CameInstead =
  /** The number that was ordered. */
  | { readonly is: "ordered" }
  /** Another one, which somebody approved for it, or refused. */
  | { readonly is: "approved"; readonly because: string; readonly part: LibraryPart }
  | { readonly is: "refused"; readonly because: string; readonly part: LibraryPart }
  /** One the shop knows: compared as substitutes are. */
  | { readonly is: "compared"; readonly part: LibraryPart; readonly comparison: Comparison }
  /** One nobody of the shop knows anything of. */
  | { readonly is: "unknown" };

/** Whether it may not simply be used: it is set apart unless somebody says otherwise. */
export const isDoubtful = (c: CameInstead | undefined): boolean =>
  c !== undefined &&
  c.is !== "ordered" &&
  c.is !== "approved" &&
  !(c.is === "compared" && c.comparison.verdict === "equal" && !c.part.suspect);

/**
 * The substitution check of what came (needs N034, N092): whatever stands on the bag is held against what was ordered as a
 * proposed substitute is, the moment it is counted.
 *
 * @param line what it was ordered for
 * @param ordered the number it was ordered as
 * @param says the number that stands on the bag
 * @returns nothing while nothing is typed
 */
export function cameInstead(
  line: FactLine,
  ordered: string,
  says: string,
  library: readonly LibraryPart[],
  alternates: readonly Alternate[],
): CameInstead | undefined {
  const key = numberKey(says);
  if (key === "") return undefined;
  if (key === numberKey(ordered)) return { is: "ordered" };
  const part = library.find((p) => numberKey(p.mpn) === key);
  if (!part) return { is: "unknown" };
  const original = lineKey(line);
  const d = alternates.find((a) => a.original === original && a.part === part.id);
  const comparison = compareParts(factsOfLine(line, library), factsOfPart(part));
  // what cannot stand there stays out, whatever was once decided
  if (d?.state === "refused") return { is: "refused", because: d.because, part };
  if (d?.state === "approved" && comparison.verdict !== "forbidden" && !part.suspect)
    return { is: "approved", because: d.because, part };
  return { is: "compared", part, comparison };
}
