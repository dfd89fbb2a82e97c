import { packageKey } from "../bom/same.ts";
import { type Attribute, attributesOf } from "./attributes.ts";
import type { PartFacts } from "./facts.ts";

/** How one attribute of a candidate stands to the original's. */
export type Standing = "same" | "better" | "worse" | "different" | "unknown";

export interface ComparedRow {
  readonly key: string;
  readonly label: string;
  readonly original: string;
  readonly candidate: string;
  readonly standing: Standing;
  /** A difference here forbids it. */
  readonly mustMatch: boolean;
  readonly changesCircuit: boolean;
  /** Said where it matters: what the difference does. */
  readonly consequence?: string;
}

/** "equal": nothing is worse and nothing vital unknown. "forbidden": it cannot do the job on these pads. */
export type Verdict = "equal" | "look" | "forbidden";

export interface Comparison {
  readonly verdict: Verdict;
  readonly rows: readonly ComparedRow[];
}

const SCALE: Readonly<Record<string, number>> = {
  f: -15,
  p: -12,
  n: -9,
  u: -6,
  µ: -6,
  μ: -6,
  m: -3,
  "": 0,
  k: 3,
  K: 3,
  M: 6,
  G: 9,
};

/**
 * A number with prefix and unit as typed: "4.7 kΩ" → 4700, "-40 °C" → -40, "1/4 W" → 0.25. Undefined for words.
 *
 * The prefix counts only before a unit or at the end, so that "3 mm" is 3e-3 and "5 min" stays words.
 */
export function readAmount(text: string): number | undefined {
  const t = text
    .trim()
    .replace(",", ".")
    .replace(/^[±<>≤≥~]\s*/, "");
  const fraction = /^(\d+)\/(\d+)\s*W?$/i.exec(t);
  if (fraction) return Number(fraction[1]) / Number(fraction[2]);
  const m =
    /^(-?\d+(?:\.\d+)?)\s*([fpnuµμmkKMG]?)(V(?:DC|AC)?|A|W|Ω|ohms?|F|H|Hz|%|ppm(?:\/K)?|°C|C|K|h|°|cd|m|)$/.exec(
      t,
    );
  if (!m) return undefined;
  const [, digits, prefix] = m;
  // "10 mm" is thousandths of a metre; a single m is thousandths of whatever is meant
  return Number(digits) * 10 ** (SCALE[prefix!] ?? 0);
}

/** Class-2 ceramic codes: coldest and warmest degrees, change of capacitance in per cent (domain.md 3.6). */
const COLD: Readonly<Record<string, number>> = { X: -55, Y: -30, Z: 10 };
const WARM: Readonly<Record<string, number>> = { 4: 65, 5: 85, 6: 105, 7: 125, 8: 150, 9: 200 };
const CHANGE: Readonly<Record<string, readonly [number, number]>> = {
  P: [-10, 10],
  R: [-15, 15],
  S: [-22, 22],
  T: [-33, 22],
  U: [-56, 22],
  V: [-82, 22],
};
const bandOf = (code: string) => {
  const t = code.toUpperCase().replace("NP0", "C0G");
  if (t === "C0G") return { cold: -55, warm: 125, change: [0, 0] as const };
  const m = /^([XYZ])([4-9])([PRSTUV])$/.exec(t);
  return m ? { cold: COLD[m[1]!]!, warm: WARM[m[2]!]!, change: CHANGE[m[3]!]! } : undefined;
};

/**
 * Whether one ceramic may stand for another: its range of temperature and its band of change lie no worse on both
 * sides. X7R covers X5R; X6S does not, since ±22 % is wider than ±15 %.
 */
export function coversDielectric(candidate: string, original: string): boolean | undefined {
  const [c, o] = [bandOf(candidate), bandOf(original)];
  if (!c || !o) return undefined;
  return c.cold <= o.cold && c.warm >= o.warm && c.change[0] >= o.change[0] && c.change[1] <= o.change[1];
}

const words = (t: string) =>
  t
    .toLowerCase()
    .replace(/[\s–-]+/g, " ")
    .trim();
const EPS = 1e-9;

function standingOf(a: Attribute, original: string, candidate: string): Standing {
  if (original === "" || candidate === "") return "unknown";
  const [o, c] = [readAmount(original), readAmount(candidate)];
  const areNumbers = o !== undefined && c !== undefined;
  if (words(original) === words(candidate)) return "same";
  if (areNumbers && Math.abs(o - c) <= EPS * Math.max(Math.abs(o), Math.abs(c))) return "same";
  if (a.rule === "covers") {
    const covers = coversDielectric(candidate, original);
    return covers === undefined ? "different" : covers ? "better" : "worse";
  }
  if (!areNumbers) return "different";
  if (a.rule === "at least") return c > o ? "better" : "worse";
  if (a.rule === "at most") return c < o ? "better" : "worse";
  if (a.rule === "within") return Math.abs(c - o) <= a.share! * Math.abs(o) ? "same" : "different";
  return "different";
}

/**
 * Compares a candidate with what it would replace, attribute by attribute of its class.
 *
 * Forbidden where something that must match does not. Needs a look where a rating is worse, where a difference changes
 * the circuit, and where something vital is not known of one of the two. Attributes that neither states are left out,
 * unless they are vital. Table of domain.md 3.6.
 *
 * @param original what is asked for; facts it does not state are not asked
 */
export function compareParts(original: PartFacts, candidate: PartFacts): Comparison {
  const rows: ComparedRow[] = [];
  const [op, cp] = [packageKey(original.package), packageKey(candidate.package)];
  rows.push({
    key: "package",
    label: "package",
    original: original.package,
    candidate: candidate.package,
    standing: op === "" || cp === "" ? "unknown" : op === cp ? "same" : "different",
    mustMatch: true,
    changesCircuit: false,
    ...(op !== cp && op !== "" && cp !== "" ? { consequence: "It does not fit these pads." } : {}),
  });
  if (original.kind !== candidate.kind && original.kind !== "other")
    rows.push({
      key: "kind",
      label: "class",
      original: original.kind,
      candidate: candidate.kind,
      standing: candidate.kind === "other" ? "unknown" : "different",
      mustMatch: true,
      changesCircuit: false,
      consequence: "It is another class of part.",
    });
  for (const a of attributesOf(original.kind)) {
    const [o, c] = [original.params[a.key] ?? "", candidate.params[a.key] ?? ""];
    if (o === "" && c === "" && !a.isVital) continue;
    // what the original does not state is not asked of the candidate, but for what must be known
    if (o === "" && !a.isVital) continue;
    const standing = standingOf(a, o, c);
    const matters = standing === "worse" || standing === "different" || (standing === "unknown" && a.isVital);
    rows.push({
      key: a.key,
      label: a.label,
      original: o,
      candidate: c,
      standing,
      mustMatch: a.rule === "same" || a.rule === "within",
      changesCircuit: a.rule === "circuit",
      ...(matters && a.consequence ? { consequence: a.consequence } : {}),
    });
  }
  const isForbidden = rows.some((r) => r.mustMatch && (r.standing === "different" || r.standing === "worse"));
  const needsLook = rows.some(
    (r) => r.standing === "worse" || r.standing === "different" || r.standing === "unknown",
  );
  return { verdict: isForbidden ? "forbidden" : needsLook ? "look" : "equal", rows };
}
