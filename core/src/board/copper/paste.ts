import { clipAreas, unionRingArea } from "../../geometry/clip.ts";
import { signedArea } from "../../geometry/polygon.ts";
import { type Aperture, KIND } from "../../gerber/image.ts";
import { ringsOfSolid, type Solids } from "../../gerber/solids.ts";
import type { PasteAperture, StencilFigures } from "../measure-document.ts";
import { r6 } from "../worst.ts";
import type { LayerSolids } from "./copper.ts";

/** One opening of a stencil, before a foil is chosen. */
export interface PasteOpening {
  readonly x: number;
  readonly y: number;
  readonly areaMm2: number;
  readonly perimeterMm: number;
  /** Lesser and greater side of the least box around it. */
  readonly widthMm: number;
  readonly lengthMm: number;
}

/** Foils figures are given for, mm. */
export const FOILS = [0.1, 0.12, 0.15] as const;

/** Least area ratio for paste to leave the opening (recalled from IPC-7525). */
export const LEAST_AREA_RATIO = 0.66;

/**
 * Openings of a paste layer: pieces that touch are one opening. Circles, obrounds, rectangles and rounded rectangles of
 * the format are exact; others by their outline flattened to half a micrometre.
 */
export function openingsOf(layer: LayerSolids): PasteOpening[] {
  const { solids: s, islands, image } = layer;
  const groups = new Map<number, number[]>();
  for (let k = 0; k < s.count; k++) {
    const g = islands.groups.find(k);
    const list = groups.get(g);
    if (list) list.push(k);
    else groups.set(g, [k]);
  }
  const known = new Map<number, Omit<PasteOpening, "x" | "y">>();
  return [...groups.values()].map((pieces): PasteOpening => {
    const k = pieces[0]!;
    const o = s.object[k]!;
    const isFlash = image.kind[o] === KIND.flash && pieces.every((p) => s.object[p] === o);
    const at = isFlash
      ? { x: image.geo[o * 6]!, y: image.geo[o * 6 + 1]! }
      : { x: (s.box[k * 4]! + s.box[k * 4 + 2]!) / 2, y: (s.box[k * 4 + 1]! + s.box[k * 4 + 3]!) / 2 };
    if (!isFlash) return { ...at, ...outlineFigures(s, pieces) };
    const index = image.aperture[o]!;
    let figures = known.get(index);
    if (!figures) {
      figures = exactFigures(image.apertures[index]!) ?? outlineFigures(s, pieces);
      known.set(index, figures);
    }
    return { ...at, ...figures };
  });
}

function exactFigures(a: Aperture): Omit<PasteOpening, "x" | "y"> | undefined {
  const [c] = a.capsules;
  if (a.capsules.length !== 1 || a.areas.length > 0 || !c) return undefined;
  const l = Math.hypot(c.x2 - c.x1, c.y2 - c.y1);
  return {
    areaMm2: Math.PI * c.r * c.r + 2 * c.r * l,
    perimeterMm: 2 * Math.PI * c.r + 2 * l,
    widthMm: 2 * c.r,
    lengthMm: 2 * c.r + l,
  };
}

function outlineFigures(s: Solids, pieces: readonly number[]): Omit<PasteOpening, "x" | "y"> {
  const rings =
    pieces.length === 1
      ? ringsOfSolid(s, pieces[0]!)
      : clipAreas(
          "union",
          pieces.flatMap((k) => ringsOfSolid(s, k)),
          [],
          s.work,
        ).flat();
  const areaMm2 =
    pieces.length === 1
      ? rings.reduce((a, r, i) => a + (i === 0 ? 1 : -1) * Math.abs(signedArea(r)), 0)
      : unionRingArea(rings, s.work);
  let perimeterMm = 0;
  for (const ring of rings)
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      perimeterMm += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
  const [widthMm, lengthMm] = leastBox(rings.reduce((a, b) => (b.length > a.length ? b : a)));
  return { areaMm2, perimeterMm, widthMm, lengthMm };
}

/** Sides of the narrowest box around a ring, turned to any of its edges. */
export function leastBox(ring: readonly number[]): [number, number] {
  let best: [number, number] | undefined;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const l = Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
    if (l < 1e-6) continue;
    const [ux, uy] = [(ring[i]! - ring[j]!) / l, (ring[i + 1]! - ring[j + 1]!) / l];
    let [a0, a1, b0, b1] = [
      Number.POSITIVE_INFINITY,
      -Number.POSITIVE_INFINITY,
      Number.POSITIVE_INFINITY,
      -Number.POSITIVE_INFINITY,
    ];
    for (let k = 0; k < ring.length; k += 2) {
      const a = ring[k]! * ux + ring[k + 1]! * uy;
      const b = -ring[k]! * uy + ring[k + 1]! * ux;
      a0 = Math.min(a0, a);
      a1 = Math.max(a1, a);
      b0 = Math.min(b0, b);
      b1 = Math.max(b1, b);
    }
    const sides = [a1 - a0, b1 - b0].sort((x, y) => x - y) as [number, number];
    if (!best || sides[0] < best[0]) best = sides;
  }
  return best ?? [0, 0];
}

/** Area ratio A / (P · T): predicts whether paste leaves the opening (domain.md 2.7). */
export const areaRatio = (o: PasteOpening, foilMm: number) => o.areaMm2 / (o.perimeterMm * foilMm);

/** Figures per foil thickness; aspect ratio is opening width over foil thickness. */
export function stencilFigures(openings: readonly PasteOpening[]): Record<string, StencilFigures> {
  return Object.fromEntries(
    FOILS.map((t) => {
      const ratios = openings.map((o) => areaRatio(o, t));
      return [
        t.toFixed(2),
        {
          minAreaRatio: r6(ratios.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY)),
          minAspectRatio: r6(openings.reduce((m, o) => Math.min(m, o.widthMm / t), Number.POSITIVE_INFINITY)),
          below066: ratios.filter((r) => r < LEAST_AREA_RATIO - 1e-9).length,
        },
      ];
    }),
  );
}

/** The openings gathered by size, the one that releases worst first; sizes that differ by less than 1 µm are one. */
export function aperturesOf(openings: readonly PasteOpening[]): PasteAperture[] {
  const sizes = new Map<string, PasteOpening & { count: number }>();
  for (const o of openings) {
    const key = [o.widthMm, o.lengthMm, o.areaMm2, o.perimeterMm].map((v) => v.toFixed(3)).join(" ");
    const s = sizes.get(key);
    if (s) s.count++;
    else sizes.set(key, { ...o, count: 1 });
  }
  return [...sizes.values()]
    .sort((a, b) => areaRatio(a, 1) - areaRatio(b, 1) || a.x - b.x || a.y - b.y)
    .map((s) => ({
      widthMm: r6(s.widthMm),
      lengthMm: r6(s.lengthMm),
      areaMm2: r6(s.areaMm2),
      count: s.count,
      areaRatio: Object.fromEntries(FOILS.map((t) => [t.toFixed(2), r6(areaRatio(s, t))])),
      x: r6(s.x),
      y: r6(s.y),
    }));
}

/** Thickest foil through which every opening releases its paste, mm: T = A / (P · 0.66). */
export const thickestFoil = (openings: readonly PasteOpening[]): number =>
  openings.reduce(
    (m, o) => Math.min(m, o.areaMm2 / (o.perimeterMm * LEAST_AREA_RATIO)),
    Number.POSITIVE_INFINITY,
  );

/** Density of tin-silver-copper paste, g/cm³: 1/(f/ρ_alloy + (1 − f)/ρ_flux) with f 0.885, 7.4 and 1.0 (domain.md 2.7). */
export const PASTE_DENSITY = 1 / (0.885 / 7.4 + (1 - 0.885) / 1);

/** Grams of paste printed on one side: Σ A · T · transfer share · density; the share falls with the area ratio (placeholder values of domain.md 2.7). */
export function pasteGrams(openings: readonly PasteOpening[], foilMm: number): number {
  let mm3 = 0;
  for (const o of openings) {
    const r = areaRatio(o, foilMm);
    mm3 += o.areaMm2 * foilMm * (r >= 0.8 ? 1 : r >= LEAST_AREA_RATIO ? 0.9 : 0.7);
  }
  return (mm3 / 1000) * PASTE_DENSITY;
}
