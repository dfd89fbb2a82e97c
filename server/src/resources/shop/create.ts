import { randomUUID } from "node:crypto";
import type { FeedSupplier, House } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { askOutside, readAnswer } from "../../outside/index.ts";
import { insertHouse } from "../house/index.ts";
import { insertSupplier } from "../source/index.ts";
import { enterNewShop, insertShop } from "./queries.ts";

/** Made-up round figures in euro for the currencies a shop may be kept in; a shop types its own rates over them. */
const IN_EURO: Readonly<Record<string, number>> = {
  EUR: 1,
  USD: 0.92,
  GBP: 1.16,
  CHF: 1.05,
  SEK: 0.088,
  JPY: 0.0061,
  AUD: 0.6,
  CAD: 0.67,
};

/** Rates a new shop starts with: the currencies the simulated suppliers and houses use. */
export function firstRates(currency: string): Record<string, string> {
  const own = IN_EURO[currency];
  if (own === undefined) return {};
  return Object.fromEntries(
    ["EUR", "USD", "GBP"].filter((c) => c !== currency).map((c) => [c, (IN_EURO[c]! / own).toPrecision(5)]),
  );
}

/** What the stand-ins list: a house with a key can be asked over the network. */
export interface StandIns {
  readonly suppliers: readonly FeedSupplier[];
  readonly houses: readonly (Omit<House, "id"> & { readonly feedKey?: string })[];
}

/**
 * Makes a shop with the simulated suppliers and houses, inside the caller's transaction.
 * @returns its id; the transaction's workshop is set to it
 */
export async function createShop(
  tx: Tx,
  shop: { name: string; currency: string; hourlyRate: string; isDemo: boolean },
  standIns: StandIns,
): Promise<string> {
  const id = randomUUID();
  // nothing of it is a change to take back
  await enterNewShop(tx, id);
  await insertShop(tx, { id, ...shop, taxRate: shop.isDemo ? 0.2 : 0, rates: firstRates(shop.currency) });
  for (const s of standIns.suppliers)
    await insertSupplier(tx, {
      feedKey: s.key,
      name: s.name,
      currency: s.currency,
      shipping: s.shipping,
      freeFrom: s.freeFrom,
      daysMin: s.daysMin,
      daysMax: s.daysMax,
      // of the stand-ins it is known what they are
      sourceClass: "authorised",
    });
  for (const [position, { feedKey, ...h }] of standIns.houses.entries())
    await insertHouse(tx, position, h, undefined, { feedKey, isMadeUp: true });
  return id;
}

/**
 * Suppliers and houses of the stand-ins; none where no stand-in service is configured.
 * @throws AppError SUPPLIER_UNREACHABLE when it does not answer after five tries: a shop without houses would be no use
 */
export async function fetchStandIns(url: string): Promise<StandIns> {
  if (url === "") return { suppliers: [], houses: [] };
  for (let left = 5; ; left--) {
    try {
      const get = (what: string) => askOutside(url, { method: "GET", path: [what], patienceMs: 5000 });
      const [suppliers, houses] = await Promise.all([get("suppliers"), get("houses")]);
      return { suppliers: readAnswer(suppliers, "suppliers"), houses: readAnswer(houses, "houses") };
    } catch (cause) {
      if (left <= 1)
        throw new AppError(
          "SUPPLIER_UNREACHABLE",
          "The simulated suppliers and houses do not answer.",
          "Start Kobbin again; it starts them too.",
          { cause },
        );
      await new Promise((resolve) => setTimeout(resolve, 400));
    }
  }
}
