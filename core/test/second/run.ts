import type { RunDocument } from "../../src/run/document/document.ts";
import { F, type Fraction, sumOf } from "./fraction.ts";
import { type Counted, type Given, placesOf } from "./given.ts";
import { boardsOf, houseOf } from "./houses.ts";
import { piecesOf, purchasesOf, shelfOf } from "./pieces.ts";
import { DPMO, minutesOf } from "./work.ts";

export interface Second {
  readonly start: number;
  readonly yieldFinal: number;
  /** Pieces in all of each purchase, by the id of its first line: what boards take, losses, leaders, reserve. */
  readonly pieces: ReadonlyMap<string, number>;
  readonly invoiced: Fraction;
  readonly boards: Fraction;
  readonly pieceCounts: readonly number[];
  readonly minutes: number;
  readonly total: number;
  readonly perGood: number;
  readonly cash: number;
}

/** The second computation of a run; see `given.ts` for what is given to it. */
export function secondRun(doc: RunDocument, given: Given): Second {
  const rate = (currency: string): Fraction =>
    currency === doc.workshop.currency ? F(1) : F(doc.workshop.rates[currency] ?? 0);
  const all = doc.lines.flatMap((line): Counted[] => {
    const n = given.times.get(line.id) ?? 0;
    if (n === 0) return [];
    const shape =
      line.mount === "none" ? { kind: "loose", joints: 0, isPolarised: false } : given.shapeOf(line);
    const hand = line.mount === "hand" || shape.kind === "through";
    const elsewhere = doc.assembly.method === "house" && doc.assembly.handParts === "house";
    return [{ line, ...shape, n, way: hand && !elsewhere ? "iron" : doc.assembly.method }];
  });
  const fitted = all.filter((p) => p.kind !== "loose");

  // yield: joints, placements, polarised placements; eight of a hundred defects are not mended, five of a thousand lost
  let [lambda, mend] = [0, 0];
  for (const p of fitted) {
    const column = { iron: 0, stencil: 1, house: 2 }[p.way];
    // what is soldered by iron on a pasted board is laid out and put on with the rest
    const placing = [1500, 1200, 60][column === 0 && doc.assembly.method === "stencil" ? 1 : column]!;
    const chances: [number, number, number][] = [
      [p.n * p.joints, DPMO[p.kind]![column]!, DPMO[p.kind]![3]],
      [p.n, placing, 5],
      ...(p.isPolarised ? [[p.n, placing, 5] as [number, number, number]] : []),
    ];
    for (const [n, dpmo, minutes] of chances) {
      lambda += (n * dpmo) / 1e6;
      mend += ((n * dpmo) / 1e6) * minutes;
    }
  }
  const y = Math.exp(-lambda * 0.08) * 0.995;
  const rework = mend + 6 * (1 - Math.exp(-lambda));
  const start = startFor(doc.goodBoards, doc.confidence, y);
  const G = start * y;

  const purchases = purchasesOf(all);
  const pieces = new Map(
    purchases.map((list) => [list[0]!.line.id, piecesOf(doc, list, given, start, rate)] as const),
  );

  // parts: what invoices say, what of it the boards use
  let [invoiced, exact, used] = [F(0), F(0), F(0)];
  const subtotal = new Map<string, Fraction>();
  for (const list of purchases) {
    const ids = new Set(list.map((p) => p.line.id));
    const mine = given.buys.flatMap((b) => {
      const offer = doc.offers.find((o) => o.id === b.offer)!;
      return ids.has(offer.line) ? [{ ...b, o: offer }] : [];
    });
    let [spent, bought] = [F(0), 0];
    for (const { o, qty } of mine) {
      const supplier = doc.suppliers.find((s) => s.id === o.supplier)!;
      const step = [...o.breaks].sort((a, b) => a.qty - b.qty);
      const price = F((step.filter((x) => x.qty <= qty).at(-1) ?? step[0]!).price);
      const net = supplier.includesTax ? F(1).plus(doc.workshop.taxRate) : F(1);
      const line = price.times(qty).plus(F(o.fee ?? 0));
      const own = line.times(rate(o.currency)).over(net);
      invoiced = invoiced.plus(line.rounded(placesOf(o.currency)).times(rate(o.currency)).over(net));
      spent = spent.plus(own);
      bought += qty;
      subtotal.set(o.supplier, (subtotal.get(o.supplier) ?? F(0)).plus(own));
    }
    const shelf = shelfOf(doc, list, given).reduce((n, l) => n + l.qty, 0);
    const need = pieces.get(list[0]!.line.id)! - shelf;
    exact = exact.plus(spent);
    if (bought > 0)
      used = used.plus(
        doc.choices.leftovers === "expense" ? spent : spent.times(Math.min(need, bought)).over(bought),
      );
  }
  const lots = sumOf(
    given.lots.map((t) => {
      const lot = doc.lots!.find((l) => l.id === t.id)!;
      return F(lot.unitCost).times(t.qty).times(rate(lot.currency));
    }),
  );
  const made = sumOf(
    all
      .filter((p) => p.line.madeCost !== undefined)
      .map((p) => F(p.line.madeCost!).times(Math.ceil(doc.goodBoards * p.n))),
  );
  const places = placesOf(doc.workshop.currency);
  let [parcels, duty] = [F(0), F(0)];
  for (const [id, goods] of subtotal) {
    const s = doc.suppliers.find((x) => x.id === id)!;
    const of = (v: string | number) => F(v).times(rate(s.currency));
    const way = s.freeFrom !== undefined && !goods.isLess(of(s.freeFrom)) ? F(0) : of(s.shipping);
    parcels = parcels.plus(way);
    let own = goods.times(s.dutyRate ?? 0);
    if (s.dutyOnFreight) own = own.plus(way.times(s.dutyRate ?? 0));
    // a customs paper ends on the smallest coin
    duty = duty.plus(own.rounded(places));
    if (s.smallOrder && goods.isLess(of(s.smallOrder.below))) parcels = parcels.plus(of(s.smallOrder.fee));
    parcels = parcels.plus(of(s.handling ?? 0));
  }

  const fab = boardsOf(doc, start);
  const boards = fab.total.times(rate(fab.currency));

  const m = minutesOf(doc, fitted, all.length, given, start, rework);
  const hourly = F(doc.workshop.hourlyRate);
  const hours = hourly.times(String(m)).over(60);
  const elsewhere = houseOf(doc, fitted, purchases, given, fab, start, rate);
  const sides = given.sides.reduce((a, b) => a + b, 0) || 1;
  const here =
    doc.assembly.method === "house"
      ? F(0)
      : F(doc.assembly.consumables).plus(
          doc.assembly.method === "stencil" ? F(doc.assembly.stencilPrice).times(sides) : 0,
        );
  const total = used
    .plus(invoiced.minus(exact))
    .plus(lots)
    .plus(made)
    .plus(parcels)
    .plus(duty)
    .plus(boards)
    .plus(hours)
    .plus(elsewhere)
    .plus(here);
  const paid = invoiced.plus(parcels).plus(duty).plus(boards).plus(elsewhere).plus(here);
  return {
    start,
    yieldFinal: y,
    pieces,
    invoiced,
    boards,
    pieceCounts: fab.pieces,
    minutes: m,
    total: total.toNumber(),
    perGood: total.toNumber() / G,
    cash: paid.plus(paid.times(F(doc.workshop.taxRate)).rounded(places)).toNumber(),
  };
}

/** The least n with P(at least N of n good) ≥ p: the distribution board by board, no formula. */
function startFor(N: number, p: number, y: number): number {
  let chance = [1];
  for (let n = 1; ; n++) {
    const next = new Array<number>(n + 1).fill(0);
    for (let k = 0; k < n; k++) {
      next[k] = next[k]! + chance[k]! * (1 - y);
      next[k + 1] = next[k + 1]! + chance[k]! * y;
    }
    chance = next;
    if (n >= N && chance.slice(N).reduce((a, b) => a + b, 0) >= p) return n;
  }
}
