import { expect, test } from "@jest/globals";
import { often } from "../../test/long.ts";
import { madeUpRuns } from "../../test/second/made-up.ts";
import type { CostNode } from "../costing/tree.ts";
import { ownWork } from "./assemble/own-work.ts";
import type { RunDocument } from "./document/document.ts";
import { rateOf } from "./document/parts.ts";
import { madeLine } from "./made-up.fixture.ts";
import { isComplete } from "./orders/complete.ts";
import { invoicesOf } from "./orders/invoice.ts";
import { rollUp } from "./roll-up.ts";
import { onSheets } from "./sheets.fixture.ts";
import { minutesFor } from "./stage/own-hours.ts";
import type { RunResult } from "./stage/result.ts";

// what holds of every run, whatever is in it
const RUNS = madeUpRuns(often(16, 100), 1414);
const each = (law: (doc: RunDocument, r: RunResult) => void) => {
  for (const doc of RUNS) law(doc, rollUp(doc));
};
/** All that is paid for, whether it is used or stays on the shelf. */
const spent = (r: RunResult) => r.total + r.leftover;
/** Rounding of invoices and of money to millionths: a dearer run may round down by a coin a line. */
const COINS = 100_000;

test("money is conserved from offers to invoice lines to the totals, in the tree and in cash", () => {
  each((doc, r) => {
    // every node is the sum of what is below it
    const check = (n: CostNode): void => {
      const below = n.children.length > 0 ? n.children : n.terms;
      expect(Math.abs(below.reduce((s, x) => s + x.micros, 0) - n.micros)).toBeLessThanOrEqual(1);
      n.children.forEach(check);
    };
    check(r.tree);
    expect(r.tree.micros).toBe(r.total);
    // invoices: each line is price × pieces and fee to the coin, in its currency; their sum is what cash and tree have
    let sum = 0;
    for (const i of invoicesOf(doc, r.basket)) {
      for (const l of i.lines)
        expect(Math.abs(l.unitPrice * l.buy.qty + l.fee - l.total)).toBeLessThanOrEqual(5000);
      expect(i.lines.reduce((n, l) => n + l.total, 0)).toBe(i.total);
      sum += Number(rateOf(doc, i.currency)) * i.total;
    }
    const paid = r.cash.find((c) => c.key === "parts")!.micros;
    expect(Math.abs(paid - sum)).toBeLessThanOrEqual(2);
    const [parts] = r.tree.children;
    const goods = parts!.children.filter((c) => ["parts-used", "parts-rounding"].includes(c.key));
    expect(Math.abs(goods.reduce((n, c) => n + c.micros, 0) + r.leftover - paid)).toBeLessThanOrEqual(3);
    // what is bought covers the need or is missing, piece by piece
    r.basket.lines.forEach((l, i) => {
      const bought = l.buys.reduce((n, b) => n + b.qty, 0);
      expect(bought + l.missing).toBeGreaterThanOrEqual(r.needs[i]!.need);
    });
  });
});

test("own work adds up, row by row, to the minutes that are paid and waited for; with a record too", () => {
  const held = (doc: RunDocument) => {
    const r = rollUp(doc);
    const rows = ownWork(doc, r);
    expect(rows.reduce((n, w) => n + w.all, 0)).toBeCloseTo(r.ownMinutes, 6);
    for (const w of rows) if (w.each !== undefined) expect(w.all).toBeCloseTo(w.each * r.start, 6);
  };
  const past = { name: "a", closedOn: "2026-01-02", good: 9, scrapped: 1, minutes: 700, modelMinutes: 500 };
  for (const doc of [...RUNS, onSheets()]) {
    held(doc);
    held({ ...doc, past: [{ ...past, method: doc.assembly.method }] });
  }
});

test("of a run of which fewer are started the hours lose what grows with boards, not what is set up once", () => {
  each((doc, r) => {
    const started = Math.ceil(r.start / 2);
    const { setup, kitting, total } = r.minutes;
    const now = setup + kitting + ((total - setup - kitting) * started) / r.start;
    expect(minutesFor(r.minutes, r.start, started)).toBeCloseTo(now, 9);
    expect(minutesFor(r.minutes, r.start, r.start)).toBeCloseTo(total, 9);
    const work = [{ id: "w", on: "2026-12-02", started, good: 0, scrapped: 0, reworked: 0, minutes: now }];
    const a = rollUp(doc, { record: { purchases: [], receipts: [], work } }).actual!;
    // as many minutes as planned for those: nothing of it is usage, and the set-up is in it whole
    const hours = a.terms.find((t) => t.key === "own-hours")!;
    expect(hours.because.find((v) => v.key === "usage")!.micros).toBeCloseTo(0, 0);
    expect(hours.actual! - hours.planned).toBeCloseTo(
      hours.because.reduce((n, v) => n + v.micros, 0),
      0,
    );
    expect(a.minutes.planned).toBeCloseTo(now, 6);
  });
});

test("more certainty never costs less and never starts fewer", () => {
  each((doc) => {
    const [less, more] = [0.5, 0.95].map((confidence) => rollUp({ ...doc, confidence }));
    expect(more!.start).toBeGreaterThanOrEqual(less!.start);
    // missing pieces cost nothing: only where both have all are they to be compared
    if (!isComplete(less!.unpriced) || !isComplete(more!.unpriced)) return;
    expect(spent(more!)).toBeGreaterThanOrEqual(spent(less!) - COINS);
    expect(more!.cashNeeded).toBeGreaterThanOrEqual(less!.cashNeeded - COINS);
  });
});

// a dearer piece can reach a subtotal that spares a fee, so that less has to be bought over: the law is of prices without such steps
const withoutSteps = (doc: RunDocument): RunDocument => ({
  ...doc,
  suppliers: doc.suppliers.map(({ freeFrom: _, smallOrder: __, ...s }) => s),
});

test("dearer offers never make a run cheaper", () => {
  each((given) => {
    const doc = withoutSteps(given);
    const r = rollUp(doc);
    const offers = doc.offers.map((o, i) =>
      i % 2 === 0
        ? o
        : { ...o, breaks: o.breaks.map((b) => ({ qty: b.qty, price: (Number(b.price) * 1.25).toFixed(6) })) },
    );
    const dearer = rollUp({ ...doc, offers });
    // a part that becomes costly is bought over less: then another number of pieces is compared
    if (dearer.needs.some((n, i) => n.whole !== r.needs[i]!.whole)) return;
    expect(dearer.basket.total).toBeGreaterThanOrEqual(r.basket.total);
    expect(spent(dearer)).toBeGreaterThanOrEqual(spent(r) - COINS);
  });
});

test("a slower supplier, house or bench never brings a date forward", () => {
  each((doc, r) => {
    const slower: RunDocument[] = [
      {
        ...doc,
        suppliers: doc.suppliers.map((s) => ({ ...s, daysMin: s.daysMin + 5, daysMax: s.daysMax + 9 })),
      },
      { ...doc, house: { ...doc.house!, price: { ...doc.house!.price, transitDays: 30 } } },
      { ...doc, workshop: { ...doc.workshop, hoursPerDay: doc.workshop.hoursPerDay / 2 } },
    ];
    for (const s of slower) {
      const { ready } = rollUp(s);
      expect([ready.p50 >= r.ready.p50, ready.p90 >= r.ready.p90, ready.days >= r.ready.days - 1e-9]).toEqual(
        [true, true, true],
      );
    }
  });
});

test("a line that nothing covers makes no figure smaller that is shown as complete", () => {
  each((doc, r) => {
    const more = rollUp({
      ...doc,
      lines: [...doc.lines, madeLine("none", ["R9999"], { mpn: "NOBODY-HAS-IT" })],
    });
    expect(isComplete(more.unpriced)).toBe(false);
    // so whatever it comes to is named a lower bound; the price itself is the other's
    if (isComplete(r.unpriced)) expect(more.unpriced.lines).toContain("R9999");
  });
});
