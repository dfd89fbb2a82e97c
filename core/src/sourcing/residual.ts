import { coverLine, coverTable, type Pick } from "./line/cover.ts";
import type { OpenCase } from "./open-case.ts";
import type { Optimum } from "./optimum.ts";
import type { Problem, ProblemLine, Source, Window } from "./problem.ts";
import { evaluate, type Solution } from "./solution.ts";

/** A mixed integer problem: least cost · x with rows between bounds. Rows are sparse, one after the other. */
export interface LinearModel {
  readonly cost: readonly number[];
  readonly upper: readonly number[];
  readonly isInteger: readonly boolean[];
  readonly rowLower: readonly number[];
  readonly rowUpper: readonly number[];
  /** First entry of each row, and their number at the end. */
  readonly start: readonly number[];
  readonly column: readonly number[];
  readonly value: readonly number[];
}

/** What a general solver says: the values, and a bound under which there is nothing. */
export interface SolverAnswer {
  readonly status: "optimal" | "infeasible" | "stopped";
  readonly values: ArrayLike<number>;
  readonly bound: number;
}

/** A general solver, given from outside: core has none of its own. */
export type Solve = (model: LinearModel, seconds: number) => SolverAnswer;

/** Money in the model is in units of a currency, not in micros. */
const UNIT = 1e6;
const MOST_TABLE = 2_000_000;
/** Of the whole time, what all cases have together in the first turn, and in the second. */
const EACH_FIRST = 0.15;
const EACH_THEN = 0.5;
/** Less is not worth the start of the solver, seconds. */
const SHORTEST = 0.1;

/**
 * Puts what a search left open to the general solver, case by case, the least bound first: in turns, since one case may be
 * hard for as long as one likes while the next has a better basket in it, or is closed at once.
 *
 * Each case is a small model of its own: its suppliers are open and their fees are known, so only quantities and floors
 * are left; ways that the bound excludes are left out (reduced cost fixing). Whatever comes back is priced again in
 * exact money, so the solver's tolerances can cost a proof, never a cent.
 *
 * @param seconds for all cases together
 * @param now a clock in milliseconds
 */
export function closeWithSolver(
  p: Problem,
  found: Optimum,
  solve: Solve,
  seconds: number,
  now: () => number,
  progress: (done: number, of: number, gap: number) => void = () => undefined,
): Optimum {
  const until = now() + seconds * 1000;
  let best: Solution = found.best;
  const isClosed = (bound: number) => bound > best.total - p.grain + 0.01;
  // each case in turn for its share first: one that is hard does not keep the others from being tried, and what another one
  // finds makes it easier; then what is left over, the least bound first
  let left: OpenCase[] = [...found.left];
  const cases = Math.max(1, left.length);
  for (const share of [EACH_FIRST / cases, EACH_THEN / cases, 1]) {
    const next: OpenCase[] = [];
    for (const [i, c] of left.entries()) {
      progress(i, left.length, (best.total - c.bound) / best.total);
      if (isClosed(c.bound)) continue;
      const rest = (until - now()) / 1000;
      const built = rest > 0.05 ? caseModel(p, c, best.total - p.grain) : undefined;
      if (built === "nothing") continue;
      if (!built) {
        next.push(c);
        continue;
      }
      const answer = solve(built.model, Math.min(rest, Math.max(SHORTEST, seconds * share)));
      if (answer.status === "infeasible") continue;
      const picks = answer.values.length > 0 ? built.read(answer.values) : undefined;
      if (picks) {
        const made = evaluate(p, picks);
        if (made.total < best.total) best = made;
      }
      const bound = Math.max(c.bound, (answer.bound + built.constant) * UNIT);
      // a solver's bound is good to about its tolerance: a hundredth of the grain decides, not its last digit
      if (!isClosed(bound + Math.min(0.45 * p.grain, 20))) next.push({ ...c, bound });
    }
    left = next.sort((a, b) => a.bound - b.bound);
  }
  const open = left.filter((c) => !isClosed(c.bound)).sort((a, b) => a.bound - b.bound);
  // what the search gave up without a case stays given up
  const bound = Math.min(found.givenUp, open[0]?.bound ?? Number.POSITIVE_INFINITY);
  const isProven = isClosed(bound);
  return {
    best,
    bound: isProven ? best.total : bound,
    isProven,
    left: isProven ? [] : open,
    givenUp: found.givenUp,
  };
}

interface Built {
  readonly model: LinearModel;
  /** Cost outside the model, in units. */
  readonly constant: number;
  readonly read: (values: ArrayLike<number>) => Pick[] | undefined;
}

/** A window cut to the quantities a better basket may hold. */
interface Cut extends Window {
  readonly source: Source;
}

/** The model of a case; "nothing" where the bound leaves a line no way; undefined where it would be too large. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one model, written row by row
function caseModel(p: Problem, c: OpenCase, limit: number): Built | "nothing" | undefined {
  const asked = new Set(c.floors.flatMap((f, s) => (f > p.fixed[s]! ? [s] : [])));
  const least: number[] = [];
  let floor = c.fees;
  for (const line of p.lines) {
    const k = coverLine(line, c.open, c.weights);
    if (!k?.isExact) return undefined;
    least.push(k.cost);
    floor += k.cost;
  }
  for (let s = 0; s < p.suppliers.length; s++)
    if (c.open & (1 << s))
      floor +=
        c.weights[s]! * p.fixed[s]! +
        (p.factor[s]! - c.weights[s]!) * (asked.has(s) ? c.floors[s]! : p.fixed[s]!);
  const slack = limit - floor + 1;
  const m = new Builder();
  const spend = new Map<number, [number, number][]>();
  const fixedPicks: (Pick | undefined)[] = [];
  const columns: { line: number; cut: Cut; choose: number; count: number }[] = [];
  let constant = c.fees / UNIT;
  const given = p.fixed.slice();
  for (let s = 0; s < p.suppliers.length; s++)
    if (c.open & (1 << s)) constant += (p.fixed[s]! * p.factor[s]!) / UNIT;
  for (let l = 0; l < p.lines.length; l++) {
    const line = p.lines[l]!;
    const cuts = cutsOf(line, c, asked, least[l]! + slack);
    if (!cuts) return undefined;
    if (cuts.length === 0) return "nothing";
    const one = cuts.length === 1 ? cuts[0]! : undefined;
    if (one && one.lo === one.hi) {
      fixedPicks[l] = [{ source: one.source, qty: one.lo }];
      const goods = one.lo * one.price + one.source.fee;
      constant += (goods * p.factor[one.source.supplier]!) / UNIT;
      given[one.source.supplier]! += goods;
      continue;
    }
    const cover: [number, number][] = [];
    const bySource = new Map<Source, [number, number][]>();
    for (const cut of cuts) {
      const [a, b] = [cut.lo / cut.step, cut.hi / cut.step];
      const unit = (cut.price * cut.step) / UNIT;
      const factor = p.factor[cut.source.supplier]!;
      const paid = unit * factor;
      const fee = cut.source.fee / UNIT;
      const choose = m.column((a === b ? paid * a : 0) + fee * factor, 1, true);
      const count = a === b ? -1 : m.column(paid, b, true);
      if (count >= 0) {
        m.row(0, Number.POSITIVE_INFINITY, [
          [count, 1],
          [choose, -a],
        ]);
        m.row(Number.NEGATIVE_INFINITY, 0, [
          [count, 1],
          [choose, -b],
        ]);
      }
      const entry = (v: number): [number, number] => (count < 0 ? [choose, v * a] : [count, v]);
      cover.push(entry(cut.step / line.need));
      if (asked.has(cut.source.supplier)) {
        const list = spend.get(cut.source.supplier) ?? [];
        // a window that is taken gives its pieces and its fee to what the supplier is asked for
        if (count < 0) list.push([choose, unit * a + fee]);
        else list.push([count, unit], ...(fee > 0 ? [[choose, fee] as [number, number]] : []));
        spend.set(cut.source.supplier, list);
      }
      const own = bySource.get(cut.source) ?? [];
      own.push([choose, 1]);
      bySource.set(cut.source, own);
      columns.push({ line: l, cut, choose, count });
    }
    m.row(1, Number.POSITIVE_INFINITY, cover);
    for (const own of bySource.values()) if (own.length > 1) m.row(Number.NEGATIVE_INFINITY, 1, own);
  }
  for (const s of asked) {
    const rest = (c.floors[s]! - given[s]!) / UNIT;
    if (rest <= 0) continue;
    const list = spend.get(s);
    if (!list) return "nothing";
    m.row(rest, Number.POSITIVE_INFINITY, list);
  }
  const read = (values: ArrayLike<number>): Pick[] => {
    const picks: { source: Source; qty: number }[][] = p.lines.map((_, l) => [...(fixedPicks[l] ?? [])]);
    for (const k of columns) {
      if (values[k.choose]! < 0.5) continue;
      const n = k.count < 0 ? k.cut.lo / k.cut.step : Math.round(values[k.count]!);
      const qty = Math.min(k.cut.hi, Math.max(k.cut.lo, n * k.cut.step));
      picks[k.line]!.push({ source: k.cut.source, qty });
    }
    return picks;
  };
  const covers = (picks: Pick[]) =>
    picks.every((pick, l) => pick.reduce((n, b) => n + b.qty, 0) >= p.lines[l]!.need);
  return {
    model: m.done(),
    constant,
    read: (values) => {
      const picks = read(values);
      return covers(picks) ? picks : undefined;
    },
  };
}

/** Windows of a line's offers, each cut to quantities whose reduced cost stays within the limit. */
function cutsOf(
  line: ProblemLine,
  c: OpenCase,
  asked: ReadonlySet<number>,
  limit: number,
): Cut[] | undefined {
  const sources = line.sources.filter((s) => c.open & (1 << s.supplier));
  if (line.need * sources.length * sources.length > MOST_TABLE) return undefined;
  const out: Cut[] = [];
  for (const source of sources) {
    const others = coverTable(
      line.need,
      sources.filter((s) => s !== source),
      c.weights,
    ).cost;
    const weight = c.weights[source.supplier]!;
    for (const w of source.windows) {
      const isAsked = asked.has(source.supplier);
      const whole = Math.max(w.lo, Math.ceil(line.need / w.step) * w.step);
      const far = isAsked
        ? Math.ceil((c.floors[source.supplier]! - source.fee) / w.price / w.step) * w.step
        : 0;
      const top = Math.min(w.hi, Math.max(whole, far));
      let [lo, hi] = [-1, -1];
      for (let q = w.lo; q <= top; q += w.step) {
        const own = (q * w.price + source.fee) * weight;
        if (own > limit) break;
        if (own + others[Math.max(0, line.need - q)]! > limit) continue;
        if (lo < 0) lo = q;
        hi = q;
      }
      if (lo >= 0) out.push({ ...w, lo, hi, source });
    }
  }
  return out;
}

class Builder {
  private readonly model = {
    cost: [] as number[],
    upper: [] as number[],
    isInteger: [] as boolean[],
    rowLower: [] as number[],
    rowUpper: [] as number[],
    start: [] as number[],
    column: [] as number[],
    value: [] as number[],
  };

  column(cost: number, upper: number, isInteger: boolean): number {
    this.model.cost.push(cost);
    this.model.upper.push(upper);
    this.model.isInteger.push(isInteger);
    return this.model.cost.length - 1;
  }

  row(lower: number, upper: number, entries: readonly (readonly [number, number])[]): void {
    this.model.start.push(this.model.column.length);
    for (const [c, v] of entries) {
      this.model.column.push(c);
      this.model.value.push(v);
    }
    this.model.rowLower.push(lower);
    this.model.rowUpper.push(upper);
  }

  done(): LinearModel {
    this.model.start.push(this.model.column.length);
    return this.model;
  }
}
