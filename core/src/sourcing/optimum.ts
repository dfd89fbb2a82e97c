import { between } from "./between.ts";
import { type CloseEffort, closeCase } from "./close.ts";
import { bestFull, coverLine, goodsOf, type Pick, splitBound } from "./cover.ts";
import type { Problem, ProblemLine } from "./problem.ts";
import { setsOfSuppliers } from "./sets.ts";
import { evaluate, Improver, type Solution } from "./solution.ts";

/** A case that the search could not close: suppliers open, and the goods value some of them must reach. */
export interface OpenCase {
  readonly open: number;
  /** Goods each supplier must reach; 0 where nothing is asked. */
  readonly floors: readonly number[];
  /** Fees that are paid in this case. */
  readonly fees: number;
  /** No basket of this case is cheaper. */
  readonly bound: number;
  /** Weight of each supplier's prices under which the bound holds. */
  readonly weights: readonly number[];
}

/** What a search found. */
export interface Optimum {
  readonly best: Solution;
  /** No basket is cheaper than this. */
  readonly bound: number;
  readonly isProven: boolean;
  /** Cases left open, the least bound first; empty when proven. */
  readonly left: readonly OpenCase[];
  /** Least bound of what was not even made a case: infinite as a rule. */
  readonly givenUp: number;
}

/** How much is tried; counted in steps, not in time, so that the same input gives the same answer everywhere. */
export interface Effort {
  /** Sets of suppliers priced exactly. */
  readonly subsets: number;
  /** Cases bounded by weighing prices. */
  readonly cases: number;
  /** What is tried to close a case. */
  readonly close: CloseEffort;
}

export const USUAL_EFFORT: Effort = {
  subsets: 600,
  cases: 1500,
  close: { ways: 4000, labels: 8000, steps: 400_000 },
};

/** For figures that follow every keystroke: a fraction of a usual search. */
export const QUICK_EFFORT: Effort = {
  subsets: 120,
  cases: 200,
  close: { ways: 1500, labels: 3000, steps: 60_000 },
};

/** Cases kept at most: with many thresholds there are more than anybody could weigh. */
const MOST_CASES = 60_000;

interface Known {
  readonly cost: number;
  readonly pick: Pick | undefined;
  readonly isExact: boolean;
}

/**
 * The cheapest basket: goods and parcel fees together, with what is proven of it.
 *
 * Every set of suppliers in order of a cheap bound; within a set each line in its cheapest way, splits included, is
 * exact unless a parcel must reach a tier it does not reach by itself. Such a case is bounded by weighing the prices of
 * the suppliers that must reach their tier (Lagrange multipliers by bisection), first with a fractional bound for
 * splits, then with exact ones. What the bound does not close is left to the general solver (model of domain.md 4.4).
 * A tier that the cheapest lines reach by themselves is asked too wherever another one is: lifting one parcel may rob
 * another.
 *
 * Bounds are doubles; a case is closed when no basket of it could be cheaper by one grain of the money involved.
 */
export function searchOptimum(p: Problem, effort: Effort = USUAL_EFFORT): Optimum | undefined {
  return new Search(p, effort).run();
}

class Search {
  private readonly p: Problem;
  private readonly effort: Effort;
  private readonly known: Map<number, Known | undefined>[];
  private readonly even: Float64Array;
  private readonly improver: Improver;
  private best: Solution | undefined;
  /** Most that can be spent at each supplier. */
  private reach: Float64Array = new Float64Array(0);
  /** Least bound of what was given up. */
  private givenUp = Number.POSITIVE_INFINITY;

  constructor(p: Problem, effort: Effort) {
    this.p = p;
    this.effort = effort;
    this.known = p.lines.map(() => new Map());
    this.even = p.factor;
    this.improver = new Improver(p);
  }

  run(): Optimum | undefined {
    const { p } = this;
    const { sets, untried } = setsOfSuppliers(p);
    this.givenUp = p.isPartial ? 0 : untried;
    if (p.lines.length === 0) {
      const best = evaluate(p, []);
      return { best, bound: best.total, isProven: true, left: [], givenUp: Number.POSITIVE_INFINITY };
    }
    const cases: OpenCase[] = [];
    this.reach = reachOf(p);
    let priced = 0;
    for (const [bound, open] of sets) {
      if (this.isClosed(bound)) break;
      if (++priced > this.effort.subsets) {
        this.givenUp = Math.min(this.givenUp, bound);
        break;
      }
      this.price(open, priced, cases);
    }
    if (!this.best) return undefined;
    cases.sort((a, b) => a.bound - b.bound);
    const weak: OpenCase[] = [];
    let weighed = 0;
    for (const c of cases) {
      if (this.isClosed(c.bound)) break;
      if (++weighed > this.effort.cases) {
        this.givenUp = Math.min(this.givenUp, c.bound);
        break;
      }
      const after = this.weigh(c, false);
      if (!this.isClosed(after.bound)) weak.push(after);
    }
    weak.sort((a, b) => a.bound - b.bound);
    const left: OpenCase[] = [];
    for (const c of weak) {
      if (this.isClosed(c.bound)) continue;
      const after = this.weigh(c, true);
      if (this.isClosed(after.bound)) continue;
      const rest = this.close(after);
      if (rest) left.push(rest);
    }
    const open = left.filter((c) => !this.isClosed(c.bound)).sort((a, b) => a.bound - b.bound);
    const bound = Math.min(this.givenUp, open[0]?.bound ?? Number.POSITIVE_INFINITY);
    const isProven = this.isClosed(bound);
    return {
      best: this.best,
      bound: isProven ? this.best.total : bound,
      isProven,
      left: isProven ? [] : open,
      givenUp: this.givenUp,
    };
  }

  /** True where nothing under this bound can be cheaper than what is known. */
  private isClosed(bound: number): boolean {
    return this.best !== undefined && bound > this.best.total - this.p.grain + 0.01;
  }

  private take(s: Solution): void {
    if (
      !this.best ||
      s.total < this.best.total ||
      (s.total === this.best.total && parcels(s) < parcels(this.best))
    )
      this.best = s;
  }

  private cover(l: number, open: number): Known | undefined {
    const line = this.p.lines[l]!;
    const sub = open & line.suppliers;
    const map = this.known[l]!;
    if (map.has(sub)) return map.get(sub);
    const found = coverLine(line, sub, this.even);
    map.set(sub, found);
    return found;
  }

  /** Prices a set of suppliers, and lists the cases in which a parcel must reach a tier it does not reach by itself. */
  private price(open: number, nth: number, cases: OpenCase[]): void {
    const { p } = this;
    const picks: Pick[] = [];
    let base = 0;
    let isExact = true;
    for (let l = 0; l < p.lines.length; l++) {
      const k = this.cover(l, open);
      if (!k) return;
      base += k.cost;
      if (!k.isExact) isExact = false;
      picks.push(k.pick ?? []);
    }
    if (picks.some((k) => k.length === 0)) {
      this.givenUp = Math.min(this.givenUp, base);
      return;
    }
    const own = evaluate(p, picks);
    this.take(own);
    if (nth <= 16) this.take(this.improver.improve(own, open));
    for (let s = 0; s < p.suppliers.length; s++) if (open & (1 << s)) base += p.fixed[s]! * p.factor[s]!;
    const members = p.suppliers.map((_, s) => s).filter((s) => open & (1 << s));
    // the least any basket of this set can be, whatever is lifted
    if (!isExact)
      this.givenUp = Math.min(this.givenUp, base + members.reduce((a, s) => a + p.tiers[s]!.at(-1)!.fee, 0));
    const floors = p.suppliers.map(() => 0);
    const choose = (k: number, fees: number, isLifted: boolean): void => {
      if (this.isClosed(base + fees)) return;
      if (cases.length >= MOST_CASES) {
        this.givenUp = Math.min(this.givenUp, base + fees);
        return;
      }
      if (k === members.length) {
        if (isLifted)
          cases.push({
            open,
            floors: [...floors],
            fees,
            bound: base + fees,
            weights: [...this.even],
          });
        return;
      }
      const s = members[k]!;
      for (const t of p.tiers[s]!) {
        if (t.from > this.reach[s]!) continue;
        floors[s] = t.from;
        choose(k + 1, fees + t.fee, isLifted || t.from > own.spend[s]!);
      }
      floors[s] = 0;
    };
    choose(0, 0, false);
  }

  /** Raises a case's bound by weighing the prices of suppliers that must reach a floor, and looks for baskets on the way. */
  private weigh(c: OpenCase, isExact: boolean): OpenCase {
    const { p } = this;
    const asked = c.floors.flatMap((f, s) => (f > p.fixed[s]! ? [s] : []));
    const weights = Float64Array.from(isExact ? c.weights : this.even);
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
              ? this.cover(l, c.open)!
              : isExact
                ? (sameAtBoth(atLow?.[l], atHigh?.[l], weights) ?? coverLine(line, c.open, weights)!)
                : this.quick(line, l, c.open, weights);
          last[l] = k;
          under.set(weights, l * weights.length);
        }
        sum += k.cost;
        picks.push(k.pick ?? this.cover(l, c.open)!.pick!);
      }
      for (let s = 0; s < weights.length; s++)
        if (c.open & (1 << s)) sum += weights[s]! * p.fixed[s]! + (p.factor[s]! - weights[s]!) * c.floors[s]!;
      if (sum > bound) {
        bound = sum;
        bestWeights = weights.slice();
      }
      const s = evaluate(p, picks);
      this.take(s);
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
          if (this.isClosed(bound)) return { ...c, bound };
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
        if (pass === 0) for (const b of between(p, this.improver, c, s, short, enough)) this.take(b);
        if (this.isClosed(bound)) return { ...c, bound };
      }
    return { ...c, bound, weights: [...bestWeights] };
  }

  /**
   * Tries a case out, first as if a basket just above its bound were known, then farther: what is found so is the
   * case's best, and the work goes by how good the bound is, not by how good the best basket was.
   *
   * @returns the case with its bound raised as far as was tried; undefined when it is closed
   */
  private close(c: OpenCase): OpenCase | undefined {
    const { grain } = this.p;
    let bound = c.bound;
    for (let step = Math.max(grain, (this.best!.total - c.bound) / 256); ; step *= 2) {
      const all = this.best!.total - grain;
      const limit = Math.min(all, c.bound + step);
      const closed = closeCase(this.p, c, limit, this.effort.close);
      if (closed.kind === "too-much") return { ...c, bound };
      if (closed.picks) {
        this.take(evaluate(this.p, closed.picks));
        return undefined;
      }
      bound = limit;
      if (limit >= all) return undefined;
    }
  }

  /** The weighted cost of a line, splits by their fractional bound only. */
  private quick(line: ProblemLine, l: number, open: number, weights: Float64Array): Known {
    const one = bestFull(line, open, weights);
    const split = splitBound(line, open, weights);
    return {
      cost: Math.min(one.cost, split),
      pick: one.source ? [{ source: one.source, qty: one.source.fullQty }] : this.cover(l, open)!.pick,
      isExact: one.cost <= split,
    };
  }
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

const parcels = (s: Solution) => s.spend.reduce((n, v) => n + (v > 0 ? 1 : 0), 0);

/** Goods value of all a supplier has of the lines. */
function reachOf(p: Problem): Float64Array {
  const reach = p.fixed.slice();
  for (const line of p.lines)
    for (const s of line.sources)
      reach[s.supplier]! += s.windows.reduce((m, w) => Math.max(m, w.hi * w.price + s.fee), 0);
  return reach;
}
