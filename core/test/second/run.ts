import type { RunDocument, RunLine } from "../../src/run/document.ts";
import { F, type Fraction, sumOf } from "./fraction.ts";

/**
 * A whole run a second time, from the field's formulas and nothing of the roll-up: its tables are typed anew, its money is
 * exact, its searches try everything. What a package is (class and joints) and what is bought where are given to it.
 */
export interface Given {
  readonly shapeOf: (line: RunLine) => { kind: string; joints: number; isPolarised: boolean };
  readonly times: ReadonlyMap<string, number>;
  readonly buys: readonly { readonly offer: string; readonly qty: number }[];
  readonly lots: readonly { readonly id: string; readonly qty: number }[];
  /** Sides of each board that get paste. */
  readonly sides: readonly number[];
}

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

// joints per million, iron / stencil / house; minutes to mend one
const DPMO: Record<string, [number, number, number, number]> = {
  chip: [400, 250, 40, 3],
  chip0402: [900, 500, 60, 3],
  chip0201: [3000, 1500, 100, 3],
  diode: [400, 250, 40, 3],
  small: [500, 300, 50, 5],
  tab: [500, 300, 50, 5],
  gull: [500, 300, 50, 5],
  gullFine: [1500, 900, 120, 5],
  leadless: [3000, 1200, 150, 12],
  ball: [10000, 1500, 80, 40],
  connector: [800, 600, 120, 5],
  through: [400, 400, 200, 3],
};
// seconds to place on paste; by iron a fixed part and one a joint
const SECONDS: Record<string, [place: number, iron: number, perJoint: number]> = {
  chip: [6, 25, 0],
  chip0402: [9, 40, 0],
  chip0201: [18, 90, 0],
  diode: [6, 25, 0],
  small: [8, 30, 0],
  tab: [8, 30, 0],
  gull: [12, 20, 3],
  gullFine: [20, 40, 3.5],
  leadless: [20, 120, 0],
  ball: [30, 240, 0],
  connector: [15, 30, 4],
  through: [0, 8, 7],
};
// share lost and least, by hand and by machine
const LOSS: Record<string, [string, number, string, number]> = {
  chip0201: ["0.1", 10, "0.05", 50],
  chip0402: ["0.08", 5, "0.03", 20],
  chip: ["0.05", 3, "0.02", 10],
  diode: ["0.03", 2, "0.02", 5],
  small: ["0.03", 2, "0.02", 5],
  tab: ["0.02", 1, "0.01", 1],
  gull: ["0.02", 1, "0.01", 1],
  gullFine: ["0.02", 1, "0.01", 1],
  leadless: ["0.02", 1, "0.01", 1],
  ball: ["0", 1, "0", 1],
  connector: ["0.01", 1, "0.01", 2],
  through: ["0", 1, "0", 1],
  costly: ["0", 1, "0", 1],
  loose: ["0", 0, "0", 0],
};
const POCKET: Record<string, number> = { chip0201: 2, chip0402: 2, chip: 4, diode: 4, small: 4 };

type Way = "iron" | "stencil" | "house";
interface Counted {
  readonly line: RunLine;
  readonly kind: string;
  readonly joints: number;
  readonly isPolarised: boolean;
  readonly n: number;
  readonly way: Way;
}

const placesOf = (currency: string) => (currency === "JPY" ? 0 : 2);

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
  let [parcels, duty] = [F(0), F(0)];
  for (const [id, goods] of subtotal) {
    const s = doc.suppliers.find((x) => x.id === id)!;
    const of = (v: string | number) => F(v).times(rate(s.currency));
    const way = s.freeFrom !== undefined && !goods.isLess(of(s.freeFrom)) ? F(0) : of(s.shipping);
    parcels = parcels.plus(way);
    if (s.dutyOnFreight) duty = duty.plus(way.times(s.dutyRate ?? 0));
    if (s.smallOrder && goods.isLess(of(s.smallOrder.below))) parcels = parcels.plus(of(s.smallOrder.fee));
    parcels = parcels.plus(of(s.handling ?? 0));
    duty = duty.plus(goods.times(s.dutyRate ?? 0));
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
    cash: paid.times(F(1).plus(doc.workshop.taxRate)).toNumber(),
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

/** Lines of one number are one purchase; a line without a number is its own. */
function purchasesOf(all: readonly Counted[]): Counted[][] {
  const out = new Map<string, Counted[]>();
  for (const p of all) {
    if (["made", "printed", "supplied"].includes(p.line.origin ?? "bought")) continue;
    const number = p.line.mpn.toUpperCase().replace(/\s/g, "");
    const key = number === "" ? `line ${p.line.id}` : number;
    out.set(key, [...(out.get(key) ?? []), p]);
  }
  return [...out.values()];
}

const shelfOf = (doc: RunDocument, list: readonly Counted[], given: Given) =>
  given.lots.filter((t) => {
    const lot = doc.lots!.find((l) => l.id === t.id)!;
    return list.some((p) => p.line.mpn.toUpperCase() === lot.mpn.toUpperCase());
  });

function piecesOf(
  doc: RunDocument,
  list: readonly Counted[],
  given: Given,
  start: number,
  rate: (c: string) => Fraction,
): number {
  const house = houseThatPlaces(doc)?.assembly;
  const limit = F(2).times(doc.workshop.currency === "EUR" ? 1 : rate("EUR"));
  let [net, soldered] = [0, 0];
  const loads = new Map<string, number>();
  let leader = 0;
  for (const p of list) {
    const n = p.kind === "loose" ? Math.ceil(doc.goodBoards * p.n) : start * p.n;
    net += n;
    if (p.kind !== "loose") soldered += n;
    const isCostly = p.kind !== "loose" && limit.isLess(cheapest(doc, list, n, rate) ?? 0);
    const kind = isCostly ? "costly" : p.kind;
    const key = `${kind} ${p.way === "house" ? "machine" : "hand"}`;
    loads.set(key, (loads.get(key) ?? 0) + n);
    if (p.way === "house" && house?.takes !== "reels" && POCKET[kind])
      leader = Math.max(leader, Math.ceil((house?.leaderMm ?? 0) / POCKET[kind]!));
  }
  let lost = 0;
  for (const [key, n] of loads) {
    const [kind, by] = key.split(" ") as [string, string];
    const own = doc.workshop.attrition?.[kind as never] as { hand: number[]; machine: number[] } | undefined;
    const [hs, hl, ms, ml] = LOSS[kind]!;
    const [share, least] = own ? own[by as "hand"]! : by === "hand" ? [hs, hl] : [ms, ml];
    if (n > 0)
      lost += Math.max(
        F(share as string)
          .times(n)
          .up(),
        least as number,
      );
  }
  const reserve = F(doc.assembly.reworkReserve ?? 0)
    .times(soldered)
    .over(100)
    .up();
  const strips = given.buys.filter((b) =>
    list.some((p) => p.line.id === doc.offers.find((o) => o.id === b.offer)!.line),
  ).length;
  return net + lost + reserve + leader * Math.max(1, strips + shelfOf(doc, list, given).length);
}

/** Least unit price at which a number of pieces is to be had: every offer, the need and every step beyond it. */
function cheapest(
  doc: RunDocument,
  list: readonly Counted[],
  n: number,
  rate: (c: string) => Fraction,
): Fraction | undefined {
  let best: Fraction | undefined;
  for (const o of doc.offers) {
    if (
      !list.some((p) => p.line.id === o.line) ||
      (doc.workshop.rates[o.currency] === undefined && o.currency !== doc.workshop.currency)
    )
      continue;
    const up = (q: number) => Math.ceil(q / Math.max(1, o.multiple)) * Math.max(1, o.multiple);
    const first = up(Math.max(n, o.moq));
    let own: { cost: Fraction; price: Fraction } | undefined;
    for (const q of [first, ...o.breaks.map((b) => up(b.qty))]) {
      if (q < first || q > o.stock) continue;
      const steps = [...o.breaks].sort((a, b) => a.qty - b.qty);
      const net = doc.suppliers.find((s) => s.id === o.supplier)?.includesTax
        ? F(1).plus(doc.workshop.taxRate)
        : F(1);
      const price = F((steps.filter((x) => x.qty <= q).at(-1) ?? steps[0]!).price)
        .times(rate(o.currency))
        .over(net);
      const cost = price.times(q).plus(F(o.fee ?? 0));
      if (!own || cost.isLess(own.cost)) own = { cost, price };
    }
    if (own && (!best || own.price.isLess(best))) best = own.price;
  }
  return best;
}

interface Fab {
  readonly total: Fraction;
  readonly currency: string;
  readonly pieces: readonly number[];
  readonly kgEach: readonly number[];
}

/** The house's boards: every quantity it sells up to four times the need, the cheapest of all; one parcel. */
function boardsOf(doc: RunDocument, start: number): Fab {
  const house = doc.house;
  if (!house) return { total: F(0), currency: doc.workshop.currency, pieces: [], kgEach: [] };
  const p = house.price;
  const option = (key: "thickness" | "copper" | "finish" | "mask" | "legend") =>
    house.options[key].find((o) => o.value === doc.options[key]) ?? house.options[key][0]!;
  const chosen = (["thickness", "copper", "finish", "mask", "legend"] as const).map(option);
  const lead = p.lead.find((l) => l.days === doc.options.leadDays) ?? p.lead[0]!;
  const each = doc.boards.map((b) => {
    const m = b.measure;
    const [w, h] = [m.outline!.widthMm!, m.outline!.heightMm!];
    const dm2 = (w * h) / 1e4;
    const holes = m.holes.reduce((n, x) => n + x.count, 0) + m.slots.length;
    const copper = Object.values(m.copperAreaMm2);
    const share = Math.min(1, copper.reduce((a, c) => a + c, 0) / copper.length / (w * h));
    const layers = String(m.copperLayers <= 2 ? 2 : m.copperLayers);
    // laminate, copper and mask in grams for a square centimetre
    const t = Number.parseFloat(option("thickness").value) / 10;
    const cu = (2 * Number.parseFloat(option("copper").value)) / 1e4;
    const kg = (((w * h) / 100) * ((t - cu - 0.004) * 1.85 + share * cu * 8.96 + 0.004 * 1.3)) / 1000;
    const price = (q: number): number => {
      const billed = Math.max(dm2 * q, p.minDm2);
      const tier = [...p.tiers].reverse().find((x) => billed >= x.fromDm2)!;
      const area =
        Number(p.perDm2[layers]) * (1 + chosen.reduce((s, o) => s + (o.uplift ?? 0), 0)) +
        chosen.reduce((s, o) => s + Number(o.perDm2 ?? 0), 0);
      const sum =
        Number(p.setup[layers]) +
        chosen.reduce((s, o) => s + Number(o.setup ?? 0), 0) +
        Number(p.testSetup) +
        q * Number(p.testPerPiece) +
        billed * area * tier.factor +
        (Math.max(0, holes * q - p.freeHolesPerDm2 * dm2 * q) * Number(p.per1000Holes)) / 1000;
      return cents(sum * lead.factor);
    };
    const freight = (kgs: number) =>
      Number(p.freightBase) + Math.ceil(kgs / 0.5) * Number(p.freightPerHalfKg);
    const parcel = (q: number) => price(q) + cents(freight(1.08 * q * kg + 0.15));
    const up = (n: number) => Math.max(p.minPieces, Math.ceil(n / p.step) * p.step);
    const first = up(start * b.perProduct);
    let best = first;
    for (let q = first; q <= 4 * first; q += p.step) if (parcel(q) < parcel(best) - 1e-9) best = q;
    return { pieces: best, kg, boards: price(best), freight };
  });
  const kg = each.reduce((n, b) => n + 1.08 * b.pieces * b.kg, 0.15);
  const quote = doc.quotes.find((q) => q.kind === "fab" && q.house === house.id);
  const estimate =
    each.reduce((n, b) => n + b.boards, 0) + cents(each[0]?.freight(kg) ?? 0) + Number(p.importHandling);
  return {
    total: quote ? F(quote.total) : F(estimate.toFixed(2)),
    currency: quote ? quote.currency : house.currency,
    pieces: each.map((b) => b.pieces),
    kgEach: each.map((b) => b.kg),
  };
}
const cents = (v: number) => Math.round(v * 100 + 1e-7) / 100;

function minutesOf(
  doc: RunDocument,
  fitted: readonly Counted[],
  lines: number,
  given: Given,
  start: number,
  rework: number,
): number {
  const boards = Math.max(
    1,
    doc.boards.reduce((n, b) => n + b.perProduct, 0),
  );
  const designs = Math.max(1, doc.boards.length);
  const sides = given.sides.reduce((a, b) => a + b, 0) || 1;
  const sidesEach = doc.boards.reduce((n, b, i) => n + b.perProduct * given.sides[i]!, 0) || 1;
  const own = fitted.filter((p) => p.way !== "house");
  let seconds = 0;
  const pasted = own.some((p) => p.way === "stencil" && p.kind !== "through");
  for (const p of own) {
    const [place, iron, perJoint] = SECONDS[p.kind]!;
    const more = p.isPolarised && p.kind !== "through" ? 2 : 0;
    seconds +=
      p.n * (p.way === "stencil" && p.kind !== "through" ? place + more : iron + perJoint * p.joints + more);
  }
  if (pasted)
    seconds +=
      sidesEach * (60 + 360 / doc.assembly.perLoad) +
      20 * boards +
      0.6 * own.reduce((n, p) => n + p.n * p.joints, 0);
  const setup = { iron: 15 * designs, stencil: 35 * sides, house: 30 * designs }[doc.assembly.method];
  const each =
    seconds / 60 +
    (doc.assembly.method === "house" ? 0 : rework) +
    doc.assembly.testMinutes +
    doc.assembly.packMinutes;
  return setup + 0.75 * lines + start * each;
}

const houseThatPlaces = (doc: RunDocument) =>
  doc.assembly.method === "house"
    ? (doc.houses?.find((h) => h.id === doc.assembly.house && h.assembly) ??
      doc.houses?.find((h) => h.assembly))
    : undefined;

/** The assembly house's invoice and the parcels there and back, in the shop's money. */
function houseOf(
  doc: RunDocument,
  fitted: readonly Counted[],
  purchases: readonly Counted[][],
  given: Given,
  fab: Fab,
  start: number,
  rate: (c: string) => Fraction,
): Fraction {
  const house = houseThatPlaces(doc);
  if (!house?.assembly) return F(0);
  const a = house.assembly;
  const its = fitted.filter((p) => p.way === "house");
  const onPaste = its.filter((p) => p.kind !== "through");
  const feeders = purchases.filter((list) => list.some((p) => onPaste.includes(p)));
  const special = feeders.filter((list) =>
    given.buys.some((b) => {
      const o = doc.offers.find((x) => x.id === b.offer)!;
      return (
        list.some((p) => p.line.id === o.line) && /tray|tube|stick|bag|bulk|loose/i.test(o.packaging ?? "")
      );
    }),
  );
  const sides = onPaste.length > 0 ? given.sides.reduce((n, s) => n + s, 0) || 1 : 0;
  const joints = (list: readonly Counted[]) => list.reduce((n, p) => n + p.n * p.joints, 0);
  const lines = [
    F(a.setupPerSide).times(sides),
    F(a.stencilPerSide).times(sides),
    F(a.perUniquePart).times(feeders.length),
    F(a.perSpecialPart ?? 0).times(special.length),
    F(a.perJoint).times(joints(onPaste)).times(start),
    F(a.perHandJoint)
      .times(joints(its.filter((p) => p.kind === "through")))
      .times(start),
  ];
  const exact = sumOf(lines);
  const short = F(a.minCharge).minus(exact);
  const price = sumOf(
    [...lines, short.isLess(0) ? F(0) : short].map((l) => l.rounded(placesOf(house.currency))),
  );
  const p = house.price;
  const freight = (kg: number) =>
    F(p.freightBase)
      .plus(F(p.freightPerHalfKg).times(Math.ceil(kg / 0.5)))
      .rounded(placesOf(house.currency));
  const goods = doc.boards.reduce(
    (n, b, i) => n + 1.08 * Math.min(start * b.perProduct, fab.pieces[i] ?? 0) * (fab.kgEach[i] ?? 0),
    0,
  );
  const ways =
    doc.house?.id === house.id
      ? freight(0.15)
      : freight(goods + 0.15)
          .times(2)
          .plus(p.importHandling);
  return price.plus(ways).times(rate(house.currency));
}
