/** How a mark between digits is to be read where it could be either. */
export type MarkReading = "decimal" | "grouped";

/** A single mark with just three digits behind it and a whole part that is not nought: 1.234 or 1,234. */
export const isOpenPrice = (price: string): boolean => /^[1-9]\d{0,2}[.,]\d{3}$/.test(price);

/** The decimal mark that the prices which can be read one way only are written with. */
export function decimalMark(prices: readonly string[]): string | undefined {
  for (const p of prices) {
    const marks = [...p.replace(/[^.,]/g, "")];
    const last = marks.at(-1);
    if (last === undefined || isOpenPrice(p)) continue;
    if (new Set(marks).size === 2) return last;
    // the same mark twice groups thousands: the other one is for decimals
    return marks.length > 1 ? (last === "." ? "," : ".") : last;
  }
  return undefined;
}

/**
 * A price as a plain decimal.
 * @param mark the decimal mark the other prices tell
 * @param reading what a person answered where they do not
 * @example plainPrice("1.234,50", ",", undefined) // "1234.50"
 */
export function plainPrice(
  price: string,
  mark: string | undefined,
  reading: MarkReading | undefined,
): string {
  const clean = price.replace(/['’]/g, "");
  const marks = [...clean.replace(/[^.,]/g, "")];
  const last = marks.at(-1);
  if (last === undefined) return clean;
  const isDecimal = isOpenPrice(clean)
    ? mark === undefined
      ? reading === "decimal"
      : last === mark
    : new Set(marks).size === 2 || marks.length === 1;
  if (!isDecimal) return clean.replace(/\D/g, "");
  const at = clean.lastIndexOf(last);
  return `${clean.slice(0, at).replace(/\D/g, "")}.${clean.slice(at + 1)}`;
}
