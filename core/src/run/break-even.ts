import type { Route } from "./assemble/route.ts";
import { curvePoint, type PointCaches } from "./curve.ts";
import type { RunDocument } from "./document/document.ts";

/** From so many good boards on the first way costs no more than the second, and stays so up to {@link MOST}. */
export interface BreakEven {
  readonly route: string;
  readonly against: string;
  readonly quantity: number;
}

const MOST = 1000;
/** With so few offers every quantity is worked out; with more, some, and those around what these show. */
const FEW_OFFERS = 15;
/** Quantities that are looked at first, evenly spread over a logarithmic rule. */
const SPREAD = 48;
/** So many quantities on both sides of a crossing are looked at one by one. */
const AROUND = 30;

/**
 * Of each two ways the fewest good boards from which the first costs no more per good board, and stays so. Where baskets are
 * quickly found every quantity that decides is worked out. Else the last of some at which it costs more, then halves between
 * that and the next, then one by one around it: exact as far as those show.
 */
export function breakEvens(
  doc: RunDocument,
  routes: readonly { readonly route: Route; readonly key: string }[],
): { list: BreakEven[]; looked: number } {
  const isShort = doc.offers.length <= FEW_OFFERS;
  const known = routes.map(() => new Map<number, number>());
  const caches = new Map<number, PointCaches>();
  const cost = (i: number, q: number): number => {
    const at = known[i]!.get(q);
    if (at !== undefined) return at;
    if (!caches.has(q)) caches.set(q, { known: new Map(), endless: new Map() });
    const { perGood } = curvePoint({ ...doc, assembly: routes[i]!.route.assembly }, q, caches.get(q));
    known[i]!.set(q, perGood);
    return perGood;
  };
  const find = isShort ? everyOne : halved;
  const list = routes.flatMap((a, i) =>
    routes.flatMap((b, j) => {
      if (i === j) return [];
      const quantity = find((q) => cost(i, q) > cost(j, q));
      return quantity === undefined ? [] : [{ route: a.key, against: b.key, quantity }];
    }),
  );
  return { list, looked: isShort ? MOST : caches.size };
}

/** The first quantity after the last at which it is dearer, from the top down. */
function everyOne(isDearer: (q: number) => boolean): number | undefined {
  if (isDearer(MOST)) return undefined;
  let from = MOST;
  while (from > 1 && !isDearer(from - 1)) from--;
  return from;
}

function halved(isDearer: (q: number) => boolean): number | undefined {
  if (isDearer(MOST)) return undefined;
  const spread = [
    ...new Set(Array.from({ length: SPREAD }, (_, k) => Math.round(MOST ** (k / (SPREAD - 1))))),
  ];
  const last = spread.findLastIndex(isDearer);
  if (last < 0) return 1;
  let [low, high] = [spread[last]!, spread[last + 1]!];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (isDearer(middle)) low = middle;
    else high = middle;
  }
  for (let q = Math.min(MOST, high + AROUND); q > Math.max(1, high - AROUND); q--)
    if (isDearer(q - 1)) return q;
  return high;
}
