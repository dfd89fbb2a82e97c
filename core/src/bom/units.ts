import { type Cells, plain } from "../table/columns.ts";
import { readValue } from "./value.ts";

/** Where a list has the units of its values: in the value's heading, or in a column of their own. */
export interface ValueUnits {
  /** Of every value without one. */
  readonly all?: string;
  /** The column that holds each line's. */
  readonly column?: number;
}

const UNIT = /^(?:[pnuµμmkKMG]?(?:Ω|\u2126|ohms?|F|H|Hz)|k|M)$/i;
const IN_HEADING = /[([/]\s*([^()[\]/]{1,8}?)\s*[)\]]?\s*$|\bin\s+(\S{1,6})\s*$/i;

/** A unit that a heading names behind its word: "Value (kΩ)", "Wert in kOhm", "Value / nF". */
export function unitInHeading(heading: string): string | undefined {
  const m = IN_HEADING.exec(heading.trim());
  const unit = (m?.[1] ?? m?.[2])?.trim();
  return unit !== undefined && UNIT.test(unit) ? unit : undefined;
}

/** A unit and nothing else it could be: F alone is a side of the board, M a size. */
const CERTAIN = /^(?:[pnuµμmkKMG]?(?:Ω|\u2126|ohms?)|[pnuµμ]F|[nuµμm]H|[kKMG]Hz)$/i;
const OF_UNITS = /\b(units?|uom|einheit(en)?|unité|unidad|unidade|unità|eenheid|jednostka|jednotka|enhet)\b/;

/**
 * A column that holds nothing but units, at least one of them for certain or under a heading of units.
 * @param rows those that name parts
 * @param free columns nothing else is
 */
export function unitColumn(
  rows: Cells,
  free: readonly number[],
  heads: readonly string[],
): number | undefined {
  return free.find((i) => {
    const filled = rows.map((r) => (r[i] ?? "").trim()).filter((t) => t !== "");
    return (
      filled.length > 0 &&
      filled.filter((t) => UNIT.test(t)).length >= 0.9 * filled.length &&
      (OF_UNITS.test(plain(heads[i] ?? "")) || filled.some((t) => CERTAIN.test(t)))
    );
  });
}

/** A number and nothing behind it. */
export const isBare = (text: string): boolean => /^[+-]?\d+([.,]\d+)?$/.test(text.trim());

/**
 * A bare number with its unit behind it, where a part of that letter can have one; whatever else stands there stays as it is.
 * @param ref any reference of the line
 */
export function withUnit(text: string, unit: string | undefined, ref: string | undefined): string {
  if (unit === undefined || unit === "" || !isBare(text)) return text;
  const whole = `${text.trim()} ${unit}`;
  return readValue(whole, ref).value === null ? text : whole;
}
