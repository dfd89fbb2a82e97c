import { expect, test } from "@jest/globals";
import { toMicros } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";
import { NO_RECORD } from "../document/record.ts";
import { madeLine, madeOffer, madeRun } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { plannedOrders } from "./planned-orders.ts";
import { purchaseOrder, purchaseRows } from "./purchase-order.ts";

const made = (more: Partial<RunDocument> = {}) => {
  const doc = madeRun(more);
  const r = rollUp(doc);
  const orders = plannedOrders({ doc, ...r, plan: r.assembly });
  return { doc, r, orders };
};

test("lines are those the supplier will write: exact unit prices, rounded lines, their sum; numbered by year, release and order", () => {
  const { doc, r, orders } = made({
    lines: [madeLine("a", ["R1", "R2"], { mpn: "OX-10K", maker: "Oxbow", description: "resistor" })],
    offers: [madeOffer("o1", "a", "0.0123")],
  });
  const bought = orders.find((o) => o.kind === "parts")!;
  const p = purchaseOrder(
    { ...doc, workshop: { ...doc.workshop, address: "Moss Lane 4 \n\n 12345 Vale" } },
    r.basket,
    bought,
    orders,
    {
      ...NO_RECORD,
      series: { batch: 7, year: 2026 },
      purchases: [
        { id: "p", order: bought.key, orderedOn: "2026-11-30", currency: "EUR", paid: {}, note: "" },
      ],
    },
  )!;
  expect(p).toMatchObject({
    number: `2026-7-${orders.indexOf(bought) + 1}`,
    currency: bought.currency,
    address: ["Moss Lane 4", "12345 Vale"],
    orderedOn: "2026-11-30",
  });
  expect(p).not.toHaveProperty("promisedOn");
  const [line] = p.lines;
  expect(line).toMatchObject({
    n: 1,
    mpn: "OX-10K",
    maker: "Oxbow",
    description: "resistor",
    unitPrice: "0.0123",
  });
  // pieces at their exact price, to the cent, half away from zero
  expect(Number(line!.total)).toBe(Math.round(line!.qty * 1.23 + 1e-9) / 100);
  expect(toMicros(p.subtotal)).toBe(p.lines.reduce((n, l) => n + toMicros(l.total), 0));
  expect(p.lines.map((l) => toMicros(l.total))).toEqual(bought.items.map((i) => i.total));
  expect(purchaseRows(p)).toBe(`OX-10K\t${line!.qty}\t${p.number}/1`);
});

test("without a release it is called by its run; an order that buys no parts has no such paper", () => {
  const { doc, r, orders } = made({
    lines: [madeLine("a", ["R1"], { mpn: "OX-10K" })],
    offers: [madeOffer("o1", "a", "0.02")],
  });
  const bought = orders.find((o) => o.kind === "parts")!;
  expect(purchaseOrder(doc, r.basket, bought, orders, NO_RECORD)!.number).toBe(
    `${doc.name}, ${orders.indexOf(bought) + 1}`,
  );
  expect(purchaseOrder(doc, r.basket, { ...bought, kind: "boards" }, orders, NO_RECORD)).toBeUndefined();
  expect(purchaseOrder(doc, r.basket, { ...bought, party: "nobody" }, orders, NO_RECORD)).toBeUndefined();
});
