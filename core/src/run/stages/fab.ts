import { boardsNode } from "../boards-cost.ts";
import { fabNotes } from "../fab-notes.ts";
import { fabEffects } from "./fab-effects.ts";
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
  days: daysOf,
  ready: (w) => ({ fabDays: daysOf(w), fabSigma: w.house?.price.delaySigmaDays ?? 0 }),
  notes: ({ doc, house, checks, options, orders }, add) => fabNotes(doc, house, checks, options, orders, add),
  effects: fabEffects,
};
