import type { BomLine } from "./bom.ts";
import { CHIP } from "./chip-size.ts";
import { lettersOf } from "./refs.ts";
import { readValue } from "./value.ts";

/** What is looked at of a line. */
export interface BillLine extends Omit<BomLine, "qtyStated" | "value" | "row"> {
  readonly id: string;
  readonly mount: string;
  readonly board?: string;
}

/** Lines that seem to be one part in different spelling. */
export interface SameParts {
  /** The line to keep: the one that says most. */
  readonly keep: string;
  readonly others: readonly string[];
  /** Why they seem the same, in words. */
  readonly because: string;
  /** What one line states and another does not. */
  readonly doubt?: string;
}

const PIN_ROW = /(?:PIN_?(?:HEADER|SOCKET|ROW)|HEADER|HDR)\D*0?(\d)X0?(\d{1,2})(?!\d)/i;

/**
 * A package by its chip size where it has one, a row of pins by its rows and columns, else by its letters and digits
 * alone: R_0603 and 0603 are one, HDR-1x4 and PinHeader_1x04_P2.54mm too.
 */
export function packageKey(text: string): string {
  const row = PIN_ROW.exec(text);
  if (row) return `HDR${row[1]}X${row[2]}`;
  return CHIP.exec(text)?.[1] ?? text.toUpperCase().replace(/[^A-Z0-9.]/g, "");
}

/** Ratings a line states beside its value: tolerance in per cent, volts, watts, dielectric code. */
export interface Ratings {
  readonly tolerance?: string;
  readonly voltage?: string;
  readonly power?: string;
  readonly dielectric?: string;
}
const RATING_NAMES: readonly (readonly [keyof Ratings, string])[] = [
  ["tolerance", "the tolerance"],
  ["voltage", "the voltage"],
  ["power", "the power"],
  ["dielectric", "the dielectric"],
];

/** What a line says beside its value, wherever in its texts it stands. */
export function ratingsOf(l: Pick<BillLine, "valueText" | "description">): Ratings {
  const text = `${l.valueText} ${l.description}`.replace(",", ".");
  const tolerance = /(\d+(?:\.\d+)?)\s*%/.exec(text)?.[1];
  const split = /(?:^|[\s/;])(\d+)V(\d)\b/i.exec(text);
  const voltage = split
    ? `${split[1]}.${split[2]}`
    : /(?:^|[\s/;])(\d+(?:\.\d+)?)\s*V(?:DC)?\b/i.exec(text)?.[1];
  const power = /(\d+\/\d+|\d+(?:\.\d+)?m?)\s*W\b/.exec(text)?.[1];
  const dielectric = /\b(C0G|NP0|X[5678][RST]|Y5V|Z5U)\b/i.exec(text)?.[1]?.toUpperCase();
  return {
    ...(tolerance ? { tolerance: String(Number(tolerance)) } : {}),
    ...(voltage ? { voltage: String(Number(voltage)) } : {}),
    ...(power ? { power } : {}),
    ...(dielectric ? { dielectric: dielectric === "NP0" ? "C0G" : dielectric } : {}),
  };
}

/**
 * Finds lines of a bill that are the same part in different spelling (keys of domain.md 3.1).
 *
 * One maker number, however written, is one part where the lines say the same of it; other words keep their line, since
 * sheets for the bench print them. Without numbers, or with one on one line only: one kind of reference,
 * one value read out of the text and one package; ratings that contradict each other part them, ratings stated on one
 * line only are named as the doubt. Lines that are not placed, or are mounted otherwise, are never one with others.
 */
export function sameParts(lines: readonly BillLine[]): SameParts[] {
  const groups = new Map<string, BillLine[]>();
  const put = (key: string, l: BillLine) => {
    const list = groups.get(key);
    if (list) list.push(l);
    else groups.set(key, [l]);
  };
  for (const l of lines) {
    if (l.dnp || l.refs.length === 0) continue;
    const kind = lettersOf(l.refs[0]!);
    const { value } = readValue(l.valueText, l.refs[0]);
    if (value && l.package !== "")
      put(`value ${kind} ${value.si} ${packageKey(l.package)} ${l.mount} ${l.board ?? ""}`, l);
    else if (l.mpn !== "") {
      // the words of a line stay with it: “display” and “sounder” may be one connector and are two lines
      const words = l.valueText.toUpperCase().replace(/\s+/g, " ").trim();
      put(`number ${l.mpn.toUpperCase().replace(/\s/g, "")} ${words} ${l.mount} ${l.board ?? ""}`, l);
    }
  }
  const out: SameParts[] = [];
  for (const [key, list] of groups) {
    for (const set of key.startsWith("number") ? [list] : apart(list)) {
      if (set.length < 2) continue;
      const keep = [...set].sort((a, b) => saysOf(b) - saysOf(a) || b.qty - a.qty)[0]!;
      const doubt = doubtOf(set);
      out.push({
        keep: keep.id,
        others: set.filter((l) => l !== keep).map((l) => l.id),
        because: key.startsWith("number")
          ? "one part number"
          : `one value and package: ${[...new Set(set.map((l) => `${l.valueText} ${l.package}`))].join(", ")}`,
        ...(doubt ? { doubt } : {}),
      });
    }
  }
  return out;
}

const saysOf = (l: BillLine) => (l.mpn !== "" ? 4 : 0) + Object.keys(ratingsOf(l)).length;

/** A group set apart where numbers or ratings contradict each other; what states less goes with what it has most in common. */
function apart(list: readonly BillLine[]): BillLine[][] {
  const sets: BillLine[][] = [];
  const shared = (l: BillLine, set: readonly BillLine[]) => {
    const own = ratingsOf(l);
    return RATING_NAMES.filter(([k]) => own[k] !== undefined && set.some((m) => ratingsOf(m)[k] === own[k]))
      .length;
  };
  for (const l of [...list].sort((a, b) => saysOf(b) - saysOf(a))) {
    const fit = sets
      .filter((set) => set.every((m) => agree(l, m)))
      .sort((a, b) => shared(l, b) - shared(l, a) || b.length - a.length)[0];
    if (fit) fit.push(l);
    else sets.push([l]);
  }
  return sets;
}

function agree(a: BillLine, b: BillLine): boolean {
  const number = (l: BillLine) => l.mpn.toUpperCase().replace(/\s/g, "");
  if (a.mpn !== "" && b.mpn !== "" && number(a) !== number(b)) return false;
  const [x, y] = [ratingsOf(a), ratingsOf(b)];
  return RATING_NAMES.every(([k]) => x[k] === undefined || y[k] === undefined || x[k] === y[k]);
}

function doubtOf(set: readonly BillLine[]): string | undefined {
  const ratings = set.map(ratingsOf);
  const open = RATING_NAMES.filter(
    ([k]) => ratings.some((r) => r[k] !== undefined) && ratings.some((r) => r[k] === undefined),
  ).map(([, name]) => name);
  return open.length > 0
    ? `${open.join(" and ")} ${open.length > 1 ? "are" : "is"} not stated on each`
    : undefined;
}
