import { bestFull } from "./line/cover.ts";
import { splitBound } from "./line/split-bound.ts";
import { MAX_SUPPLIERS, type Problem, type ProblemLine } from "./problem.ts";

/** Sets of suppliers to price, as bits, each with a bound under which none of its baskets is; the least first. */
export interface SupplierSets {
  readonly sets: readonly (readonly [bound: number, open: number])[];
  /** No basket of a set that is not among them is cheaper; infinite where all are. */
  readonly untried: number;
}

/**
 * Sets of suppliers that can cover every line, with a bound each, the least first. Suppliers without whom some line
 * cannot be covered are in every set; of the others the most useful are tried in every combination.
 */
export function setsOfSuppliers(p: Problem): SupplierSets {
  const forced = p.fixedSuppliers | neededBy(p.lines);
  const free = p.suppliers.map((_, s) => s).filter((s) => !(forced & (1 << s)));
  const tried = free.length > MAX_SUPPLIERS ? mostUseful(p, free) : free;
  const all = 1 << tried.length;
  const least = (m: number) =>
    p.suppliers.reduce(
      (n, _, s) => (m & (1 << s) ? n + p.tiers[s]!.at(-1)!.fee + p.fixed[s]! * p.factor[s]! : n),
      0,
    );
  const coverBound = (line: ProblemLine, open: number) =>
    Math.min(bestFull(line, open, p.factor).cost, splitBound(line, open, p.factor));
  // what the others could save at most is told as the gap
  const untried =
    tried.length < free.length
      ? p.lines.reduce((n, line) => n + coverBound(line, (1 << p.suppliers.length) - 1), least(forced))
      : Number.POSITIVE_INFINITY;
  const masks = new Int32Array(all);
  for (let m = 1; m < all; m++) {
    const low = m & -m;
    masks[m] = masks[m ^ low]! | (1 << tried[31 - Math.clz32(low)]!);
  }
  const bound = new Float64Array(all);
  const memo = new Float64Array(all);
  for (const line of p.lines) {
    let own = 0;
    tried.forEach((s, k) => {
      if (line.suppliers & (1 << s)) own |= 1 << k;
    });
    const always = line.suppliers & forced;
    for (let sub = own; ; sub = (sub - 1) & own) {
      memo[sub] = coverBound(line, always | masks[sub]!);
      if (sub === 0) break;
    }
    for (let m = 0; m < all; m++) bound[m]! += memo[m & own]!;
  }
  const out: [number, number][] = [];
  for (let m = 0; m < all; m++) {
    const open = forced | masks[m]!;
    if (bound[m] === Number.POSITIVE_INFINITY || bits(open) > p.maxParcels) continue;
    out.push([bound[m]! + least(open), open]);
  }
  return { sets: out.sort((a, b) => a[0] - b[0] || a[1] - b[1]), untried };
}

/** Suppliers without whom some line cannot be covered. */
function neededBy(lines: readonly ProblemLine[]): number {
  let needed = 0;
  for (const line of lines) {
    const most = (without: number) =>
      line.sources.reduce(
        (n, s) => (s.supplier === without ? n : n + s.windows.reduce((m, w) => Math.max(m, w.hi), 0)),
        0,
      );
    for (const { supplier } of line.sources)
      if (!(needed & (1 << supplier)) && most(supplier) < line.need) needed |= 1 << supplier;
  }
  return needed;
}

/** The suppliers that are cheapest for the most lines, then those that have the most. */
function mostUseful(p: Problem, free: readonly number[]): number[] {
  const score = new Float64Array(p.suppliers.length);
  for (const line of p.lines) {
    for (const s of line.sources) score[s.supplier]! += 0.01;
    const { source } = bestFull(line, (1 << p.suppliers.length) - 1, p.factor);
    if (source) score[source.supplier]! += 1;
  }
  return [...free]
    .sort((a, b) => score[b]! - score[a]! || a - b)
    .slice(0, MAX_SUPPLIERS)
    .sort((a, b) => a - b);
}

function bits(m: number): number {
  let n = 0;
  for (let v = m; v > 0; v &= v - 1) n++;
  return n;
}
