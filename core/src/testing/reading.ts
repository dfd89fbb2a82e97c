import Big from "big.js";
import { planUnit, prefixed, type ReadingUnit, readUnit } from "./unit.ts";
import { judgeReading, type Limits } from "./verdict.ts";

/** A reading as typed. What could not be read is an error of the try; what makes no sense is not kept at all. */
export type TypedReading =
  | {
      readonly kind: "value";
      /** Decimal text in the unit of the plan. */
      readonly value: string;
      /** It only says that it is more, or less. */
      readonly bound?: ">" | "<";
      /** Why it is taken only when it is entered once more. */
      readonly doubt?: string;
    }
  | { readonly kind: "error"; readonly words: string }
  | { readonly kind: "wrong"; readonly because: string };

const NO_ANSWER = /^(n\.?a\.?n\.?|no answer|none|time-?out|err(or)?|-+|–+|—+|\?+)$/i;
const OVERFLOW = /^[+-]?\s*(o\.?l\.?|0\.?l\.?|over(load|flow|range)?|of|inf(inity|inite)?|∞|1\s*\.)$/i;
const INFIX = /^([+-]?\d+)([RΩVAkKMmuµμnpG])(\d+)(.*)$/;
const NUMBER = /^([+-]?)([\d.,' ]*\d[\d.,' ]*?)(?:[eE]([+-]?\d{1,2}))?$/;

/** Blanks of every kind, minus signs of every kind, and the sign of an ohm are one. */
const plain = (text: string): string =>
  text
    .replace(/[\u00a0\u2000-\u200a\u202f\u205f\u3000\t]/g, " ")
    .replace(/[\u2212\u2012\u2013](?=\s*[\d.,])/g, "-")
    .replace(/\u2126/g, "Ω")
    .replace(/[’`´]/g, "'")
    .trim();

interface Figure {
  readonly value: Big;
  /** What it would be with its mark as one between thousands. */
  readonly thousands?: Big;
}

/** A number with marks between thousands or before decimals, in the ways people write them; undefined for anything else. */
function figureOf(text: string): Figure | undefined {
  const m = NUMBER.exec(text.replace(/^([+-])\s+/, "$1"));
  if (!m) return undefined;
  const [, sign = "", body = "", power = "0"] = m;
  const times = (digits: string) =>
    Big(`${sign === "-" ? "-" : ""}${digits}`).times(Big(10).pow(Number(power)));
  const marks = [...body.matchAll(/[.,' ]/g)].map(([c]) => c);
  if (marks.length === 0) return { value: times(body) };
  const last = marks.at(-1)!;
  const isGrouped = (of: string, by: string) =>
    new RegExp(`^\\d{1,3}(${by === "." ? "\\." : by}\\d{3})+$`).test(of);
  if (new Set(marks).size === 1 && marks.length === 1 && (last === "." || last === ",")) {
    const [whole = "", part = ""] = body.split(last);
    const value = times(`${whole || "0"}.${part || "0"}`);
    return isGrouped(body, last) && !/^0/.test(whole) ? { value, thousands: times(whole + part) } : { value };
  }
  if (new Set(marks).size === 1)
    return isGrouped(body, last) ? { value: times(body.replaceAll(last, "")) } : undefined;
  // two kinds: the last stands once, before the decimals; the other groups thousands
  if (new Set(marks).size > 2 || marks.filter((c) => c === last).length > 1 || last === "'" || last === " ")
    return undefined;
  const [whole = "", part = ""] = body.split(last);
  const by = marks[0]!;
  return isGrouped(whole, by) ? { value: times(`${whole.replaceAll(by, "")}.${part || "0"}`) } : undefined;
}

const wrong = (because: string) => ({ kind: "wrong", because }) as const;

/**
 * A reading of a meter as people type it, in the unit of the plan: "3,31", "3.31 V", "3310 mV", "3V31", "4k7", "1 234,5",
 * ">2M", "OL", "no answer". A comma is a decimal mark, a mark before three digits may be one between thousands; what would
 * be right in another unit or with the other mark is asked about, and so is what is ten times over its limit. No number, no
 * unit of this kind: refused with the word that was not read.
 *
 * @param unit of the plan: a base unit with or without a prefix
 */
export function readTyped(text: string, unit: string, limits: Limits): TypedReading {
  const t = plain(text);
  if (t === "") return wrong("Nothing was typed.");
  if (t.length > 60) return wrong("A reading is one number with its unit.");
  if (NO_ANSWER.test(t)) return { kind: "error", words: `the meter showed “${t}”` };
  if (OVERFLOW.test(t.replace(/\s*(ohm|Ω|v|a)$/i, "")))
    return { kind: "error", words: `“${t}”: beyond the range of the meter` };
  const wanted = planUnit(unit)!;
  const [, mark = "", rest = ""] = /^(>=?|<=?|≥|≤)?\s*(.*)$/.exec(t)!;
  const bound = mark === "" ? undefined : mark === ">" || mark === ">=" || mark === "≥" ? ">" : "<";
  const split = splitUnit(rest, wanted);
  if ("because" in split) return split;
  const { figure, of } = split;
  const scale = (n: Big) => toPlan(n, of, wanted);
  const value = scale(figure.value);
  if (value.abs().gt("1e15") || (!value.eq(0) && value.abs().lt("1e-18")))
    return wrong(`“${t}” is out of all range.`);
  const said = value.toFixed();
  const doubt = doubtOf(said, limits, unit, {
    wanted,
    typed: rest,
    thousands: figure.thousands && scale(figure.thousands),
  });
  return { kind: "value", value: said, ...(bound ? { bound } : {}), ...(doubt ? { doubt } : {}) };
}

type Split = { readonly figure: Figure; readonly of: ReadingUnit };

/** The number and the unit of what was typed. */
function splitUnit(text: string, wanted: ReadingUnit): Split | ReturnType<typeof wrong> {
  const infix = INFIX.exec(text.replace(/\s+/g, ""));
  if (infix) {
    const [, whole, letter = "", part, after = ""] = infix;
    const isBase = letter === "R" || letter === "Ω" || letter === "V" || letter === "A";
    const unit = isBase ? letter : `${letter}${after}`;
    const of = readUnit(unit, wanted.base);
    // a letter that is no mark: "5V1A"
    if (of && (isBase ? after === "" : true))
      return checked({ value: Big(`${whole}.${part}`) }, of, unit, wanted);
  }
  const m = /^([+-]?[\d.,' ]*\d(?:[\d.,']*)(?:[eE][+-]?\d{1,2})?)\s*(.*)$/.exec(text);
  if (!m) return wrong(`“${text}” is no number.`);
  const [, number = "", tail = ""] = m;
  const figure = figureOf(number.trim());
  if (!figure) return wrong(`“${number.trim()}” is no one number.`);
  const word = tail.replace(/\s*\b(dc|d\.c\.)$/i, "").replace(/\s+/g, "");
  if (/\b(ac|a\.c\.|rms)$/i.test(tail))
    return wrong("It is alternating, and the plan asks for a steady value.");
  const of = word === "" ? wanted : readUnit(word, wanted.base);
  if (!of) return wrong(`“${tail.trim()}” is no unit.`);
  return checked(figure, of, tail.trim(), wanted);
}

const WORDS: Readonly<Record<string, string>> = { "": "a count", "%": "per cent" };
function checked(
  figure: Figure,
  of: ReadingUnit,
  said: string,
  wanted: ReadingUnit,
): Split | ReturnType<typeof wrong> {
  if (of.base !== wanted.base)
    return wrong(
      `“${said}” is ${WORDS[of.base] ?? of.base}, and the plan asks for ${WORDS[wanted.base] ?? wanted.base}.`,
    );
  return { figure, of };
}

/** In the plan's unit. */
function toPlan(n: Big, of: ReadingUnit, wanted: ReadingUnit): Big {
  const base = of.isFahrenheit ? n.minus(32).times(5).div(9).round(3) : n.times(of.times ?? 1);
  const by = of.power - wanted.power;
  // a power of ten is multiplied by, never divided by: nothing is rounded
  return base.times(by >= 0 ? Big(10).pow(by) : Big(`1e${by}`));
}

/** What would be right in another unit or with the other mark, or is far over its limit; undefined where nothing is odd. */
function doubtOf(
  said: string,
  limits: Limits,
  unit: string,
  { wanted, typed, thousands }: { wanted: ReadingUnit; typed: string; thousands: Big | undefined },
): string | undefined {
  const passes = (n: Big) => judgeReading(limits, n.toFixed()) === "pass";
  const value = Big(said);
  if (passes(value) || value.eq(0)) return undefined;
  if (thousands && passes(thousands))
    return `“${typed}” is read as ${said} ${unit}. Write ${thousands.toFixed()} if it is that, or enter it once more.`;
  // 3310 typed for 3310 mV where the plan counts volts, 2.2 for 2.2 kΩ
  for (const by of [-3, 3, -6, 6]) {
    const meant = prefixed(wanted.base, wanted.power + by);
    if (meant && passes(value.times(Big(`1e${by}`))))
      return `${said} ${unit} is outside its limits and would be right as ${said} ${meant}: write the unit, or enter it once more.`;
  }
  const { max, min } = limits;
  const most = [max, min].flatMap((l) => (l === undefined ? [] : [Big(l).abs()])).sort((a, b) => b.cmp(a))[0];
  return max !== undefined && most?.gt(0) && value.abs().gt(most.times(10))
    ? `${said} ${unit} is more than ten times its limit. Enter it once more if it is so.`
    : undefined;
}
