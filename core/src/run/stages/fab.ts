import { fixedTerm } from "../actual.ts";
import { boardsNode } from "../boards-cost.ts";
import { fabNotes } from "../fab-notes.ts";
import { fabEffects } from "./fab-effects.ts";
import { openOf, paidFor } from "./paid.ts";
import type { Stage, Worked } from "./stage.ts";

const daysOf = ({ orders }: Worked) => Math.max(0, ...orders.map((o) => o.days));

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
        ...openOf(h, "boards"),
      },
      paidFor(h, "boards"),
    ),
  ],
  days: daysOf,
  ready: (w) => ({ fabDays: daysOf(w), fabSigma: w.house?.price.delaySigmaDays ?? 0 }),
  notes: ({ doc, house, checks, options, orders }, add) => fabNotes(doc, house, checks, options, orders, add),
  effects: fabEffects,
};
