import { cheapestBuy, type Offer } from "./offer.ts";

/**
 * What buying lines together saves, by the offers of the line that is kept: micros of the shop's currency; 0 where
 * nobody offers it.
 */
export function savedTogether(offers: readonly Offer[], needs: readonly number[]): number {
  const least = (need: number) =>
    offers.reduce(
      (m, o) => Math.min(m, cheapestBuy(o, need)?.cost ?? Number.POSITIVE_INFINITY),
      Number.POSITIVE_INFINITY,
    );
  const apartCost = needs.reduce((n, need) => n + least(need), 0);
  const together = least(needs.reduce((a, b) => a + b, 0));
  return Number.isFinite(apartCost) && Number.isFinite(together) ? Math.max(0, apartCost - together) : 0;
}
