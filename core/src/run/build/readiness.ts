import { later } from "../../day.ts";
import { boardKey } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import { nameOfLine } from "../document/parts.ts";
import { arrivedOf, type RunRecord, tallyOf } from "../document/record.ts";
import type { RunNeed } from "../document/run-need.ts";
import { lotsOf } from "../needs/usage.ts";
import { notSaidAt } from "../program/places.ts";
import { type PlannedItem, type PlannedOrder, plannedOrders } from "../stage/planned-orders.ts";
import type { RunResult } from "../stage/result.ts";
import { briefOf, type Waiting, waitingFor } from "../stage/waiting.ts";

/** A parcel an item is still to come in. */
export interface ToCome {
  readonly order: string;
  /** Who sends it. */
  readonly name: string;
  readonly qty: number;
  /** ISO days; nothing while it is not ordered. */
  readonly from?: string;
  readonly to?: string;
  /** The last day it was to come is over. */
  readonly isLate: boolean;
  /** Who sends it has been silent for longer than usual; not where it is the shop that did not order. */
  readonly isSilent: boolean;
  readonly isPromised: boolean;
}

/** One thing every product needs: a board, or a part as it is bought. */
export interface ReadyItem {
  readonly key: string;
  readonly kind: "board" | "part";
  readonly label: string;
  /** Pieces in one product. */
  readonly each: number;
  /** Pieces for all of them: what is soldered for those that are started, what is put to the finished product for the good ones. */
  readonly need: number;
  /** Pieces that are here and may be used: what came, and what the run counts on from the shelf. */
  readonly have: number;
  /** Boards that came and did not hold when they were tried bare: not among `have`. */
  readonly faulty?: number;
  /** Products they suffice for. */
  readonly products: number;
  readonly comes: readonly ToCome[];
}

/** From a day on so many products can be made whole; the first item that stops the next one. */
export interface ReadyFrom {
  /** ISO day. */
  readonly on: string;
  readonly products: number;
  readonly by?: string;
}

/** Whether a run can begin, how many products can be made whole now and later, and what stops more. */
export interface Readiness {
  readonly light: "ready" | "some" | "blocked";
  /** Products that are to be started, and those that were. */
  readonly wanted: number;
  readonly begun: number;
  /** Products that are good or given up. */
  readonly over: number;
  /** Whole products from what is here, those that were begun among them. */
  readonly now: number;
  /** What does not suffice for all of them, the scarcest first. */
  readonly short: readonly ReadyItem[];
  readonly items: number;
  /** From now on, by the days on which something is to come; never fewer than before. */
  readonly ahead: readonly ReadyFrom[];
  /** Day by which the last product is finished, by the shop's own hours; nothing where some has no day, or nothing is left. */
  readonly doneOn?: string;
  /** Why nothing is to be begun whatever is here, in words. */
  readonly stops: readonly string[];
  /** What nobody keeps a count of, in words. */
  readonly unknown: readonly string[];
}

/**
 * How many whole products can be made now, and when more (X20, N047).
 *
 * Of each item so many products as its usable pieces divide into; the least of all is what can be made. Pieces are those
 * that came and were not set apart, and those the run counts on from the shelf; losses by hand are not taken off, as they
 * have not happened. What is on its way is there on the last day it may come.
 *
 * @param stops reasons not to begin, as boards that do not measure as they must
 * @param releasedOn ISO day of the release, from which silence is counted
 * @param leftMinutes own minutes that are left as the bench tells; where it tells nothing those planned for what is neither good nor given up
 */
export function readinessOf(
  doc: RunDocument,
  r: RunResult,
  record: RunRecord,
  {
    today,
    releasedOn,
    stops = [],
    leftMinutes,
  }: {
    readonly today: string;
    readonly releasedOn: string;
    readonly stops?: readonly string[];
    readonly leftMinutes?: number;
  },
): Readiness {
  const orders = plannedOrders({ doc, ...r, plan: r.assembly });
  const stands = new Map(orders.map((o) => [o.key, standOf(doc, o, record, today, releasedOn)]));
  const items = [
    ...boardItems(doc, orders, record, stands, today, r.start),
    ...r.needs.flatMap((n) => partItem(doc, r, n, orders, record, stands, today)),
  ];
  const wanted = r.start;
  const { started: begun, good, scrapped } = tallyOf(record.work);
  const products = (list: readonly ReadyItem[]) => Math.min(wanted, ...list.map((i) => i.products));
  const now = products(items);
  const short = items
    .filter((i) => i.products < wanted)
    .sort(
      (a, b) =>
        a.products - b.products || lastDay(b).localeCompare(lastDay(a)) || (a.label < b.label ? -1 : 1),
    );
  const ahead = aheadOf(items, wanted, today);
  const last = ahead.at(-1)!;
  const all = last.products >= wanted ? last.on : undefined;
  const over = good + scrapped;
  const left = leftMinutes ?? (r.ownMinutes * Math.max(0, wanted - over)) / Math.max(1, wanted);
  return {
    light:
      stops.length > 0
        ? "blocked"
        : now >= wanted || over >= wanted
          ? "ready"
          : now > begun
            ? "some"
            : "blocked",
    wanted,
    begun,
    over,
    now,
    short,
    items: items.length,
    ahead,
    ...(all === undefined || left <= 0 ? {} : { doneOn: later(all, workDays(doc, left)) }),
    stops,
    unknown: unknownOf(doc, r),
  };
}

const lastDay = (i: ReadyItem): string =>
  i.comes.length === 0
    ? "9999"
    : i.comes
        .map((c) => c.to ?? "9999")
        .sort()
        .at(-1)!;

/** Whole days of the shop's own hours. */
const workDays = ({ workshop }: RunDocument, minutes: number): number =>
  Math.ceil(minutes / 60 / Math.max(0.1, workshop.hoursPerDay));

function standOf(
  doc: RunDocument,
  o: PlannedOrder,
  record: RunRecord,
  today: string,
  releasedOn: string,
): Waiting | undefined {
  const purchase = record.purchases.find((p) => p.order === o.key);
  return waitingFor(briefOf(doc, o), {
    steps: (record.steps ?? []).filter((s) => s.order === o.key),
    ...(purchase
      ? {
          purchase: {
            ...(purchase.orderedOn ? { orderedOn: purchase.orderedOn } : {}),
            ...(purchase.promisedOn ? { promisedOn: purchase.promisedOn } : {}),
          },
        }
      : {}),
    came: Object.fromEntries(o.items.map((i) => [i.key, arrivedOf(record, o.key, i.key).usable])),
    releasedOn,
    today,
  });
}

type Stands = ReadonlyMap<string, Waiting | undefined>;

/** What of an item is still to come in an order; what is set apart has to come again, and nobody said that it does. */
function toCome(o: PlannedOrder, i: PlannedItem, record: RunRecord, stands: Stands, today: string): ToCome[] {
  const { usable, apart } = arrivedOf(record, o.key, i.key);
  const qty = i.qty - usable - apart;
  const stand = stands.get(o.key);
  if (qty <= 0 || !stand || stand.state === "withdrawn") return [];
  const isLate = stand.to !== undefined && today > stand.to;
  return [
    {
      order: o.key,
      name: o.name,
      qty,
      ...(stand.from && stand.to ? { from: stand.from, to: stand.to } : {}),
      isLate,
      isSilent: stand.isLate && !isLate && stand.waits.on !== "shop",
      isPromised: stand.isPromised,
    },
  ];
}

function boardItems(
  doc: RunDocument,
  orders: readonly PlannedOrder[],
  record: RunRecord,
  stands: Stands,
  today: string,
  wanted: number,
): ReadyItem[] {
  const order = orders.find((o) => o.kind === "boards");
  return doc.boards.map((b, n): ReadyItem => {
    const key = boardKey(doc, n);
    const item = order?.items.find((i) => i.key === key);
    const usable = order ? arrivedOf(record, order.key, key).usable : 0;
    const bad = new Set(
      (record.bareTests ?? []).filter((t) => t.item === key && t.faults.length > 0).map((t) => t.label),
    ).size;
    const have = Math.max(0, usable - bad);
    return {
      key,
      kind: "board",
      label: doc.boards.length > 1 ? b.name : "bare boards",
      each: b.perProduct,
      need: b.perProduct * wanted,
      have,
      ...(bad > 0 ? { faulty: bad } : {}),
      products: Math.min(wanted, Math.floor(have / Math.max(1, b.perProduct))),
      comes: order && item ? toCome(order, item, record, stands, today) : [],
    };
  });
}

function partItem(
  doc: RunDocument,
  r: RunResult,
  n: RunNeed,
  orders: readonly PlannedOrder[],
  record: RunRecord,
  stands: Stands,
  today: string,
): ReadyItem[] {
  const each = r.parts.filter((p) => n.lines.includes(p.line.id)).reduce((s, p) => s + p.count, 0);
  if (each <= 0) return [];
  const have = lotsOf(doc, n, record.receipts).reduce((s, l) => s + l.meant, 0);
  const offers = new Set(n.listed.map((o) => o.id));
  // what goes to the finished product alone is wanted for the good ones
  const isLoose = n.terms.every((t) => t.kind === "loose");
  const need = each * (isLoose ? doc.goodBoards : r.start);
  return [
    {
      key: n.id,
      kind: "part",
      label: labelOf(doc, r, n),
      each,
      need,
      have,
      products: have >= need - 1e-9 ? r.start : Math.min(r.start, Math.floor(have / each + 1e-9)),
      comes: orders
        .filter((o) => o.kind === "parts")
        .flatMap((o) =>
          o.items.filter((i) => offers.has(i.key)).flatMap((i) => toCome(o, i, record, stands, today)),
        ),
    },
  ];
}

/** "C1 and 3 more, 100n": the parts it is for, and what it is. */
function labelOf(doc: RunDocument, r: RunResult, n: RunNeed): string {
  const lines = doc.lines.filter((l) => n.lines.includes(l.id));
  const refs = lines.flatMap((l) => l.refs);
  const what = lines[0]?.valueText || lines[0]?.mpn || "";
  if (refs.length === 0) return nameOfLine(doc, r.parts, n.id);
  const named = refs.length > 2 ? `${refs[0]} and ${refs.length - 1} more` : refs.join(", ");
  return what === "" ? named : `${named}, ${what}`;
}

/** Products that can be made whole from each day on which something is to come. What should be here by now has no day. */
function aheadOf(items: readonly ReadyItem[], wanted: number, today: string): ReadyFrom[] {
  const dayOf = (c: ToCome): string | undefined => (c.to !== undefined && c.to >= today ? c.to : undefined);
  const at = (day: string): ReadyFrom => {
    const pieces = (i: ReadyItem) =>
      i.comes.reduce((s, c) => s + ((dayOf(c) ?? "9999") <= day ? c.qty : 0), i.have);
    const least = items
      .map((i) => ({
        label: i.label,
        products: pieces(i) >= i.need - 1e-9 ? wanted : Math.floor(pieces(i) / i.each + 1e-9),
      }))
      .reduce<{ label: string; products: number } | undefined>(
        (a, b) => (a && a.products <= b.products ? a : b),
        undefined,
      );
    return least && least.products < wanted
      ? { on: day, products: Math.max(0, least.products), by: least.label }
      : { on: day, products: wanted };
  };
  const days = [...new Set([today, ...items.flatMap((i) => i.comes.flatMap((c) => dayOf(c) ?? []))])].sort();
  return days
    .map(at)
    .filter((f, k, all) => k === 0 || f.products > all[k - 1]!.products || f.by !== all[k - 1]!.by);
}

/** What is needed and nobody keeps a count of. */
function unknownOf({ assembly }: RunDocument, r: RunResult): string[] {
  const open = notSaidAt(assembly);
  return [
    ...(r.goes.has("stencil")
      ? [assembly.foil ? "whether the kept foil is clean" : "the foil, which is in no order"]
      : []),
    ...(r.goes.has("stencil") || r.goes.has("iron") ? ["paste, wire and flux"] : []),
    ...(open.length > 0 ? [`what is loaded at ${open.join(", ")}`] : []),
  ];
}
