import type { RunDocument } from "../../src/run/document/document.ts";
import { F, type Fraction } from "./fraction.ts";
import { type Counted, type Given, houseThatPlaces } from "./given.ts";

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

/** Lines of one number are one purchase; a line without a number is its own. */
export function purchasesOf(all: readonly Counted[]): Counted[][] {
  const out = new Map<string, Counted[]>();
  for (const p of all) {
    if (["made", "printed", "supplied"].includes(p.line.origin ?? "bought")) continue;
    const number = p.line.mpn.toUpperCase().replace(/\s/g, "");
    const key = number === "" ? `line ${p.line.id}` : number;
    out.set(key, [...(out.get(key) ?? []), p]);
  }
  return [...out.values()];
}

export const shelfOf = (doc: RunDocument, list: readonly Counted[], given: Given) =>
  given.lots.filter((t) => {
    const lot = doc.lots!.find((l) => l.id === t.id)!;
    return list.some((p) => p.line.mpn.toUpperCase() === lot.mpn.toUpperCase());
  });

export function piecesOf(
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
