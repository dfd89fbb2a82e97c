import { coverLine, goodsOf, type Pick } from "./line/cover.ts";
import type { Problem, ProblemLine, Source } from "./problem.ts";

/** A basket in the search: a pick for each line, what it comes to at each supplier, and the total with fees. */
export interface Solution {
  readonly picks: readonly Pick[];
  readonly total: number;
  /** Goods at each supplier, fixed goods among them. */
  readonly spend: Float64Array;
}

/** Set against a parcel that is not sold at all, below a supplier's minimum: dearer than any basket. */
export const NOT_SOLD = 1e14;

/** Fee of a parcel with goods of this value. */
export function feeOf(p: Problem, supplier: number, goods: number): number {
  const tiers = p.tiers[supplier]!;
  let fee = NOT_SOLD;
  for (const t of tiers) if (goods >= t.from) fee = t.fee;
  return fee;
}

/** What picks cost in all. */
export function evaluate(p: Problem, picks: readonly Pick[]): Solution {
  const spend = p.fixed.slice();
  let used = p.fixedSuppliers;
  for (const pick of picks)
    for (const b of pick) {
      spend[b.source.supplier]! += goodsOf(b.source, b.qty);
      used |= 1 << b.source.supplier;
    }
  let total = 0;
  for (let s = 0; s < spend.length; s++)
    if (used & (1 << s)) total += Math.round(spend[s]! * p.factor[s]!) + feeOf(p, s, spend[s]!);
  // a copy: whoever goes on changing the list must not change what was priced
  return { picks: [...picks], total, spend };
}

/** Options a line is tried with; beyond them a person would not look either. */
const MOST_OPTIONS = 160;

/** Ways to buy a line that are worth trying: each offer alone at its steps, and pairs where one is bought in part. */
export function optionsOf(p: Problem, line: ProblemLine): Pick[] {
  const out: Pick[] = [];
  for (const s of line.sources) {
    if (s.full < Number.POSITIVE_INFINITY) out.push([{ source: s, qty: s.fullQty }]);
    for (const w of s.windows) if (w.lo > s.fullQty && w.lo > line.need) out.push([{ source: s, qty: w.lo }]);
  }
  for (const a of line.sources)
    for (const w of a.partial)
      for (const x of w.lo === w.hi ? [w.lo] : [w.lo, w.hi])
        for (const b of line.sources) {
          if (b === a || out.length >= MOST_OPTIONS) continue;
          const rest = restFrom(b, line.need - x);
          if (rest > 0)
            out.push([
              { source: a, qty: x },
              { source: b, qty: rest },
            ]);
        }
  const even = coverLine(line, (1 << p.suppliers.length) - 1, p.factor);
  if (even?.pick && even.pick.length > 2) out.push(even.pick);
  return out;
}

/** Least cost quantity of a source that covers a rest; 0 where it cannot. */
function restFrom(s: Source, rest: number): number {
  let qty = 0;
  let cost = Number.POSITIVE_INFINITY;
  for (const w of s.windows) {
    const q = Math.max(w.lo, Math.ceil(rest / w.step) * w.step);
    if (q <= w.hi && q * w.price < cost) {
      cost = q * w.price;
      qty = q;
    }
  }
  return qty;
}

/** A pick with what it comes to, so that trying it is a few additions. */
interface Bought {
  readonly pick: Pick;
  readonly open: number;
  /** Goods with duty. */
  readonly cost: number;
  /** Supplier and goods, for each source. */
  readonly at: readonly number[];
  readonly goods: readonly number[];
}

/**
 * Goes on changing one line at a time while the total falls: another way to buy it, or a few pieces more where that
 * lifts a parcel to its next tier. What a patient person would do; not a proof.
 */
export class Improver {
  private readonly options: (readonly Bought[] | undefined)[];
  private readonly p: Problem;

  constructor(p: Problem) {
    this.p = p;
    this.options = new Array(p.lines.length);
  }

  /** @param open suppliers that may be used */
  // biome-ignore lint/complexity/noExcessiveLinesPerFunction: one algorithm: moves are tried in turn until none helps
  improve(start: Solution, open: number, rounds = 60): Solution {
    const { p } = this;
    const bought = start.picks.map((pick) => this.bought(pick));
    const spend = start.spend.slice();
    const count = new Int32Array(spend.length);
    for (let s = 0; s < spend.length; s++) if (p.fixedSuppliers & (1 << s)) count[s] = 1;
    for (const b of bought) for (const s of b.at) count[s]!++;
    const moved = new Float64Array(spend.length);
    const turned = new Int32Array(spend.length);
    const paid = new Float64Array(spend.length);
    const deltaOf = (old: Bought, next: Bought): number => {
      for (let i = 0; i < old.at.length; i++) {
        moved[old.at[i]!]! -= old.goods[i]!;
        turned[old.at[i]!]!--;
      }
      for (let i = 0; i < next.at.length; i++) {
        moved[next.at[i]!]! += next.goods[i]!;
        turned[next.at[i]!]!++;
      }
      let delta = next.cost - old.cost;
      for (const list of [old.at, next.at])
        for (const s of list) {
          if (turned[s] === 0 && moved[s] === 0) continue;
          const n = count[s]! + turned[s]!;
          delta += (n > 0 ? feeOf(p, s, spend[s]! + moved[s]!) : 0) - paid[s]!;
          moved[s] = 0;
          turned[s] = 0;
        }
      return delta;
    };
    const drop = new Float64Array(spend.length);
    for (let round = 0; round < rounds; round++) {
      // no change can save more than all the fees that are paid and the goods it saves
      let fees = 0;
      for (let s = 0; s < spend.length; s++) {
        paid[s] = count[s]! > 0 ? feeOf(p, s, spend[s]!) : 0;
        // what more goods there could save at most
        drop[s] = count[s]! > 0 ? paid[s]! - p.tiers[s]!.at(-1)!.fee : 0;
        fees += paid[s]!;
      }
      let best = -0.5;
      let at = -1;
      let chosen: Bought | undefined;
      for (let l = 0; l < bought.length; l++) {
        const old = bought[l]!;
        let ends = 0;
        for (const s of old.at) if (count[s] === 1) ends += paid[s]!;
        const consider = (next: Bought) => {
          if ((next.open & ~open) !== 0) return;
          let saved = next.cost - old.cost - ends;
          for (const s of next.at) saved -= drop[s]!;
          if (saved >= best) return;
          const d = deltaOf(old, next);
          if (d < best) {
            best = d;
            at = l;
            chosen = next;
          }
        };
        for (const next of this.optionsFor(l)) {
          if (next.cost - old.cost - fees >= best) break;
          consider(next);
        }
        for (const next of this.lifts(l, old, spend, count, old.cost + fees + best)) consider(next);
      }
      if (at < 0 || !chosen) break;
      const old = bought[at]!;
      old.at.forEach((s, i) => {
        spend[s]! -= old.goods[i]!;
        count[s]!--;
      });
      const next: Bought = chosen;
      next.at.forEach((s, i) => {
        spend[s]! += next.goods[i]!;
        count[s]!++;
      });
      bought[at] = next;
    }
    return evaluate(
      p,
      bought.map((b) => b.pick),
    );
  }

  private bought(pick: Pick): Bought {
    const goods = pick.map((b) => goodsOf(b.source, b.qty));
    return {
      pick,
      open: pick.reduce((m, b) => m | (1 << b.source.supplier), 0),
      cost: pick.reduce((n, b, i) => n + goods[i]! * this.p.factor[b.source.supplier]!, 0),
      at: pick.map((b) => b.source.supplier),
      goods,
    };
  }

  /** Ways to buy a line, the cheapest first. */
  private optionsFor(l: number): readonly Bought[] {
    let list = this.options[l];
    if (!list) {
      list = optionsOf(this.p, this.p.lines[l]!)
        .map((pick) => this.bought(pick))
        .sort((a, b) => a.cost - b.cost);
      this.options[l] = list;
    }
    return list;
  }

  /** The line bought at a supplier in just the quantity that lifts its parcel to the next tier. */
  private lifts(l: number, old: Bought, spend: Float64Array, count: Int32Array, dearest: number): Bought[] {
    const { p } = this;
    const out: Bought[] = [];
    for (let s = 0; s < spend.length; s++) {
      if (p.tiers[s]!.length < 2) continue;
      // a parcel that is not sent yet is lifted to where it costs least
      const tier = count[s] === 0 ? p.tiers[s]!.at(-1)! : p.tiers[s]!.find((t) => t.from > spend[s]!);
      if (!tier) continue;
      const k = old.at.indexOf(s);
      const present = k < 0 ? undefined : old.pick[k]!;
      const goal = tier.from - spend[s]! + (k < 0 ? 0 : old.goods[k]!);
      if (goal >= dearest) continue;
      for (const source of p.lines[l]!.sources) {
        if (source.supplier !== s || (present && present.source !== source)) continue;
        for (const w of source.windows) {
          const q = Math.max(w.lo, Math.ceil(Math.ceil((goal - source.fee) / w.price) / w.step) * w.step);
          if (q > w.hi || !(q * w.price + source.fee >= goal)) continue;
          const others = present ? old.pick.filter((b) => b !== present) : [];
          const rest = others.reduce((n, b) => n + b.qty, 0);
          if (q + rest >= p.lines[l]!.need) out.push(this.bought([...others, { source, qty: q }]));
        }
      }
    }
    return out;
  }
}
