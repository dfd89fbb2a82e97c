import { LEAST_AREA_RATIO } from "../board/copper/paste.ts";
import { refOf } from "../board/pins.ts";
import { clipAreas } from "../geometry/clip.ts";
import { type FoilOpening, spread } from "./openings.ts";

/** What is done to an opening before the foil is cut. */
export type CorrectionKind = "as drawn" | "left out" | "narrowed" | "panes";

/** An opening as it will be cut. */
export interface Corrected {
  readonly kind: CorrectionKind;
  /** Rings to cut; none where it is left out. */
  readonly rings: readonly (readonly number[])[];
  readonly because?: string;
}

/** What a foil is corrected for. */
export interface CorrectionWishes {
  readonly foilMm: number;
  /** Parts that get no paste in this build: not fitted, soldered later, upside down. */
  readonly without: readonly { readonly ref: string; readonly because: string }[];
  /** Openings nearer together are cut narrower. */
  readonly isNarrowed: boolean;
  /** Heat pads get panes. */
  readonly isPaned: boolean;
}

/** Pitches and how much of the width is cut there (placeholders, to be set by experience), mm and share. */
export const NARROW = [
  { uptoMm: 0.4, share: 0.85 },
  { uptoMm: 0.5, share: 0.9 },
] as const;
/** An opening as wide on both sides is a heat pad where its part has many pins, mm. */
const HEAT_PAD_MM = 2;
const HEAT_PAD_PINS = 6;
/** Share of a heat pad that is printed, in panes (domain.md 2.7: 50 to 80 %). */
export const PANE_SHARE = 0.6;
/** Panes are no wider, mm. */
const PANE_MM = 1.5;

/**
 * Openings as they are to be cut: those of parts without paste are left out, narrow pitches get narrower openings, heat pads
 * get panes. What would not leave the foil any more is left as drawn, and says so.
 *
 * @returns one for each opening, in their order
 */
export function correctOpenings(openings: readonly FoilOpening[], wishes: CorrectionWishes): Corrected[] {
  const without = new Map(wishes.without.map((w) => [w.ref, w.because]));
  const pins = new Map<string, number>();
  for (const o of openings) {
    const ref = refOf(o.pin);
    if (ref !== undefined) pins.set(ref, (pins.get(ref) ?? 0) + 1);
  }
  return openings.map((o): Corrected => {
    const ref = refOf(o.pin);
    const because = ref === undefined ? undefined : without.get(ref);
    if (because !== undefined) return { kind: "left out", rings: [], because: `${ref} ${because}` };
    const asDrawn: Corrected = { kind: "as drawn", rings: o.rings };
    const isHeatPad = o.widthMm >= HEAT_PAD_MM && (pins.get(ref ?? "") ?? 0) > HEAT_PAD_PINS;
    if (isHeatPad && wishes.isPaned) return panes(o) ?? asDrawn;
    const narrow = NARROW.find((n) => o.pitchMm !== undefined && o.pitchMm <= n.uptoMm + 1e-6);
    if (!narrow || !wishes.isNarrowed || o.widthMm > (o.pitchMm ?? 0)) return asDrawn;
    return narrowed(o, narrow.share, wishes.foilMm);
  });
}

/** The opening with its narrow side a share of what it was, about its middle. */
function narrowed(o: FoilOpening, share: number, foilMm: number): Corrected {
  const rings = o.rings.map((ring) => squeezed(ring, o.along, share));
  const [area, around] = [areaOf(rings), perimeterOf(rings)];
  const ratio = area / (around * foilMm);
  const pitch = `openings ${Number(o.pitchMm!.toFixed(3))} mm apart`;
  if (ratio < LEAST_AREA_RATIO - 1e-9)
    return {
      kind: "as drawn",
      rings: o.rings,
      because: `${pitch} want to be narrower, but then the paste would stay in the foil: take a thinner one`,
    };
  return { kind: "narrowed", rings, because: `${pitch}: ${Math.round((1 - share) * 100)} % narrower` };
}

/** A ring squeezed across its direction, about the middle of its reach there. */
function squeezed(ring: readonly number[], [ux, uy]: readonly [number, number], share: number): number[] {
  const [lo, hi] = spread(ring, -uy, ux);
  const middle = (lo + hi) / 2;
  const out: number[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    const across = -ring[i]! * uy + ring[i + 1]! * ux;
    const moved = (share - 1) * (across - middle);
    out.push(ring[i]! - uy * moved, ring[i + 1]! + ux * moved);
  }
  return out;
}

/**
 * A heat pad as panes: as few as keep each below {@link PANE_MM}, the bars between them as wide as leaves
 * {@link PANE_SHARE} of the box: (l − (a − 1)·g)·(w − (b − 1)·g) = share·l·w for the bar g.
 */
function panes(o: FoilOpening): Corrected | undefined {
  const ring = o.rings[0];
  if (!ring || o.rings.length > 1) return undefined;
  const [ux, uy] = o.along;
  const [a0, a1] = spread(ring, ux, uy);
  const [b0, b1] = spread(ring, -uy, ux);
  const [l, w] = [a1 - a0, b1 - b0];
  const [a, b] = [l, w].map((side) => Math.max(2, Math.ceil(side / PANE_MM - 1e-9))) as [number, number];
  const [p, q, r] = [(a - 1) * (b - 1), (a - 1) * w + (b - 1) * l, (1 - PANE_SHARE) * l * w];
  const g = (q - Math.sqrt(q * q - 4 * p * r)) / (2 * p);
  const [pl, pw] = [(l - (a - 1) * g) / a, (w - (b - 1) * g) / b];
  const boxes: number[][] = [];
  for (let i = 0; i < a; i++)
    for (let k = 0; k < b; k++) {
      const [s, t] = [a0 + i * (pl + g), b0 + k * (pw + g)];
      const corner = (u: number, v: number) => [u * ux - v * uy, u * uy + v * ux];
      boxes.push([...corner(s, t), ...corner(s + pl, t), ...corner(s + pl, t + pw), ...corner(s, t + pw)]);
    }
  const cut = clipAreas("intersection", boxes, o.rings).map((area) => area[0]!);
  return {
    kind: "panes",
    rings: cut,
    because: `heat pad of ${Number(w.toFixed(2))} × ${Number(l.toFixed(2))} mm: ${cut.length} panes with ${Math.round((100 * areaOf(cut)) / o.areaMm2)} % of it`,
  };
}

/** Area of rings that do not meet, mm². */
export const areaOf = (rings: readonly (readonly number[])[]): number =>
  rings.reduce((sum, ring) => {
    let twice = 0;
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      twice += ring[j]! * ring[i + 1]! - ring[i]! * ring[j + 1]!;
    return sum + Math.abs(twice) / 2;
  }, 0);

/** Length around rings, mm. */
const perimeterOf = (rings: readonly (readonly number[])[]): number =>
  rings.reduce((sum, ring) => {
    let length = 0;
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      length += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
    return sum + length;
  }, 0);
