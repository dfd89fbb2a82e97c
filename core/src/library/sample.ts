import { readAmount } from "./compare.ts";

/** What was measured on some pieces of a lot, as typed. */
export interface LotSample {
  /** What matters in this part: "gain", "resistance at 25 °C". */
  readonly parameter: string;
  /** Least and most that will do; empty where it does not matter. */
  readonly low: string;
  readonly high: string;
  readonly readings: readonly string[];
  /** ISO date. */
  readonly on: string;
}

/** A sample, computed. */
export interface SampleResult {
  readonly n: number;
  readonly mean: number;
  /** Standard deviation of the sample (n − 1); 0 for a single reading. */
  readonly spread: number;
  readonly min: number;
  readonly max: number;
  /** Readings outside the limits. */
  readonly outside: number;
  /** At least this share of the lot is within the limits, with 90 % confidence. */
  readonly within: number;
  /** Texts that are no amount; they count nowhere. */
  readonly unread: readonly string[];
  /** "hold": something is outside. "few": all within, but so few that a tenth of the lot could be outside unseen. */
  readonly verdict: "fine" | "few" | "hold" | "no limits";
}

/** Confidence with which a share is claimed. */
const CONFIDENCE = 0.9;
/** A sample is enough where it shows this share to be within. */
const ENOUGH = 0.9;

/**
 * Mean, spread and what a sample says of its lot.
 *
 * The share within the limits is the lower end of the exact binomial interval (Clopper and Pearson): the least p under
 * which so many or more within would still be seen in one of ten samples; for n of n it is 0.1^(1/n).
 *
 * @returns undefined where no reading is an amount
 * @example 22 of 22 within → at least 0.9006 of the lot
 */
export function sampleOf(s: LotSample): SampleResult | undefined {
  const low = readAmount(s.low) ?? Number.NEGATIVE_INFINITY;
  const high = readAmount(s.high) ?? Number.POSITIVE_INFINITY;
  const values: number[] = [];
  const unread: string[] = [];
  for (const text of s.readings) {
    const v = readAmount(text);
    if (v === undefined) unread.push(text);
    else values.push(v);
  }
  const n = values.length;
  if (n === 0) return undefined;
  const mean = values.reduce((a, b) => a + b, 0) / n;
  const spread = n < 2 ? 0 : Math.sqrt(values.reduce((a, v) => a + (v - mean) ** 2, 0) / (n - 1));
  const outside = values.filter((v) => v < low || v > high).length;
  const within = leastShare(n, n - outside);
  const hasLimits = Number.isFinite(low) || Number.isFinite(high);
  return {
    n,
    mean,
    spread,
    min: Math.min(...values),
    max: Math.max(...values),
    outside,
    within,
    unread,
    verdict: !hasLimits ? "no limits" : outside > 0 ? "hold" : within < ENOUGH ? "few" : "fine",
  };
}

/** Least p for which k or more of n would be seen with a chance of 1 − confidence; 0 for k = 0. */
function leastShare(n: number, k: number): number {
  if (k === 0) return 0;
  if (k === n) return (1 - CONFIDENCE) ** (1 / n);
  let [lo, hi] = [0, 1];
  for (let i = 0; i < 60; i++) {
    const p = (lo + hi) / 2;
    if (atLeast(n, k, p) < 1 - CONFIDENCE) lo = p;
    else hi = p;
  }
  return lo;
}

/** P(k or more of n), each with chance p, summed from the least likely term that counts. */
function atLeast(n: number, k: number, p: number): number {
  let term = 1;
  for (let i = 0; i < k; i++) term *= ((n - i) / (k - i)) * p;
  term *= (1 - p) ** (n - k);
  let sum = 0;
  for (let i = k; i <= n; i++) {
    sum += term;
    term *= ((n - i) / (i + 1)) * (p / (1 - p));
  }
  return sum;
}

/**
 * How far two samples stand apart.
 * @returns the difference of the means, first less second, as a share of the second; sure where it is more than three
 * times its standard error √(s₁²/n₁ + s₂²/n₂), three readings each at least
 */
export function apart(
  a: SampleResult,
  b: SampleResult,
): { readonly share: number; readonly isSure: boolean } | undefined {
  if (b.mean === 0) return undefined;
  const error = Math.sqrt(a.spread ** 2 / a.n + b.spread ** 2 / b.n);
  return {
    share: (a.mean - b.mean) / Math.abs(b.mean),
    isSure: a.n >= 3 && b.n >= 3 && Math.abs(a.mean - b.mean) > 3 * error,
  };
}
