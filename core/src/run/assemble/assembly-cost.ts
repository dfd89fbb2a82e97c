import type { Method } from "../../assembly/method.ts";
import { type OwnRecord, recordWords } from "../../assembly/prior.ts";
import { branch, type CostNode, leaf } from "../../costing/tree.ts";
import { counted } from "../../counted.ts";
import { type Micros, microsToText, toMicros } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";
import { inShopCurrency, type LinePart } from "../document/parts.ts";
import type { PasteSides } from "../document/sides.ts";
import type { AssemblyPlan } from "../orders/assembly-house.ts";
import type { Minutes } from "../stage/minutes.ts";
import { stencils, stencilWords } from "../stencil/foil-cost.ts";

/** Paste, flux and cleaning, as set in Assemble. */
export const ownConsumables = (doc: RunDocument): Micros => toMicros(doc.assembly.consumables);

/** Whether own paste and flux are used up: something for paste is soldered here. What a house leaves to the iron takes none. */
export const usesOwn = (goes: ReadonlySet<Method>): boolean => goes.has("stencil") || goes.has("iron");

/**
 * Own hours, the house with the ways there and back where one places, stencils and what is used up where boards are pasted
 * or soldered here.
 * @param sides that get paste here
 */
export function assemblyNode(
  doc: RunDocument,
  parts: readonly LinePart[],
  m: Minutes,
  start: number,
  sides: PasteSides,
  goes: ReadonlySet<Method>,
  plan: AssemblyPlan | undefined,
  record?: OwnRecord,
): CostNode {
  const own = ownHours(doc, parts, m, start, record);
  const stencil = goes.has("stencil")
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
  const used = leaf(
    "consumables",
    "paste, flux, cleaning",
    [{ label: "consumables", micros: ownConsumables(doc), note: "set in Assemble" }],
    ownConsumables(doc),
  );
  return branch("assembly", "Assembly", [
    ...(plan ? houseLeaves(doc, plan) : []),
    own,
    ...stencil,
    ...(usesOwn(goes) ? [used] : []),
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
        note: `${kitWords(parts)} × 0.75 min${record ? ` × ${record.timeFactor.toFixed(2)}` : ""}`,
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
      ...(m.cleaning > 0
        ? [
            {
              label: "washing",
              micros: hours(m.cleaning),
              note: `${Number(m.cleaning.toFixed(1))} min for ${start} started, as a part goes on after it`,
              from: "time model",
            },
          ]
        : []),
    ],
    hours(m.setup + m.kitting),
  );
}

/** A line whose parts go several ways is laid out once for each. */
function kitWords(parts: readonly LinePart[]): string {
  const lines = new Set(parts.map((p) => p.line.id)).size;
  return lines === parts.length
    ? counted(lines, "line")
    : `${parts.length} lots of ${counted(lines, "line")}, as they go several ways,`;
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
