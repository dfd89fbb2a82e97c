import { expect, test } from "@jest/globals";
import { boardK } from "../board-k.fixture.ts";
import type { RunDocument } from "../document/document.ts";
import type { RunPurchase } from "../document/record.ts";
import { FAR } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { plannedOrders } from "./planned-orders.ts";

const bought = (order: string, paid: RunPurchase["paid"], more: Partial<RunPurchase> = {}): RunPurchase => ({
  id: order,
  order,
  currency: "EUR",
  paid,
  note: "",
  ...more,
});
const termOf = (doc: RunDocument, key: string, ...purchases: RunPurchase[]) => {
  const { actual } = rollUp(doc, { record: { purchases, receipts: [], work: [] } });
  const { planned, actual: came, open } = actual!.terms.find((t) => t.key === key)!;
  return { planned: planned / 1e6, came: came === undefined ? undefined : came / 1e6, open };
};

// Board K: 57 for the boards, 27.50 for their parcel and the border
test.each([
  ["nothing is written down", [], undefined, "what the boards cost"],
  ["the parcel alone", [bought("boards far", {}, { freight: "30" })], undefined, "what the boards cost"],
  ["the lines alone", [bought("boards far", { "board 0": "60" })], 60 + 27.5, "what the boards' parcel cost"],
  ["both", [bought("boards far", { "board 0": "60" }, { freight: "30" })], 90, undefined],
  ["a parcel that was free", [bought("boards far", { "board 0": "60" }, { freight: "0" })], 60, undefined],
] as const)("boards against their invoice: %s", (_, purchases, came, open) => {
  expect(termOf(boardK(), "boards", ...purchases)).toEqual({ planned: 84.5, came, open });
});

test("boards in another currency come at the shop's rate, lines and parcel", () => {
  const k = boardK();
  const house = { ...k.house!, currency: "USD" };
  const doc = { ...k, house, workshop: { ...k.workshop, rates: { USD: "0.5" } } };
  expect(termOf(doc, "boards").planned).toBe(42.25);
  const order = plannedOrders({ doc, ...rollUp(doc), plan: undefined }).find((o) => o.kind === "boards")!;
  expect([order.currency, order.items[0]!.total / 1e6, order.beside / 1e6]).toEqual(["USD", 57, 13.75]);
  const paid = bought("boards far", { "board 0": "60" }, { currency: "USD" });
  expect(termOf(doc, "boards", paid).came).toBe(30 + 13.75);
  expect(termOf(doc, "boards", { ...paid, freight: "10" }).came).toBe(35);
});

test("a quotation has the parcel in it: its lines known, nothing is open", () => {
  const doc = boardK({
    quotes: [{ house: "far", kind: "fab", total: "80", currency: "EUR", days: 9, capturedOn: "2026-11-09" }],
  });
  expect(termOf(doc, "boards", bought("boards far", { "board 0": "82" }))).toEqual({
    planned: 80,
    came: 82,
    open: undefined,
  });
  expect(termOf(doc, "boards", bought("boards far", { "board 0": "82" }, { freight: "9" })).came).toBe(91);
});

// 145.76 for the placing, 49 for the ways there and back
test("a house that places: its price and its ways are two terms, each open until it is known", () => {
  const doc = twoSided({ method: "house", house: "far" });
  const price = (...p: RunPurchase[]) => termOf(doc, "house-price", ...p);
  const ways = (...p: RunPurchase[]) => termOf(doc, "house-parcels", ...p);
  const lines = bought("assembly far", { placing: "150" });
  expect(price()).toEqual({ planned: 145.76, came: undefined, open: "what the assembly cost" });
  expect(ways()).toEqual({
    planned: 49,
    came: undefined,
    open: "what the ways to the house and back cost",
  });
  expect([price(lines).came, ways(lines).came]).toEqual([150, undefined]);
  const whole = { ...lines, freight: "52" };
  expect([price(whole), ways(whole)]).toEqual([
    { planned: 145.76, came: 150, open: undefined },
    { planned: 49, came: 52, open: undefined },
  ]);
});

test("stencil and consumables are money beside the orders, nothing else is", () => {
  const beside = (doc: RunDocument) =>
    rollUp(doc)
      .cash.filter((c) => c.isBeside)
      .map((c) => c.label);
  expect(beside(twoSided({ method: "stencil" }))).toEqual(["stencil", "paste, flux, cleaning"]);
  expect(beside(twoSided({ method: "house", house: FAR.id }))).toEqual([]);
});

test("what was paid back of a claim comes off the invoice it is of, and off nothing while no invoice is known", () => {
  const claim = (order: string, item: string, credit?: string) => ({
    id: `${order} ${item}`,
    order,
    item,
    pieces: 1,
    because: "bent",
    letter: "",
    state: "settled" as const,
    answer: "",
    ...(credit === undefined ? {} : { credit }),
    openedOn: "2026-12-01",
    person: "",
  });
  const came = (
    doc: RunDocument,
    key: string,
    purchases: RunPurchase[],
    ...claims: ReturnType<typeof claim>[]
  ) => {
    const { actual } = rollUp(doc, { record: { purchases, receipts: [], work: [], claims } });
    const t = actual!.terms.find((x) => x.key === key)!.actual;
    return t === undefined ? undefined : t / 1e6;
  };
  const k = boardK();
  const invoice = bought("boards far", { "board 0": "60" }, { freight: "30" });
  expect(came(k, "boards", [invoice], claim("boards far", "board 0", "12.50"))).toBe(77.5);
  // of nothing that was answered, and of an order elsewhere, nothing
  expect(
    came(k, "boards", [invoice], claim("boards far", "board 0"), claim("boards other", "board 0", "5")),
  ).toBe(90);
  expect(came(k, "boards", [], claim("boards far", "board 0", "12.50"))).toBeUndefined();
  const order = plannedOrders({ doc: k, ...rollUp(k), plan: undefined }).find((o) => o.kind === "parts")!;
  const [first] = order.items;
  const all = bought(
    order.key,
    Object.fromEntries(order.items.map((i) => [i.key, (i.total / 1e6).toFixed(6)])),
    { currency: order.currency },
  );
  const whole = came(k, "parts-used", [all])!;
  const back = came(k, "parts-used", [all], claim(order.key, first!.key, (first!.total / 2e6).toFixed(6)))!;
  expect(back).toBeLessThan(whole);
  expect(whole - back).toBeLessThanOrEqual(first!.total / 2e6 + 1e-9);
  // half of the whole order paid back, whatever line it is for: half of every line
  const sum = order.items.reduce((n, i) => n + i.total, 0);
  const half = came(k, "parts-used", [all], claim(order.key, "", (sum / 2e6).toFixed(6)))!;
  expect(half).toBeCloseTo(whole / 2, 4);
});
