import { lnGamma } from "./yield.ts";

/** Steps of the continued fraction at most; it ends long before for shapes up to some thousands. */
const MOST_STEPS = 300;
const TINY = 1e-300;

/**
 * Share of a Beta(a, b) below x: the regularised incomplete beta function.
 *
 * Continued fraction by Lentz's method (Press et al., Numerical Recipes, 6.4), on the side where it converges fast. Exact to
 * about 1e−12.
 *
 * @param a shape above 0, as many good ones, in doubt or seen
 * @param b shape above 0
 * @returns 0 at and below x = 0, 1 at and above 1
 */
export function betaBelow(a: number, b: number, x: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - betaBelow(b, a, 1 - x);
  const front = Math.exp(lnGamma(a + b) - lnGamma(a) - lnGamma(b) + a * Math.log(x) + b * Math.log(1 - x));
  const not0 = (v: number) => (Math.abs(v) < TINY ? TINY : v);
  let c = 1;
  let d = 1 / not0(1 - ((a + b) * x) / (a + 1));
  let sum = d;
  for (let m = 1; m <= MOST_STEPS; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    for (const step of [even, odd]) {
      d = 1 / not0(1 + step * d);
      c = not0(1 + step / c);
      sum *= d * c;
    }
    if (Math.abs(d * c - 1) < 1e-14) break;
  }
  return (front * sum) / a;
}

/**
 * What a Beta(a, b) lies between with a chance, as much outside on either side.
 *
 * @param chance above 0 and below 1
 * @example betaInterval(47, 3, 0.9) // 0.8770 … 0.9831 (EX 7.5)
 */
export function betaInterval(a: number, b: number, chance: number): readonly [low: number, high: number] {
  return [quantile(a, b, (1 - chance) / 2), quantile(a, b, (1 + chance) / 2)];
}

/** The value below which a Beta(a, b) lies with a chance, by halving: to 1e−12. */
function quantile(a: number, b: number, chance: number): number {
  let [low, high] = [0, 1];
  for (let i = 0; i < 60 && high - low > 1e-12; i++) {
    const x = (low + high) / 2;
    if (betaBelow(a, b, x) < chance) low = x;
    else high = x;
  }
  return (low + high) / 2;
}
