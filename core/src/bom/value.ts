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
  let head = text
    .trim()
    .replace(/[µμ]/g, "u")
    .replace(/[ΩΩ]/g, "ohm")
    .replace(/(\d),(\d)/, "$1.$2");
  head =
    head.replace(/(\d)\s+(?=(?:[pnumkMG]?(?:ohms?|f|h|hz)?)(?:[\s/;]|$))/i, "$1").split(/[\s/;]+/)[0] ?? "";
  head = head.replace(/mfd$/i, "uF").replace(/ohms?$/i, "");
  if (kind === "C") head = head.replace(/(?<=[pnum\d])f$/i, (f) => (/^\d+(\.\d+)?F$/i.test(head) ? f : ""));
  if (kind === "L") head = head.replace(/h$/i, "");
  if (kind === "Y") head = head.replace(/hz$/i, "");
  const hadOhm = /ohm/i.test(text) || /[ΩΩ]/.test(text);
  const m = /^(\d*\.?\d*)([a-zA-Z]?)(\d*)([a-zA-Z]?)$/.exec(head);
  if (!m || (m[1] === "" && m[3] === "")) return { value: null };
  const [, whole = "", letter = "", fraction = ""] = m;
  if (letter !== "" && fraction !== "" && whole.includes(".")) return { value: null };
  const exponent = EXPONENTS[kind]![letter];
  if (exponent === undefined) return { value: null };
  if (kind === "R" && letter === "m" && fraction === "" && !hadOhm)
    return { value: null, doubt: `“${text}” may mean milliohm or a mistyped megohm` };
  if (kind === "R" && /^e$/i.test(letter) && fraction !== "")
    return { value: null, doubt: `“${text}” may be a decimal point or a power of ten` };
  if (kind === "C" && letter === "" && Number(whole) !== 0)
    return { value: null, doubt: `“${text}” has no unit; picofarad and microfarad are both written so` };
  if (kind === "C" && letter === "m" && fraction === "" && !/mf/i.test(text))
    return { value: null, doubt: `“${text}” may be milli, or micro in old usage` };
  if (kind === "C" && /^f$/i.test(letter) && fraction === "")
    return { value: null, doubt: `“${text}” would be whole farads; a prefix may be missing` };
  const mantissa = fraction === "" ? whole : `${whole === "" ? "0" : whole}.${fraction}`;
  const si = Number(`${mantissa === "" ? "0" : mantissa}e${exponent}`);
  return Number.isFinite(si) ? { value: { si, unit: UNITS[kind] } } : { value: null };
}
