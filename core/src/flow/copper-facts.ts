/** Resistivity of copper at 20 °C, Ω·mm (domain.md 2.4: 1.72e-8 Ω·m). */
export const COPPER_OHM_MM = 1.72e-5;
/** Copper on a hole's wall where nobody says more, mm (domain.md 2.4, EX 2.11). */
export const WALL_MM = 0.025;
/** A track is told to take what warms it by so much, K. */
export const RISE_K = 10;

const K = { outer: 0.048, inner: 0.024 } as const;
const MIL = 0.0254;

/** Copper of a track that warms: its cross-section in mm², and whether air or glass lies on it. */
export interface Section {
  readonly mm2: number;
  readonly isInner: boolean;
}

/**
 * How much warmer a track gets than the board around it: the IPC-2221 fit, recalled (domain.md 2.4): I = k·ΔT^0.44·A^0.725,
 * A in mil². A quick screen: planes beside it cool it, neighbours warm it.
 *
 * @returns K
 */
export const riseOf = ({ mm2, isInner }: Section, amp: number): number =>
  amp <= 0 ? 0 : (amp / (K[isInner ? "inner" : "outer"] * (mm2 / MIL ** 2) ** 0.725)) ** (1 / 0.44);

/** The current that warms a track by {@link RISE_K}, A; as {@link riseOf}. */
export const ampFor = ({ mm2, isInner }: Section, riseK = RISE_K): number =>
  K[isInner ? "inner" : "outer"] * riseK ** 0.44 * (mm2 / MIL ** 2) ** 0.725;

/** Copper of a plated hole's wall, mm²: π(d + t)t of a round one, two flanks more of a slot. @param flankMm length of a slot between its ends */
export const wallOf = (diameterMm: number, flankMm = 0): number =>
  (Math.PI * (diameterMm + WALL_MM) + 2 * flankMm) * WALL_MM;
