import { expect, test } from "@jest/globals";
import fc from "fast-check";
import type { PastRun } from "../../assembly/prior.ts";
import { microsToNumber, toMicros } from "../../money/money.ts";
import { boardK } from "../board-k.fixture.ts";
import type { RunDocument } from "../document/document.ts";
import {
  arrivedOf,
  NO_RECORD,
  type RunPurchase,
  type RunRecord,
  type RunWork,
  refuseMiscount,
  tallyOf,
  usableProducts,
} from "../document/record.ts";
import { rollUp } from "../roll-up.ts";
import { plannedOrders } from "../stage/planned-orders.ts";
import type { RunResult } from "../stage/result.ts";
import { countsOf, fixedTerm, variancesOf } from "./actual.ts";

const day = (started: number, good: number, scrapped: number, more: Partial<RunWork> = {}): RunWork => ({
  id: "w",
  on: "2026-12-01",
  started,
  good,
  scrapped,
  reworked: 0,
  minutes: 0,
  ...more,
});

test("EX 8.9: 33 started for 29 good at 10.2 × 0.54 each, planned 30 good of 31.58 at 10 × 0.50", () => {
  const planned = { started: 30 / 0.95, good: 30 };
  const parts = variancesOf(
    (30 / 0.95) * 10 * 0.5,
    { planned, actual: { started: 33, good: 29 } },
    1.02,
    1.08,
  );
  expect(parts.map((v) => [v.key, Number(v.micros.toFixed(3))])).toEqual([
    ["volume", -5.263],
    ["yield", 12.368],
    ["usage", 3.3],
    ["price", 13.464],
  ]);
  expect(parts.reduce((n, v) => n + v.micros, 0)).toBeCloseTo(23.869, 3);
});

test("the parts of a difference sum to it, whatever was planned and came", () => {
  const count = fc.integer({ min: 1, max: 500 });
  const factor = fc.double({ min: 0.1, max: 5, noNaN: true });
  fc.assert(
    fc.property(count, count, count, factor, factor, factor, (s0, s, n, y, usage, price) => {
      const c = { planned: { started: s0, good: s0 * Math.min(1, y) }, actual: { started: s, good: n } };
      const cost = 1000 * s0;
      const sum = variancesOf(cost, c, usage, price).reduce((t, v) => t + v.micros, 0);
      expect(sum).toBeCloseTo(1000 * s * usage * price - cost, 4);
    }),
  );
});

test("no sequence of counts loses a board: begun are good, scrapped or open, and more than came is refused", () => {
  const some = fc.array(
    fc.record({ started: fc.nat(9), good: fc.nat(9), scrapped: fc.nat(4), reworked: fc.nat(3) }),
    { maxLength: 8 },
  );
  fc.assert(
    fc.property(some, fc.nat(40), (list, usable) => {
      const kept: RunWork[] = [];
      for (const w of list) {
        const next = [...kept, day(w.started, w.good, w.scrapped, { reworked: w.reworked })];
        try {
          refuseMiscount(tallyOf(next), usable);
          kept.push(next.at(-1)!);
        } catch {
          // refused whole: what stood before stands
        }
        const t = tallyOf(kept);
        expect(t.good + t.scrapped + t.open).toBe(t.started);
        expect(t.open).toBeGreaterThanOrEqual(0);
        expect(t.started).toBeLessThanOrEqual(usable);
        expect(t.reworked).toBeLessThanOrEqual(t.started);
      }
    }),
  );
});

test.each([
  [day(3, 2, 2), undefined, "2 good and 2 scrapped are 4 boards, but 3 were started."],
  [day(3, 1, 0, { reworked: 4 }), undefined, "4 boards were mended, but 3 were started."],
  [day(3, 1, 0), 2, "3 boards were started, but boards for 2 came and may be used."],
] as const)("counts that cannot be are refused in words", (w, usable, says) => {
  expect(() => refuseMiscount(tallyOf([w]), usable)).toThrow(says);
});

const ordersOf = (r: RunResult, doc = boardK()) => plannedOrders({ doc, ...r, plan: r.assembly });

test("Board K orders parts at its supplier and 35 boards at its house, as they will be invoiced", () => {
  const list = ordersOf(rollUp(boardK()));
  expect(
    list.map((o) => [
      o.kind,
      o.currency,
      microsToNumber(o.items.reduce((n, i) => n + i.total, 0)),
      o.beside / 1e6,
    ]),
  ).toEqual(expect.arrayContaining([["boards", "EUR", 57, 27.5]]));
  const parts = list.filter((o) => o.kind === "parts").flatMap((o) => o.items);
  // 133.933 bought, its lines rounded as invoices round them
  expect(microsToNumber(parts.reduce((n, i) => n + i.total, 0))).toBe(133.94);
  expect(list.find((o) => o.kind === "boards")!.items).toMatchObject([{ qty: 35 }]);
});

/** What was paid is what was planned, but for a factor of the lines and what came on top of them. */
const paidAs = (r: RunResult, factor: number, freight?: string): RunPurchase[] =>
  ordersOf(r).map((o, i) => ({
    id: `p${i}`,
    order: o.key,
    currency: o.currency,
    paid: Object.fromEntries(o.items.map((x) => [x.key, microsToNumber(x.total * factor).toFixed(6)])),
    freight: freight ?? String(o.beside / 1e6),
    note: "",
  }));

test("a run that came as planned differs in nothing, and its planned amounts are the run's cost", () => {
  const r = rollUp(boardK());
  const record: RunRecord = { purchases: paidAs(r, 1), receipts: [], work: [] };
  const { actual: a } = rollUp(boardK(), { record });
  expect(a!.planned).toBe(r.total);
  expect(a!.actual).toBeCloseTo(r.total, 3);
  expect(a!.open).toEqual([]);
  expect(a!.actualPerGood).toBeUndefined();
});

test("nothing recorded is told line by line and counts as planned", () => {
  const { actual: a, total } = rollUp(boardK(), { record: NO_RECORD });
  expect(a!.actual).toBeCloseTo(total, 6);
  expect(a!.open).toEqual([
    expect.stringMatching(/^the prices of \d+ lines$/),
    "what the parcels cost",
    "what the boards cost",
  ]);
});

test("half as dear again, a parcel of 8, twice the minutes and two scrapped: each stands where it came from", () => {
  const r = rollUp(boardK());
  const minutes = 2 * r.ownMinutes;
  const record: RunRecord = {
    purchases: paidAs(r, 1.5, "8"),
    receipts: [],
    work: [day(31, 29, 2, { minutes })],
  };
  const a = rollUp(boardK(), { record }).actual!;
  const of = (key: string) => a.terms.find((t) => t.key === key)!;
  const price = (key: string) => of(key).because.find((v) => v.key === "price")!.micros;
  // 31 were started as planned: parts used 131.453 and half again
  expect(of("parts-used").actual).toBeCloseTo(toMicros("131.453") * 1.5, -1);
  expect(price("parts-used")).toBeCloseTo(toMicros("131.453") * 0.5, -1);
  expect(of("parts-shipping").actual).toBe(toMicros("8"));
  // nobody is asked what the stencil cost: it is not told as if it were known
  expect([of("stencil").actual, of("stencil").open]).toEqual([undefined, undefined]);
  // 57 for the boards and half again, and 8 for their parcel in the place of 27.50
  expect(of("boards").actual).toBe(toMicros("93.5"));
  expect(of("own-hours").actual).toBeCloseTo(2 * of("own-hours").planned, 0);
  expect(of("own-hours").because.find((v) => v.key === "usage")!.micros).toBeCloseTo(
    of("own-hours").planned,
    0,
  );
  // fewer good than expected are fewer sold, but as many were started: volume and yield take each other back
  const [volume, lost] = of("parts-used").because;
  expect(volume!.micros + lost!.micros).toBeCloseTo(0, 3);
  expect(volume!.micros).toBeLessThan(0);
  expect(a.actualPerGood).toBeCloseTo(a.actual / 29, 6);
  expect(a.minutes).toEqual({ planned: expect.closeTo(r.ownMinutes, 6), actual: minutes });
  expect(a.open).toEqual([]);
});

test("the document alone decides every other figure", () => {
  const record: RunRecord = { purchases: [], receipts: [], work: [day(31, 20, 11)] };
  const { actual: _, ...with_ } = rollUp(boardK(), { record });
  expect(with_).toEqual(rollUp(boardK()));
});

test("one invoice of several: the others count as planned and are said", () => {
  const r = rollUp(boardK());
  const [first, ...rest] = paidAs(r, 1, "1");
  const [key] = Object.keys(first!.paid);
  const record = { ...NO_RECORD, purchases: [{ ...first!, paid: { [key!]: first!.paid[key!]! } }, ...rest] };
  const { open } = rollUp(boardK(), { record }).actual!;
  expect(open).toEqual([expect.stringMatching(/^the prices? of (one line|\d+ lines)$/)]);
});

test("pieces that came are counted by what may be used", () => {
  const record: RunRecord = {
    ...NO_RECORD,
    receipts: [
      [20, false],
      [14, false],
      [1, true],
    ].map(([qty, isApart], i) => ({
      id: `r${i}`,
      order: "boards far",
      item: "board 0",
      qty: qty as number,
      arrivedOn: "2026-12-01",
      isApart: isApart as boolean,
      because: "",
    })),
  };
  expect(arrivedOf(record, "boards far", "board 0")).toEqual({ usable: 34, apart: 1 });
  expect(arrivedOf(record, "boards near", "board 0")).toEqual({ usable: 0, apart: 0 });
  expect(arrivedOf(record, "boards far", "board 1")).toEqual({ usable: 0, apart: 0 });
});

test("a closed run of the same way to solder moves the boards to start and the hours; another's way does not", () => {
  const past: PastRun = {
    name: "first",
    closedOn: "2026-10-01",
    method: "stencil",
    good: 28,
    scrapped: 2,
    minutes: 900,
    modelMinutes: 600,
  };
  const [none, own, other] = [
    rollUp(boardK()),
    rollUp(boardK({ past: [past] })),
    rollUp(boardK({ past: [{ ...past, method: "iron" }] })),
  ];
  // 20 boards of the model at 0.98955 and 28 of 30: 47.791 / 50
  expect(own.yield.final).toBeCloseTo((20 * none.yield.final + 28) / 50, 9);
  expect(own.yield.record).toMatchObject({ runs: 1, boards: 30, timeFactor: expect.closeTo(1.3, 9) });
  expect([none.start, own.start]).toEqual([31, 33]);
  const perBoard = (r: RunResult) => r.ownMinutes / r.start;
  expect(perBoard(own) / perBoard(none)).toBeGreaterThan(1.27);
  const whole = own.tree.children.flatMap((c) => c.children).find((c) => c.key === "own-hours")!;
  expect(whole.terms.at(-1)!.from).toBe("time and defect model with the shop's record (1 run, 30 boards)");
  expect(own.notes.find((n) => n.key === "own-record")).toMatchObject({
    stage: "assemble",
    level: "remark",
    text: "The shop's record (1 run, 30 boards) counts beside the model: 95.6 % end good in the place of 99.0 %, own time × 1.30.",
  });
  const faults = { looked: 30, kinds: { placing: { seen: 3, expected: 1.188 } }, unsorted: 0 };
  const told = rollUp(boardK({ past: [{ ...past, faults }] })).notes.find((n) => n.key === "own-record")!;
  // 0.0674 less 0.0396 of placing, and that (0.792 + 3) ÷ (0.792 + 1.188) times: e^−0.10364
  expect(told.text).toMatch(
    /own time × 1\.30\. 90\.2 % of boards are expected without a fault, by 1 run: 3 faults on 30 boards, where the model expects 1\.2\.$/,
  );
  expect(none.notes.some((n) => n.key === "own-record")).toBe(false);
  expect(other.tree).toEqual(none.tree);
});

test("while nothing was begun only prices are compared", () => {
  expect(countsOf(31, 30.7, tallyOf([])).actual).toEqual({ started: 31, good: 30.7 });
  expect(fixedTerm({ key: "k", label: "l", planned: 5 }, 7)).toMatchObject({
    actual: 7,
    because: [{ micros: 2 }],
  });
});

test("boards that came are as many products as the scarcest board gives; what is not written down is not asked", () => {
  const came = (item: string, qty: number, isApart = false) => ({
    id: item,
    order: "boards far",
    item,
    qty,
    arrivedOn: "2026-12-01",
    isApart,
    because: "",
  });
  const boards = [
    { item: "a", perProduct: 1 },
    { item: "b", perProduct: 2 },
  ];
  expect(usableProducts({ receipts: [came("a", 30)] }, boards)).toBeUndefined();
  expect(usableProducts({ receipts: [came("a", 30), came("b", 41), came("b", 9, true)] }, boards)).toBe(20);
  expect(usableProducts({ receipts: [] }, [])).toBeUndefined();
});

/** Board K's first purchase, with a lot of which twice what the boards begun should take was taken. */
const boardKUsed = (choices: Partial<RunDocument["choices"]>, isCounted: boolean) => {
  const doc = { ...boardK(), choices: { ...boardK().choices, ...choices } };
  const r = rollUp(doc);
  const [n] = r.needs;
  const l = r.basket.lines[0]!;
  const order = ordersOf(r, doc).find((o) => o.kind === "parts")!;
  const pieces = 2 * n!.whole;
  const came = { order: order.key, item: l.buys[0]!.offer, qty: pieces, arrivedOn: "2026-12-01" };
  const record: RunRecord = {
    purchases: [],
    receipts: [{ id: "r1", ...came, isApart: false, because: "", lot: "lot-1" }],
    work: [day(r.start, r.start - 1, 1)],
    taken: { "lot-1": { pieces, isCounted } },
  };
  const a = rollUp(doc, { record }).actual!;
  const bought = l.buys.reduce((s, b) => s + b.qty, 0);
  const planned = (l.buys.reduce((s, b) => s + b.cost, 0) * n!.need) / bought;
  const used = a.terms.find((t) => t.key === "parts-used")!;
  return { a, used, planned, usage: used.because.find((v) => v.key === "usage")?.micros, whole: n!.whole };
};

test("what a part took beyond its plan is usage, at the price it was planned with, and is told by its pieces", () => {
  const { a, usage, planned, whole } = boardKUsed({}, true);
  expect(usage).toBeCloseTo(planned, 0);
  expect(planned).toBeGreaterThan(1000);
  expect(a.uses[0]).toMatchObject({ planned: whole, taken: 2 * whole });
  expect(a.uses.slice(1).every((u) => u.taken === undefined)).toBe(true);
  // an estimate nobody looked at is not told as a count
  const estimated = boardKUsed({}, false);
  expect(estimated.usage).toBeCloseTo(0, 6);
  expect(estimated.a.uses[0]!.taken).toBeUndefined();
});

test("where leftovers are charged to the run, parts cost what was paid, however many were started and taken", () => {
  const doc = { ...boardK(), choices: { ...boardK().choices, leftovers: "expense" as const } };
  const purchases = paidAs(rollUp(doc), 2);
  const a = rollUp(doc, { record: { purchases, receipts: [], work: [day(5, 5, 0)] } }).actual!;
  const used = a.terms.find((t) => t.key === "parts-used")!;
  // 131.453 would be used, 133.933 is bought and charged
  expect(used.planned).toBeCloseTo(133.933e6, -1);
  expect(used.actual! / used.planned).toBeCloseTo(2, 3);
  expect(used.because.map((v) => v.key)).toEqual(["price"]);
  expect(boardKUsed({ leftovers: "expense" }, true).used.actual).toBeUndefined();
});

test("what was taken off the own shelf counts at what its lots cost: 50 of 32 at 2.00 counted, 32 at 0.30 not", () => {
  const lot = (id: string, mpn: string, unitCost: string) => ({
    id,
    mpn,
    qty: 100,
    place: "",
    receivedOn: "2026-01-01",
    unitCost,
    currency: "EUR",
    condition: "new" as const,
  });
  const doc = boardK({ lots: [lot("a", "mcu", "2.00"), lot("b", "reg", "0.30")] });
  const { start } = rollUp(doc);
  const shelf = (started: number, taken: RunRecord["taken"] = {}) => {
    const work = [day(started, started - 1, 1)];
    const { terms } = rollUp(doc, { record: { ...NO_RECORD, work, taken } }).actual!;
    const { planned, actual } = terms.find((t) => t.key === "parts-shelf")!;
    return [planned, actual!].map((v) => Number((v / 1e6).toFixed(4)));
  };
  expect(start).toBe(31);
  expect(shelf(31)).toEqual([73.6, 73.6]);
  const counted = { a: { pieces: 50, isCounted: true }, b: { pieces: 1, isCounted: false } };
  expect(shelf(31, counted)).toEqual([73.6, 109.6]);
  // twice as many begun: what was counted stays what it was, what was not follows the boards
  expect(shelf(62, counted)).toEqual([73.6, 119.2]);
});
