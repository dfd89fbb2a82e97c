import { toMicros } from "../../money/money.ts";
import { inShopCurrency } from "../parts.ts";
import { type PlannedOrder, plannedOrders } from "../planned-orders.ts";
import type { Happened } from "./stage.ts";

type Of = Pick<Happened, "w" | "record">;

/** What was paid for a whole order with what was charged beside it, shop's currency; nothing until every line is known. */
export function paidFor({ w, record }: Of, kind: PlannedOrder["kind"]): number | undefined {
  let sum = 0;
  for (const o of plannedOrders(w).filter((x) => x.kind === kind)) {
    const p = record.purchases.find((x) => x.order === o.key);
    if (!p || o.items.some((i) => p.paid[i.key] === undefined)) return undefined;
    const lines = o.items.reduce((n, i) => n + toMicros(p.paid[i.key]!), 0);
    sum += inShopCurrency(w.doc, lines + toMicros(p.freight ?? 0), p.currency);
  }
  return sum;
}

/** Says that an order's price is not recorded. */
export const openOf = (h: Of, kind: "boards" | "assembly"): { open?: string } =>
  paidFor(h, kind) === undefined
    ? { open: kind === "boards" ? "what the boards cost" : "what the assembly cost" }
    : {};
