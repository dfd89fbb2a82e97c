import { wayOf } from "../../fab/fit-options.ts";
import { fixedTerm } from "../ledger/actual.ts";
import { besideOf, boughtOf, isBesideKnown, paidFor } from "../stage/paid.ts";
import type { Happened, Stage, Worked } from "../stage/stage.ts";
import { boardsNode } from "./boards-cost.ts";
import { fabEffects } from "./fab-effects.ts";
import { fabNotes } from "./fab-notes.ts";

const daysOf = ({ orders }: Worked) => Math.max(0, ...orders.map((o) => o.days));

/** The boards' invoice with its parcel, which counts as planned while it is not known. */
function paidWhole(h: Happened): number | undefined {
  const lines = paidFor(h, "boards");
  if (lines === undefined) return undefined;
  const whole = boughtOf(h, "boards").reduce((n, b) => n + besideOf(h, b), lines);
  // what is on it for other products is theirs, as their share of the estimate stands
  const theirs = h.w.guests.reduce((n, g) => n + g.quote.total, 0);
  const own = h.w.orders.reduce((n, o) => n + o.quote.total, 0);
  return theirs === 0 ? whole : (whole * own) / Math.max(1, own + theirs);
}

/** What of the boards is not written down; a quotation has the parcel in it. */
function openOf(h: Happened): { open?: string } {
  if (paidFor(h, "boards") === undefined) return { open: "what the boards cost" };
  return boughtOf(h, "boards").some((b) => b.order.beside > 0 && !isBesideKnown(b))
    ? { open: "what the boards' parcel cost" }
    : {};
}

export const fab: Stage = {
  key: "fab",
  cost: ({ doc, orders }) => boardsNode(doc, orders),
  cash: ({ doc, orders, guests }) => [
    ...orders.map((o, i) => ({
      key: `boards ${i}`,
      label: o.name,
      micros: o.micros as number,
      note: doc.house?.name ?? "",
    })),
    ...guests.map((o) => ({
      key: `guest ${o.guest.id}`,
      label: `${o.name}, for ${o.guest.product}`,
      micros: o.micros as number,
      note: "its share of the sheets by area; no cost of this run",
    })),
  ],
  actual: (h) => [
    fixedTerm(
      {
        key: h.planned.key,
        label: `boards${h.w.house ? ` from ${h.w.house.name}` : ""}`,
        planned: h.planned.micros,
        ...openOf(h),
      },
      paidWhole(h),
    ),
  ],
  days: daysOf,
  ready: (w) => ({
    fabDays: daysOf(w),
    fabSigma: w.house ? wayOf(w.house, w.options?.freight).delaySigmaDays : 0,
  }),
  notes: ({ doc, house, checks, options, orders }, add) => fabNotes(doc, house, checks, options, orders, add),
  effects: fabEffects,
};
