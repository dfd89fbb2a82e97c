import { ownFaultWords } from "../../assembly/fault-prior.ts";
import { recordWords } from "../../assembly/prior.ts";
import type { YieldEstimate } from "../../assembly/yield.ts";
import type { CostNode } from "../../costing/tree.ts";
import type { Add } from "../document/note.ts";
import { inShopCurrency } from "../document/parts.ts";
import { type ActualTerm, asPlanned, fixedTerm, scaledTerm } from "../ledger/actual.ts";
import { hoursUsed } from "../stage/own-hours.ts";
import { besideOf, boughtOf, isBesideKnown, paidFor } from "../stage/paid.ts";
import type { CashTerm } from "../stage/result.ts";
import type { Happened, Stage, Worked } from "../stage/stage.ts";
import { stencils } from "../stencil/foil-cost.ts";
import { foilEffects } from "../stencil/foil-effects.ts";
import { foilNotes } from "../stencil/foils.ts";
import { assembleEffects } from "./assemble-effects.ts";
import { assemblyNode, ownConsumables, usesOwn } from "./assembly-cost.ts";
import { assemblyNotes } from "./assembly-notes.ts";
import { firstArticleNotes } from "./first-article.ts";
import { stepNotes } from "./step-notes.ts";
import { carriedNotes } from "./tests/carried.ts";
import { testPlanNotes } from "./tests/test-plan.ts";

/** What closed runs of the product change is said with how much they are. */
function recordNote({ final, firstPass, record, faults }: YieldEstimate, add: Add): void {
  if (!record) return;
  const share = (v: number) => `${(100 * v).toFixed(1)} %`;
  const time = record.timeFactor === 1 ? "" : `, own time × ${record.timeFactor.toFixed(2)}`;
  const clean = faults
    ? ` ${share(firstPass)} of boards are expected without a fault, by ${ownFaultWords(faults)}.`
    : "";
  add(
    "assemble",
    "own-record",
    "remark",
    `The shop's record (${recordWords(record)}) counts beside the model: ${share(final)} end good in the place of ${share(record.model)}${time}.${clean}`,
  );
}

/** Days at a house and on the way, and those of own work at the shop's hours a day. */
const houseDays = ({ plan }: Worked) => (plan ? plan.days + plan.parcels.days : 0);
const ownDays = ({ doc, minutes }: Worked) => minutes.total / 60 / Math.max(1, doc.workshop.hoursPerDay);

export const assemble: Stage = {
  key: "assemble",
  cost: ({ doc, parts, minutes, start, sides, goes, plan, quality }) =>
    assemblyNode(doc, parts, minutes, start, sides.own, goes, plan, quality.record),
  actual: ({ planned, ...h }) =>
    planned.children.map((c) => {
      const of = { key: c.key, label: c.label, planned: c.micros as number };
      if (c.key === "own-hours")
        return scaledTerm({ ...of, ...hoursOpen(h) }, h.counts, hoursUsed(h), 1, c.fixedMicros);
      if (c.key === "house-price") return housePrice(h, of, planned);
      if (c.key === "house-parcels") return houseWays(h, of);
      return asPlanned(c);
    }),
  cash: (w) => [...(w.plan ? atHouse(w) : []), ...atHome(w)],
  days: (w) => houseDays(w) + ownDays(w),
  ready: (w) => ({ houseDays: houseDays(w), ownDays: ownDays(w) }),
  notes: (w, add) => {
    const { doc, quality } = w;
    assemblyNotes(w, add);
    stepNotes(w, add);
    firstArticleNotes(doc, add);
    testPlanNotes(doc, add);
    carriedNotes(doc, add);
    foilNotes(doc, add);
    recordNote(quality, add);
  },
  effects: (ask) => ({ ...assembleEffects(ask), ...foilEffects(ask) }),
};

const hoursOpen = ({ tally }: Pick<Happened, "tally">) =>
  tally.started > 0 && tally.minutes === 0 ? { open: "own hours" } : {};

type Paid = Pick<Happened, "w" | "record">;
type Head = Parameters<typeof fixedTerm>[0];
const waysOf = (h: Paid) => boughtOf(h, "assembly").reduce((n, b) => n + besideOf(h, b), 0);

/** What the placing cost; the ways are a term of their own, where any were planned. */
function housePrice(h: Paid, of: Head, planned: CostNode): ActualTerm {
  const paid = paidFor(h, "assembly");
  if (paid === undefined) return fixedTerm({ ...of, open: "what the assembly cost" }, undefined);
  return fixedTerm(of, planned.children.some((c) => c.key === "house-parcels") ? paid : paid + waysOf(h));
}

function houseWays(h: Paid, of: Head): ActualTerm {
  return boughtOf(h, "assembly").every(isBesideKnown)
    ? fixedTerm(of, waysOf(h))
    : fixedTerm({ ...of, open: "what the ways to the house and back cost" }, undefined);
}

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

const atHome = ({ doc, sides, goes }: Worked): CashTerm[] => [
  ...(goes.has("stencil")
    ? [{ key: "stencil", label: "stencil", micros: stencils(doc, sides.own) as number, isBeside: true }]
    : []),
  ...(usesOwn(goes)
    ? [{ key: "consumables", label: "paste, flux, cleaning", micros: ownConsumables(doc), isBeside: true }]
    : []),
];
