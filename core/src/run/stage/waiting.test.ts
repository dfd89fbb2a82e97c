import { expect, test } from "@jest/globals";
import { boardK } from "../board-k.fixture.ts";
import { type OrderKind, orderKey } from "../document/order-key.ts";
import { ORDER_STATES, type OrderState, stepWords, stopsOf } from "../document/order-states.ts";
import type { OrderStep } from "../document/record.ts";
import { orderStand, refuseStep } from "../orders/order-steps.ts";
import { rollUp } from "../roll-up.ts";
import { plannedOrders } from "./planned-orders.ts";
import { briefOf, byUrgency, type OrderBrief, type OrderSoFar, waitingFor } from "./waiting.ts";

const brief = (kind: OrderKind, more: Partial<OrderBrief> = {}): OrderBrief => ({
  key: orderKey({ kind, party: "s" }),
  kind,
  name: "S",
  currency: "EUR",
  total: "12.50",
  items: { a: 10, b: 5 },
  days: [2, 4],
  ...more,
});
/** "24 sent, 25 paid": steps by the day of November. */
const steps = (text: string): OrderStep[] =>
  text === ""
    ? []
    : text.split(", ").map((t, i) => {
        const [on, state, ...words] = t.split(" ");
        return {
          id: String(i),
          order: "parts s",
          state: state as OrderState,
          on: `2026-11-${on}`,
          words: words.join(" "),
          person: "",
          source: "",
        };
      });
const at = (text: string, today: number, more: Partial<OrderSoFar> = {}): OrderSoFar => ({
  steps: steps(text),
  came: {},
  releasedOn: "2026-11-20",
  today: `2026-11-${today}`,
  ...more,
});
const told = (o: OrderBrief, so: OrderSoFar) => {
  const w = waitingFor(o, so);
  return w && `${w.waits.on} ${w.waits.what} since ${w.waits.since.slice(8)}${w.isLate ? ", late" : ""}`;
};
const ordered = (on: string, promised?: string) => ({
  purchase: {
    orderedOn: `2026-11-${on}`,
    ...(promised ? { promisedOn: `2026-11-${promised}` } : {}),
  },
});

test.each([
  ["parts", "", 21, {}, "shop to order it since 20"],
  ["parts", "", 24, {}, "shop to order it since 20, late"],
  ["parts", "", 24, ordered("21"), "house to send it since 21"],
  // two to four days from the 21st
  ["parts", "", 26, ordered("21"), "house to send it since 21, late"],
  ["parts", "21 sent", 22, ordered("21"), "house to confirm it since 21"],
  ["parts", "21 sent, 22 accepted", 22, ordered("21"), "shop to pay since 22"],
  ["parts", "21 sent, 22 accepted, 22 paid", 23, ordered("21"), "house to send it since 22"],
  ["boards", "21 sent, 22 accepted, 22 paid", 23, ordered("21"), "house to make it since 22"],
  ["parts", "21 sent, 23 shipped", 25, ordered("21"), "carrier to bring it since 23"],
  ["parts", "21 sent, 23 shipped", 25, ordered("21", "24"), "carrier to bring it since 23, late"],
  ["parts", "21 sent, 22 asked Which?", 23, ordered("21"), "shop to answer what it asks since 22"],
  // the run still wants it; what was promised before it was taken back is promised no more
  [
    "parts",
    "21 sent, 22 withdrawn",
    25,
    ordered("21", "24"),
    "shop to order it again, or elsewhere since 22",
  ],
  ["parts", "21 sent, 22 withdrawn", 26, {}, "shop to order it again, or elsewhere since 22, late"],
] as const)("of %s, “%s” on the %i of November: who is waited for", (kind, text, today, more, expected) => {
  expect(told(brief(kind), at(text, today, more))).toBe(expected);
});

test("what came of one item is none of another; an order of which all came is waited for no more", () => {
  const w = (came: OrderSoFar["came"]) => waitingFor(brief("parts"), at("", 22, { came }));
  expect([w({ a: 25 })?.came, w({ a: 10, b: 4 })?.came, w({ a: 10, b: 5 })]).toEqual([10, 14, undefined]);
  expect(w({})!.of).toBe(15);
});

test("the days it is to be here: as promised, else as planned from the day it was ordered, over the turn of a month", () => {
  const days = (more: Partial<OrderSoFar>) => {
    const w = waitingFor(brief("parts"), at("", 29, more))!;
    return [w.from, w.to, w.isPromised];
  };
  expect(days({})).toEqual([undefined, undefined, false]);
  expect(days(ordered("28"))).toEqual(["2026-11-30", "2026-12-02", false]);
  expect(days(ordered("28", "29"))).toEqual(["2026-11-29", "2026-11-29", true]);
});

test("paid is what somebody said; sent once more, its days count from then on", () => {
  const w = (text: string, more: Partial<OrderSoFar> = {}) => waitingFor(brief("parts"), at(text, 27, more))!;
  expect([w("").isPaid, w("21 sent").isPaid, w("21 sent, 21 paid").isPaid]).toEqual([false, false, true]);
  const again = w("21 sent, 22 withdrawn, 26 sent", ordered("21"));
  expect([again.from, again.to, again.isLate]).toEqual(["2026-11-28", "2026-11-30", false]);
  const back = w("21 sent, 21 paid, 22 withdrawn", ordered("21", "24"));
  expect([back.from, back.to, back.isPromised, back.isPaid]).toEqual([undefined, undefined, false, false]);
});

test("boards of the own bench are to be made and never ordered", () => {
  expect(told(brief("boards", { isOwn: true }), at("", 21))).toBe("shop to make them since 20");
});

test("late before ours before what comes soonest; what has no day last", () => {
  const all = [
    waitingFor(brief("parts"), at("21 accepted, 21 paid", 22))!,
    waitingFor(brief("parts"), at("21 sent, 21 accepted, 21 paid", 22, ordered("21", "28")))!,
    waitingFor(brief("parts"), at("21 sent, 21 accepted, 21 paid", 22, ordered("21", "25")))!,
    waitingFor(brief("parts"), at("", 22))!,
    waitingFor(brief("parts"), at("21 sent", 29, ordered("21", "22")))!,
  ];
  expect([...all].sort(byUrgency).map((w) => all.indexOf(w))).toEqual([4, 3, 2, 1, 0]);
});

test("parts that are bought are ordered and confirmed, and never made; whatever is written, the states stay legal", () => {
  expect(stopsOf("parts").map((s) => stepWords(s, "parts"))).toEqual([
    "ordered",
    "confirmed",
    "paid",
    "on its way",
  ]);
  expect(stopsOf("boards").length).toBe(5);
  expect(stepWords("made", "parts")).toBeUndefined();
  expect(() => refuseStep([], "made", "parts")).toThrow("Parts that are bought are not “made”.");
  expect(() => refuseStep(steps("21 sent"), "sent", "parts")).toThrow("It is ordered already.");
  // every way of three steps: what is refused changes nothing, what is taken stands somewhere
  for (const kind of ["parts", "boards"] as const)
    for (const a of ORDER_STATES)
      for (const b of ORDER_STATES)
        for (const c of ORDER_STATES) {
          const done: OrderStep[] = [];
          for (const state of [a, b, c]) {
            try {
              refuseStep(done, state, kind);
            } catch {
              continue;
            }
            done.push(...steps(`2${done.length + 1} ${state}`));
          }
          const stand = orderStand(done, { today: "2026-11-29", isHere: false, kind });
          if (stand.state !== "open") expect(stepWords(stand.state, kind)).toBeDefined();
          expect(stand.waits === undefined).toBe(stand.state === "open" || stand.state === "withdrawn");
        }
});

test("a run's orders in brief: what each comes to is its lines, Board K", () => {
  const doc = boardK();
  const r = rollUp(doc);
  const orders = plannedOrders({ doc, ...r, plan: r.assembly });
  const briefs = orders.map((o) => briefOf(doc, o));
  expect(briefs.map((b) => b.key)).toEqual(orders.map((o) => o.key));
  for (const [i, b] of briefs.entries()) {
    expect(b.days.every(Number.isInteger)).toBe(true);
    expect(Number(b.total)).toBeCloseTo(orders[i]!.items.reduce((n, x) => n + x.total, 0) / 1e6, 6);
    expect(Object.values(b.items).reduce((n, q) => n + q, 0)).toBe(
      orders[i]!.items.reduce((n, x) => n + x.qty, 0),
    );
  }
});
