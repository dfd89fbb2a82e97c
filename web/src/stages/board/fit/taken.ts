import type { HoleFeature } from "@kobbin/core";
import type { Drawing } from "@kobbin/formats";

/** Circles or holes of one size. */
export interface Group {
  readonly diameterMm: number;
  readonly spots: readonly Spot[];
}
interface Spot {
  readonly x: number;
  readonly y: number;
  readonly diameterMm?: number;
}

/** Circles are of one size within this, mm. */
const SAME_MM = 0.02;
const round = (v: number) => Math.round(v * 1000) / 1000 + 0;

/** Circles of a drawing by size, the smallest first, in millimetres. @param unitMm of one of its units */
export const circleGroups = (d: Drawing, unitMm: number): Group[] =>
  grouped(d.circles.map((c) => ({ x: c.x * unitMm, y: c.y * unitMm, diameterMm: c.diameter * unitMm })));

/** Holes of a board by size. */
export const holeGroups = (holes: readonly HoleFeature[]): Group[] => grouped(holes);

function grouped(list: readonly (Spot & { readonly diameterMm: number })[]): Group[] {
  const out: { diameterMm: number; spots: Spot[] }[] = [];
  for (const c of [...list].sort((a, b) => a.diameterMm - b.diameterMm)) {
    const last = out.at(-1);
    const spot = { x: round(c.x), y: round(c.y), diameterMm: round(c.diameterMm) };
    if (last && c.diameterMm - last.diameterMm <= SAME_MM) last.spots.push(spot);
    else out.push({ diameterMm: round(c.diameterMm), spots: [spot] });
  }
  return out;
}

/** Posts as they are pasted: x, y and, where it is known, the diameter, a row each. */
export const postsText = (spots: readonly Spot[]): string =>
  spots
    .map((s) => [s.x, s.y, ...(s.diameterMm === undefined ? [] : [s.diameterMm])].map(round).join("\t"))
    .join("\n");

/** What one unit of a drawing may be that does not say it. */
export const UNIT_CHOICES: readonly (readonly [string, string])[] = [
  ["1", "a millimetre"],
  ["25.4", "an inch"],
  ["10", "a centimetre"],
  [String(25.4 / 96), "a pixel, 96 to the inch"],
  [String(25.4 / 72), "a point, 72 to the inch"],
];
