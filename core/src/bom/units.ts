import type { Cells } from "../table/columns.ts";

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

/** A column that holds nothing but units. @param rows those that name parts @param free columns nothing else is */
export function unitColumn(rows: Cells, free: readonly number[]): number | undefined {
  return free.find((i) => {
    const filled = rows.map((r) => (r[i] ?? "").trim()).filter((t) => t !== "");
    return filled.length > 0 && filled.filter((t) => UNIT.test(t)).length >= 0.9 * filled.length;
  });
}

/** A bare number with its unit behind it; whatever else stands there stays as it is. */
export const withUnit = (text: string, unit: string | undefined): string =>
  unit !== undefined && unit !== "" && /^[+-]?\d+([.,]\d+)?$/.test(text.trim())
    ? `${text.trim()} ${unit}`
    : text;
