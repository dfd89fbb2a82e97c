/** ln of the binomial coefficient, by sums: lots are small. */
function lnChoose(n: number, k: number): number {
  let sum = 0;
  for (let i = 1; i <= k; i++) sum += Math.log((n - k + i) / i);
  return sum;
}

/**
 * Chance that a sample without a bad piece in it comes out of a lot that has some: C(N − D, n) / C(N, n) (domain.md 9.3).
 *
 * @param lot pieces N; @param bad of them, D; @param taken n
 * @example escapeOf(30, 3, 16) // 0.08966, EX 9.1
 */
export function escapeOf(lot: number, bad: number, taken: number): number {
  if (taken > lot - bad) return 0;
  return Math.exp(lnChoose(lot - bad, taken) - lnChoose(lot, taken));
}

/** A lot with as many bad ones is to be found out with this certainty, unless somebody wants it otherwise. */
export const BAD_SHARE = 0.1;
export const SURE = 0.9;

/**
 * Fewest pieces to look at so that a lot with a share of bad ones is caught with a certainty, where one bad piece refuses it
 * (domain.md 9.3: acceptance number 0, D = ⌈f·N⌉).
 *
 * O(N). @returns 0 for an empty lot
 * @example sampleSize(30) // 16
 */
export function sampleSize(lot: number, share = BAD_SHARE, sure = SURE): number {
  const bad = Math.min(lot, Math.ceil(share * lot - 1e-9));
  for (let n = 0; n <= lot; n++) if (escapeOf(lot, bad, n) <= 1 - sure + 1e-12) return lot === 0 ? 0 : n;
  return lot;
}
