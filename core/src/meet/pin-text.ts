import { PIN_KINDS } from "../shape/meeting.ts";
import type { Pin, PinKind } from "./meet.ts";

/** Words people write for what a contact is. */
const WORDS: Readonly<Record<string, PinKind>> = {
  ...Object.fromEntries(PIN_KINDS.map((k) => [k, k])),
  power: "supply",
  pwr: "supply",
  source: "supply",
  gnd: "ground",
  return: "ground",
  out: "output",
  in: "input",
  io: "both",
  "i/o": "both",
  "in/out": "both",
  bidirectional: "both",
  bidir: "both",
  resistor: "passive",
  nc: "open",
  "n/c": "open",
  "n.c.": "open",
  unused: "open",
  none: "open",
};

const NUMBER = String.raw`[+\-−–]?\d{1,4}(?:[.,]\d{1,4})?`;
const VOLTS = new RegExp(`^(${NUMBER})\\s*V$`, "i");
const RANGE = new RegExp(`^(${NUMBER})\\s*V?\\s*(?:\\.\\.\\.?|…|to|–)\\s*(${NUMBER})\\s*V?$`, "i");
const numberOf = (text: string) => Number(text.replace(",", ".").replace(/[−–]/, "-"));

/** What was read, and lines of which nothing could be taken. */
export interface PinText {
  readonly pins: readonly Pin[];
  readonly wrong: readonly { readonly line: number; readonly because: string }[];
}

/** What a range that was typed says: "-0.3 … 3.6", "0 to 5 V". */
export function readRange(text: string): readonly [number, number] | undefined {
  const m = RANGE.exec(text.trim());
  if (!m) return undefined;
  const [a, b] = [numberOf(m[1]!), numberOf(m[2]!)];
  return a <= b ? [a, b] : undefined;
}

/** Volts that were typed, with their letter or without. */
export function readVolts(text: string): number | undefined {
  const m = new RegExp(`^(${NUMBER})\\s*V?$`, "i").exec(text.trim());
  return m ? numberOf(m[1]!) : undefined;
}

/**
 * A table of contacts as it is typed or pasted: a line a contact, its name or number first, then in any order what it is
 * (supply, ground, in, out, in/out, passive, open), its volts ("3.3 V") and what it takes ("0 … 5.5 V"); what is left is
 * the name of its signal. A bare number is no volts: it may be anything. Nothing of a line is passed over.
 */
export function readPinText(text: string): PinText {
  const pins: Pin[] = [];
  const wrong: { line: number; because: string }[] = [];
  const seen = new Set<string>();
  for (const [i, raw] of text.split(/\r\n|\r|\n/).entries()) {
    if (raw.trim() === "") continue;
    const read = readLine(raw);
    if (typeof read === "string") wrong.push({ line: i + 1, because: read });
    else if (seen.has(read.pin)) wrong.push({ line: i + 1, because: `pin ${read.pin} stands twice` });
    else {
      seen.add(read.pin);
      pins.push(read);
    }
  }
  return { pins, wrong };
}

/** One line, or why nothing of it was taken. */
function readLine(raw: string): Pin | string {
  const isTable = /[\t;]/.test(raw);
  const cells = (isTable ? raw.split(/[\t;]/) : raw.split(/,(?!\d)|\s{2,}|\|/)).map((c) => c.trim());
  const filled = cells.filter((c) => c !== "");
  // what is parted by single blanks alone: the number, and the rest word by word
  const [pin, ...rest] = filled.length > 1 ? filled : joined(raw.trim());
  if (!pin || pin.length > 80) return "no pin";
  const found: { kind?: PinKind; volts?: number; takesV?: readonly [number, number] } = {};
  const names: string[] = [];
  let kindWord = "";
  // "takes 5 V" would be read as what it gives
  const bound = /^(takes?|bears?|max(imum)?|min(imum)?|up|from|abs)\b/i;
  for (const word of rest) {
    if (bound.test(word) && !RANGE.test(word.replace(bound, "").trim()))
      return `“${word}” wants both bounds: write what it takes as “0 … 5 V”`;
    const kind = WORDS[word.toLowerCase()];
    const volts = VOLTS.exec(word);
    const range = readRange(word.replace(bound, "").trim());
    // "GND ground": the first is its name
    if (kind && kind === found.kind) names.push(kindWord);
    else if ((kind && found.kind) || (volts && found.volts !== undefined) || (range && found.takesV))
      return `“${word}” says the same a second time`;
    else if (volts) found.volts = numberOf(volts[1]!);
    else if (range) found.takesV = range;
    else if (RANGE.test(word.replace(bound, "").trim())) return `“${word}” is a range of nothing`;
    else if (new RegExp(`^${NUMBER}$`).test(word))
      return `“${word}” may be anything: write volts as “${word} V”`;
    else if (!kind) names.push(word);
    if (kind) {
      found.kind = kind;
      kindWord = word;
    }
  }
  if (names.length > 1) return `not known what “${names.slice(1).join(" ")}” means`;
  return { pin, ...found, ...(names[0] === undefined ? {} : { net: names[0] }) };
}

/** Words of a line, volts and ranges put together again: "1 VCC supply 3.3 V takes 0 … 5 V". */
function joined(line: string): string[] {
  return (
    line
      .replace(new RegExp(`(${NUMBER})\\s*V?\\s*(\\.\\.\\.?|…|to|–)\\s*(${NUMBER})`, "gi"), "$1…$3")
      // the word goes with its range, and stands alone where there is none
      .replace(/\b(takes?|bears?)\s+(?=\S+…)/gi, "")
      .replace(new RegExp(`(${NUMBER})\\s+V\\b`, "gi"), "$1V")
      .split(/\s+/)
      .filter((w) => w !== "")
  );
}
