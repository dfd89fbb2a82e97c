import { toMicros } from "../../money/money.ts";
import { inShopCurrency } from "../document/parts.ts";
import type { RunPurchase, RunRecord } from "../document/record.ts";
import { type PlannedOrder, plannedOrders } from "./planned-orders.ts";
import type { Happened } from "./stage.ts";

type Of = Pick<Happened, "w" | "record">;

/** An order with what is written down of it. */
export interface Bought {
  readonly order: PlannedOrder;
  readonly purchase: RunPurchase | undefined;
}

/** The orders of a kind, each with what is written down of it. */
export const boughtOf = ({ w, record }: Of, kind: PlannedOrder["kind"]): Bought[] =>
  plannedOrders(w)
    .filter((o) => o.kind === kind)
    .map((order) => ({ order, purchase: record.purchases.find((p) => p.order === order.key) }));

/** What was paid back of an order's claims, or of those of one of its items; micros in the order's currency. */
export const creditOf = (record: RunRecord, order: string, item?: string): number =>
  (record.claims ?? [])
    .filter((c) => c.order === order && (item === undefined || c.item === item))
    .reduce((n, c) => n + (c.credit === undefined ? 0 : toMicros(c.credit)), 0);

/** What was paid for all lines of a kind of order, what was paid back taken off, shop's currency; nothing until every one is known. */
export function paidFor(of: Of, kind: PlannedOrder["kind"]): number | undefined {
  let sum = 0;
  for (const { order, purchase: p } of boughtOf(of, kind)) {
    if (!p || order.items.some((i) => p.paid[i.key] === undefined)) return undefined;
    const lines = order.items.reduce((n, i) => n + toMicros(p.paid[i.key]!), 0);
    sum += inShopCurrency(of.w.doc, lines - creditOf(of.record, order.key), p.currency);
  }
  return sum;
}

/** Whether what comes on top of an order's lines was written down. */
export const isBesideKnown = ({ purchase }: Bought): boolean => purchase?.freight !== undefined;

/** What came on top of the lines, as it was charged, else as planned; shop's currency. */
export const besideOf = ({ w }: Pick<Of, "w">, { order, purchase: p }: Bought): number =>
  p?.freight === undefined ? order.beside : inShopCurrency(w.doc, toMicros(p.freight), p.currency);
