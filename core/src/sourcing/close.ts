import { costOf, coverLine, coverTable, type Pick } from "./line/cover.ts";
import type { OpenCase } from "./open-case.ts";
import type { Problem, Source } from "./problem.ts";
import { evaluate } from "./solution.ts";

/** Ways a line may be bought in a case, and what of it the case asks for. */
interface Way {
  readonly cost: number;
  /** Goods at each asked supplier. */
  readonly lift: readonly number[];
  /** Cost less its share of the lifts: what it adds to the bound. */
  readonly reduced: number;
  readonly pick: Pick;
}

interface Label {
  readonly cost: number;
  readonly lift: readonly number[];
  readonly reduced: number;
  readonly way: Way | undefined;
  readonly from: Label | undefined;
}

/** What closing a case gave: proven that nothing in it is better, or better picks, or too much to try. */
export type Closed =
  | { readonly kind: "closed"; readonly picks?: readonly Pick[] }
  | { readonly kind: "too-much" };

/** How much is tried before a case is left open; steps, not time. */
export interface CloseEffort {
  readonly ways: number;
  readonly labels: number;
  readonly steps: number;
}

const MOST_TABLE = 400_000;

/** What a case's lines cost at its weights, however much dearer a basket may be: worked out once, and asked at each limit. */
export class CaseTables {
  private readonly p: Problem;
  private readonly c: OpenCase;
  private readonly least: (ReturnType<typeof coverLine> | "not asked")[];
  private readonly rests: (readonly Float64Array[] | undefined)[];

  constructor(p: Problem, c: OpenCase) {
    this.p = p;
    this.c = c;
    this.least = p.lines.map(() => "not asked" as const);
    this.rests = p.lines.map(() => undefined);
  }

  /** The least a line costs; undefined where that is not known exactly. */
  leastOf(l: number): number | undefined {
    if (this.least[l] === "not asked")
      this.least[l] = coverLine(this.p.lines[l]!, this.c.open, this.c.weights);
    const k = this.least[l] as ReturnType<typeof coverLine>;
    return k?.isExact ? k.cost : undefined;
  }

  /** By number of sources, those behind it in the list: what they need at least for each rest. */
  restsOf(l: number, sources: readonly Source[]): readonly Float64Array[] {
    this.rests[l] ??= coverTable(this.p.lines[l]!.need, [...sources].reverse(), this.c.weights).stages;
    return this.rests[l]!;
  }
}

/**
 * Tries out a case to the end: every way to buy each line that the bound still allows, combined line by line.
 *
 * A way whose reduced cost exceeds the least by more than the slack between bound and best basket is in no better
 * basket (reduced cost fixing). Combinations are kept by what they cost and what they lift (capped at what is asked);
 * one that costs no less and lifts no more than another is dropped. Exact where it ends; it ends early where there is
 * too much to try.
 *
 * @param limit a better basket costs at most this
 */
export function closeCase(
  p: Problem,
  c: OpenCase,
  limit: number,
  effort: CloseEffort,
  tables = new CaseTables(p, c),
): Closed {
  const all = c.floors.flatMap((f, s) => (f > p.fixed[s]! ? [s] : []));
  // a floor that weighs nothing is reached by itself as a rule: it is asked for only where a basket misses it
  let asked = all.filter((s) => c.weights[s]! < p.factor[s]!);
  for (;;) {
    const found = tryOut(p, c, limit, asked, effort, tables);
    if (found.kind === "too-much" || !found.picks) return found;
    const { spend } = evaluate(p, found.picks);
    const missed = all.filter((s) => spend[s]! < c.floors[s]!);
    if (missed.length === 0) return found;
    asked = all.filter((s) => asked.includes(s) || missed.includes(s));
  }
}

function tryOut(
  p: Problem,
  c: OpenCase,
  limit: number,
  asked: readonly number[],
  effort: CloseEffort,
  tables: CaseTables,
): Closed {
  const goal = asked.map((s) => c.floors[s]! - p.fixed[s]!);
  const lambda = asked.map((s) => p.factor[s]! - c.weights[s]!);
  const base =
    c.fees + p.suppliers.reduce((n, _, s) => n + (c.open & (1 << s) ? p.fixed[s]! * p.factor[s]! : 0), 0);
  const price = lambda.reduce((n, l, i) => n + l * goal[i]!, 0);
  const least: number[] = [];
  for (let l = 0; l < p.lines.length; l++) {
    const cost = tables.leastOf(l);
    if (cost === undefined) return { kind: "too-much" };
    least.push(cost);
  }
  const floor = base + price + least.reduce((a, b) => a + b, 0);
  const slack = limit - floor + 0.01;
  if (slack < 0) return { kind: "closed" };
  const lists: { ways: Way[]; least: number; line: number }[] = [];
  for (let l = 0; l < p.lines.length; l++) {
    const ways = waysOf(p, l, c, asked, goal, least[l]! + slack, effort, tables);
    if (!ways) return { kind: "too-much" };
    lists.push({ ways: undominated(ways), least: least[l]!, line: l });
  }
  lists.sort((a, b) => a.ways.length - b.ways.length || a.line - b.line);
  let rest = lists.reduce((n, x) => n + x.least, 0);
  let labels: Label[] = [
    { cost: base, lift: goal.map(() => 0), reduced: base + price, way: undefined, from: undefined },
  ];
  let steps = 0;
  for (const { ways, least: own } of lists) {
    rest -= own;
    const next: Label[] = [];
    for (const a of labels)
      for (const w of ways) {
        if (++steps > effort.steps) return { kind: "too-much" };
        const cost = a.cost + w.cost;
        if (cost > limit) continue;
        // what is lifted beyond what is asked counts for nothing
        let short = 0;
        for (let i = 0; i < goal.length; i++)
          short += lambda[i]! * (goal[i]! - Math.min(goal[i]!, a.lift[i]! + w.lift[i]!));
        const reduced = cost + short;
        if (reduced + rest > limit + 0.01) continue;
        const lift = goal.map((g, i) => Math.min(g, a.lift[i]! + w.lift[i]!));
        next.push({ cost, lift, reduced, way: w, from: a });
      }
    labels = undominated(next);
    if (labels.length === 0) return { kind: "closed" };
    if (labels.length > effort.labels) return { kind: "too-much" };
  }
  let best: Label | undefined;
  for (const a of labels)
    if (a.lift.every((v, i) => v >= goal[i]!) && (!best || a.cost < best.cost)) best = a;
  if (!best) return { kind: "closed" };
  const picks: Pick[] = new Array(p.lines.length);
  let at: Label | undefined = best;
  for (let i = lists.length - 1; i >= 0; i--) {
    picks[lists[i]!.line] = at!.way!.pick;
    at = at!.from;
  }
  return { kind: "closed", picks };
}

/**
 * All ways to buy a line whose reduced cost is at most `limit`. Pieces beyond the need are bought only where they reach
 * a lower price, or at a supplier that is asked for more; undefined where there are too many.
 */
function waysOf(
  p: Problem,
  l: number,
  c: OpenCase,
  asked: readonly number[],
  goal: readonly number[],
  limit: number,
  effort: CloseEffort,
  tables: CaseTables,
): Way[] | undefined {
  const line = p.lines[l]!;
  const sources = line.sources.filter((s) => c.open & (1 << s.supplier));
  if (line.need * sources.length > MOST_TABLE) return undefined;
  // what the sources from i on need at least for each rest
  const stages = tables.restsOf(l, sources);
  const restCost = (i: number, rest: number) =>
    rest <= 0 ? 0 : i === sources.length ? Number.POSITIVE_INFINITY : stages[sources.length - 1 - i]![rest]!;
  const out: Way[] = [];
  const chosen: { source: Source; qty: number }[] = [];
  let tried = 0;
  const walk = (i: number, rest: number, reduced: number): boolean => {
    if (i === sources.length) {
      const cost = chosen.reduce((n, b) => n + costOf([b]) * p.factor[b.source.supplier]!, 0);
      const lift = asked.map((s) => costOf(chosen.filter((b) => b.source.supplier === s)));
      out.push({ cost, lift, reduced, pick: [...chosen] });
      return out.length <= effort.ways;
    }
    const s = sources[i]!;
    const k = asked.indexOf(s.supplier);
    const weight = c.weights[s.supplier]!;
    if (reduced + restCost(i + 1, rest) <= limit && !walk(i + 1, rest, reduced)) return false;
    for (const w of s.windows) {
      // the most that can be of use: the rest, or what the supplier is asked for
      const use = k < 0 ? rest : Math.max(rest, Math.ceil((goal[k]! - s.fee) / w.price));
      const top = Math.min(w.hi, Math.max(w.lo, Math.ceil(Math.max(0, use) / w.step) * w.step));
      for (let q = w.lo; q <= top; q += w.step) {
        if (++tried > effort.steps) return false;
        const next = reduced + (q * w.price + s.fee) * weight;
        if (next > limit) break;
        if (next + restCost(i + 1, rest - q) > limit) continue;
        chosen.push({ source: s, qty: q });
        const isFine = walk(i + 1, rest - q, next);
        chosen.pop();
        if (!isFine) return false;
      }
    }
    return true;
  };
  return walk(0, line.need, 0) ? out : undefined;
}

/** Without those that cost no less and lift no more than another. */
function undominated<T extends { readonly cost: number; readonly lift: readonly number[] }>(
  list: readonly T[],
): T[] {
  const sorted = [...list].sort((a, b) => a.cost - b.cost || sum(b.lift) - sum(a.lift));
  const goals = sorted[0]?.lift.length ?? 0;
  if (goals === 2) return undominatedPairs(sorted);
  const kept: T[] = [];
  if (goals < 2) {
    let most = -1;
    for (const x of sorted) {
      const lift = x.lift[0] ?? 0;
      if (lift <= most) continue;
      most = lift;
      kept.push(x);
    }
    return kept;
  }
  const seen = new Set<string>();
  for (const x of sorted) {
    const key = x.lift.join();
    if (seen.has(key)) continue;
    seen.add(key);
    // compared to the cheapest ones kept: they are those that dominate
    const against = Math.min(kept.length, 400);
    let isLess = false;
    for (let i = 0; i < against && !isLess; i++) isLess = kept[i]!.lift.every((v, k) => v >= x.lift[k]!);
    if (!isLess) kept.push(x);
  }
  return kept;
}

/** The same for two lifts: the cheaper ones' best pairs are kept as a stair, first lift falling, second rising. */
function undominatedPairs<T extends { readonly lift: readonly number[] }>(sorted: readonly T[]): T[] {
  const kept: T[] = [];
  const stair: (readonly number[])[] = [];
  for (const x of sorted) {
    const [a, b] = x.lift as [number, number];
    // the last step whose first lift is at least a holds the greatest second lift among those
    let [low, high] = [0, stair.length];
    while (low < high) {
      const mid = (low + high) >> 1;
      if (stair[mid]![0]! >= a) low = mid + 1;
      else high = mid;
    }
    if (low > 0 && stair[low - 1]![1]! >= b) continue;
    kept.push(x);
    let end = low;
    while (end < stair.length && stair[end]![1]! <= b) end++;
    const start = low > 0 && stair[low - 1]![0] === a ? low - 1 : low;
    stair.splice(start, end - start, x.lift);
  }
  return kept;
}

const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);
