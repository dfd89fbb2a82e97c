import type { ProblemLine, Source, Window } from "../problem.ts";

/**
 * Lower bound of covering a line in part from several of its sources: the need filled fractionally, cheapest weighted
 * price first, each source up to what it can give in part. Infinite where that does not reach.
 *
 * @param weight of each supplier's prices
 */
export function splitBound(line: ProblemLine, open: number, weight: ArrayLike<number>): number {
  let rest = line.need;
  let cost = 0;
  let last = -1;
  const { sources } = line;
  let parts = 0;
  for (const s of sources) if (open & (1 << s.supplier) && s.mostPartial > 0) parts++;
  if (parts < 2) return Number.POSITIVE_INFINITY;
  // few sources: the next cheapest is looked for anew each time
  const taken = new Uint8Array(sources.length);
  while (rest > 0) {
    last = -1;
    let least = Number.POSITIVE_INFINITY;
    for (let i = 0; i < sources.length; i++) {
      const s = sources[i]!;
      if (taken[i] || s.mostPartial === 0 || !(open & (1 << s.supplier))) continue;
      const p = s.leastPartial * weight[s.supplier]!;
      if (p < least) {
        least = p;
        last = i;
      }
    }
    if (last < 0) return Number.POSITIVE_INFINITY;
    taken[last] = 1;
    const q = Math.min(rest, sources[last]!.mostPartial);
    cost += q * least;
    rest -= q;
  }
  return cost;
}

/** A bound is only trusted beyond the last bits of the sums it is held against. */
const ROOM = 1 + 1e-9;

/**
 * The sources that could be in a split no dearer than what is known: each has to give at least its smallest lot of one of its
 * windows, and what is left costs at least the cheapest piece of the others, so that a large first lot or a dear small one
 * rules a source out. Done again while one falls, since the others then lose their cheapest. Two that are left are held
 * against each other on the lots of both.
 *
 * @param known weighted cost of a cover that is there already; infinite where there is none
 * @returns in their old order; fewer than two: no split is cheaper
 */
export function splitters(
  need: number,
  sources: readonly Source[],
  weight: ArrayLike<number>,
  known: number,
): readonly Source[] {
  let left = sources.filter((s) => s.mostPartial > 0);
  if (known === Number.POSITIVE_INFINITY) return left;
  const most = known * ROOM;
  for (;;) {
    const fit = left.filter((s) => withSource(need, s, left, weight) <= most);
    if (fit.length === left.length) break;
    left = fit;
  }
  if (left.length !== 2) return left.length < 2 ? [] : left;
  const [a, b] = left as [Source, Source];
  return Math.max(pairBound(need, a, b, weight), pairBound(need, b, a, weight)) <= most ? left : [];
}

/** Least a split may cost that has a source in it: the source's lots at their price, the rest at the others' cheapest. */
function withSource(need: number, s: Source, all: readonly Source[], weight: ArrayLike<number>): number {
  let other = Number.POSITIVE_INFINITY;
  for (const o of all) if (o !== s) other = Math.min(other, o.leastPartial * weight[o.supplier]!);
  const own = weight[s.supplier]!;
  let least = Number.POSITIVE_INFINITY;
  if (other === Number.POSITIVE_INFINITY) return least;
  // straight in between: the least is at an end
  for (const w of s.partial)
    for (const q of [w.lo, w.hi]) least = Math.min(least, (w.price * q + s.fee) * own + (need - q) * other);
  return least;
}

/** Least that two sources together may cost, the first in its own lots, the second by the piece. */
function pairBound(need: number, a: Source, b: Source, weight: ArrayLike<number>): number {
  const [wa, wb] = [weight[a.supplier]!, weight[b.supplier]!];
  const fees = a.fee * wa + b.fee * wb;
  let least = Number.POSITIVE_INFINITY;
  for (const v of a.partial)
    for (const w of b.partial)
      for (const at of [v.lo, v.hi, need - w.lo, need - w.hi])
        for (const q of lotsAt(v, at)) {
          const rest = Math.max(w.lo, need - q);
          if (rest <= w.hi) least = Math.min(least, fees + v.price * wa * q + w.price * wb * rest);
        }
  return least;
}

/** Quantities of a window next to a number, below it and above. */
function lotsAt({ lo, hi, step }: Window, at: number): readonly number[] {
  const below = lo + Math.floor((at - lo) / step) * step;
  return [below, below + step].filter((q) => q >= lo && q <= hi);
}
