import { packageKey } from "../bom/same.ts";
import { readAmount } from "./compare.ts";
import type { FactLine } from "./fact-line.ts";
import { factsOfLine, type PartFacts, valueWords } from "./facts.ts";
import type { PartKind } from "./part.ts";
import { isOtherCapacitor } from "./words.ts";

/** Classes of which a line without a number can be asked as a rule: value and size say what does. */
export const RULE_KINDS = ["resistor", "capacitor", "lamp", "connector"] as const;
export type RuleKind = (typeof RULE_KINDS)[number];

/**
 * What a shop takes where a line does not say: attribute key → text. A class that is there was confirmed; it is the same
 * for every product.
 */
export type ClassRules = Readonly<Partial<Record<RuleKind, Readonly<Record<string, string>>>>>;

/** An assumption a person is asked about, once for a class. */
export interface AssumedField {
  readonly key: string;
  readonly label: string;
  /** What is usual, where nobody said otherwise. */
  readonly usual: string;
}

/** Above so much a capacitor is hardly a ceramic one, farads. */
const CERAMIC_UP_TO = 47e-6;
/** Up to so much the ceramic that does not move is the usual one, farads. */
const STEADY_UP_TO = 1e-9;
const STEADY = "C0G";

/** What is assumed of a class whatever the shop confirmed, in words. */
export const SETTLED: Readonly<Partial<Record<RuleKind, string>>> = {
  capacitor: `up to ${valueWords(STEADY_UP_TO, "farad")} ${STEADY}`,
};

/** What is assumed of each class where a line does not say it; placeholder values a shop replaces. */
export const ASSUMED: Readonly<Record<RuleKind, readonly AssumedField[]>> = {
  resistor: [{ key: "tolerance", label: "tolerance at most", usual: "1 %" }],
  capacitor: [
    { key: "voltage", label: "rated voltage at least", usual: "16 V" },
    { key: "tolerance", label: "tolerance at most", usual: "20 %" },
    { key: "dielectric", label: `dielectric, above ${valueWords(STEADY_UP_TO, "farad")}`, usual: "X5R" },
  ],
  lamp: [{ key: "pinout", label: "pin order", usual: "1 cathode, 2 anode" }],
  connector: [
    { key: "pitch", label: "pitch", usual: "2.54 mm" },
    { key: "family", label: "mates with", usual: "pin row" },
    { key: "gender", label: "pins or socket", usual: "pins" },
    { key: "orientation", label: "upright or lying", usual: "upright" },
  ],
};

/** The usual assumptions of a class, as a shop would confirm them. */
export const usualRules = (kind: RuleKind): Readonly<Record<string, string>> =>
  Object.fromEntries(ASSUMED[kind].map((f) => [f.key, f.usual]));

/** A line that names no part, as what it asks for. */
export interface PartRule {
  readonly kind: RuleKind;
  /** What a part is held against: said and assumed. */
  readonly facts: PartFacts;
  /** Attributes that the line does not say, with what is taken in their place. */
  readonly assumed: Readonly<Record<string, string>>;
  /** The shop confirmed what is assumed of its class. */
  readonly isConfirmed: boolean;
}

/**
 * What a line without a number asks for, or why it cannot be asked as a rule.
 *
 * Stated facts count as stated; what the class needs besides is assumed as the shop confirmed it, else as is usual, and
 * told. A small ceramic is taken as C0G whatever is confirmed for the larger ones.
 *
 * @returns a rule, or words: what the line would have to say
 */
export function ruleOf(line: FactLine, rules: ClassRules = {}): PartRule | { readonly tooLittle: string } {
  const facts = factsOfLine(line);
  if (!(RULE_KINDS as readonly PartKind[]).includes(facts.kind))
    return { tooLittle: "no rule is enough for its class; name a part" };
  const kind = facts.kind as RuleKind;
  const p = facts.params;
  if (kind === "connector" ? p.pins === undefined : packageKey(facts.package) === "")
    return {
      tooLittle: kind === "connector" ? "it does not say how many pins in a row" : "it names no package",
    };
  if ((kind === "resistor" || kind === "capacitor") && p.value === undefined)
    return { tooLittle: "its value cannot be read" };
  if (kind === "lamp" && p.colour === undefined) return { tooLittle: "it does not say which colour" };
  const farads = kind === "capacitor" ? readAmount(p.value!) : 0;
  if (farads === undefined) return { tooLittle: "its value cannot be read" };
  if (kind === "capacitor" && (isOtherCapacitor(line) || farads > CERAMIC_UP_TO))
    return { tooLittle: "only ceramic capacitors are asked as a rule; name a part" };
  const shop = { ...usualRules(kind), ...rules[kind] };
  // a jumper has no tolerance, a small ceramic is the steady kind
  const own: Readonly<Record<string, string>> =
    kind === "resistor" && p.value === "0 Ω"
      ? {}
      : kind === "capacitor" && farads <= STEADY_UP_TO * 1.000001
        ? { ...shop, dielectric: STEADY }
        : shop;
  const assumed = Object.fromEntries(Object.entries(own).filter(([k, v]) => p[k] === undefined && v !== ""));
  return {
    kind,
    facts: {
      ...facts,
      // a row of pins stands in the words where no package is named
      package:
        facts.package || (kind === "connector" ? `HDR-${p.rows}x${Number(p.pins) / Number(p.rows)}` : ""),
      params: { ...assumed, ...p },
    },
    assumed,
    isConfirmed: rules[kind] !== undefined,
  };
}
