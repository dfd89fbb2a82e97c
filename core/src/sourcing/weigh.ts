import { between } from "./between.ts";
import { bestFull, coverLine, goodsOf, type Pick } from "./line/cover.ts";
import { splitBound } from "./line/split-bound.ts";
import type { OpenCase } from "./open-case.ts";
import type { Problem, ProblemLine } from "./problem.ts";
import { evaluate, type Improver, type Solution } from "./solution.ts";

/** A line's least cost and how it is bought so; not exact: the cost is a bound. */
export interface Known {
  readonly cost: number;
  readonly pick: Pick | undefined;
  readonly isExact: boolean;
}

/** What a search offers to those who bound its cases. */
export interface Seeking {
  readonly p: Problem;
  /** Prices as they are, duty with them. */
  readonly even: Float64Array;
  readonly improver: Improver;
  /** The cheapest way of a line from some suppliers, at even weights. */
  cover(line: number, open: number): Known | undefined;
  /** Keeps a basket where it is the best so far. */
  take(solution: Solution): void;
  /** True where nothing above this bound can be better. */
  isClosed(bound: number): boolean;
}

/**
 * Raises a case's bound by weighing the prices of suppliers that must reach a floor (Lagrange multipliers by bisection),
 * and looks for baskets on the way.
 *
 * @param isExact splits by what they cost; else by their fractional bound only
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one algorithm: a search for weights that starts again from what it found
export function weighCase(seeking: Seeking, c: OpenCase, isExact: boolean): OpenCase {
  const { p } = seeking;
  const asked = c.floors.flatMap((f, s) => (f > p.fixed[s]! ? [s] : []));
  const weights = Float64Array.from(isExact ? c.weights : seeking.even);
  let bound = c.bound;
  let bestWeights = weights.slice();
  const touched = asked.reduce((m, s) => m | (1 << s), 0);
  let [short, enough]: (Pick[] | undefined)[] = [undefined, undefined];
  // a line is covered anew only where a weight of its suppliers has changed since
  const last: (Known | undefined)[] = new Array(p.lines.length);
  const under = new Float64Array(p.lines.length * weights.length);
  const isSame = (l: number, suppliers: number): boolean => {
    for (let s = 0; s < weights.length; s++)
      if (suppliers & (1 << s) && under[l * weights.length + s] !== weights[s]) return false;
    return true;
  };
  // what each line is bought as at either end of the stretch in which a weight is sought
  let [atLow, atHigh]: (readonly (Known | undefined)[] | undefined)[] = [undefined, undefined];
  const evaluateAt = (): { spend: Float64Array; picks: Pick[] } => {
    let sum = c.fees;
    const picks: Pick[] = [];
    for (let l = 0; l < p.lines.length; l++) {
      const line = p.lines[l]!;
      const own = line.suppliers & c.open;
      let k = last[l];
      if (!k || !isSame(l, own)) {
        k =
          (own & touched) === 0
            ? seeking.cover(l, c.open)!
            : isExact
              ? (sameAtBoth(atLow?.[l], atHigh?.[l], weights) ?? coverLine(line, c.open, weights)!)
              : quick(seeking, line, l, c.open, weights);
        last[l] = k;
        under.set(weights, l * weights.length);
      }
      sum += k.cost;
      picks.push(k.pick ?? seeking.cover(l, c.open)!.pick!);
    }
    for (let s = 0; s < weights.length; s++)
      if (c.open & (1 << s)) sum += weights[s]! * p.fixed[s]! + (p.factor[s]! - weights[s]!) * c.floors[s]!;
    if (sum > bound) {
      bound = sum;
      bestWeights = weights.slice();
    }
    const s = evaluate(p, picks);
    seeking.take(s);
    return { spend: s.spend, picks };
  };
  const passes = asked.length > 1 ? 3 : 1;
  for (let pass = 0; pass < passes; pass++)
    for (const s of asked) {
      let [low, high] = [0, p.factor[s]!];
      [short, enough] = [undefined, undefined];
      [atLow, atHigh] = [undefined, undefined];
      for (let i = 0; i < 12; i++) {
        const lambda = (low + high) / 2;
        weights[s] = p.factor[s]! - lambda;
        const { spend, picks } = evaluateAt();
        if (seeking.isClosed(bound)) return { ...c, bound };
        if (spend[s]! < c.floors[s]!) {
          low = lambda;
          short = picks;
          atLow = [...last];
        } else {
          high = lambda;
          enough = picks;
          atHigh = [...last];
        }
      }
      weights.set(bestWeights);
      if (pass === 0) for (const b of between(p, seeking.improver, c, s, short, enough)) seeking.take(b);
      if (seeking.isClosed(bound)) return { ...c, bound };
    }
  return { ...c, bound, weights: [...bestWeights] };
}

/** The weighted cost of a line, splits by their fractional bound only. */
function quick(seeking: Seeking, line: ProblemLine, l: number, open: number, weights: Float64Array): Known {
  const one = bestFull(line, open, weights);
  const split = splitBound(line, open, weights);
  return {
    cost: Math.min(one.cost, split),
    pick: one.source ? [{ source: one.source, qty: one.source.fullQty }] : seeking.cover(l, open)!.pick,
    isExact: one.cost <= split,
  };
}

/**
 * A line's least cost is concave in a weight: what is best at both ends of a stretch is best within.
 * @returns undefined where the ends differ
 */
function sameAtBoth(
  low: Known | undefined,
  high: Known | undefined,
  weights: ArrayLike<number>,
): Known | undefined {
  const [a, b] = [low?.pick, high?.pick];
  if (!a || !b || !low?.isExact || !high?.isExact) return undefined;
  if (
    a !== b &&
    (a.length !== b.length || a.some((x, i) => x.source !== b[i]!.source || x.qty !== b[i]!.qty))
  )
    return undefined;
  const cost = a.reduce((n, x) => n + goodsOf(x.source, x.qty) * weights[x.source.supplier]!, 0);
  return { cost, pick: a, isExact: true };
}
