import { assemblyNode, ownConsumables, stencils } from "../assembly-cost.ts";
import { assemblyNotes } from "../assembly-notes.ts";
import { inShopCurrency } from "../parts.ts";
import type { CashTerm } from "../result.ts";
import { assembleEffects } from "./assemble-effects.ts";
import type { Stage, Worked } from "./stage.ts";

/** Days at a house and on the way, and those of own work at the shop's hours a day. */
const houseDays = ({ plan }: Worked) => (plan ? plan.days + plan.parcels.days : 0);
const ownDays = ({ doc, minutes }: Worked) => minutes.total / 60 / Math.max(1, doc.workshop.hoursPerDay);

export const assemble: Stage = {
  key: "assemble",
  cost: ({ doc, parts, minutes, start, sides, plan }) =>
    assemblyNode(doc, parts, minutes, start, sides.ofDesigns, plan),
  cash: (w) => (w.plan ? atHouse(w) : atHome(w)),
  days: (w) => houseDays(w) + ownDays(w),
  ready: (w) => ({ houseDays: houseDays(w), ownDays: ownDays(w) }),
  notes: ({ doc, parts, sides, plan }, add) => assemblyNotes(doc, parts, sides, plan, add),
  effects: assembleEffects,
};

function atHouse({ doc, plan }: Worked): CashTerm[] {
  const { terms, currency, house, parcels } = plan!;
  const sum = (list: readonly { readonly micros: number }[]) => list.reduce((n, t) => n + t.micros, 0);
  const ways = sum(parcels.terms);
  return [
    {
      key: "assembly",
      label: "assembly",
      micros: inShopCurrency(doc, sum(terms), currency),
      note: house.name,
    },
    ...(ways > 0
      ? [
          {
            key: "house-parcels",
            label: "parcels to the house and back",
            micros: inShopCurrency(doc, ways, house.currency) as number,
            note: house.name,
          },
        ]
      : []),
  ];
}

const atHome = ({ doc, sides }: Worked): CashTerm[] => [
  ...(doc.assembly.method === "stencil"
    ? [{ key: "stencil", label: "stencil", micros: stencils(doc, sides.ofDesigns) as number }]
    : []),
  { key: "consumables", label: "paste, flux, cleaning", micros: ownConsumables(doc) },
];
