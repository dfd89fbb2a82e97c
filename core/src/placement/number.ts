/** A number as it stands in a cell, with what stands behind it. */
export interface NumberRead {
  readonly n: number;
  /** Letters or signs behind it, "" for none. */
  readonly unit: string;
}

/** Marks between thousands: blanks of any width, apostrophes. */
const BETWEEN = /(?<=\d)[\s\u00a0\u2009\u202f'’](?=\d{3}(?!\d))/g;

/**
 * A number as people write it: a sign, a decimal comma or point, marks between thousands, a power, and a unit or a degree
 * sign behind it. Of a comma and a point in one number the last is the decimal one; one that stands there twice is not.
 *
 * @returns undefined where it is none
 */
export function readNumber(text: string): NumberRead | undefined {
  const t = text.trim().replace(BETWEEN, "");
  const m =
    /^([+\-−–]?)\s*((?:\d[\d.,]*)|(?:[.,]\d+))(?:e([+-]?\d{1,2}))?\s*([^\d\s.,+-][^\d.,+-]*)?\.?$/i.exec(t);
  if (!m) return undefined;
  const digits = oneMark(m[2]!);
  if (digits === undefined) return undefined;
  const n = Number(`${digits}e${m[3] ?? 0}`) * (m[1] && m[1] !== "+" ? -1 : 1);
  return Number.isFinite(n) ? { n, unit: (m[4] ?? "").trim() } : undefined;
}

/** Digits with a point and nothing else between them; undefined where the marks are of no number. */
function oneMark(text: string): string | undefined {
  const marks = text.replace(/\d/g, "");
  if (marks.length <= 1) return text.replace(",", ".");
  const last = marks.at(-1)!;
  const groups = marks.slice(0, -1);
  // all alike: between thousands; else the last is the decimal one and those before it are alike
  const [mark, decimal] = [...marks].every((c) => c === last) ? [last, undefined] : [groups[0]!, last];
  if (decimal !== undefined && [...groups].some((c) => c !== mark)) return undefined;
  const [whole = "", behind] =
    decimal === undefined
      ? [text]
      : [text.slice(0, text.lastIndexOf(decimal)), text.slice(text.lastIndexOf(decimal) + 1)];
  const parts = whole.split(mark);
  if (!parts.every((p, i) => (i === 0 ? /^\d{1,3}$/ : /^\d{3}$/).test(p))) return undefined;
  return behind === undefined ? parts.join("") : `${parts.join("")}.${behind}`;
}

/** A comma with three digits behind it: of a decimal number, or between thousands. */
const THREE_BEHIND = /^[+\-−]?\s*[1-9]\d{0,2},\d{3}(?!\d)/;

/**
 * Whether a comma with three digits behind it is a decimal one, by the other numbers of the file: where one has another
 * number of digits behind its comma, or begins with 0, or where all have a comma, it is; not so where one has a point,
 * and unsure where some have neither, as numbers below a thousand would.
 */
export function isDecimalComma(texts: readonly string[]): boolean {
  if (texts.some((t) => t.includes("."))) return false;
  const withComma = texts.filter((t) => t.includes(","));
  return withComma.length === texts.length || withComma.some((t) => !THREE_BEHIND.test(t));
}

/** A text whose only mark may be a decimal one or between thousands, by what the others of its file say. */
export function isUnsure(text: string, hasDecimalComma: boolean, hasPointBetween: boolean): boolean {
  const t = text.trim();
  if (/[.,].*[.,]/.test(t)) return false;
  if (THREE_BEHIND.test(t)) return !hasDecimalComma;
  return hasPointBetween && /^[+\-−]?\s*[1-9]\d{0,2}\.\d{3}(?!\d)/.test(t);
}

/** The two numbers of a cell that holds both coordinates: "(25.4, 12.7)", "25,4; 12,7", "25.4 / 12.7"; undefined where there are not two. */
export function readPair(text: string): readonly [string, string] | undefined {
  const t = text
    .trim()
    .replace(/^[([{]\s*|\s*[)\]}]$/g, "")
    .replace(/\b[xy]\s*[:=]\s*/gi, "");
  for (const mark of [/\s*[;/|]\s*/, /,\s+/, /\s+/, /,/]) {
    const parts = t.split(mark).filter((p) => p !== "");
    if (parts.length === 2 && parts.every((p) => readNumber(p))) return [parts[0]!, parts[1]!];
    if (parts.length > 1 && mark.source !== "\\s+") return undefined;
  }
  return undefined;
}
