import Big from "big.js";
import { normalCdf } from "../sums/evaluate.ts";

/** Whether what is made within its tolerances always goes together, sometimes, or never. */
export type FitVerdict = "fits" | "may-not-fit" | "does-not-fit";

/** A clearance with what its tolerances make of it; lengths in mm, positive is room. */
export interface Clearance {
  readonly nominalMm: number;
  /** Least and most when everything is off as far as it may be. */
  readonly worstMm: readonly [number, number];
  /** Root sum square: three sigma of independent, centred parts. */
  readonly rssMm: readonly [number, number];
  /** Chance that there is no room: Φ(−nominal/σ), σ a third of the root sum square. */
  readonly interference: number;
  readonly verdict: FitVerdict;
  /** How much the worst case lacks; 0 where it fits. */
  readonly missingMm: number;
}

const sum = (list: readonly (number | Big)[]): Big => list.reduce((s: Big, v) => s.plus(v), new Big(0));
const rounded = (v: number) => {
  const r = Math.round(v * 1e6) / 1e6;
  return Object.is(r, -0) ? 0 : r;
};

/**
 * A stack of lengths with their tolerances (domain.md 5.8): worst case ±Σ|tᵢ|, statistical ±√Σtᵢ², chance of interference
 * Φ(−nominal/σ) with σ = √Σtᵢ²/3. Sums are of decimals, so that 1.7 − 1.6 is 0.1 and a clearance of nothing is nothing.
 *
 * @param terms lengths in mm with their sign in the clearance
 * @param tolerances ± of each, mm, not negative
 * @example clearanceOf([1.7, -1.6], [0.13, 0.16]) // 0.1, worst −0.19 … 0.39, interference 0.073 (EX 5.6)
 */
export function clearanceOf(terms: readonly number[], tolerances: readonly number[]): Clearance {
  const nominal = sum(terms);
  const all = sum(tolerances);
  const [least, most] = [nominal.minus(all), nominal.plus(all)];
  const rss = Math.sqrt(tolerances.reduce((s, t) => s + t * t, 0));
  const n = nominal.toNumber();
  return {
    nominalMm: rounded(n),
    worstMm: [rounded(least.toNumber()), rounded(most.toNumber())],
    rssMm: [rounded(n - rss), rounded(n + rss)],
    interference: rss === 0 ? Number(n < 0) : rounded(normalCdf((-3 * n) / rss)),
    verdict: least.gte(0) ? "fits" : most.lt(0) ? "does-not-fit" : "may-not-fit",
    missingMm: least.gte(0) ? 0 : rounded(-least.toNumber()),
  };
}

/** Thicknesses boards are sold in, mm. */
export const STANDARD_MM: readonly number[] = [0.4, 0.6, 0.8, 1.0, 1.2, 1.6, 2.0, 2.4, 3.2];

/** What several readings of one thickness say. */
export interface Readings {
  readonly meanMm: number;
  readonly spreadMm: number;
  /** The thickness that is sold and lies nearest to the mean. */
  readonly standardMm: number;
  /** A reading lies nearer to another one. */
  readonly doubt?: true;
}

/** Reads several readings of one thing with a caliper. @param readings mm, at least one */
export function readingsOf(readings: readonly number[]): Readings {
  const mean = sum(readings).div(readings.length).toNumber();
  const nearest = (v: number) =>
    STANDARD_MM.reduce((best, s) => (Math.abs(s - v) < Math.abs(best - v) ? s : best), STANDARD_MM[0]!);
  const standardMm = nearest(mean);
  return {
    meanMm: rounded(mean),
    spreadMm: rounded(new Big(Math.max(...readings)).minus(Math.min(...readings)).toNumber()),
    standardMm,
    ...(readings.some((r) => nearest(r) !== standardMm) ? { doubt: true as const } : {}),
  };
}
