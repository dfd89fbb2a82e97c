import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { boardK } from "../board-k.fixture.ts";
import type { RunDocument } from "../document/document.ts";
import type { RunReceipt, RunRecord } from "../document/record.ts";
import { madeLine, madeOffer } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { plannedOrders } from "../stage/planned-orders.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { readinessOf } from "./readiness.ts";

const EMPTY: RunRecord = { purchases: [], receipts: [], work: [] };
const WHEN = { today: "2026-12-01", releasedOn: "2026-11-28" };
const doc = twoSided({ method: "stencil" });
const r = rollUp(doc);
const orders = plannedOrders({ doc, ...r, plan: r.assembly });
const parts = orders.find((o) => o.kind === "parts")!;
const boards = orders.find((o) => o.kind === "boards")!;
let n = 0;
const came = (
  order: { key: string },
  item: string,
  qty: number,
  more: Partial<RunReceipt> = {},
): RunReceipt => ({
  id: `r${n++}`,
  order: order.key,
  item,
  qty,
  arrivedOn: "2026-12-01",
  isApart: false,
  because: "",
  lot: `lot${n}`,
  ...more,
});
const with_ = (receipts: readonly RunReceipt[], more: Partial<RunRecord> = {}) =>
  readinessOf(doc, r, { ...EMPTY, receipts, ...more }, WHEN);
const all = (share = 1) =>
  orders.flatMap((o) => o.items.map((i) => came(o, i.key, Math.floor(i.qty * share))));
const bought = (order: { key: string }, orderedOn: string, promisedOn?: string) => ({
  id: order.key,
  order: order.key,
  orderedOn,
  ...(promisedOn ? { promisedOn } : {}),
  currency: "EUR",
  paid: {},
  note: "",
});

test("of each item so many products as its pieces divide into; the least of all can be made", () => {
  // ten to start: eight R and four C, one J1 a board
  expect(r.start).toBe(10);
  const nothing = with_([]);
  expect([nothing.light, nothing.now, nothing.short.length, nothing.items]).toEqual(["blocked", 0, 4, 4]);
  expect(nothing.unknown).toEqual(["the foil, which is in no order", "paste, wire and flux"]);
  const stopped = readinessOf(
    doc,
    r,
    { ...EMPTY, receipts: all() },
    { ...WHEN, stops: ["B did not measure as it must"] },
  );
  expect([stopped.light, stopped.now]).toEqual(["blocked", 10]);
  const whole = with_(all());
  expect([whole.light, whole.now, whole.short]).toEqual(["ready", 10, []]);
  // all boards, all but the capacitors: of those 19, which are four boards and three pieces
  const [rItem, cItem, jItem] = ["or", "oc", "oj"];
  const some = with_([
    came(boards, "b", 10),
    came(parts, rItem!, 200),
    came(parts, cItem!, 19),
    came(parts, jItem!, 40),
  ]);
  expect([some.light, some.now]).toEqual(["some", 4]);
  expect(some.short).toMatchObject([{ kind: "part", each: 4, have: 19, products: 4 }]);
  // what is set apart serves nobody
  const apart = with_([...all().filter((x) => x.item !== cItem), came(parts, cItem!, 60, { isApart: true })]);
  expect([apart.light, apart.now]).toEqual(["blocked", 0]);
  // four were begun: the fifth cannot be
  const begun = with_(
    [came(boards, "b", 10), came(parts, rItem!, 200), came(parts, cItem!, 19), came(parts, jItem!, 40)],
    {
      work: [{ id: "w", on: "2026-12-01", started: 4, good: 0, scrapped: 0, reworked: 0, minutes: 0 }],
    },
  );
  expect(begun.light).toBe("blocked");
});

test("boards that did not hold when they were tried bare are no boards", () => {
  const fault = { nets: ["A"], at: "J1.1 – J1.2", expect: "joined" as const };
  const tried = (label: string, isBad: boolean) => ({
    id: label,
    item: "b",
    label,
    on: "2026-12-01",
    tried: 5,
    faults: isBad ? [fault] : [],
    note: "",
  });
  const seen = with_(all(), {
    bareTests: [tried("1", true), tried("1", true), tried("2", false), tried("3", true)],
  });
  expect(seen.short).toMatchObject([{ key: "b", have: boards.items[0]!.qty - 2, faulty: 2 }]);
});

test("ahead: from each day on which something is to come, limited by what is still missing; what is overdue has no day", () => {
  const later = with_([], {
    purchases: [bought(parts, "2026-11-28", "2026-12-05"), bought(boards, "2026-11-28", "2026-12-09")],
  });
  expect(later.ahead.map((a) => [a.on, a.products])).toEqual([
    ["2026-12-01", 0],
    ["2026-12-09", 10],
  ]);
  expect(later.ahead[0]!.by).toBe("bare boards");
  // 10 products of the run's own hours, five hours a day, after the last of it is there
  const days = Math.ceil(r.ownMinutes / 60 / doc.workshop.hoursPerDay);
  expect(later.doneOn).toBe(`2026-12-${String(9 + days).padStart(2, "0")}`);
  // the bench knows better what is left: 601 minutes are three days of five hours, none are no day
  const left = (leftMinutes: number) =>
    readinessOf(doc, r, { ...EMPTY, receipts: all() }, { ...WHEN, leftMinutes }).doneOn;
  expect([left(601), left(600), left(0)]).toEqual(["2026-12-04", "2026-12-03", undefined]);
  // where nobody sat at it what is begun is not finished: of ten planned alike three are good, one is given up, one is at work
  const work = [{ id: "w", on: "2026-12-01", started: 5, good: 3, reworked: 0, scrapped: 1, minutes: 0 }];
  // at hours in which one and a hundredth board is made a day, six take six days
  const hoursPerDay = r.ownMinutes / 60 / 9.9;
  const slow = { ...doc, workshop: { ...doc.workshop, hoursPerDay } };
  expect(readinessOf(slow, r, { ...EMPTY, receipts: all(), work }, WHEN).doneOn).toBe("2026-12-07");
  expect(with_(all(), { work }).over).toBe(4);
  // what is built is built, whatever nobody wrote down as come
  const built = [{ ...work[0]!, started: 10, good: 9 }];
  expect(with_([], { work: built })).toMatchObject({ light: "ready", over: 10 });
  expect(with_([], { work }).light).toBe("blocked");
  // boards promised for a day that is over: nobody knows when
  const late = with_([], {
    purchases: [bought(parts, "2026-11-20", "2026-12-05"), bought(boards, "2026-11-20", "2026-11-30")],
  });
  expect(late.doneOn).toBeUndefined();
  expect(late.ahead.at(-1)).toEqual({ on: "2026-12-01", products: 0, by: "bare boards" });
  expect(late.short.find((i) => i.kind === "board")!.comes).toMatchObject([
    { isLate: true, isPromised: true },
  ]);
  // not ordered: it is to come from there, and has no day
  expect(with_([]).short[0]!.comes[0]).not.toHaveProperty("to");
});

test("who did not order hears nothing; who was sent it and says nothing is silent; what was taken back is on no way", () => {
  const of = (...states: ("sent" | "withdrawn")[]) => {
    const steps = states.map((state, k) => ({
      ...{ id: `${k}`, order: boards.key, state, on: `2026-11-2${k + 1}` },
      ...{ words: "", person: "", source: "" },
    }));
    const record = { ...EMPTY, steps, purchases: states.length > 0 ? [bought(boards, "2026-11-21")] : [] };
    // a week after the release
    const ready = readinessOf(doc, r, record, { today: "2026-11-27", releasedOn: "2026-11-20" });
    return ready.short.find((i) => i.kind === "board")!.comes.map((c) => [c.to !== undefined, c.isSilent]);
  };
  expect([of(), of("sent"), of("sent", "withdrawn")]).toEqual([[[false, false]], [[true, true]], []]);
});

test("law: one more piece never makes fewer products; what is said now is what a slow count says", () => {
  const items = orders.flatMap((o) => o.items.map((i) => [o, i] as const));
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(items.length - 1), fc.integer({ min: 1, max: 120 }), fc.boolean()), {
        maxLength: 12,
      }),
      fc.nat(items.length - 1),
      (list, extra) => {
        const receipts = list.map(([k, qty, isApart]) =>
          came(items[k]![0], items[k]![1].key, qty, { isApart }),
        );
        const one = with_(receipts);
        const more = with_([...receipts, came(items[extra]![0], items[extra]![1].key, 1)]);
        expect(more.now).toBeGreaterThanOrEqual(one.now);
        const have = (item: string) =>
          receipts.reduce((s, x) => s + (x.item === item && !x.isApart ? x.qty : 0), 0);
        // product by product, taken out of the heap until something is missing
        const heap: Record<string, number> = { b: have("b"), or: have("or"), oc: have("oc"), oj: have("oj") };
        let slow = 0;
        while (slow < 10 && heap.b! >= 1 && heap.or! >= 8 && heap.oc! >= 4 && heap.oj! >= 1) {
          heap.b! -= 1;
          heap.or! -= 8;
          heap.oc! -= 4;
          heap.oj! -= 1;
          slow++;
        }
        expect(one.now).toBe(slow);
        for (const [k, a] of one.ahead.entries())
          if (k > 0) expect(a.products).toBeGreaterThanOrEqual(one.ahead[k - 1]!.products);
      },
    ),
    { numRuns: 150, seed: 41 },
  );
});

test("what the run counts on from the shelf is here", () => {
  const lot = {
    id: "l",
    mpn: "OX-100N",
    qty: 30,
    place: "drawer",
    receivedOn: "2026-01-01",
    unitCost: "0.1",
    currency: "EUR",
    condition: "new" as const,
  };
  const own = twoSided({ method: "stencil" }, { lots: [lot] });
  const c = readinessOf(own, rollUp(own), EMPTY, WHEN).short.find((i) => i.key === "c")!;
  expect([c.have, c.products]).toEqual([30, 7]);
  expect(c.comes.reduce((s, x) => s + x.qty, 0)).toBeGreaterThanOrEqual(10);
  expect(readinessOf(boardK() as RunDocument, rollUp(boardK()), EMPTY, WHEN).light).toBe("blocked");
});

test("what goes to the finished product is wanted for the good ones, what is soldered for all that are started", () => {
  const one = twoSided(
    { method: "stencil" },
    {
      confidence: 0.999,
      lines: [...doc.lines, madeLine("s", [], { valueText: "screw", mpn: "OX-M3", qty: 2, mount: "none" })],
      offers: [...doc.offers, madeOffer("os", "s", "0.1", { stock: 5000 })],
    },
  );
  const rolled = rollUp(one);
  expect(rolled.start).toBeGreaterThan(10);
  const receipts = plannedOrders({ doc: one, ...rolled, plan: rolled.assembly }).flatMap((o) =>
    o.items.map((i) => came(o, i.key, i.key === "os" ? 20 : i.qty)),
  );
  const seen = readinessOf(one, rolled, { ...EMPTY, receipts }, WHEN);
  expect([seen.light, seen.now, seen.short]).toEqual(["ready", rolled.start, []]);
  const fewer = readinessOf(
    one,
    rolled,
    { ...EMPTY, receipts: receipts.map((x) => (x.item === "os" ? { ...x, qty: 19 } : x)) },
    WHEN,
  );
  expect(fewer.short).toMatchObject([{ have: 19, need: 20, products: 9 }]);
});
