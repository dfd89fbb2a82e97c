import { type FindingList, few } from "../findings.ts";
import type { Cells } from "../table/columns.ts";
import type { BomLine } from "./line.ts";
import { markIn } from "./marks.ts";

/** A star behind a value. */
const STARRED = /(?<=[\p{L}\d)])\s*\*+$/u;
/** A footnote: a star, and words. */
const FOOTNOTE = /^\s*\*+\s*(?:[=:–—-]\s*)?([\p{L}\d][^*]*\p{L}.*)$/u;

export const isStarred = (value: string): boolean => STARRED.test(value);
/** A value without its star. */
export const withoutStar = (value: string): string => value.replace(STARRED, "");

/** What a star of the list means, in the words of its footnote; undefined where there is none. */
export function footnoteOf(cells: Cells): string | undefined {
  for (const row of cells)
    for (const t of row) {
      const words = t.includes("*") ? FOOTNOTE.exec(t)?.[1] : undefined;
      if (words !== undefined) return words.trim();
    }
  return undefined;
}

/** Lines whose value has a star, as its footnote has them: left off, or else; in doubt without one. What was taken is said. */
export function readStars(
  lines: readonly BomLine[],
  starred: ReadonlySet<BomLine>,
  footnote: string | undefined,
  file: string,
  found: FindingList,
): BomLine[] {
  if (starred.size === 0) return [...lines];
  const isOff = footnote !== undefined && markIn(footnote) === "no";
  const refs = [...starred].flatMap((l) => l.refs);
  const names = few(refs, 4);
  if (!isOff)
    found.add({
      tag: "bom-fitted-ambiguous",
      level: footnote === undefined ? "warning" : "remark",
      file,
      row: [...starred][0]!.row,
      about: refs,
      text:
        footnote === undefined
          ? `${names}: a star stands behind the value, and no footnote says what for. It may mean that they are left off.`
          : `${names}: the star behind the value says “${footnote.slice(0, 80)}”, which changes nothing here.`,
      ...(footnote === undefined ? { do: "Say whether they are fitted." } : {}),
    });
  return lines.map((l) =>
    !starred.has(l) || l.dnp
      ? l
      : isOff
        ? { ...l, dnp: true }
        : footnote === undefined
          ? { ...l, fitted: "doubtful" }
          : l,
  );
}
