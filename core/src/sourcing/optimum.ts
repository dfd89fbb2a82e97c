import { CaseTables, type CloseEffort, closeCase } from "./close.ts";
import { coverLine, type Pick } from "./line/cover.ts";
import type { OpenCase } from "./open-case.ts";
import type { Problem } from "./problem.ts";
import { setsOfSuppliers } from "./sets.ts";
import { evaluate, Improver, type Solution } from "./solution.ts";
import { type Known, type Seeking, weighCase } from "./weigh.ts";

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

class Search implements Seeking {
  readonly p: Problem;
  private readonly effort: Effort;
  private readonly known: Map<number, Known | undefined>[];
  readonly even: Float64Array;
  readonly improver: Improver;
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
      const after = weighCase(this, c, false);
      if (!this.isClosed(after.bound)) weak.push(after);
    }
    weak.sort((a, b) => a.bound - b.bound);
    const left: OpenCase[] = [];
    for (const c of weak) {
      if (this.isClosed(c.bound)) continue;
      const after = weighCase(this, c, true);
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
  isClosed(bound: number): boolean {
    return this.best !== undefined && bound > this.best.total - this.p.grain + 0.01;
  }

  take(s: Solution): void {
    if (
      !this.best ||
      s.total < this.best.total ||
      (s.total === this.best.total && parcels(s) < parcels(this.best))
    )
      this.best = s;
  }

  cover(l: number, open: number): Known | undefined {
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

  /**
   * Tries a case out, first as if a basket just above its bound were known, then farther: what is found so is the
   * case's best, and the work goes by how good the bound is, not by how good the best basket was.
   *
   * @returns the case with its bound raised as far as was tried; undefined when it is closed
   */
  private close(c: OpenCase): OpenCase | undefined {
    const { grain } = this.p;
    let bound = c.bound;
    const tables = new CaseTables(this.p, c);
    for (let step = Math.max(grain, (this.best!.total - c.bound) / 256); ; step *= 2) {
      const all = this.best!.total - grain;
      const limit = Math.min(all, c.bound + step);
      const closed = closeCase(this.p, c, limit, this.effort.close, tables);
      if (closed.kind === "too-much") return { ...c, bound };
      if (closed.picks) {
        this.take(evaluate(this.p, closed.picks));
        return undefined;
      }
      bound = limit;
      if (limit >= all) return undefined;
    }
  }
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
