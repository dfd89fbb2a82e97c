import { numberKey } from "../bom/number.ts";
import { attributesOf } from "./attributes.ts";
import { type Comparison, compareParts } from "./compare.ts";
import type { FactLine } from "./fact-line.ts";
import { factsOfLine, factsOfPart, lineKey } from "./facts.ts";
import type { Alternate, LibraryPart } from "./part.ts";
import { type ClassRules, ruleOf } from "./rules.ts";

/** A part that could stand in a line. */
export interface Candidate {
  readonly part: LibraryPart;
  readonly comparison: Comparison;
  /** What was decided; absent where nobody looked yet. */
  readonly decided?: Alternate;
  /** Its offers count for the line: approved, or the line asks for any such part. */
  readonly isUsable: boolean;
}

const WEIGHT = { equal: 0, look: 1, forbidden: 2 } as const;
const STATE = { approved: 0, proposed: 1, refused: 3 } as const;

/**
 * The parts of the library that could stand in a line, best first.
 *
 * A line with a number asks for just that: others count once somebody approved them. A line without one is a rule
 * ("any 10 kΩ 1 % 0603"): whatever is equal by comparison counts at once. Parts found bad never count by themselves.
 *
 * What suppliers found counts once the shop confirmed what is assumed of its class, and only where all of it is known.
 *
 * @param all also lists what is forbidden, for who searches for it
 * @param rules what the shop takes where a line does not say
 */
export function candidatesFor(
  line: FactLine,
  library: readonly LibraryPart[],
  alternates: readonly Alternate[],
  { all = false, rules }: { readonly all?: boolean; readonly rules?: ClassRules | undefined } = {},
): Candidate[] {
  const key = lineKey(line);
  const asked = line.mpn === "" ? ruleOf(line, rules) : undefined;
  const rule = asked && "facts" in asked ? asked : undefined;
  // what the shop confirmed of a class is asked of every part; what is only usual, of those nobody here looked at
  const stated = rule?.isConfirmed ? rule.facts : factsOfLine(line, library);
  const decided = new Map(alternates.filter((a) => a.original === key).map((a) => [a.part, a]));
  const out: Candidate[] = [];
  for (const part of library) {
    if (line.mpn !== "" && numberKey(part.mpn) === numberKey(line.mpn)) continue;
    const d = decided.get(part.id);
    const facts = part.found && rule ? rule.facts : stated;
    if (!d && part.kind !== facts.kind) continue;
    const comparison = compareParts(facts, factsOfPart(part));
    if (!d && comparison.verdict === "forbidden" && !all) continue;
    // what the part is in the first place must be known to be the same: two chips in one package are not alike
    const [main] = attributesOf(facts.kind);
    const isAlike = comparison.rows.find((r) => r.key === main?.key)?.standing === "same";
    if (!d && !isAlike && !all) continue;
    const answersRule =
      line.mpn === "" &&
      key !== undefined &&
      comparison.verdict === "equal" &&
      !part.suspect &&
      (!part.found || rule?.isConfirmed === true);
    const isUsable = d ? d.state === "approved" && comparison.verdict !== "forbidden" : answersRule;
    out.push({ part, comparison, ...(d ? { decided: d } : {}), isUsable });
  }
  const rank = (c: Candidate) =>
    (c.decided ? STATE[c.decided.state] : 2) * 100 +
    WEIGHT[c.comparison.verdict] * 10 +
    (c.part.suspect ? 5 : 0) +
    (c.part.triedOn ? 0 : 1);
  return out.sort((a, b) => rank(a) - rank(b) || (a.part.mpn < b.part.mpn ? -1 : 1));
}

/** The library part of a line's own number. */
export const partOfLine = (line: FactLine, library: readonly LibraryPart[]): LibraryPart | undefined =>
  line.mpn === "" ? undefined : library.find((p) => numberKey(p.mpn) === numberKey(line.mpn));

/** Library parts by number, for many lines at once. */
export const partsByNumber = (library: readonly LibraryPart[]): ReadonlyMap<string, LibraryPart> =>
  new Map(library.map((p) => [numberKey(p.mpn), p]));
