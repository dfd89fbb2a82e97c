/** "24.000000" → "24.00", "0.008000" → "0.008": no digits that say nothing, cents kept. */
export function trim(decimal: string): string {
  if (!decimal.includes(".")) return decimal;
  const [whole, fraction = ""] = decimal.split(".");
  const kept = fraction.replace(/0+$/, "");
  return `${whole}.${kept.padEnd(2, "0")}`;
}
