import type { Offer } from "../../sourcing/offer.ts";
import type { RunLot } from "../document/document.ts";

/** Pieces beyond its leader that make a strip worth a feeder (placeholder value). */
export const WORTH_A_FEEDER = 10;

/** What a machine line takes: whole strips, each with its leader. */
export interface Strips {
  /** Pieces lost as the leader of each strip. */
  readonly leader: number;
  /** Fewest pieces a strip is used for. */
  readonly least: number;
}

export const stripsWith = (leader: number): Strips => ({ leader, least: leader + WORTH_A_FEEDER });

/**
 * Pieces of shelf lots that go into feeders for `net` pieces: each lot is a strip of its own and loses its leader; one that
 * is hardly longer than that stays on the shelf, unless it covers all that is left.
 *
 * @param free pieces of a lot that no other line took
 * @returns what is taken, the leaders with it, and the pieces that are left to buy (without a leader)
 */
export function stripsFromShelf(
  strips: Strips,
  net: number,
  lots: readonly RunLot[],
  free: (lot: RunLot) => number,
): { readonly takes: readonly { lot: RunLot; qty: number }[]; readonly left: number } {
  const takes: { lot: RunLot; qty: number }[] = [];
  let left = net;
  for (const lot of lots) {
    if (left <= 0) break;
    const qty = Math.min(free(lot), left + strips.leader);
    if (qty < strips.least && qty < left + strips.leader) continue;
    takes.push({ lot, qty });
    left -= qty - strips.leader;
  }
  return { takes, left };
}

/**
 * Offers as a machine line may be bought from them, and the pieces to buy: one strip from one offer where any has so
 * many; else the fewest strips that do, from the offers with most, each with its leader and each long enough to be used
 * (domain.md 3.7 and 4.1: a machine needs tape of a least length).
 */
export function stripsToBuy(
  strips: Strips,
  net: number,
  offers: readonly Offer[],
  pinned: string | undefined,
): { readonly need: number; readonly offers: readonly Offer[] } {
  const one = net + strips.leader;
  if (net <= 0) return { need: 0, offers };
  const atLeast = (o: Offer, qty: number): Offer => ({ ...o, moq: Math.max(o.moq, qty) });
  const inWhole = (o: Offer) => Math.floor(o.stock / o.multiple) * o.multiple;
  const usable = offers.filter((o) => pinned === undefined || o.supplier === pinned);
  const enough = usable.filter((o) => inWhole(o) >= Math.max(one, o.moq));
  if (enough.length > 0) return { need: one, offers: enough.map((o) => atLeast(o, one)) };
  const long = usable
    .filter((o) => inWhole(o) >= Math.max(strips.least, o.moq))
    .sort((a, b) => inWhole(b) - inWhole(a));
  let [sum, k] = [0, 0];
  while (k < long.length && sum < net + k * strips.leader) sum += inWhole(long[k++]!);
  if (sum < net + k * strips.leader) {
    // not to be had: all there is, each a strip with its leader, and the rest is missing
    const some = usable.filter((o) => inWhole(o) >= Math.max(1, o.moq));
    return { need: net + Math.max(1, some.length) * strips.leader, offers: usable };
  }
  const some = long.slice(0, k).map((o) => atLeast(o, strips.least));
  return { need: net + k * strips.leader, offers: some };
}
