import { createHash } from "node:crypto";
import {
  type Basket,
  type BasketCache,
  basketKey,
  type RunDocument,
  type RunResult,
  rollUp,
  suppliersOf,
} from "@kobbin/core";
import { proveBaskets } from "@kobbin/solver";

/** For the proof of a run's basket; what is left open then is told by its gap. */
const PROOF_SECONDS = 10;

/** A gap below this changes no figure a list shows; it is closed where the run is packed. */
const NO_MATTER = 0.0005;

/** So many lists of baskets are kept by a thread: those of the runs that are worked on. */
const KEPT = 24;

const proven = new Map<string, readonly Basket[]>();

/** Everything a basket hangs on: each line's pieces and offers with their prices, and the suppliers' terms. */
const keyOf = (document: RunDocument, { needs }: RunResult): string =>
  createHash("sha256")
    .update(JSON.stringify([needs, suppliersOf(document)]))
    .digest("base64");

/** Figures for lists: often computed, so a basket that is cheapest to a twentieth of a per cent is left at that. */
export async function rollUpNearly(document: RunDocument): Promise<RunResult> {
  const quick = rollUp(document, { scope: "the best" });
  return (quick.baskets[0]?.proof?.gap ?? 0) > NO_MATTER ? rollUpProven(document, quick) : quick;
}

/**
 * Figures on the basket that is proven as far as the time allows. What was proven to the end for the same pieces, offers and
 * terms is taken as it is: a run whose notes or days change asks for the same basket again.
 *
 * @param known figures of the same run, where somebody has them already
 */
export async function rollUpProven(document: RunDocument, known?: RunResult): Promise<RunResult> {
  const cache: BasketCache = new Map();
  const base = known ?? rollUp(document, { cache });
  const key = keyOf(document, base);
  const kept = proven.get(key);
  if (kept) cache.set(basketKey(base.needs), [...kept]);
  else await proveBaskets(document, cache, PROOF_SECONDS);
  const found = cache.get(basketKey(base.needs)) ?? [];
  if (found[0]?.proof?.isProven) {
    // the newest stands last; the oldest goes
    proven.delete(key);
    proven.set(key, found);
    for (const oldest of proven.keys()) if (proven.size > KEPT) proven.delete(oldest);
  }
  return rollUp(document, { cache });
}
