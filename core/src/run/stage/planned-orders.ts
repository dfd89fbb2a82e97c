import { type Micros, toMicros } from "../../money/money.ts";
import { boardKey } from "../document/boards.ts";
import { type OrderKey, type OrderKind, orderKey } from "../document/order-key.ts";
import { inShopCurrency, nameOfLine } from "../document/parts.ts";
import { invoicesOf } from "../orders/invoice.ts";
import type { Worked } from "./stage.ts";

/** One line of an order. */
export interface PlannedItem {
  /** Offer it is bought from, or index of the board; stands in the record. */
  readonly key: string;
  readonly label: string;
  /** Number it is bought as; empty for boards and work. */
  readonly mpn: string;
  readonly qty: number;
  /** What the line comes to, in the order's currency, rounded as it will be invoiced. */
  readonly total: Micros;
}

/** What is ordered at one place. */
export interface PlannedOrder {
  readonly key: OrderKey;
  readonly kind: OrderKind;
  /** Supplier or house of the document. */
  readonly party: string;
  readonly name: string;
  readonly currency: string;
  readonly items: readonly PlannedItem[];
  /** What comes on top of the lines: freight, handling, fees; of the shop's currency. */
  readonly beside: number;
  /** Days until it is there, least and most. */
  readonly days: readonly [number, number];
}

type Of = Pick<Worked, "doc" | "parts" | "basket" | "orders" | "guests" | "plan" | "start">;

const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);

/**
 * Everything a run orders, by whom: a supplier's basket in its currency, the boards at their house, the placing at its.
 * A basket in two currencies is two orders.
 */
export const plannedOrders = (w: Of): PlannedOrder[] => [...baskets(w), ...boards(w), ...placing(w)];

function baskets({ doc, parts, basket }: Of): PlannedOrder[] {
  const numbers = new Map((doc.library ?? []).map((p) => [p.id, p.mpn]));
  const lines = new Map(doc.lines.map((l) => [l.id, l]));
  return invoicesOf(doc, basket).map((i) => {
    const s = doc.suppliers.find((x) => x.id === i.supplier);
    const isOwn = i.currency === (s?.currency ?? doc.workshop.currency);
    const more = Math.max(0, ...i.lines.map((l) => l.offer.leadDays ?? 0));
    return {
      key: orderKey({ kind: "parts", party: i.supplier, ...(isOwn ? {} : { currency: i.currency }) }),
      kind: "parts",
      party: i.supplier,
      name: s?.name ?? i.supplier,
      currency: i.currency,
      items: i.lines.map((l) => {
        const line = lines.get(l.line);
        return {
          key: l.offer.id,
          label: nameOfLine(doc, parts, l.line),
          mpn: numbers.get(l.offer.part ?? "") ?? (line?.mpn || line?.valueText || ""),
          qty: l.buy.qty,
          total: l.total,
        };
      }),
      // a supplier's parcel is charged once, with what is bought in its own currency
      beside: isOwn ? (basket.shippingOf[i.supplier] ?? 0) : 0,
      days: [(s?.daysMin ?? 0) + more, (s?.daysMax ?? 0) + more],
    };
  });
}

function boards({ doc, orders: own, guests }: Of): PlannedOrder[] {
  const house = doc.house;
  if (!house || own.length === 0) return [];
  const orders = [
    ...own.map((o, i) => ({ ...o, key: boardKey(doc, i) })),
    ...guests.map((o) => ({ ...o, name: `${o.name}, for ${o.guest.product}`, key: `guest ${o.guest.id}` })),
  ];
  const quoted = own[0]!.quoted;
  const whole = sum(orders.map((o) => o.quote.total));
  const asked = quoted ? toMicros(quoted.total) : 0;
  const days = Math.max(...orders.map((o) => o.days));
  return [
    {
      key: orderKey({ kind: "boards", party: house.id }),
      kind: "boards",
      party: house.id,
      name: house.name,
      currency: quoted?.currency ?? house.currency,
      items: orders.map((o) => ({
        key: o.key,
        label: o.name,
        mpn: "",
        qty: o.quote.pieces,
        // of a quotation for all boards each its share, as their estimates stand; it has the freight in it
        total: (quoted ? Math.round((asked * o.quote.total) / Math.max(1, whole)) : o.quote.boards) as Micros,
      })),
      beside: quoted
        ? 0
        : sum(orders.map((o) => inShopCurrency(doc, o.quote.freight + o.quote.handling, house.currency))),
      days: [days, days],
    },
  ];
}

function placing({ doc, plan, start }: Of): PlannedOrder[] {
  if (!plan) return [];
  return [
    {
      key: orderKey({ kind: "assembly", party: plan.house.id }),
      kind: "assembly",
      party: plan.house.id,
      name: plan.house.name,
      currency: plan.currency,
      items: [
        {
          key: "placing",
          label: "assembly",
          mpn: "",
          qty: start,
          total: sum(plan.terms.map((t) => t.micros)) as Micros,
        },
      ],
      beside: inShopCurrency(doc, sum(plan.parcels.terms.map((t) => t.micros)), plan.house.currency),
      days: [plan.days + plan.parcels.days, plan.days + plan.parcels.days],
    },
  ];
}
