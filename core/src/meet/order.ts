import { judgePair, type Meeting } from "./meet.ts";

/** Contacts up to which every order is looked at. */
export const MOST_ORDERED = 16;
const HARMLESS = new Set(["meant", "idle"]);

/** Another order of the contacts of both sides. */
export interface HarmlessOrder {
  /** Pins of ours from place 1 on; theirs go with what they are meant for. */
  readonly order: readonly string[];
  /** How many stand elsewhere than now. */
  readonly moved: number;
}

/**
 * The order of a single row's contacts in which nothing is hurt when it is put in turned by half a turn, and in which the
 * fewest stand elsewhere than now. Each place lies on its mirror image then, so contacts go together in twos that bear each
 * other; every way of pairing them off is looked at, place by place.
 * @returns undefined where there is none, or more than {@link MOST_ORDERED} contacts, or pins without a partner
 */
export function harmlessOrder(m: Meeting): HarmlessOrder | undefined {
  const theirs = new Map(m.theirs.map((p) => [p.pin, p]));
  const meant = new Map(m.meant ?? m.ours.map((p) => [p.pin, p.pin]));
  const pins = m.ours.flatMap((a) => {
    const b = theirs.get(meant.get(a.pin) ?? "");
    return b ? [{ a, b }] : [];
  });
  const n = pins.length;
  if ((m.rows ?? 1) === 2 || n === 0 || n > MOST_ORDERED || n !== m.ours.length || n !== m.theirs.length)
    return undefined;
  const bears = pins.map((p) =>
    pins.map((q) => HARMLESS.has(judgePair(p.a, q.b, false)) && HARMLESS.has(judgePair(q.a, p.b, false))),
  );
  const half = Math.floor(n / 2);
  // the best way of filling places 1 … k and their images with the pins of a set
  let best = new Map<
    number,
    { readonly moved: number; readonly order: readonly (readonly [number, number])[] }
  >([[0, { moved: 0, order: [] }]]);
  const away = (pin: number, place: number) => Number(pin !== place);
  for (let k = 0; k < half; k++) {
    const next: typeof best = new Map();
    for (const [taken, { moved, order }] of best)
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) {
          if (i === j || !bears[i]![j] || taken & (1 << i) || taken & (1 << j)) continue;
          const cost = moved + away(i, k) + away(j, n - 1 - k);
          const key = taken | (1 << i) | (1 << j);
          if (cost < (next.get(key)?.moved ?? Number.POSITIVE_INFINITY))
            next.set(key, { moved: cost, order: [...order, [i, j]] });
        }
    best = next;
  }
  let found: HarmlessOrder | undefined;
  for (const [taken, { moved, order }] of best) {
    // with an odd number the one that is left stands in the middle, on what it is meant for
    const middle = n % 2 === 1 ? pins.findIndex((_, i) => !(taken & (1 << i))) : undefined;
    if (middle !== undefined && !HARMLESS.has(judgePair(pins[middle]!.a, pins[middle]!.b, true))) continue;
    const cost = moved + (middle === undefined ? 0 : away(middle, half));
    if (found && cost >= found.moved) continue;
    const places = [
      ...order.map(([i]) => i),
      ...(middle === undefined ? [] : [middle]),
      ...order.map(([, j]) => j).reverse(),
    ];
    found = { order: places.map((i) => pins[i]!.a.pin), moved: cost };
  }
  return found;
}
