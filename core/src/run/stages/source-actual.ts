import { toMicros } from "../../money/money.ts";
import { type ActualTerm, asPlanned, fixedTerm, scaledTerm } from "../actual.ts";
import { inShopCurrency } from "../parts.ts";
import { type PlannedOrder, plannedOrders } from "../planned-orders.ts";
import type { RunPurchase } from "../record.ts";
import type { Happened } from "./stage.ts";

const USED = new Set(["parts-used", "parts-made", "parts-shelf"]);

/** Parts as they were used up, at the price of their invoices, and the parcels as they were charged. */
export function sourceActual({ w, planned, record, counts }: Happened): ActualTerm[] {
  const orders = plannedOrders(w).filter((o) => o.kind === "parts");
  const bought = (o: PlannedOrder) => record.purchases.find((p) => p.order === o.key);
  const ratio = new Map(orders.flatMap((o) => o.items.map((i) => [i.key, ratioOf(o, i.key, bought(o))])));
  return planned.children.map((c) => {
    const of = { key: c.key, label: c.label, planned: c.micros as number };
    if (c.key === "parts-used")
      return scaledTerm({ ...of, ...priceOpen(ratio) }, counts, 1, priceOf(w, ratio));
    if (USED.has(c.key)) return scaledTerm(of, counts);
    if (c.key !== "parts-shipping") return asPlanned(c);
    const charged = orders.map((o) => ({ o, p: bought(o) }));
    if (charged.every(({ p }) => p?.freight === undefined))
      return fixedTerm({ ...of, ...(orders.length > 0 ? { open: "what the parcels cost" } : {}) }, undefined);
    const open = charged.filter(({ p }) => p?.freight === undefined).length;
    const sum = charged.reduce((n, { o, p }) => n + freightOf(w, o, p), 0);
    return fixedTerm(
      { ...of, ...(open > 0 ? { open: `what ${open === 1 ? "one parcel" : `${open} parcels`} cost` } : {}) },
      sum,
    );
  });
}

/** Paid for planned; nothing where no invoice says. */
function ratioOf(o: PlannedOrder, item: string, p: RunPurchase | undefined): number | undefined {
  const [paid, planned] = [p?.paid[item], o.items.find((i) => i.key === item)!.total];
  return paid === undefined || planned === 0 ? undefined : toMicros(paid) / planned;
}

function priceOpen(ratio: ReadonlyMap<string, number | undefined>): { open?: string } {
  const n = [...ratio.values()].filter((r) => r === undefined).length;
  return n === 0 ? {} : { open: n === 1 ? "the price of one line" : `the prices of ${n} lines` };
}

/** Mean of the lines' paid for planned, weighed by what of each is used. */
function priceOf(
  { doc, needs, basket }: Happened["w"],
  ratio: ReadonlyMap<string, number | undefined>,
): number {
  let [planned, paid] = [0, 0];
  basket.lines.forEach((l, i) => {
    const pieces = l.buys.reduce((n, b) => n + b.qty, 0);
    const share = doc.choices.leftovers === "expense" ? 1 : Math.min(1, needs[i]!.need / Math.max(1, pieces));
    for (const b of l.buys) {
      planned += b.cost * share;
      paid += b.cost * share * (ratio.get(b.offer) ?? 1);
    }
  });
  return planned === 0 ? 1 : paid / planned;
}

/** What a parcel was charged with, else what was planned for its supplier. */
function freightOf({ doc, basket }: Happened["w"], o: PlannedOrder, p: RunPurchase | undefined): number {
  if (p?.freight !== undefined) return inShopCurrency(doc, toMicros(p.freight), p.currency);
  return o.key === `parts ${o.party}` ? (basket.shippingOf[o.party] ?? 0) : 0;
}
