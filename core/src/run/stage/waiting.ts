import { later } from "../../day.ts";
import { microsToText } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";
import type { OrderKey, OrderKind } from "../document/order-key.ts";
import type { OrderState } from "../document/order-states.ts";
import type { OrderStep } from "../document/record.ts";
import { CHECK_DAYS, type OrderWait, ofNow, orderStand } from "../orders/order-steps.ts";
import type { PlannedOrder } from "./planned-orders.ts";

/** What a list of a shop's runs has to know of an order of one of them. */
export interface OrderBrief {
  readonly key: OrderKey;
  readonly kind: OrderKind;
  readonly name: string;
  readonly currency: string;
  /** What its lines come to, in its currency; freight and fees come on top. */
  readonly total: string;
  /** Boards that are made at the own bench: nobody is asked for them. */
  readonly isOwn?: true;
  /** Item → pieces. */
  readonly items: Readonly<Record<string, number>>;
  /** Whole days until it is there, least and most. */
  readonly days: readonly [number, number];
}

/** @param doc whose order it is */
export const briefOf = (doc: RunDocument, o: PlannedOrder): OrderBrief => ({
  key: o.key,
  kind: o.kind,
  name: o.name,
  currency: o.currency,
  total: microsToText(o.items.reduce((n, i) => n + i.total, 0)),
  ...(doc.houses?.find((h) => h.id === o.party)?.bench || (o.kind === "boards" && doc.house?.bench)
    ? { isOwn: true as const }
    : {}),
  items: Object.fromEntries(o.items.map((i) => [i.key, i.qty])),
  days: [Math.floor(o.days[0]), Math.ceil(o.days[1])],
});

/** What happened to an order so far. */
export interface OrderSoFar {
  readonly steps: readonly OrderStep[];
  readonly purchase?: {
    readonly orderedOn?: string;
    readonly promisedOn?: string;
  };
  /** Item → usable pieces that came; of boards that were placed, those that were begun here: they are back. */
  readonly came: Readonly<Record<string, number>>;
  /** ISO days: when its run was released, and now. */
  readonly releasedOn: string;
  readonly today: string;
}

/** An order that is not all there yet: whom it waits for, what is late, when it is to be here. */
export interface Waiting {
  readonly state: "open" | OrderState;
  readonly waits: OrderWait;
  /** A day that was promised, or that was to be expected, is over; or somebody is silent for longer than usual. */
  readonly isLate: boolean;
  /** ISO days it is to be here: as promised, else as planned from the day it was ordered; nothing while it is not. */
  readonly from?: string;
  readonly to?: string;
  readonly isPromised: boolean;
  readonly came: number;
  readonly of: number;
  readonly isPaid: boolean;
  readonly questions: readonly string[];
}

/**
 * How an order stands in a list of all that is waited for. Nothing where all of it came. What was taken back is waited
 * for too: the run still wants what it was for, and nobody brings it until the shop orders it again.
 */
export function waitingFor(o: OrderBrief, at: OrderSoFar): Waiting | undefined {
  const items = Object.entries(o.items);
  // of each item only what was ordered: more of one is no other one
  const came = items.reduce((n, [key, qty]) => n + Math.min(qty, at.came[key] ?? 0), 0);
  const of = items.reduce((n, [, qty]) => n + qty, 0);
  const isBack = ofNow(at.steps).at(-1)?.state === "withdrawn";
  const { promisedOn, orderedOn: bought } = (isBack ? undefined : at.purchase) ?? {};
  const stand = orderStand(at.steps, {
    today: at.today,
    isHere: of > 0 && came >= of,
    kind: o.kind,
    ...(promisedOn ? { promisedOn } : {}),
  });
  if (came >= of) return undefined;
  // sent once more after it was taken back, it counts from then on
  const sent = stand.now.findLast((s) => s.state === "sent")?.on;
  const orderedOn = [bought ?? "", (isBack ? undefined : sent) ?? ""].sort().at(-1) || undefined;
  const [from, to] = promisedOn
    ? [promisedOn, promisedOn]
    : orderedOn
      ? [later(orderedOn, o.days[0]), later(orderedOn, o.days[1])]
      : [undefined, undefined];
  const waits = isBack ? again(stand.now) : (stand.waits ?? unwritten(o, orderedOn, at.releasedOn));
  const isSilent =
    waits.on === "shop" && !orderedOn && at.today > later(isBack ? waits.since : at.releasedOn, CHECK_DAYS);
  return {
    state: stand.state,
    waits,
    isLate: stand.isOverdue || isSilent || (to !== undefined && at.today > to),
    ...(from && to ? { from, to } : {}),
    isPromised: promisedOn !== undefined,
    came,
    of,
    isPaid: !isBack && stand.now.some((s) => s.state === "paid"),
    questions: stand.questions.map((q) => q.words),
  };
}

/** Taken back: whether it is ordered again, here or elsewhere, is the shop's to say. */
const again = (now: readonly OrderStep[]): OrderWait => ({
  on: "shop",
  what: "to order it again, or elsewhere",
  since: now.at(-1)!.on,
});

/** Of an order nothing is written down of but, at most, the day it was placed. */
function unwritten({ isOwn }: OrderBrief, orderedOn: string | undefined, releasedOn: string): OrderWait {
  if (isOwn) return { on: "shop", what: "to make them", since: orderedOn ?? releasedOn };
  return orderedOn
    ? { on: "house", what: "to send it", since: orderedOn }
    : { on: "shop", what: "to order it", since: releasedOn };
}

/** What is late first, then what waits for the shop, then by the day it is to be here; what has none last. */
export const byUrgency = (a: Waiting, b: Waiting): number =>
  Number(b.isLate) - Number(a.isLate) ||
  Number(b.waits.on === "shop") - Number(a.waits.on === "shop") ||
  (a.to ?? "9999").localeCompare(b.to ?? "9999") ||
  a.waits.since.localeCompare(b.waits.since);
