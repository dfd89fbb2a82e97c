import type { YieldEstimate } from "./yield.ts";
import { betaBinomialAtLeast, binomialAtLeast } from "./yield.ts";

/** How a run may end with too few good boards. */
export interface Shortfall {
  /** That it does. */
  readonly chance: number;
  /** Boards that are missing then, on average. */
  readonly missing: number;
}

/**
 * Chance that fewer are good than wanted, and how many are missing then: Σ P(good < m) over m to the number wanted, by the
 * chance of it (the mean of a whole number is the sum of its tails). 0 missing where it cannot be.
 *
 * @example 2 wanted of 2 started at 0.9: 0.19, and 0.2 / 0.19 missing
 */
export function shortfall(
  started: number,
  wanted: number,
  { final, record }: Pick<YieldEstimate, "final" | "record">,
): Shortfall {
  const atLeast = (m: number) =>
    record ? betaBinomialAtLeast(started, m, record.a, record.b) : binomialAtLeast(started, m, final);
  const chance = 1 - atLeast(wanted);
  if (chance <= 1e-12) return { chance: 0, missing: 0 };
  let sum = 0;
  for (let m = 1; m <= wanted; m++) sum += 1 - atLeast(m);
  return { chance, missing: sum / chance };
}
