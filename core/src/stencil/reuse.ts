import { compareOpenings } from "../board/diff/diff-stencil.ts";
import type { StencilVerdict } from "../board/diff-document.ts";
import type { Measure } from "../board/measure-document.ts";

/** Sides a foil may have the openings of. */
export const FOIL_SIDES = ["top", "bottom"] as const;
export type FoilSide = (typeof FOIL_SIDES)[number];

/** A foil the shop has: what was cut into it, and what became of it. */
export interface Foil {
  readonly id: string;
  readonly name: string;
  /** Name of the board whose paste layer it was cut from. */
  readonly board: string;
  readonly foilMm: number;
  readonly form: "loose" | "framed";
  /** Openings as the paste layer had them: x, y, lesser and greater side of each, from the board's lower left corner, mm. */
  readonly openings: Readonly<Partial<Record<FoilSide, readonly number[]>>>;
  /** Parts whose openings were left out of it. */
  readonly without: readonly string[];
  readonly price: string | number;
  readonly currency: string;
  /** ISO dates. */
  readonly madeOn: string;
  readonly cleanedOn?: string;
  /** Boards printed with it so far. */
  readonly prints: number;
  /** Where it lies. */
  readonly place: string;
  readonly state: "ready" | "worn" | "gone";
  readonly note: string;
}

/** The openings of a side as a foil keeps them; nothing where the measure does not list them, or has no corner. */
export function openingsToKeep(m: Measure, side: FoilSide): number[] | undefined {
  const list = m.stencil?.[side]?.openings;
  const [x0, y0] = m.extentMm ?? [];
  if (!list || x0 === undefined || y0 === undefined) return undefined;
  const round = (v: number) => Math.round(v * 1e6) / 1e6;
  return list.map((v, i) => (i % 4 === 0 ? round(v - x0) : i % 4 === 1 ? round(v - y0) : v));
}

const asOpenings = (list: readonly number[]) =>
  Array.from({ length: Math.floor(list.length / 4) }, (_, i) => {
    const [x, y, widthMm, lengthMm] = list.slice(i * 4, i * 4 + 4) as [number, number, number, number];
    return { x, y, widthMm, lengthMm, areaMm2: widthMm * lengthMm, perimeterMm: 2 * (widthMm + lengthMm) };
  });

/**
 * Whether a foil serves the paste layer a board has now (domain.md 2.11), side by side from the board's corner.
 *
 * What lies under an opening that is too many is not known here, so it counts as bare: such a foil is not taken.
 *
 * @returns nothing where the foil has no such side, or the measure does not list its openings
 */
export function foilServes(foil: Foil, m: Measure, side: FoilSide): StencilVerdict | undefined {
  const was = foil.openings[side];
  const now = openingsToKeep(m, side);
  if (!was || !now) return undefined;
  return compareOpenings(asOpenings(now), asOpenings(was), [0, 0], () => true).verdict;
}
