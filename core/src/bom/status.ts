import { type Cells, plain } from "../table/columns.ts";
import { markIn, markInColumn, PUT_ON } from "./marks.ts";
import { BOM_WORDS } from "./words.ts";

/** What a column of marks says of whether lines are fitted. */
export type Status =
  /** Its words say it themselves. */
  | "told"
  /** It marks some of the lines, and nothing says which way round. */
  | "open";

/** Columns of marks that are of something else than fitting, by their headings. */
const OF_ELSE =
  /\b(rohs|reach|lead|pb|smd|smt|tht|pth|polar|critical|checked|ordered|stock|in stock|available|consigned|msl|aec|obsolete|lifecycle|price|approved|verified|done|second source|geprüft|bestellt|lager|lagernd|vorrätig|commandé|en stock)/;
/** A word of fitting in it outweighs that: "SMT placed". */
const OF_FITTING = /fit|popul|plac|mount|mont|stuff|load|assembl|bestück|bestueck|plaats|osa[dz]|install/;

/** Whether a heading says that a column of marks is of something else than what is fitted. */
export const isOfElse = (heading: string): boolean => {
  const name = plain(heading);
  return OF_ELSE.test(name) && !OF_FITTING.test(name);
};

/** Pairs of words that say something else. */
const KNOWN_PAIR = /^(top|bottom|oben|unten|smd|smt|tht|th|pth|through hole|front|back|left|right)$/i;

/** One of two short words in nearly every row: a yes and a no in a language nobody taught, or something else of two. */
function isPair(filled: readonly string[], rows: number): boolean {
  const kinds = new Set(filled.map((t) => t.toLowerCase()));
  return (
    kinds.size === 2 &&
    filled.length >= 4 &&
    filled.length >= 0.9 * rows &&
    [...kinds].every((t) => /^\p{L}{1,10}$/u.test(t) && !KNOWN_PAIR.test(t) && markIn(t) === "nothing")
  );
}

const OF_PARTS = new Set(BOM_WORDS.refs);
/** Whether a column is called as the parts are: where another holds the references it names them in words. */
export const namesParts = (heading: string): boolean => OF_PARTS.has(plain(heading));

const FOOTNOTE = /^\*+\s*(?:[=:–—-]\s*)?\p{L}/u;
/** A sign instead of a word. */
const SIGN = /^[x×✓✔☑✗✘•●○*+-]$/i;

/**
 * Whether a column that no heading explains says which lines are fitted, told by what it holds: nothing but marks of that
 * family, not the same in every row.
 *
 * @param rows those that name parts
 * @returns undefined where it says nothing of it
 */
export function statusIn(rows: Cells, index: number, heading: string): Status | undefined {
  // a footnote that happens to stand beside a part is none of its marks
  const texts = rows.map((r) => (r[index] ?? "").trim()).map((t) => (FOOTNOTE.test(t) ? "" : t));
  const filled = texts.filter((t) => t !== "");
  const kinds = new Set(texts.map((t) => t.toLowerCase()));
  if (filled.length === 0 || kinds.size > 8 || isOfElse(heading)) return undefined;
  // of marks that are alike in every row only a no matters: a yes to whatever it is leaves all as they are
  if (kinds.size === 1) {
    if (filled.every((t) => markIn(t) === "no")) return "told";
    return markInColumn(filled[0]!, false) === "no" ? "open" : undefined;
  }
  const isFamily = (t: string) => SIGN.test(t) || markInColumn(t, false) !== "unknown";
  if (isPair(filled, rows.length)) return namesParts(heading) && !filled.some(isFamily) ? undefined : "open";
  const isMark = (t: string) => isFamily(t) || markIn(t) !== "nothing";
  // a word too many is somebody's remark
  if (filled.filter(isMark).length < 0.9 * filled.length) return undefined;
  const off = filled.filter((t) => markIn(t) === "no");
  const isTold = off.length > 0 && filled.every((t) => markIn(t) === "no" || PUT_ON.test(t));
  return isTold ? "told" : "open";
}
