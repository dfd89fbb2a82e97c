import { randomUUID } from "node:crypto";
import type { FeedSupplier, House } from "@kobbin/contract";
import { AppError } from "@kobbin/core";
import type { Tx } from "../../db/pool.ts";
import { insertHouse } from "../house/queries.ts";
import { insertSupplier } from "../source/queries.ts";
import { insertShop } from "./queries.ts";

/** Rates a new shop starts with, until it types its own: made-up round figures, dated by the shop. */
const RATES: Readonly<Record<string, Record<string, string>>> = {
  EUR: { USD: "0.9200", GBP: "1.1600" },
  USD: { EUR: "1.0870", GBP: "1.2600" },
  GBP: { EUR: "0.8620", USD: "0.7930" },
};

/**
 * Makes a shop with the simulated suppliers and houses, inside the caller's transaction.
 * @returns its id; the transaction's workshop is set to it
 */
export async function createShop(
  tx: Tx,
  shop: { name: string; currency: string; hourlyRate: string; isDemo: boolean },
  standIns: { suppliers: readonly FeedSupplier[]; houses: readonly Omit<House, "id">[] },
): Promise<string> {
  const id = randomUUID();
  await tx.query("select set_config('app.workshop', $1, true)", [id]);
  await insertShop(tx, { id, ...shop, taxRate: shop.isDemo ? 0.2 : 0, rates: RATES[shop.currency] ?? {} });
  for (const s of standIns.suppliers)
    await insertSupplier(tx, {
      feedKey: s.key,
      name: s.name,
      currency: s.currency,
      shipping: s.shipping,
      freeFrom: s.freeFrom,
      daysMin: s.daysMin,
      daysMax: s.daysMax,
    });
  for (const [position, h] of standIns.houses.entries()) await insertHouse(tx, position, h);
  return id;
}

/**
 * Suppliers and houses of the stand-ins; none where no stand-in service is configured.
 * @throws AppError SUPPLIER_UNREACHABLE when it does not answer after five tries: a shop without houses would be no use
 */
export async function fetchStandIns(
  url: string,
): Promise<{ suppliers: FeedSupplier[]; houses: Omit<House, "id">[] }> {
  if (url === "") return { suppliers: [], houses: [] };
  for (let left = 5; ; left--) {
    try {
      const get = async (path: string) =>
        (await fetch(`${url}/${path}`, { signal: AbortSignal.timeout(5000) })).json();
      const [suppliers, houses] = await Promise.all([get("suppliers"), get("houses")]);
      return { suppliers: suppliers as FeedSupplier[], houses: houses as Omit<House, "id">[] };
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
