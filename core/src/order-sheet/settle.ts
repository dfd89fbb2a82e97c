import { nameOfValue, plainOf, valueAt, valuesOf, withValue } from "../fab/fit-options.ts";
import type { House } from "../fab/house.ts";
import type { FabOptions, OptionKey } from "../fab/options.ts";
import type { OrderRule } from "./rules.ts";

/** A decision that had to change so that another one could stand. */
export interface Change {
  readonly key: OptionKey;
  readonly value: string;
  /** As the house calls the values. */
  readonly from: string;
  readonly to: string;
  readonly because: string;
}

/** Options that can stand together, and what was changed for it. */
export interface Settled {
  readonly options: FabOptions;
  readonly changes: readonly Change[];
}

/** Most decisions that hang together and are changed at once. */
const MOST_CHANGES = 4;

interface Found {
  readonly options: FabOptions;
  /** Which key of which rule gave way, step by step: the earlier one is the better. */
  readonly path: readonly number[];
  readonly keys: readonly OptionKey[];
  readonly because: readonly string[];
}

/**
 * The options nearest to these in which no rule is broken: the fewest changes; among as many, the decision that gives way
 * first by its rule; one that does not give up what it was for; then the least price.
 *
 * A search by depth over the keys of the first broken rule, up to {@link MOST_CHANGES} in each group of rules.
 *
 * @param fixed decisions that stay
 * @param ignore ids of rules that are not minded
 * @param price of options, to tell equal ones apart
 * @returns nothing where so few changes do not do
 */
export function settle(
  house: House,
  rules: readonly OrderRule[],
  options: FabOptions,
  fixed: ReadonlySet<OptionKey>,
  {
    ignore = new Set<string>(),
    price = () => 0,
  }: { ignore?: ReadonlySet<string>; price?: (o: FabOptions) => number } = {},
): Settled | undefined {
  const minded = rules.filter((r) => !ignore.has(r.id));
  let settled: Settled = { options, changes: [] };
  // rules that share no decision cannot meet: each group of them is a search of its own
  for (const group of groupsOf(minded)) {
    const own = nearest(house, group, settled.options, fixed, price);
    if (!own) return undefined;
    settled = { options: own.options, changes: [...settled.changes, ...own.changes] };
  }
  return settled;
}

/** Rules that hang together by their decisions, directly or through others. */
function groupsOf(rules: readonly OrderRule[]): OrderRule[][] {
  let groups: { keys: Set<OptionKey>; rules: OrderRule[] }[] = [];
  for (const rule of rules) {
    const met = groups.filter((g) => rule.keys.some((k) => g.keys.has(k)));
    const joined = {
      keys: new Set([...met.flatMap((g) => [...g.keys]), ...rule.keys]),
      rules: [...met.flatMap((g) => g.rules), rule],
    };
    groups = [...groups.filter((g) => !met.includes(g)), joined];
  }
  return groups.map((g) => g.rules);
}

function nearest(
  house: House,
  rules: readonly OrderRule[],
  options: FabOptions,
  fixed: ReadonlySet<OptionKey>,
  price: (o: FabOptions) => number,
): Settled | undefined {
  for (let most = 0; most <= MOST_CHANGES; most++) {
    const found: Found[] = [];
    search(house, rules, { options, path: [], keys: [], because: [] }, fixed, most, found);
    const best = [...found].sort(
      (x, y) => byPath(x.path, y.path) || plainOnes(x) - plainOnes(y) || price(x.options) - price(y.options),
    )[0];
    if (best)
      return {
        options: best.options,
        changes: best.keys.map((key, i) => ({
          key,
          value: valueAt(best.options, key),
          from: nameOfValue([house], key, valueAt(options, key)),
          to: nameOfValue([house], key, valueAt(best.options, key)),
          because: best.because[i]!,
        })),
      };
  }
  return undefined;
}

function search(
  house: House,
  rules: readonly OrderRule[],
  at: Found,
  fixed: ReadonlySet<OptionKey>,
  most: number,
  found: Found[],
): void {
  for (const rule of rules) {
    const because = rule.broken(at.options);
    if (because === undefined) continue;
    if (most === 0) return;
    rule.keys.forEach((key, i) => {
      if (fixed.has(key)) return;
      for (const value of valuesOf(house, key)) {
        if (value === valueAt(at.options, key)) continue;
        const next: Found = {
          options: withValue(at.options, key, value),
          path: [...at.path, i],
          keys: [...at.keys, key],
          because: [...at.because, because],
        };
        search(house, rules, next, new Set([...fixed, key]), most - 1, found);
      }
    });
    return;
  }
  found.push(at);
}

/** How many changes only give something up. */
const plainOnes = ({ options, keys }: Found): number =>
  keys.filter((key) => valueAt(options, key) === plainOf(key)).length;

const byPath = (a: readonly number[], b: readonly number[]): number =>
  a.map((v, i) => v - b[i]!).find((d) => d !== 0) ?? 0;

/** What happens when a value is chosen: with which others, or why it cannot be. */
export type Choosing = Settled | { readonly cannot: string };

/**
 * Chooses a value beside the others: what its rules ask for changes with it.
 *
 * Rules that were broken before and are not about this decision stay as they were; they are said elsewhere.
 */
export function choose(
  house: House,
  rules: readonly OrderRule[],
  options: FabOptions,
  key: OptionKey,
  value: string,
  price?: (o: FabOptions) => number,
): Choosing {
  const wished = withValue(options, key, value);
  const ignore = new Set(
    rules.filter((r) => !r.keys.includes(key) && r.broken(options) !== undefined).map((r) => r.id),
  );
  const done = settle(house, rules, wished, new Set([key]), { ignore, ...(price ? { price } : {}) });
  if (done) return done;
  const why = rules.find((r) => r.keys.includes(key) && r.broken(wished) !== undefined)?.broken(wished);
  return { cannot: why ?? "it cannot stand beside the other options" };
}
