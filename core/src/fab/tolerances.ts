/** What a house holds, ± mm; of the thickness a share of it. What it does not state is taken as usual. */
export interface Tolerances {
  readonly thicknessShare?: number;
  /** Of a routed side of the board. */
  readonly outlineMm?: number;
  /** Of a plated and of an unplated hole's diameter. */
  readonly platedHoleMm?: number;
  readonly holeMm?: number;
  /** Of a slot's width. */
  readonly slotMm?: number;
  /** Of a hole's place on each axis. */
  readonly placeMm?: number;
}

/** What an ordinary house holds (domain.md 5.6, typical). */
export const USUAL_TOLERANCES: Required<Tolerances> = {
  thicknessShare: 0.1,
  outlineMm: 0.2,
  platedHoleMm: 0.1,
  holeMm: 0.05,
  slotMm: 0.15,
  placeMm: 0.1,
};

/** Every tolerance of a profile, as it is called on the page: a new one does not compile before it stands here. */
export const TOLERANCES = {
  thicknessShare: "thickness, share of it",
  outlineMm: "side of the board",
  platedHoleMm: "plated hole",
  holeMm: "unplated hole",
  slotMm: "width of a slot",
  placeMm: "place of a hole, each way",
} as const satisfies Record<keyof Tolerances, string>;

/** Tolerances to count with, and whether the house states them or they are taken as usual. */
export const tolerancesOf = (
  t: Tolerances | undefined,
): { readonly values: Required<Tolerances>; readonly isStated: boolean } => ({
  values: { ...USUAL_TOLERANCES, ...t },
  isStated: t !== undefined && Object.keys(USUAL_TOLERANCES).every((k) => k in t),
});
