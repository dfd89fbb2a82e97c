import { shapeOf } from "../../src/assembly/package-class.ts";
import { numberKey } from "../../src/bom/number.ts";
import { timesInProduct, withVariant } from "../../src/run/document/bill/structure.ts";
import type { RunDocument } from "../../src/run/document/document.ts";
import { rollUp } from "../../src/run/roll-up.ts";
import { type Second, secondRun } from "./run.ts";

/** Sides of each board on which something that goes on paste is placed. */
function sidesOf(doc: RunDocument): number[] {
  const smd = doc.lines.filter(
    (l) => !l.dnp && l.mount === "machine" && shapeOf(l.package, l.refs[0], true).kind !== "through",
  );
  return doc.boards.map((b) => {
    const sides = new Set<string>();
    for (const l of smd)
      if (l.board === undefined || l.board === b.id)
        for (const p of doc.placements)
          if (l.refs.includes(p.ref) && (p.board === undefined || p.board === b.id)) sides.add(p.side);
    return Math.max(1, sides.size);
  });
}

/** What the roll-up says of a run and what the second computation says, side by side, in units of the shop's money. */
export function bothWays(given: RunDocument): {
  ours: Record<string, unknown>;
  second: Record<string, unknown>;
} {
  const r = rollUp(given);
  const doc = withVariant(given);
  const known = new Map((doc.library ?? []).map((p) => [numberKey(p.mpn), p]));
  const s: Second = secondRun(doc, {
    times: timesInProduct(doc.lines, doc.boards),
    shapeOf: (l) => {
      const placed = l.mount === "machine" || l.refs.some((x) => doc.placements.some((p) => p.ref === x));
      const shape = shapeOf(l.package, l.refs[0], placed);
      return { ...shape, isPolarised: shape.isPolarised || Boolean(known.get(numberKey(l.mpn))?.direction) };
    },
    buys: r.basket.lines.flatMap((l) => l.buys.map((b) => ({ offer: b.offer, qty: b.qty }))),
    lots: r.needs.flatMap((n) => n.shelf.map((t) => ({ id: t.lot.id, qty: t.qty }))),
    sides: sidesOf(doc),
  });
  const cents = (v: number) => (Math.round(v * 100) / 100).toFixed(2);
  const whole = new Map(r.needs.map((n) => [n.id, n.whole]));
  const boards = r.orders.reduce((n, o) => n + o.micros, 0) / 1e6;
  const paid = r.cash.find((c) => c.key === "parts")!.micros / 1e6;
  return {
    ours: {
      start: r.start,
      pieces: Object.fromEntries([...whole].sort()),
      ordered: r.orders.map((o) => o.quote.pieces),
      invoiced: cents(paid),
      boards: cents(boards),
      minutes: r.ownMinutes.toFixed(6),
      total: cents(r.total / 1e6),
      perGood: cents(r.perGood / 1e6),
      cash: cents(r.cashNeeded / 1e6),
    },
    second: {
      start: s.start,
      pieces: Object.fromEntries([...s.pieces].sort()),
      ordered: [...s.pieceCounts],
      invoiced: cents(s.invoiced.toNumber()),
      boards: cents(s.boards.toNumber()),
      minutes: s.minutes.toFixed(6),
      total: cents(s.total),
      perGood: cents(s.perGood),
      cash: cents(s.cash),
    },
  };
}
