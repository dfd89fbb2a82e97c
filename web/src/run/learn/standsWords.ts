import { fixed } from "../../ui/text/format.ts";

/** How often something comes by chance, as people say it. */
export function chanceWords(p: number): string {
  if (p >= 0.5) return "more often than not";
  if (p > 0.1) return `once in ${fixed(1 / p, 0)} times`;
  if (p >= 0.001) return `once in ${Number((1 / p).toPrecision(1 / p < 100 ? 2 : 1))} times`;
  return "less than once in a thousand times";
}

/** A share of faults, with no more digits than so few allow. */
export const shareWords = (p: number): string =>
  p < 0.01 ? "under 1 %" : `${fixed(100 * p, p < 0.1 ? 1 : 0)} %`;
