import { isTaped, leaderPieces, needOf } from "../../assembly/attrition.ts";
import { numberKey } from "../../bom/number.ts";
import type { AssemblyPrice } from "../../fab/house.ts";
import { convertMicros, toMicros } from "../../money/money.ts";
import { cheapestBuy, type Offer } from "../../sourcing/offer.ts";
import type { Origin, RunDocument, RunLine, RunLot } from "../document/document.ts";
import { type LinePart, rateOf } from "../document/parts.ts";
import type { NeedTerm, RunNeed, ShelfTake } from "../document/run-need.ts";
import { pooled, together, usableParts } from "../document/usable.ts";
import { assemblyHouse } from "../document/who-places.ts";
import { stripsFromShelf, stripsToBuy, stripsWith } from "./strips.ts";

/** Above this unit price a part counts as costly and is hardly bought over (domain.md 3.7). */
export const COSTLY_MICROS = 2_000_000;

/** Unit price from which a part is costly: 2.00 in euro, in the shop's own currency where it knows the rate. */
const costlyFrom = (doc: RunDocument): number => COSTLY_MICROS * Number(rateOf(doc, "EUR") ?? "1");

/**
 * What must be bought for a number of boards started, with what is lost on the way and what the shelf gives first.
 *
 * Lines of one maker number are one purchase (domain.md 3.1, key 1): their pieces and losses are added up per way of
 * mounting, and an offer's stock counts once. Offers of another part count where it is approved for the line, or where
 * the line asks for any such part. need = n·q + max(⌈n·q·a⌉, m) (domain.md 3.7).
 * Pieces that several purchases may use are there once: their offers share a pool.
 */
export function needsOf(
  doc: RunDocument,
  parts: readonly LinePart[],
  offers: ReadonlyMap<string, readonly Offer[]>,
  started: number,
): RunNeed[] {
  const shelf = new Map((doc.lots ?? []).map((l) => [l.id, l.qty]));
  const wanted = parts.filter((p) => !NOT_BOUGHT.has(p.line.origin ?? "bought"));
  const house = assemblyHouse(doc)?.assembly;
  const needs = groupsOf(wanted).map((group): RunNeed => {
    const first = group[0]!.line;
    const list = together(doc, group, offers);
    const pinned = group.map((p) => doc.choices.pins?.[p.line.id]).find((s) => s !== undefined);
    const terms = group.map((p): NeedTerm => {
      const by = p.method === "house" ? "machine" : "hand";
      if (p.kind === "loose")
        return { line: p.line.id, net: Math.ceil(doc.goodBoards * p.count), kind: "loose", by };
      const net = Math.ceil(started * p.count);
      const prices = list.map((o) => cheapestBuy(o, net)?.unitPrice).filter((v) => v !== undefined);
      const isCostly = prices.length > 0 && Math.min(...prices) > costlyFrom(doc);
      return { line: p.line.id, net, kind: isCostly ? "costly" : p.kind, by };
    });
    const net = terms.reduce((n, t) => n + t.net, 0);
    const soldered = terms.filter((t) => t.kind !== "loose").reduce((n, t) => n + t.net, 0);
    const reserve = Math.ceil((soldered * (doc.assembly.reworkReserve ?? 0)) / 100 - 1e-9);
    const losses = Math.ceil(withLosses(doc, terms));
    const pieces = losses + reserve;
    const isFed = terms.some((t) => t.by === "machine" && t.net > 0 && isTaped(t.kind));
    const strips = isFed ? stripsWith(leaderOf(terms, house)) : undefined;
    const lots = doc.choices.ownShelf === "leave" ? [] : lotsFor(doc, first);
    const free = (lot: RunLot) => shelf.get(lot.id) ?? 0;
    const { takes, left } = strips
      ? stripsFromShelf(strips, pieces, lots, free)
      : { takes: piecesFromShelf(pieces, lots, free), left: undefined };
    const taken = takes.map(({ lot, qty }): ShelfTake => {
      shelf.set(lot.id, free(lot) - qty);
      const cost = convertMicros(qty * toMicros(lot.unitCost), rateOf(doc, lot.currency) ?? "0");
      return { lot, qty, cost };
    });
    const onShelf = taken.reduce((n, t) => n + t.qty, 0);
    const buy =
      strips && left !== undefined
        ? stripsToBuy(strips, left, list, pinned)
        : { need: pieces - onShelf, offers: list };
    const whole = onShelf + buy.need;
    return {
      id: first.id,
      lines: [...new Set(group.map((p) => p.line.id))],
      need: buy.need,
      offers: buy.offers,
      listed: list,
      ...(pinned === undefined ? {} : { pinned }),
      terms,
      lost: losses - net,
      leader: whole - pieces,
      reserve,
      whole,
      shelf: taken,
    };
  });
  return pooled(needs);
}

/** Made here, printed, or given by somebody: nothing to buy. */
const NOT_BOUGHT: ReadonlySet<Origin> = new Set(["made", "printed", "supplied"]);

/** Lines of one number together; makers that contradict each other part them. */
function groupsOf(parts: readonly LinePart[]): LinePart[][] {
  const groups: LinePart[][] = [];
  const byNumber = new Map<string, LinePart[][]>();
  for (const p of parts) {
    const key = numberKey(p.line.mpn);
    // parts of one line that go several ways are bought as one; they stand one after the other
    const split = groups.at(-1)?.at(-1)?.line.id === p.line.id ? groups.at(-1) : undefined;
    if (split) {
      split.push(p);
      continue;
    }
    const same = key === "" ? [] : (byNumber.get(key) ?? []);
    const maker = p.line.maker.toUpperCase();
    const fit = same.find((g) =>
      g.every((q) => maker === "" || q.line.maker === "" || q.line.maker.toUpperCase() === maker),
    );
    if (fit) {
      fit.push(p);
      continue;
    }
    const group = [p];
    groups.push(group);
    if (key !== "") byNumber.set(key, [...same, group]);
  }
  return groups;
}

/** Losses are per load of one kind of package and one way of mounting, so lines alike are counted together. */
function withLosses(doc: RunDocument, terms: readonly NeedTerm[]): number {
  const loads = new Map<string, NeedTerm>();
  for (const t of terms) {
    const key = `${t.kind} ${t.by}`;
    const old = loads.get(key);
    loads.set(key, old ? { ...old, net: old.net + t.net } : t);
  }
  return [...loads.values()].reduce((n, t) => n + needOf(1, t.net, t.kind, t.by, doc.workshop.attrition), 0);
}

/** Lots that may serve a line: its own number's first, then those of parts that may stand in its place. */
export function lotsFor(doc: RunDocument, line: RunLine): RunLot[] {
  const lots = (doc.lots ?? []).filter((l) => l.condition !== "quarantine");
  if (lots.length === 0) return [];
  const own = numberKey(line.mpn);
  const usable = usableParts(doc, line);
  const others = new Set((doc.library ?? []).filter((p) => usable.has(p.id)).map((p) => numberKey(p.mpn)));
  others.delete(own);
  return [
    ...lots.filter((l) => own !== "" && numberKey(l.mpn) === own),
    ...lots.filter((l) => others.has(numberKey(l.mpn))),
  ];
}

/** Pieces from the shelf, oldest lot first: a line's own number's, then that of parts which may stand in its place. */
function piecesFromShelf(
  whole: number,
  lots: readonly RunLot[],
  free: (lot: RunLot) => number,
): { lot: RunLot; qty: number }[] {
  let rest = whole;
  return lots.flatMap((lot) => {
    const qty = Math.min(rest, free(lot));
    if (qty <= 0) return [];
    rest -= qty;
    return [{ lot, qty }];
  });
}

/** Pieces a strip loses at the house's feeder; none where it takes reels, which come with theirs. */
const leaderOf = (terms: readonly NeedTerm[], house: AssemblyPrice | undefined): number =>
  house?.takes === "reels"
    ? 0
    : Math.max(
        0,
        ...terms
          .filter((t) => t.by === "machine" && t.net > 0)
          .map((t) => leaderPieces(t.kind, house?.leaderMm ?? 0)),
      );
