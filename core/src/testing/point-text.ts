import Big from "big.js";
import { TEST_UNITS } from "../shape/test-item.ts";
import type { Typed } from "./load-text.ts";
import { readTyped } from "./reading.ts";
import { planUnit, readUnit } from "./unit.ts";

type Unit = (typeof TEST_UNITS)[number];
/** What is applied at some points, in one unit; decimal text. */
export interface TypedPoints {
  readonly unit: Unit;
  readonly applied: readonly string[];
}

const wrong = (because: string) => ({ kind: "wrong", because }) as const;
const HOW = "Write them as 0.5 V; 1 V; 2.5 V.";
/** What is kept of a number: {@link pointShape}. */
const KEPT = /^-?\d{1,12}(\.\d{1,9})?$/;

/** One number in a unit, with nothing said of it beside: a mark before just three digits is asked about. */
function amount(text: string, unit: Unit): Typed<string> {
  const [, whole, part] = /^\D{0,2}([1-9]\d{0,2})[.,](\d{3})(?!\d)/.exec(text.trim()) ?? [];
  if (whole !== undefined)
    return wrong(
      `“${text.trim()}” may be ${whole}.${part} or ${whole}${part}: write ${Number(`${whole}.${part}`)} or ${whole}${part}.`,
    );
  const read = readTyped(text, unit, {});
  if (read.kind === "wrong") return wrong(read.because);
  if (read.kind === "error" || read.bound) return wrong(`“${text.trim()}” is no one value.`);
  const value = Big(read.value).toFixed();
  return KEPT.test(value) ? { kind: "read", value } : wrong(`“${text.trim()}” is out of all range.`);
}

/** A unit of a test plan as it is written behind a number; a lone prefix, minutes and degrees of the other scale are none. */
function unitOf(text: string): Unit | undefined {
  const [word] = /[a-zA-ZµμΩΩ°%][a-zA-Z µμΩΩ°%]*$/.exec(text.trim()) ?? [];
  if (word === undefined || /^[pnuµμmkKMG]$/.test(word)) return undefined;
  return TEST_UNITS.find((u) => {
    const { base, power } = planUnit(u)!;
    const is = readUnit(word, base);
    return is?.base === base && is.power === power && !is.isFahrenheit && is.times === undefined;
  });
}

/**
 * Points as people type them: "0.5 V; 1 V; 2.5 V", "0,5 V, 2,5 V", "0, 5, 10 mV", "500 mV; 1 V" (in the unit of the first). Apart
 * by semicolons, or by commas with a blank behind; a unit at the end alone is that of all.
 */
export function readPoints(text: string): Typed<TypedPoints> {
  const parts = text
    .replace(/[\u00a0\u202f\u2009]/g, " ")
    .split(/;|,\s+|\s+and\s+/)
    .map((p) => p.trim());
  if (parts.some((p) => p === "")) return wrong(`Nothing stands between two marks. ${HOW}`);
  if (parts.length > 20) return wrong("That is more than twenty points.");
  const units = parts.map(unitOf);
  const bare = units.filter((u) => u === undefined).length;
  const isLast = bare === parts.length - 1 && units.at(-1) !== undefined;
  if (bare > 0 && !isLast) {
    const odd = parts[units.indexOf(undefined)]!;
    return wrong(`“${odd}” is in no unit that a plan has. ${HOW}`);
  }
  const unit = (isLast ? units.at(-1) : units[0])!;
  const applied: string[] = [];
  for (const part of parts) {
    const one = amount(part, unit);
    if (one.kind === "wrong") return one;
    if (applied.includes(one.value)) return wrong(`${one.value} ${unit} is in it twice.`);
    applied.push(one.value);
  }
  return { kind: "read", value: { unit, applied } };
}

/** One value in the unit of a point. @param isAbove nothing and less are refused */
export function readInUnit(text: string, unit: Unit, isAbove: boolean): Typed<string> {
  const one = amount(text, unit);
  return one.kind === "read" && isAbove && Big(one.value).lte(0)
    ? wrong(`“${text.trim()}” is nothing.`)
    : one;
}
