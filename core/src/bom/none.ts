import { type FindingList, few } from "../findings.ts";
import type { BomLine } from "./line.ts";
import { markIn, markInColumn } from "./marks.ts";

/** Lines without a doubt that make the sense of a 0 plain. */
const ENOUGH = 2;

/**
 * Lines that name references and state that none of them is used. Where the other lines state what their references
 * count, a 0 says that the line is left off, which is a guess and said; else it is one more number that disagrees.
 */
export function leftOffByNone(lines: readonly BomLine[], file: string, found: FindingList): BomLine[] {
  const stated = lines.filter((l) => l.refs.length > 0 && l.qtyStated !== undefined);
  const none = stated.filter((l) => l.qtyStated === 0);
  if (none.length === 0) return [...lines];
  const rest = stated.filter((l) => l.qtyStated !== 0);
  const about = none.flatMap((l) => l.refs);
  const isPlain = rest.length >= ENOUGH && rest.every((l) => l.qtyStated === l.refs.length);
  found.add({
    tag: isPlain ? "bom-fitted-ambiguous" : "bom-qty-mismatch",
    level: "warning",
    file,
    row: none[0]!.row,
    about,
    text: isPlain
      ? `${few(about, 4)}: 0 pieces are stated where every other line states what its references count; taken as not fitted.`
      : `${few(about, 4)}: 0 pieces are stated, and the references are there; they are used.`,
    do: isPlain
      ? "Mark the line as fitted if the number is only missing."
      : "Check whether the line is left off.",
  });
  return isPlain ? lines.map((l) => (none.includes(l) ? { ...l, dnp: true } : l)) : [...lines];
}

/** First letters of yes in the languages of those who make boards; a letter of another kind is a mark of its own. */
const YES_LETTER = /^[adeijkosty]$/i;

/**
 * The mark of a column of what is fitted, or of what is left off, that is the other of a plain yes or no: J beside N,
 * T beside nie. Nothing where the column holds more than two marks, or the other is no letter a yes begins with.
 *
 * @param texts of the column, as they stand there
 */
export function otherOfPair(texts: readonly string[]): string | undefined {
  const kinds = new Map<string, string>();
  for (const t of texts.map((x) => x.trim())) if (t !== "") kinds.set(t.toLowerCase(), t);
  if (kinds.size !== 2) return undefined;
  const strange = [...kinds.values()].filter((t) => markInColumn(t, false) === "unknown");
  const known = [...kinds.values()].find((t) => !strange.includes(t));
  const isNo = known !== undefined && markInColumn(known, false) === "no" && markIn(known) === "nothing";
  return strange.length === 1 && isNo && YES_LETTER.test(strange[0]!) ? strange[0] : undefined;
}
