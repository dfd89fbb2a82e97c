import { normalCdf } from "../sums/evaluate.ts";
import type { Clearance } from "./stack.ts";

/**
 * Chance that every hole of a pattern goes over its post (domain.md 5.8, EX 5.10). A hole is off from its post by a
 * Rayleigh distance, so with a radial clearance c one goes on with 1 − exp(−c²/(2σ²)), σ = √(post² + hole²)/3 on each axis;
 * its size is off by a normal τ = size/3, over which that is taken in the mean. Holes are off independently of each
 * other, and the board is not moved to where it would go on best: the true chance is not lesser.
 *
 * @param room of each hole over its post, diameters, mm, as drawn
 * @param tolerances ± of the places on each axis and of the holes' size, mm: three sigma each
 * @returns 0 to 1
 * @example four holes of 3.2 over posts of 3.0, places ± 0.1: 0.640; one alone 0.8946
 */
export function chanceOfAll(
  room: readonly number[],
  tolerances: { readonly postMm: number; readonly holeMm: number; readonly sizeMm: number },
): number {
  const sigma = Math.hypot(tolerances.postMm, tolerances.holeMm) / 3;
  const tau = tolerances.sizeMm / 3;
  return room.reduce((p, r) => p * chanceOfOne(r, sigma, tau), 1);
}

/** ∫ N(u; room, τ)·(1 − e^(−ku²)) du over u ≥ 0, k = 1/(8σ²), by completing the square. */
function chanceOfOne(room: number, sigma: number, tau: number): number {
  const isWide = tau === 0 ? Number(room >= 0) : normalCdf(room / tau);
  if (sigma === 0) return isWide;
  const k = 1 / (8 * sigma * sigma);
  const spread = 1 + 2 * k * tau * tau;
  const off = Math.exp((-k * room * room) / spread) / Math.sqrt(spread);
  const part = tau === 0 ? isWide : normalCdf(room / (tau * Math.sqrt(spread)));
  return Math.max(0, isWide - off * part);
}

/** Share of what is made that does not go together, 0 to 1: of a pattern of all its holes, else of the one clearance. */
export const missChance = (r: Clearance & { readonly goesTogether?: number }): number =>
  r.goesTogether === undefined ? r.interference : 1 - r.goesTogether;
