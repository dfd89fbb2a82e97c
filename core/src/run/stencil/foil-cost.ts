import { type Micros, toMicros } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";
import type { PasteSides } from "../document/sides.ts";
import { foilOrder } from "../orders/foil-order.ts";
import { chosenFoil, coveredSides } from "./foils.ts";

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
export function stencilWords(doc: RunDocument, sides: PasteSides): string {
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
