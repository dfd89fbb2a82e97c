import type { PackageClass } from "../assembly/package-class.ts";
import type { HOLD_NAMES } from "../shape/choice-fields.ts";

/** How a part without paste under it is held until its first joint is firm. */
export const HOLDS = {
  peg: {
    label: "its pegs",
    how: "Its pegs snap in: pressed down by its body until it sits, on all of them.",
  },
  bend: { label: "leads bent", how: "Leads bent apart a little below the board; the body lies flat." },
  tack: {
    label: "one joint first",
    how: "One pin soldered; melted again while the part is pressed flat and straight; then the pin farthest from it, a look from two sides, then the rest.",
  },
  tape: { label: "tape", how: "Low and flat: held by heat-proof tape over its body." },
  putty: {
    label: "putty",
    how: "A pea of putty holds it square from its own side; off again before any heat.",
  },
  plate: {
    label: "plate with pockets",
    how: "Parts stand in the pockets of a plate, the board lies on it upside down: all are flat at once.",
  },
} as const satisfies Record<(typeof HOLD_NAMES)[number], unknown>;
export type Hold = keyof typeof HOLDS;

/** What of a part decides how it is held. */
export interface Held {
  readonly kind: PackageClass;
  readonly package: string;
  readonly joints: number;
  readonly heightMm?: number;
}

/** Taller than this a part of two joints does not stand by itself, mm. */
const TALL_MM = 12;

/**
 * How a part that goes through the board is held (domain.md 7.6: aligned, one pin soldered, checked, then the rest; N065).
 * Pegs where its package says so; leads are bent where there are two and it is low; tall ones of few joints want putty, any
 * other one joint first. Tape and a plate are only ever said. Undefined for what is held by the iron's other hand: tweezers.
 */
export function holdOf({ kind, package: text, joints, heightMm }: Held): Hold | undefined {
  if (kind !== "through" && kind !== "connector") return undefined;
  if (/PEG|SNAP|LATCH|CLIP-?IN/i.test(text)) return "peg";
  if (joints <= 3 && heightMm !== undefined && heightMm > TALL_MM) return "putty";
  if (joints <= 2) return "bend";
  return "tack";
}

/** Parts of one step that stand at several heights are flat at once in a plate; from so many on it is worth cutting one. */
export const PLATE_FROM = 3;
export function wantsPlate(parts: readonly { readonly heightMm?: number }[]): boolean {
  const heights = parts.flatMap((p) => p.heightMm ?? []);
  return heights.length >= PLATE_FROM && Math.max(...heights) - Math.min(...heights) > 0.5;
}
