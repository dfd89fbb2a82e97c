/** An item of a plan as it is put in order. */
export interface OrderedItem {
  readonly id: string;
  readonly minutes: number;
  /** How far the board is: items of an earlier state always come first. */
  readonly state: number;
  /** Faults it finds, by any name. */
  readonly finds: readonly string[];
}

/** Up to so many items of one state are ordered exactly; it takes 2ⁿ steps. */
const EXACT = 12;

/**
 * The order of items in which a fault is found soonest: least sum over faults of how likely each is times the minutes until the
 * first item that finds it is done. Items of a state are ordered among themselves; what an earlier state finds is found.
 *
 * Exact up to twelve items of a state (over all subsets); beyond, the item that finds most a minute is taken again and again,
 * which is at worst four times the least (Feige, Lovász, Tetali, 2004, on min sum set cover). Items that find nothing
 * stay in their order, last of their state.
 *
 * @param weightOf how likely a fault is, in any unit
 */
export function soonestOrder(items: readonly OrderedItem[], weightOf: (fault: string) => number): string[] {
  const found = new Set<string>();
  const states = [...new Set(items.map((i) => i.state))].sort((a, b) => a - b);
  return states.flatMap((state) => {
    const own = items.filter((i) => i.state === state);
    const finds = (i: OrderedItem) => i.finds.filter((f) => !found.has(f));
    const busy = own.filter((i) => finds(i).length > 0).map((i) => ({ ...i, finds: finds(i) }));
    const idle = own.filter((i) => finds(i).length === 0);
    const order = busy.length <= EXACT ? exactly(busy, weightOf) : greedily(busy, weightOf);
    for (const i of own) for (const f of i.finds) found.add(f);
    return [...order, ...idle.map((i) => i.id)];
  });
}

/** What an order costs: the sum it is the least of. */
export function costOfOrder(
  items: readonly Pick<OrderedItem, "minutes" | "finds">[],
  weightOf: (fault: string) => number,
): number {
  const found = new Set<string>();
  let [at, cost] = [0, 0];
  for (const i of items) {
    at += i.minutes;
    for (const f of i.finds) {
      if (found.has(f)) continue;
      found.add(f);
      cost += at * weightOf(f);
    }
  }
  return cost;
}

/** Over all subsets: what is least after these were done, whatever their order. */
function exactly(items: readonly OrderedItem[], weightOf: (fault: string) => number): string[] {
  const n = items.length;
  const faults = [...new Set(items.flatMap((i) => i.finds))];
  const total = faults.reduce((a, f) => a + weightOf(f), 0);
  const covers = items.map((i) => new Set(i.finds));
  // each minute of an item costs what is not found yet when it begins
  const openOf = (mask: number) =>
    total -
    faults.reduce((a, f) => a + (covers.some((c, i) => mask & (1 << i) && c.has(f)) ? weightOf(f) : 0), 0);
  const best = new Float64Array(1 << n).fill(Number.POSITIVE_INFINITY);
  const last = new Int8Array(1 << n).fill(-1);
  best[0] = 0;
  for (let mask = 0; mask < 1 << n; mask++) {
    const open = openOf(mask);
    for (let i = 0; i < n; i++) {
      if (mask & (1 << i)) continue;
      const next = mask | (1 << i);
      const cost = best[mask]! + open * items[i]!.minutes;
      // of equals the order that was there stays
      if (cost < best[next]! - 1e-12) {
        best[next] = cost;
        last[next] = i;
      }
    }
  }
  const order: string[] = [];
  for (let mask = (1 << n) - 1; mask > 0; mask &= ~(1 << last[mask]!)) order.unshift(items[last[mask]!]!.id);
  return order;
}

function greedily(items: readonly OrderedItem[], weightOf: (fault: string) => number): string[] {
  const left = [...items];
  const found = new Set<string>();
  const order: string[] = [];
  const rate = (i: OrderedItem) =>
    i.finds.reduce((a, f) => a + (found.has(f) ? 0 : weightOf(f)), 0) / Math.max(1e-6, i.minutes);
  while (left.length > 0) {
    const next = left.reduce((a, b) => (rate(b) > rate(a) ? b : a));
    left.splice(left.indexOf(next), 1);
    for (const f of next.finds) found.add(f);
    order.push(next.id);
  }
  return order;
}
