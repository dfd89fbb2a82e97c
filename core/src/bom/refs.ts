import { LEFT_OFF, markIn } from "./marks.ts";

/** What a text of references says. */
export interface RefList {
  readonly refs: readonly string[];
  /** References named twice in the text. */
  readonly duplicates: readonly string[];
  /** Pieces that are no reference, with the reason: a part may be missing. */
  readonly bad: readonly { readonly text: string; readonly why: string }[];
  /** What stands beside the references, in brackets or as a mark of what is left off. A count that agrees is not told. */
  readonly beside: readonly string[];
}

const MAX_RANGE = 2000;
/** Signs that are drawn like a hyphen. */
const HYPHENS = /[\u2010\u2011\u2012\u2015\u2043\u2212\uFE58\uFE63\uFF0D]/g;
const DASH = "(?:-|–|—|…|\\.{2,3}|~|:)";
const RANGE = new RegExp(`^([A-Z_]{1,5})(\\d{1,5})\\s*${DASH}\\s*([A-Z_]{0,5})(\\d+)$`, "i");
/** Words between the two ends of a range, before something with a digit. */
const UNTIL = /\s+(?:up\s+to|to|thru|through|till|until|bis)\s+(?=[A-Z]{0,5}\d)/gi;
const SINGLE = /^[A-Z_][A-Z0-9_.+-]*$/i;
/** References of one kind with signs between them that part nothing. */
const CHAIN = /^([A-Z]{1,5})\d{1,5}(?:(?:-|–|—|[._+:~])\1\d{1,5})+$/i;

/** References of units of one part, as U1A-U1D. */
const UNITS = /^([A-Z]{1,3}\d{1,4})([A-H])(?:-|–|—|\.{2,3}|~)(?:\1)?([A-H])$/i;
const PIECES = "(?:pcs?\\.?|pieces?|parts?|stk\\.?|st(?:ü|ue)ck|ea(?:ch)?\\.?|off|nos?\\.?|qty\\.?)";
/** A count beside references: 3x, 3 pcs; x3 with a small x only: X3 is a reference. */
const COUNT = new RegExp(`(?<![\\w.])(\\d+)\\s*(?:[x×]|${PIECES})(?!\\w)`, "gi");
const TIMES = /(?<![\w.])[x×]\s*(\d+)(?![\w.])/g;
/** All there is in brackets. */
const COUNT_ALONE = new RegExp(`^(?:${PIECES}\\s*:?\\s*)?(\\d+)\\s*(?:[x×]|${PIECES})?$`, "i");
const MARKS = new RegExp(LEFT_OFF.source, "giu");
const BRACKETS = /[([{]([^()[\]{}]*)[)\]}]/g;
const AND = /^(and|und|et|y|e)$/i;
/** A cell that says that there is no reference. */
const NOTHING = /^(none|n\/?a|nil|keine?r?|[-–—_]+)$/i;

/** What is read out of a text, piece by piece. */
class Reading {
  readonly refs: string[] = [];
  readonly duplicates: string[] = [];
  readonly bad: { text: string; why: string }[] = [];
  readonly beside: string[] = [];
  readonly counts: { text: string; n: number }[] = [];
  private readonly seen = new Set<string>();

  add(ref: string, isUnit = false): void {
    if (!this.seen.has(ref)) {
      this.seen.add(ref);
      this.refs.push(ref);
    } else if (!isUnit) this.duplicates.push(ref);
  }

  /** Takes what stands beside references out of a text and keeps it; what is left are references. */
  withoutBeside(text: string): string {
    const count = (whole: string, n: string) => {
      this.counts.push({ text: whole.trim(), n: Number(n) });
      return " ";
    };
    return (
      text
        .replace(MARKS, (mark) => {
          this.beside.push(mark);
          return " ";
        })
        .replace(BRACKETS, (whole: string, inner: string, at: number, all: string) => {
          const t = inner.trim();
          const n = (COUNT_ALONE.exec(t) ?? /^[x×]\s*(\d+)$/.exec(t))?.[1];
          if (n !== undefined) return count(whole, n);
          // a unit's letter, references in brackets, nothing
          if (/^[A-H]$/i.test(t) && /\d/.test(all[at - 1] ?? "")) return t;
          if (areLike(t, all.replace(BRACKETS, " "))) return ` ${t} `;
          if (t !== "") this.beside.push(whole);
          return " ";
        })
        .replace(/[()[\]{}]/g, " ")
        .replace(COUNT, count)
        // where references are written small, x3 is one
        .replace(/[A-Z]\d/.test(text) ? TIMES : /$^/g, count)
    );
  }
}

/** Whether what stands in brackets are references as those outside: SOT23 is none beside U1, nor X2 beside C1. */
function areLike(inner: string, outside: string): boolean {
  const letters = (text: string) => [...text.matchAll(/([A-Z_]+)\d/gi)].map((m) => m[1]!.toUpperCase());
  const own = inner.split(/[\s,;]+/).filter((t) => t !== "");
  if (
    own.length === 0 ||
    !own.every((t) => /^[A-Z_]{1,5}\d{1,5}[A-H]?(?:(?:-|–|—|…|\.{2,3}|~|:)[A-Z_]*\d{1,5})?$/i.test(t))
  )
    return false;
  const others = new Set(letters(outside));
  return others.size === 0 || letters(inner).every((l) => others.has(l));
}

/**
 * Expands a list of reference designators such as "C1, C3-C5 C9".
 *
 * Separators are comma, semicolon, line end and blanks, and between two designators also / | & +; "and", counts such as
 * (x3) and words in brackets are no references. A dash is a range when both sides read as designators or the right side
 * is digits; digits alone go on with the letters before them, as in R1,2,5-7 (grammar of domain.md 3.2). A multi-unit
 * suffix collapses: U1A, U1B → U1. A word without a digit is a reference only where nothing else stands beside it.
 *
 * @example expandRefs("R01-R03").refs // ["R01", "R02", "R03"]
 */
export function expandRefs(text: string): RefList {
  const r = new Reading();
  const { refs, duplicates, bad, beside } = r;
  if (NOTHING.test(text.trim())) return { refs, duplicates, bad, beside };
  const joined = r
    .withoutBeside(text.replace(HYPHENS, "-"))
    .replace(UNTIL, "–")
    .replace(/([A-Z]{1,5}\d{1,5}[A-Z]?)\s*[/|&+]\s*(?=[A-Z]{1,5}\d)/gi, "$1,")
    .replace(/\s*(-|–|—|…|\.{2,3}|~)\s*(?=[A-Z]*\d)/gi, "$1")
    // a blank between a reference's letters and its number
    .replace(/(?<![^,;\s])((?!e\b|y\b)[A-Z]{1,2}|LED) (?=\d{1,5}(?![^,;\s]))/gi, "$1");
  let letters = "";
  for (const part of joined.split(/[,;\r\n]+/)) {
    const items = part.split(/\s+/).filter((t) => t !== "" && !AND.test(t));
    for (const raw of items) letters = takeItem(raw, letters, items.length === 1, r);
  }
  for (const c of r.counts) if (c.n !== refs.length) beside.push(c.text);
  return { refs, duplicates, bad, beside };
}

/** Reads one piece. @returns the letters that digits alone behind it go on with */
function takeItem(raw: string, letters: string, isAlone: boolean, r: Reading): string {
  const isBare = /^\d{1,5}(?:(?:-|–|—|\.{2,3}|~)\d{1,5})?$/.test(raw);
  const item = isBare && letters !== "" ? letters + raw : raw;
  const units = UNITS.exec(item);
  if (units) {
    r.add(units[1]!.toUpperCase(), true);
    return "";
  }
  const range = RANGE.exec(item);
  if (range) {
    addRange(range, item, (ref) => r.add(ref), r.bad);
    return range[1]!;
  }
  const upper = item.toUpperCase();
  const unit = /^([A-Z]{1,3}\d{1,4})[A-H]$/.exec(upper);
  if (CHAIN.test(item)) r.bad.push({ text: item, why: "it may be a range or single references" });
  else if (unit) r.add(unit[1]!, true);
  else if (SINGLE.test(item) && (isAlone || /\d/.test(item))) r.add(upper);
  else if (markIn(item) === "no") r.beside.push(item);
  else r.bad.push({ text: item, why: "it does not read as a reference" });
  return /^([A-Z]{1,5})\d{1,5}$/.exec(upper)?.[1] ?? "";
}

function addRange(
  range: RegExpExecArray,
  item: string,
  add: (ref: string) => void,
  bad: { text: string; why: string }[],
): void {
  const [, letters = "", from = "", endLetters = "", to = ""] = range;
  if (endLetters !== "" && endLetters.toUpperCase() !== letters.toUpperCase()) {
    bad.push({ text: item, why: "the two ends have different letters" });
    return;
  }
  const [a, b] = [Number(from), Number(to)];
  if (b < a) bad.push({ text: item, why: "the range runs downward" });
  else if (b - a + 1 > MAX_RANGE) bad.push({ text: item, why: "the range is longer than 2,000" });
  else {
    if (a === b) bad.push({ text: item, why: "a range of one; its end may be wrong" });
    const width = from.startsWith("0") && from.length === to.length ? from.length : 0;
    for (let k = a; k <= b; k++) add(letters.toUpperCase() + String(k).padStart(width, "0"));
  }
}

/** Letters a reference begins with: R, C, LED, U … */
export const lettersOf = (ref: string): string => /^[A-Z_]+/i.exec(ref)?.[0].toUpperCase() ?? "";

/** Natural order: R2 before R10. */
export function compareRefs(a: string, b: string): number {
  const [la, lb] = [lettersOf(a), lettersOf(b)];
  if (la !== lb) return la < lb ? -1 : 1;
  const n = Number(/\d+/.exec(a)?.[0] ?? 0) - Number(/\d+/.exec(b)?.[0] ?? 0);
  return n !== 0 ? n : a < b ? -1 : a > b ? 1 : 0;
}
