import { wayOf } from "../../fab/fit-options.ts";
import { fixedTerm } from "../actual.ts";
import { boardsNode } from "../boards-cost.ts";
import { fabNotes } from "../fab-notes.ts";
import { fabEffects } from "./fab-effects.ts";
import { besideOf, boughtOf, isBesideKnown, paidFor } from "./paid.ts";
import type { Happened, Stage, Worked } from "./stage.ts";

const daysOf = ({ orders }: Worked) => Math.max(0, ...orders.map((o) => o.days));

/** The boards' invoice with its parcel, which counts as planned while it is not known. */
function paidWhole(h: Happened): number | undefined {
  const lines = paidFor(h, "boards");
  if (lines === undefined) return undefined;
  return boughtOf(h, "boards").reduce((n, b) => n + besideOf(h, b), lines);
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
  cash: ({ doc, orders }) =>
    orders.map((o, i) => ({
      key: `boards ${i}`,
      label: o.name,
      micros: o.micros as number,
      note: doc.house?.name ?? "",
    })),
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
