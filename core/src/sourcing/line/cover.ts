import type { ProblemLine, Source } from "../problem.ts";
import { splitBound, splitters } from "./split-bound.ts";

/** What is bought of one line: source by source with its quantity. */
export type Pick = readonly { readonly source: Source; readonly qty: number }[];

/** Unit price at an orderable quantity. */
export function priceOf(source: Source, qty: number): number {
  const { windows } = source;
  for (let i = windows.length - 1; i >= 0; i--) if (windows[i]!.lo <= qty) return windows[i]!.price;
  return windows[0]!.price;
}

/** Goods value of a quantity of a source, its own fee with it. */
export const goodsOf = (source: Source, qty: number): number => qty * priceOf(source, qty) + source.fee;

/** Goods value of a pick. */
export const costOf = (pick: Pick): number => pick.reduce((sum, b) => sum + goodsOf(b.source, b.qty), 0);

/** The cheapest single source, weighted. */
export function bestFull(
  line: ProblemLine,
  open: number,
  weight: ArrayLike<number>,
): { readonly cost: number; readonly source: Source | undefined } {
  let cost = Number.POSITIVE_INFINITY;
  let source: Source | undefined;
  for (const s of line.sources) {
    if (!(open & (1 << s.supplier)) || s.full === Number.POSITIVE_INFINITY) continue;
    const c = s.full * weight[s.supplier]!;
    if (c < cost) {
      cost = c;
      source = s;
    }
  }
  return { cost, source };
}

/** Needs beyond which a table of every quantity is not made. */
const MAX_TABLE = 400_000;

/**
 * Exact least weighted cost of covering a line from the open suppliers, splits over any number of offers among them.
 *
 * A table over the pieces still needed, one source after the other, each window by a sliding minimum: O(need × windows)
 * (covering knapsack with bounded multiples). Done only where the fractional bound says that a split could be cheaper
 * than the best single offer.
 *
 * @returns undefined where the open suppliers cannot cover it; `isExact` false where the table would be too large and
 * `cost` is the bound instead
 */
export function coverLine(
  line: ProblemLine,
  open: number,
  weight: ArrayLike<number>,
): { readonly cost: number; readonly pick: Pick | undefined; readonly isExact: boolean } | undefined {
  const one = bestFull(line, open, weight);
  const bound = splitBound(line, open, weight);
  if (one.cost === Number.POSITIVE_INFINITY && bound === Number.POSITIVE_INFINITY) return undefined;
  if (one.source && one.cost <= bound * (1 + 1e-12))
    return { cost: one.cost, pick: [{ source: one.source, qty: one.source.fullQty }], isExact: true };
  if (line.need > MAX_TABLE)
    return {
      cost: bound,
      pick: one.source ? [{ source: one.source, qty: one.source.fullQty }] : undefined,
      isExact: false,
    };
  const openOnes = line.sources.filter((s) => open & (1 << s.supplier));
  const could = splitters(line.need, openOnes, weight, one.cost);
  if (one.source && could.length < 2)
    return { cost: one.cost, pick: [{ source: one.source, qty: one.source.fullQty }], isExact: true };
  // the one that is best alone stays among them: where nothing is cheaper it is what the table finds
  const sources = openOnes.filter((s) => s === one.source || could.includes(s));
  const table = coverTable(line.need, sources, weight, SCRATCH);
  const cost = table.cost[line.need]!;
  if (cost === Number.POSITIVE_INFINITY) return undefined;
  return { cost, pick: table.pick(line.need), isExact: true };
}

/** Least weighted cost of each number of pieces up to `need` from some sources, and how it is reached. */
export interface CoverTable {
  readonly cost: Float64Array;
  readonly pick: (pieces: number) => Pick;
  /** Least cost of each number of pieces from the first source alone, the first two, and so on. */
  readonly stages: readonly Float64Array[];
}

/** Arrays that tables of one thread share, where nothing of a table outlives the question. */
class Scratch {
  private readonly costs: Float64Array[] = [];
  private readonly takes: Int32Array[] = [];

  /** An array for pieces 0 … need of the k-th source; what it holds is left over. */
  cost(k: number, need: number): Float64Array {
    if ((this.costs[k]?.length ?? 0) <= need) this.costs[k] = new Float64Array(Math.ceil((need + 1) * 1.5));
    return this.costs[k]!;
  }

  take(k: number, need: number): Int32Array {
    if ((this.takes[k]?.length ?? 0) <= need) this.takes[k] = new Int32Array(Math.ceil((need + 1) * 1.5));
    return this.takes[k]!;
  }
}
const SCRATCH = new Scratch();

/**
 * Builds the table of {@link coverLine}.
 * @param scratch arrays to use again: the table is good until the next one is built on them
 */
export function coverTable(
  need: number,
  sources: readonly Source[],
  weight: ArrayLike<number>,
  scratch?: Scratch,
): CoverTable {
  let now = scratch?.cost(0, need) ?? new Float64Array(need + 1);
  now.fill(Number.POSITIVE_INFINITY, 0, need + 1);
  now[0] = 0;
  const chosen: Int32Array[] = [];
  const stages: Float64Array[] = [];
  const queue = scratch?.take(sources.length + 1, need + 1) ?? new Int32Array(need + 2);
  for (const [k, s] of sources.entries()) {
    const next = scratch?.cost(k + 1, need) ?? new Float64Array(need + 1);
    next.set(now.subarray(0, need + 1));
    const take = scratch?.take(k, need) ?? new Int32Array(need + 1);
    take.fill(0, 0, need + 1);
    const fee = s.fee * weight[s.supplier]!;
    for (const w of s.windows) {
      const p = w.price * weight[s.supplier]!;
      // what covers all that is left
      for (let r = 1; r <= need; ) {
        const x = Math.max(w.lo, Math.ceil(r / w.step) * w.step);
        if (x > w.hi) break;
        const c = p * x + fee;
        // one quantity serves all rests up to it
        for (const end = Math.min(need, x); r <= end; r++)
          if (c < next[r]!) {
            next[r] = c;
            take[r] = x;
          }
      }
      // what leaves k pieces to the sources before: least of now[k] − p·k over k = r − x, by residue of the step
      if (w.lo >= need) continue;
      for (let residue = 0; residue < w.step; residue++) {
        let [head, tail] = [0, 0];
        let k = residue === 0 ? w.step : residue;
        const first = k + w.lo;
        for (let r = first; r <= need; r += w.step) {
          while (k <= r - w.lo) {
            if (now[k]! < Number.POSITIVE_INFINITY) {
              const key = now[k]! - p * k;
              while (tail > head && now[queue[tail - 1]!]! - p * queue[tail - 1]! >= key) tail--;
              queue[tail++] = k;
            }
            k += w.step;
          }
          while (tail > head && queue[head]! < r - w.hi) head++;
          if (tail === head) continue;
          const from = queue[head]!;
          const c = now[from]! + p * (r - from) + fee;
          if (c < next[r]!) {
            next[r] = c;
            take[r] = r - from;
          }
        }
      }
    }
    now = next;
    stages.push(next);
    chosen.push(take);
  }
  const pick = (pieces: number): Pick => {
    const out: { source: Source; qty: number }[] = [];
    let r = pieces;
    for (let i = sources.length - 1; i >= 0 && r > 0; i--) {
      const x = chosen[i]![r]!;
      if (x === 0) continue;
      out.push({ source: sources[i]!, qty: x });
      r -= x;
    }
    return out;
  };
  return { cost: now, pick, stages };
}
