import type { CostNode } from "../../costing/tree.ts";
import type { Tally } from "../document/record.ts";
import type { PartUse } from "../needs/usage.ts";

/** Why something cost more or less than planned; micros of the shop's currency, positive where it cost more. */
export interface Variance {
  readonly key: "volume" | "yield" | "usage" | "price";
  readonly micros: number;
}

/** A part of the cost as planned, and as it came, where the record says so. */
export interface ActualTerm {
  readonly key: string;
  readonly label: string;
  readonly planned: number;
  /** Left out where nothing is recorded: it then counts as planned, and that is said; with `open` it may yet be recorded. */
  readonly actual?: number;
  /** Sums to `actual − planned`. */
  readonly because: readonly Variance[];
  /** What of it is not recorded yet, in words. */
  readonly open?: string;
}

/** The counts a comparison rests on. */
export interface Counts {
  /** As planned: started, and expected to be good. */
  readonly planned: { readonly started: number; readonly good: number };
  /** As it came; as planned while nothing was begun. */
  readonly actual: { readonly started: number; readonly good: number };
}

/** Plan against actual of a whole run. */
export interface ActualRun {
  readonly counts: Counts;
  readonly tally: Tally;
  readonly terms: readonly ActualTerm[];
  readonly planned: number;
  /** Of what is recorded; the rest as planned. */
  readonly actual: number;
  /** What of it is not recorded, in words; empty once all is. */
  readonly open: readonly string[];
  /** Per good board. */
  readonly plannedPerGood: number;
  /** Not known while none is good. */
  readonly actualPerGood?: number;
  /** Minutes of own work for the boards that were started, as planned, and as written down. */
  readonly minutes: { readonly planned: number; readonly actual: number };
  /** Purchase by purchase, what the boards took of the shelf. */
  readonly uses: readonly PartUse[];
}

/**
 * Splits what an input cost otherwise than planned (domain.md 8.7): volume (N − N₀)·c₀/y₀, yield (S − N/y₀)·c₀, usage
 * S·(q − q₀)·p₀, price S·q·(p − p₀), with c₀ = q₀·p₀ planned for one start and y₀ = N₀/S₀. They sum to S·q·p − S₀·q₀·p₀.
 *
 * @param planned S₀·q₀·p₀
 * @param usage q/q₀, 1 where it is not known
 * @param price p/p₀, 1 where it is not known
 */
export function variancesOf(planned: number, c: Counts, usage = 1, price = 1): Variance[] {
  const perStart = planned / c.planned.started;
  const y = c.planned.good / c.planned.started;
  const { started, good } = c.actual;
  return [
    { key: "volume", micros: ((good - c.planned.good) * perStart) / y },
    { key: "yield", micros: (started - good / y) * perStart },
    { key: "usage", micros: started * (usage - 1) * perStart },
    { key: "price", micros: started * usage * (price - 1) * perStart },
  ];
}

const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);

/**
 * A term that is used up with the boards that are started, and a part of it with the run, however many those are.
 *
 * @param fixed the part of what is planned that does not hang on how many are started, as set-up: only usage and price
 * change it
 */
export function scaledTerm(
  of: Pick<ActualTerm, "key" | "label" | "planned" | "open">,
  c: Counts,
  usage = 1,
  price = 1,
  fixed = 0,
): ActualTerm {
  const because = variancesOf(of.planned - fixed, c, usage, price).map((v) =>
    v.key === "usage"
      ? { ...v, micros: v.micros + fixed * (usage - 1) }
      : v.key === "price"
        ? { ...v, micros: v.micros + fixed * usage * (price - 1) }
        : v,
  );
  return { ...of, actual: of.planned + sum(because.map((v) => v.micros)), because };
}

/** A term that is paid once, however many boards come of it. */
export const fixedTerm = (
  of: Pick<ActualTerm, "key" | "label" | "planned" | "open">,
  paid: number | undefined,
): ActualTerm =>
  paid === undefined
    ? { ...of, because: [] }
    : { ...of, actual: paid, because: [{ key: "price", micros: paid - of.planned }] };

/** A branch for which there is nothing to write down: it counts as planned, and is not told as if it were known. */
export const asPlanned = (node: CostNode): ActualTerm =>
  fixedTerm({ key: node.key, label: node.label, planned: node.micros }, undefined);

/** Puts the stages' terms together. */
export function actualOf(
  terms: readonly ActualTerm[],
  tally: Tally,
  counts: Counts,
  minutes: ActualRun["minutes"],
  uses: readonly PartUse[],
): ActualRun {
  const planned = sum(terms.map((t) => t.planned));
  const actual = sum(terms.map((t) => t.actual ?? t.planned));
  return {
    counts,
    tally,
    terms,
    planned,
    actual,
    open: terms.flatMap((t) => t.open ?? []),
    plannedPerGood: planned / counts.planned.good,
    ...(tally.good > 0 ? { actualPerGood: actual / tally.good } : {}),
    minutes,
    uses,
  };
}

/** The counts to compare: what was planned, and what came of it so far. */
export const countsOf = (started: number, expectedGood: number, t: Tally): Counts => ({
  planned: { started, good: expectedGood },
  // while nothing was begun only prices are compared
  actual: t.started === 0 ? { started, good: expectedGood } : { started: t.started, good: t.good },
});
