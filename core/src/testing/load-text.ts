import Big from "big.js";
import type { OutputLoad } from "./load.ts";
import { readTyped } from "./reading.ts";

/** What was typed, or why it was not taken. */
export type Typed<T> =
  | { readonly kind: "read"; readonly value: T }
  | { readonly kind: "wrong"; readonly because: string };

const wrong = (because: string) => ({ kind: "wrong", because }) as const;
const MOST = 999_999;

/**
 * An amount in a unit, read as a meter's reading is. A mark before just three digits may be one between thousands: there is no
 * limit that would show which, so it is asked about.
 */
function amount(number: string, prefix: string, unit: "V" | "A" | "W"): Big | string {
  const [, whole, part] = /^([1-9]\d{0,2})[.,](\d{3})$/.exec(number) ?? [];
  if (whole !== undefined)
    return `“${number}” may be ${whole}.${part} or ${whole}${part}: write ${Number(`${whole}.${part}`)} or ${whole}${part}.`;
  const said = `${number} ${prefix}${unit}`;
  const read = readTyped(said, unit, {});
  if (read.kind === "wrong") return read.because;
  if (read.kind === "error") return `“${said}” is no amount.`;
  const n = Big(read.value);
  if (n.lte(0)) return `“${number}” is nothing.`;
  return n.gt(MOST) ? `“${said}” is out of all range.` : n;
}

/** Decimal text as it is kept: six places, and never nothing. */
const kept = (n: Big): string | undefined => {
  const text = n.round(6).toFixed();
  return Number(text) > 0 ? text : undefined;
};

/** Blanks of every kind are one. */
const plain = (text: string): string => text.replace(/[\u00a0\u202f\u2009]/g, " ").trim();

const HOW = "Write it as 24 V DC, 2 A or as 230 V AC, 60 W.";
const TOKEN = /(?<![\w.,])([\d.,]*\d)\s*([kmµμu]?)([VAW])(?:\s*(AC|DC|~|=))?(?![\w.])/gi;

/**
 * What an output is at and is to drive, as people type it: "24 V DC, 2 A", "2A at 24VDC", "230 VAC 60 W", "1,5 A 12 V DC".
 * Everything typed has to be accounted for; volts, whether they alternate, and either amperes or watts are needed, all three only
 * where they agree.
 */
export function readLoad(text: string): Typed<Pick<OutputLoad, "volts" | "kind" | "amps">> {
  const t = plain(text);
  const found: Partial<Record<"V" | "A" | "W", Big>> = {};
  const kinds = new Set<OutputLoad["kind"]>();
  for (const [, number = "", prefix = "", unit = "", mark] of t.matchAll(TOKEN)) {
    const key = unit.toUpperCase() as "V" | "A" | "W";
    const n = amount(number, prefix, key);
    if (typeof n === "string") return wrong(n);
    if (found[key]) return wrong(`${key} is written twice. ${HOW}`);
    found[key] = n;
    if (mark) kinds.add(/^(ac|~)$/i.test(mark) ? "alternating" : "direct");
  }
  const left = t.replace(TOKEN, " ");
  const rest = left.replace(/[\s,;/]|\b(at|and|AC|DC)\b/gi, "");
  if (rest !== "") return wrong(`“${rest}” was not read. ${HOW}`);
  for (const [loose] of left.matchAll(/\b(AC|DC)\b/gi))
    kinds.add(/ac/i.test(loose) ? "alternating" : "direct");
  const { V, A, W } = found;
  if (!V) return wrong(`At how many volts is not said. ${HOW}`);
  if (!A && !W) return wrong(`What it is to drive is not said. ${HOW}`);
  const [kind, other] = [...kinds];
  if (other) return wrong("It cannot be direct and alternating at once.");
  if (!kind) return wrong(`Whether it is direct or alternating is not said. ${HOW}`);
  if (A && W && V.times(A).minus(W).abs().gt(W.times("0.02")))
    return wrong(
      `${V.toFixed()} V and ${A.toFixed()} A are ${V.times(A).round(3).toFixed()} W, not ${W.toFixed()}.`,
    );
  const [volts, amps] = [kept(V), kept(A ?? W!.div(V))];
  if (!volts || !amps) return wrong("It is too little to be told from nothing.");
  return { kind: "read", value: { volts, kind, amps } };
}

const VALUE = /^([\d.,]*\d)\s*([kmµμu]?)(A|V|Vrms|V AC|VAC)$/i;
/** A name that says how much, or how much of what: more than one thing was written. */
const IN_A_NAME = /[<>≤≥±×*~,;]|(^|\s)[\d.,]+\s*[kmµμu]?[AV]\b/i;

/** A name and its amount: apart by a colon, or by a blank where the name has no number of its own. */
function parted(text: string): readonly [string, string] | undefined {
  const [, named, said] = /^(.*\S)\s*[:=]\s*(\S.*)$/.exec(text) ?? [];
  if (named !== undefined) return [named, said!];
  const [, words, after] =
    /^(.*\S)\s+(\d.*)$/.exec(text.replace(/(\d)\s+(?=[a-zµμ]{1,4}( AC)?$)/i, "$1")) ?? [];
  return words === undefined || /(^|\s)\d+(\s|$)/.test(words) ? undefined : [words, after!];
}

/** Names with what each stands, in amperes or in volts: "U3 3 A; J3 pin 2: 2,5A". */
function readRated(text: string, unit: "A" | "V", sample: string): Typed<{ what: string; n: Big }[]> {
  const parts = plain(text)
    .split(/[;\n]|(?<=[AV])\s*,\s*(?=\D)/i)
    .map((p) => p.trim())
    .filter(Boolean);
  const out: { what: string; n: Big }[] = [];
  for (const p of parts) {
    const [what = "", said = ""] = parted(p) ?? [];
    const m = VALUE.exec(said);
    if (!m || m[3]!.toUpperCase()[0] !== unit || what.length > 60 || IN_A_NAME.test(what))
      return wrong(`“${p}” was not read. Write it as ${sample}.`);
    const n = amount(m[1]!, m[2]!, unit);
    if (typeof n === "string") return wrong(n);
    if (out.some((x) => x.what === what)) return wrong(`${what} is written twice.`);
    out.push({ what, n });
  }
  return { kind: "read", value: out };
}

/** What each part in the path of an output carries: "U3 3 A; J3 2,5 A". An empty text is none. */
export function readRatings(text: string): Typed<OutputLoad["ratings"]> {
  const found = readRated(text, "A", "U3: 3 A; J3 pin 2: 2.5 A");
  if (found.kind === "wrong") return found;
  if (found.value.length > 20) return wrong("More than twenty are in no path.");
  const value = found.value.flatMap(({ what, n }) => {
    const amps = kept(n);
    return amps ? [{ what, amps }] : [];
  });
  return value.length === found.value.length
    ? { kind: "read", value }
    : wrong("It is too little to be told from nothing.");
}

/** What keeps an output apart, and for how much it is rated: "U2 5 kV", "U2 3750 V". An empty text is nothing. */
export function readIsolation(text: string): Typed<OutputLoad["isolation"]> {
  const found = readRated(text, "V", "U2: 5 kV");
  if (found.kind === "wrong") return found;
  if (found.value.length > 1) return wrong("One thing keeps it apart: write the weakest.");
  const [one] = found.value;
  if (!one) return { kind: "read", value: undefined };
  const kilovolts = kept(one.n.div(1000));
  return kilovolts
    ? { kind: "read", value: { what: one.what, kilovolts } }
    : wrong("It is too little to be told from nothing.");
}

/** A number as it reads back: three digits behind the mark get one more, since three may be meant as thousands. */
const typed = (n: string): string => (/^[1-9]\d{0,2}\.\d{3}$/.test(n) ? `${n}0` : n);
/** The same as it is typed. */
export const loadText = (l: Pick<OutputLoad, "volts" | "kind" | "amps">): string =>
  `${typed(l.volts)} V ${l.kind === "direct" ? "DC" : "AC"}, ${typed(l.amps)} A`;
export const ratingsText = (list: OutputLoad["ratings"]): string =>
  list.map((r) => `${r.what}: ${typed(r.amps)} A`).join("; ");
export const isolationText = (i: OutputLoad["isolation"]): string =>
  i ? `${i.what}: ${typed(i.kilovolts)} kV` : "";
