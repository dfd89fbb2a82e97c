import type { FoilPrice, House } from "../../fab/house.ts";
import { type Micros, toMicros } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";
import { inShopCurrency } from "../document/parts.ts";
import type { PastePattern, PasteSides } from "../document/sides.ts";

/** A house that cuts foils. */
export type FoilHouse = House & { readonly foils: FoilPrice };
export const cutsFoils = (h: House): h is FoilHouse => h.foils !== undefined;

/** Between two patterns on one foil, and around each, mm. */
export const APART_MM = 20;

/** Foils as they are bought at a house. */
export interface FoilOrder {
  readonly house: FoilHouse;
  readonly micros: Micros;
  /** Foils to buy, and of these the ones with both sides of a board. */
  readonly foils: number;
  readonly shared: number;
  readonly words: string;
  /** Patterns that are larger than what the house cuts. */
  readonly tooLarge: readonly PastePattern[];
}

/** So many patterns beside each other, with room around each, fit into an area, one way or the other; unknown sizes do not. */
export function fitsBeside(p: PastePattern, times: number, [a, b]: FoilPrice["largestMm"]): boolean {
  const { widthMm: w, heightMm: h } = p;
  if (w === undefined || h === undefined) return false;
  const side = (u: number, v: number) => {
    const [x, y] = [times * u + (times + 1) * APART_MM, v + 2 * APART_MM];
    return (x <= a && y <= b) || (x <= b && y <= a);
  };
  return side(w, h) || side(h, w);
}

/**
 * What the foils of a run cost at the house chosen for them: one for each side, or one with both sides of a board where its
 * area holds them, and the parcel.
 *
 * @param sidesToBuy without those of a foil that is used again
 * @returns nothing where no house is chosen for foils, or it has no prices for them
 */
export function foilOrder(doc: RunDocument, sides: PasteSides, sidesToBuy: number): FoilOrder | undefined {
  const house = (doc.houses ?? []).find((h) => h.id === doc.assembly.foilHouse);
  if (!house || !cutsFoils(house)) return undefined;
  const p = house.foils;
  const form = doc.assembly.foilForm === "framed" ? "framed" : "loose";
  const isWhole = sidesToBuy === sides.ofDesigns;
  const shared = isWhole
    ? sides.patterns.filter(
        (x) =>
          x.sides > 1 &&
          fitsBeside(x, 2, p.largestMm) &&
          // what the press does not hold is not cut for it
          (!doc.assembly.pressMm || fitsBeside(x, 2, doc.assembly.pressMm)),
      ).length
    : 0;
  const foils = sidesToBuy - shared;
  const sum =
    foils === 0 ? 0 : foils * toMicros(p[form]) + shared * toMicros(p.secondSide) + toMicros(p.freight);
  const count = `${foils} ${form === "framed" ? "in a frame" : "loose"} × ${p[form]}`;
  const both = shared > 0 ? ` + ${shared} with both sides × ${p.secondSide}` : "";
  return {
    house,
    micros: inShopCurrency(doc, sum, house.currency) as Micros,
    foils,
    shared,
    tooLarge: sides.patterns.filter((x) => x.widthMm !== undefined && !fitsBeside(x, 1, p.largestMm)),
    words: `${count}${both} + freight ${p.freight}, ${house.name}`,
  };
}
