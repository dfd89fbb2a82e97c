/** What a text of references says. */
export interface RefList {
  readonly refs: readonly string[];
  /** References named twice in the text. */
  readonly duplicates: readonly string[];
  /** Pieces that are no reference, with the reason. */
  readonly bad: readonly { readonly text: string; readonly why: string }[];
}

const MAX_RANGE = 2000;
const DASH = "(?:-|–|—|…|\\.{2,3}|~|:|\\s+to\\s+)";
const RANGE = new RegExp(`^([A-Z_]{1,5})(\\d{1,5})\\s*${DASH}\\s*([A-Z_]{0,5})(\\d+)$`, "i");
const SINGLE = /^[A-Z_][A-Z0-9_.+-]*$/i;

/** References of units of one part, as U1A-U1D. */
const UNITS = /^([A-Z]{1,3}\d{1,4})([A-H])(?:-|–|—|\.{2,3}|~)(?:\1)?([A-H])$/i;
/** What people write beside references: brackets, a count, a conjunction. */
const BESIDE = /^(?:[x×]\s*\d+|\d+\s*[x×]|and|und|et|y|e)$/i;

/**
 * Expands a list of reference designators such as "C1, C3-C5 C9".
 *
 * Separators are comma, semicolon, line end and blanks, and between two designators also / | & +; brackets, counts
 * such as (x3) and "and" are passed over. A dash is a range when both sides read as designators or the right side is
 * digits; digits alone go on with the letters before them, as in R1,2,5-7 (grammar of domain.md 3.2). A multi-unit
 * suffix collapses: U1A, U1B → U1.
 *
 * @example expandRefs("R01-R03").refs // ["R01", "R02", "R03"]
 */
export function expandRefs(text: string): RefList {
  const refs: string[] = [];
  const seen = new Set<string>();
  const duplicates: string[] = [];
  const bad: { text: string; why: string }[] = [];
  const add = (ref: string, isUnit = false) => {
    if (!seen.has(ref)) {
      seen.add(ref);
      refs.push(ref);
    } else if (!isUnit) duplicates.push(ref);
  };
  const joined = text
    .replace(/[()[\]{}]/g, " ")
    .replace(/([A-Z]{1,5}\d{1,5}[A-Z]?)\s*[/|&+]\s*(?=[A-Z]{1,5}\d)/gi, "$1,")
    .replace(/\s*(-|–|—|…|\.{2,3}|~|\bto\b)\s*(?=[A-Z]*\d)/gi, (_, d: string) => (/to/i.test(d) ? "–" : d));
  let letters = "";
  for (const raw of joined.split(/[,;\s]+/).filter((t) => t !== "" && !BESIDE.test(t))) {
    const isBare = /^\d{1,5}(?:(?:-|–|—|…|\.{2,3}|~)\d{1,5})?$/.test(raw);
    const item = isBare && letters !== "" ? letters + raw : raw;
    const units = UNITS.exec(item);
    if (units) {
      letters = "";
      add(units[1]!.toUpperCase(), true);
      continue;
    }
    const range = RANGE.exec(item);
    if (range) {
      letters = range[1]!;
      addRange(range, item, add, bad);
      continue;
    }
    const upper = item.toUpperCase();
    letters = /^([A-Z]{1,5})\d{1,5}$/.exec(upper)?.[1] ?? "";
    const unit = /^([A-Z]{1,3}\d{1,4})[A-H]$/.exec(upper);
    if (unit) add(unit[1]!, true);
    else if (SINGLE.test(item)) add(upper);
    else bad.push({ text: item, why: "it does not read as a reference" });
  }
  return { refs, duplicates, bad };
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
