import { lettersOf } from "./refs.ts";

/** A value in SI units without prefix. */
export interface Value {
  readonly si: number;
  readonly unit: "ohm" | "farad" | "henry" | "volt" | "hertz";
}

/** A value, or why there is none. */
export interface ValueReading {
  readonly value: Value | null;
  /** Other readings of an ambiguous text, as words for the person. */
  readonly doubt?: string;
}

type Class = "R" | "C" | "L" | "Y" | undefined;

const classOf = (ref: string | undefined): Class => {
  const l = lettersOf(ref ?? "");
  if (l === "R" || l === "RN") return "R";
  if (l === "C") return "C";
  if (l === "L") return "L";
  if (l === "Y" || l === "X") return "Y";
  return undefined;
};

/** Exponents of the letters by class (IEC 60062 and what people type; domain.md 3.3). */
const EXPONENTS: Record<string, Record<string, number>> = {
  R: { m: -3, L: -3, l: -3, R: 0, r: 0, E: 0, e: 0, "": 0, k: 3, K: 3, M: 6, G: 9, T: 12 },
  C: { p: -12, P: -12, n: -9, N: -9, u: -6, U: -6, m: -3, F: 0, f: 0, "": 0 },
  L: { n: -9, N: -9, u: -6, U: -6, m: -3, "": 0 },
  Y: { "": 0, k: 3, K: 3, M: 6, m: 6, G: 9 },
};
const UNITS = { R: "ohm", C: "farad", L: "henry", Y: "hertz" } as const;

/**
 * Reads a part's value text with its class known from the reference.
 *
 * The mantissa and power of ten are kept as decimals until the end, so 4k7 is 4700 exactly. Ambiguous texts (a bare
 * "1m" on a resistor, a capacitor without unit) come back without value and with the doubt in words.
 *
 * @param ref any reference of the line, for its letters
 * @example readValue("4k7", "R1").value // { si: 4700, unit: "ohm" }
 */
export function readValue(text: string, ref?: string): ValueReading {
  const kind = classOf(ref);
  if (!kind) return { value: null };
  const grouped = GROUPED.exec(text.trim());
  // decimals for certain: a crystal's with a unit, and a resistor's with a point and a letter that multiplies
  const isDecimal =
    (kind === "Y" && grouped?.[4] !== "") ||
    (kind === "R" && grouped?.[2] === "." && /^[kmg]/i.test(grouped[4]!));
  if (grouped && !isDecimal)
    return {
      value: null,
      doubt: `“${text}” may be ${grouped[1]}.${grouped[3]}${grouped[4]} or ${grouped[1]}${grouped[3]}${grouped[4]}`,
    };
  const whole = text
    .trim()
    // a rating in fractions of a watt
    .replace(/\b\d+\/\d+\s*w(atts?)?\b/gi, " ")
    .replace(/[µμ]/g, "u")
    .replace(/[\u03A9\u2126\u03C9]/g, "ohm")
    .replace(/(\d)\s*([mkKMG])\s*R(?![\w])/, "$1$2ohm")
    .replace(/(\d),(\d)/, "$1.$2")
    .replace(/\bmeg(a|ohms?)?\b|(?<=\d)\s*meg(a|ohms?)?\b/i, "M")
    .replace(/^\d+\s*[x×*]\s*(?=\d)/i, "")
    .replace(/(\d)\s+(?=(?:[pnumkMG]?(?:ohms?|f|h|hz)?)(?:[\s/;,@±(]|$))/i, "$1");
  const [first, ...rest] = whole.split(/[\s/;,@±(|]+/).filter((t) => t !== "" && !BEFORE.test(t));
  if (first === undefined) return { value: null };
  const reading = readToken(first, kind, text);
  // another value of the class, with a letter of its own: neither is the part's for certain
  const other = rest
    .filter((t) => /[a-z]/i.test(t))
    .map((t) => readToken(t.replace(/\)+$/, ""), kind, t).value)
    .find((v) => v !== null && reading.value !== null && v.si !== reading.value.si);
  return other ? { value: null, doubt: `“${text}” names more than one value` } : reading;
}

/** One to three digits, a point or comma, three digits, and what stands behind: a thousand, or three decimals. */
const GROUPED = /^([1-9]\d{0,2})([.,])(\d{3})\s*([a-zA-Zµμ\u03A9\u2126]*)(?=$|[\s/;@±(|])/;

/** What may stand before a value: the kind of part, a package, a rating, a tolerance. */
const BEFORE =
  /^(res(istor)?s?|cap(acitor)?s?|ind(uctor)?s?|coils?|crystals?|xtal|chip|smd|smt|ceramic|mlcc|film|thick|thin|electrolytic|tant(alum)?|value|val|[rcl]|[rcl]?(0[0-9]{3}|1206|1210|1812|2010|2512)|[cxynz][0-9][a-z]|np0|\d+(\.\d+)?%|\d+(\.\d+)?([munk]?v|w|m[wa]))$/i;

function readToken(token: string, kind: NonNullable<Class>, text: string): ValueReading {
  let head = token.replace(/mfd$/i, "uF").replace(/ohms?$/i, "");
  if (kind === "C") head = head.replace(/(?<=[pnum\d])f$/i, (f) => (/^\d+(\.\d+)?F$/i.test(head) ? f : ""));
  if (kind === "L") head = head.replace(/h$/i, "");
  if (kind === "Y") head = head.replace(/hz$/i, "");
  const hadOhm = /ohm|\u03c9|(?<=\d\s*[mkMG]\s*)R(?!\w)/i.test(text) || /[\u03A9\u2126\u03C9]/.test(text);
  const m = /^(\d*\.?\d*)([a-zA-Z]?)(\d*)([a-zA-Z]?)$/.exec(head);
  if (!m || (m[1] === "" && m[3] === "")) return { value: null };
  const [, whole = "", letter = "", fraction = ""] = m;
  if (letter !== "" && fraction !== "" && whole.includes(".")) return { value: null };
  if (kind === "C" && letter === "M" && fraction === "")
    return {
      value: null,
      doubt: `“${text}” may be milli, or micro in old usage; no capacitor has so many farads`,
    };
  const exponent = EXPONENTS[kind]![letter];
  if (exponent === undefined) return { value: null };
  if (kind === "R" && letter === "m" && fraction === "" && !hadOhm)
    return { value: null, doubt: `“${text}” may mean milliohm or a mistyped megohm` };
  if (kind === "R" && /^e$/i.test(letter) && fraction !== "")
    return { value: null, doubt: `“${text}” may be a decimal point or a power of ten` };
  if (kind === "R" && letter === "" && !hadOhm && /^\d{3}$/.test(head) && !isPreferred(head)) {
    const marked = Number(head.slice(0, 2)) * 10 ** Number(head[2]);
    return {
      value: null,
      doubt: `“${text}” may be ${head} ohm, which no series has, or the marking of ${marked} ohm`,
    };
  }
  if ((kind === "C" || kind === "L") && letter === "" && Number(whole) !== 0)
    return {
      value: null,
      doubt: `“${text}” has no unit; ${kind === "C" ? "picofarad and microfarad" : "nanohenry and microhenry"} are both written so`,
    };
  if (kind === "C" && letter === "m" && fraction === "" && !/mf/i.test(text))
    return { value: null, doubt: `“${text}” may be milli, or micro in old usage` };
  if (kind === "C" && /^f$/i.test(letter) && fraction === "")
    return { value: null, doubt: `“${text}” would be whole farads; a prefix may be missing` };
  const mantissa = fraction === "" ? whole : `${whole === "" ? "0" : whole}.${fraction}`;
  const si = Number(`${mantissa === "" ? "0" : mantissa}e${exponent}`);
  return Number.isFinite(si) ? { value: { si, unit: UNITS[kind] } } : { value: null };
}

/** Numbers of E24, which is historical, and of E192, which holds E48 and E96 (values of IEC 60063). */
export const E24 = [
  10, 11, 12, 13, 15, 16, 18, 20, 22, 24, 27, 30, 33, 36, 39, 43, 47, 51, 56, 62, 68, 75, 82, 91,
];

/**
 * True for three digits that some series of preferred numbers has: round(100 · 10^(i/192)), 9.20 instead of 9.19, or a
 * number of E24 (domain.md 3.3).
 */
export function isPreferred(digits: string): boolean {
  const n = Number(digits);
  if (n < 100 || n > 999) return n < 100;
  if (n % 10 === 0 && E24.includes(n / 10)) return true;
  if (n === 920) return true;
  const i = Math.round(192 * Math.log10(n / 100));
  return n !== 919 && Math.round(100 * 10 ** (i / 192)) === n;
}
