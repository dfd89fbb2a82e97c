import { type OwnRecord, recordWords } from "../assembly/prior.ts";
import { branch, type CostNode, leaf } from "../costing/tree.ts";
import { counted } from "../counted.ts";
import { type Micros, microsToText, toMicros } from "../money/money.ts";
import type { AssemblyPlan } from "./assembly-house.ts";
import type { RunDocument } from "./document.ts";
import { foilOrder } from "./foil-order.ts";
import { chosenFoil, coveredSides } from "./foils.ts";
import { inShopCurrency, type LinePart } from "./parts.ts";
import type { PasteSides } from "./sides.ts";

/** Own minutes of a run. */
export interface Minutes {
  readonly setup: number;
  readonly kitting: number;
  readonly perBoard: number;
  readonly boards: number;
  readonly testing: number;
  /** Taking boards off their sheets. */
  readonly parting: number;
  readonly total: number;
}

/** Sides a stencil has to be bought for: those that get paste, of each design, without those of a foil that is used again. */
export const newSides = (doc: RunDocument, sides: PasteSides): number =>
  Math.max(0, sides.ofDesigns - coveredSides(doc));

/** What the stencils of a run cost: at the house chosen for them, else a price for each side that wants a new one. */
export function stencils(doc: RunDocument, sides: PasteSides): Micros {
  const bought = foilOrder(doc, sides, newSides(doc, sides));
  if (bought) return bought.micros;
  return (newSides(doc, sides) * toMicros(doc.assembly.stencilPrice)) as Micros;
}

/** What the stencils of a run come to, in words. */
function stencilWords(doc: RunDocument, sides: PasteSides): string {
  const n = newSides(doc, sides);
  const foil = n < sides.ofDesigns ? chosenFoil(doc)?.foil : undefined;
  const order = foilOrder(doc, sides, n);
  const bought =
    order?.words ??
    (n > 1 ? `${n} sides × ${doc.assembly.stencilPrice}, charged to this run` : "charged to this run");
  if (!foil) return bought;
  const used = `${foil.name} is used again, after ${foil.prints} prints`;
  return n === 0 ? used : `${used}; ${bought}`;
}

/** Paste, flux and cleaning, as set in Assemble. */
export const ownConsumables = (doc: RunDocument): Micros => toMicros(doc.assembly.consumables);

/**
 * Own hours, and either the house with the ways there and back, or stencils and what is used up.
 * @param sides that get paste
 */
export function assemblyNode(
  doc: RunDocument,
  parts: readonly LinePart[],
  m: Minutes,
  start: number,
  sides: PasteSides,
  plan: AssemblyPlan | undefined,
  record?: OwnRecord,
): CostNode {
  const own = ownHours(doc, parts, m, start, record);
  if (plan) return branch("assembly", "Assembly", [...houseLeaves(doc, plan), own]);
  const stencil =
    doc.assembly.method === "stencil"
      ? [
          leaf(
            "stencil",
            "stencil",
            [
              {
                label: "stencil",
                micros: stencils(doc, sides),
                note: stencilWords(doc, sides),
              },
            ],
            stencils(doc, sides),
          ),
        ]
      : [];
  return branch("assembly", "Assembly", [
    own,
    ...stencil,
    leaf(
      "consumables",
      "paste, flux, cleaning",
      [{ label: "consumables", micros: ownConsumables(doc), note: "set in Assemble" }],
      ownConsumables(doc),
    ),
  ]);
}

function ownHours(
  doc: RunDocument,
  parts: readonly LinePart[],
  m: Minutes,
  start: number,
  record: OwnRecord | undefined,
): CostNode {
  const rate = toMicros(doc.workshop.hourlyRate);
  const hours = (minutes: number) => (minutes / 60) * rate;
  return leaf(
    "own-hours",
    "own hours",
    [
      {
        label: "set-up",
        micros: hours(m.setup),
        note: `${Number(m.setup.toFixed(1))} min at ${microsToText(rate)} an hour`,
        from: "time model",
      },
      {
        label: "kitting",
        micros: hours(m.kitting),
        note: `${counted(parts.length, "line")} × 0.75 min${record ? ` × ${record.timeFactor.toFixed(2)}` : ""}`,
        from: "time model",
      },
      ...(m.perBoard > 0
        ? [
            {
              label: "soldering, inspection, rework",
              micros: hours(m.boards),
              note: `${start} boards × ${m.perBoard.toFixed(2)} min`,
              from: record
                ? `time and defect model with the shop's record (${recordWords(record)})`
                : "time and defect model, no record yet",
            },
          ]
        : []),
    ],
    hours(m.setup + m.kitting),
  );
}

function houseLeaves(doc: RunDocument, plan: AssemblyPlan): CostNode[] {
  const { house, quoted, terms, parcels } = plan;
  const leafOf = (
    key: string,
    label: string,
    currency: string,
    list: readonly { label: string; micros: number; note: string; perProduct?: boolean; from: string }[],
  ) => {
    const own = list.map(({ perProduct, ...t }) => ({
      ...t,
      micros: inShopCurrency(doc, t.micros, currency) as number,
      isFixed: !perProduct,
    }));
    return leaf(
      key,
      label,
      own.map(({ isFixed, ...t }) => t),
      own.filter((t) => t.isFixed).reduce((n, t) => n + t.micros, 0),
    );
  };
  const price = leafOf(
    "house-price",
    house.name,
    plan.currency,
    terms.map((t) => ({
      ...t,
      from: quoted ? `quotation of ${quoted.capturedOn}` : `profile of ${house.checkedOn}`,
    })),
  );
  if (parcels.terms.length === 0) return [price];
  return [
    price,
    leafOf(
      "house-parcels",
      "parcels to the house and back",
      house.currency,
      parcels.terms.map((t) => ({ ...t, from: `freight of ${house.checkedOn}` })),
    ),
  ];
}
