import { branch, type CostNode, leaf, type Term } from "../../costing/tree.ts";
import { type Micros, microsToText, roundMoney, toMicros } from "../../money/money.ts";
import type { Basket } from "../../sourcing/need.ts";
import type { RunDocument } from "../document/document.ts";
import { type LinePart, nameOfLine } from "../document/parts.ts";
import type { RunNeed } from "../document/run-need.ts";

/** Duty by supplier, each rounded as its customs paper is (domain.md 4.2). */
export const dutyBilled = (doc: RunDocument, basket: Basket): Record<string, Micros> =>
  Object.fromEntries(
    Object.entries(basket.dutyOf)
      .filter(([, micros]) => micros > 0)
      .map(([id, micros]) => [id, roundMoney(micros, doc.workshop.currency)]),
  );

/** Fees are named where some supplier takes any. */
export const shippingLabel = (doc: RunDocument): string =>
  doc.suppliers.some((s) => s.smallOrder || s.handling !== undefined)
    ? "shipping and fees of parts"
    : "shipping of parts";

/** Parts that the boards use, what is made here, the shelf, parcels, duty, and what invoices round. */
export function partsNode(
  doc: RunDocument,
  parts: readonly LinePart[],
  needs: readonly RunNeed[],
  basket: Basket,
  invoiced: Micros,
): CostNode {
  const isExpense = doc.choices.leftovers === "expense";
  const used = usedTerms(doc, parts, needs, basket);
  const made = parts
    .filter((p) => p.line.madeCost !== undefined && Number(p.line.madeCost) > 0)
    .map((p) => ({
      label: nameOfLine(doc, parts, p.line.id),
      micros: Math.ceil(doc.goodBoards * p.count) * toMicros(p.line.madeCost!),
      note: `${Math.ceil(doc.goodBoards * p.count)} × ${p.line.madeCost}`,
      from: `${p.line.origin === "printed" ? "printed" : "made"} here, beside its parts`,
    }));
  const shelf = needs.flatMap((n) =>
    n.shelf.map((t) => ({
      label: nameOfLine(doc, parts, n.id),
      micros: t.cost,
      note: `${t.qty} of ${t.lot.qty} from ${t.lot.place || "the shelf"}`,
      from: `what they cost, received ${t.lot.receivedOn}`,
    })),
  );
  const rounding = invoiced - basket.parts;
  const shipping = Object.entries(basket.shippingOf).map(([id, micros]) => ({
    label: doc.suppliers.find((s) => s.id === id)?.name ?? id,
    micros,
    note: micros === 0 ? "free from its subtotal on" : "one parcel",
  }));
  return branch("parts", "Parts", [
    leaf("parts-used", isExpense ? "parts bought" : "parts used, with what is lost on the way", used),
    ...(made.length > 0 ? [leaf("parts-made", "made and printed here", made)] : []),
    ...(shelf.length > 0 ? [leaf("parts-shelf", "parts from the own shelf", shelf)] : []),
    ...(rounding === 0
      ? []
      : [
          leaf("parts-rounding", "rounding on the invoices", [
            {
              label: "rounding",
              micros: rounding,
              note: "each line of an invoice ends on the smallest coin",
            },
          ]),
        ]),
    leaf("parts-shipping", shippingLabel(doc), shipping, basket.shipping),
    ...(basket.duty > 0
      ? [
          leaf(
            "parts-duty",
            "duty on parts",
            Object.entries(dutyBilled(doc, basket)).map(([id, micros]) => ({
              label: doc.suppliers.find((s) => s.id === id)?.name ?? id,
              micros,
              note: "on what is bought",
            })),
          ),
        ]
      : []),
  ]);
}

/** What the boards use of what is bought, line by line; all of it where what is left is charged to the run. */
function usedTerms(
  doc: RunDocument,
  parts: readonly LinePart[],
  needs: readonly RunNeed[],
  basket: Basket,
): Term[] {
  const isExpense = doc.choices.leftovers === "expense";
  return basket.lines.flatMap((l, i) => {
    const bought = l.buys.reduce((s, b) => s + b.qty, 0);
    if (bought === 0) return [];
    const spend = l.buys.reduce((s, b) => s + b.cost, 0);
    const need = Math.min(bought, needs[i]!.need);
    const share = isExpense ? 1 : need / bought;
    const fees = l.buys.reduce((s, b) => s + (b.fee ?? 0), 0);
    const price =
      l.buys.length === 1
        ? microsToText(l.buys[0]!.unitPrice)
        : microsToText(Math.round((spend - fees) / bought));
    const supplier = [
      ...new Set(l.buys.map((b) => doc.suppliers.find((s) => s.id === b.supplier)?.name ?? b.supplier)),
    ].join(", ");
    return [
      {
        label: nameOfLine(doc, parts, l.line),
        micros: spend * share,
        note: `${isExpense ? bought : need} × ${price}${!isExpense && bought > need ? `, ${bought - need} more stay in stock` : ""}${fees > 0 ? `, with ${microsToText(fees)} for its packaging` : ""}`,
        from: supplier,
      },
    ];
  });
}

/** What is bought beyond the need and kept as stock, at what it cost: not in the run's cost. Nothing where it is charged. */
export function leftoverOf(doc: RunDocument, needs: readonly RunNeed[], basket: Basket): Micros {
  if (doc.choices.leftovers === "expense") return 0 as Micros;
  const kept = basket.lines.map((l, i) => {
    const bought = l.buys.reduce((s, b) => s + b.qty, 0);
    const spend = l.buys.reduce((s, b) => s + b.cost, 0);
    return bought === 0 ? 0 : spend * (1 - Math.min(bought, needs[i]!.need) / bought);
  });
  return Math.round(kept.reduce((a, b) => a + b, 0)) as Micros;
}
