/** Laminate with what stands on it, kg/m³; its stiffness cold and in the oven, Pa (domain.md 6.4, typical). */
const DENSITY = 1950;
const STIFFNESS = { cold: 20e9, hot: 3e9 } as const;
const G = 9.81;

/**
 * How far a sheet held on two sides hangs through, mm: δ = 5·ρ·t·g·L⁴/(384·E·t³/12).
 * @example sagMm(200, 1, "hot") // 1.59 (EX 6.4)
 */
export function sagMm(spanMm: number, thicknessMm: number, state: keyof typeof STIFFNESS): number {
  const [L, t] = [spanMm / 1000, thicknessMm / 1000];
  return ((5 * DENSITY * t * G * L ** 4) / ((384 * STIFFNESS[state] * t ** 3) / 12)) * 1000;
}

/** A sheet that hangs through more than this share of its span when hot wants support. */
export const SAG_SHARE = 0.005;
