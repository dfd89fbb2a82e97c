import { nearestPoints, segmentSegment2 } from "../../geometry/segment.ts";
import { Strips } from "../../geometry/strips.ts";
import { type Box, boxAround, posedRing } from "../../geometry/turn.ts";
import type { PanelDesign, PanelPlace } from "../spec.ts";

/** A copy with its edge where it lies. */
export interface Laid {
  readonly place: PanelPlace;
  readonly design: PanelDesign;
  readonly ring: readonly number[];
  readonly box: Box;
  readonly strips: Strips;
  readonly cutouts: readonly (readonly number[])[];
}

/** The frame as it is before tabs: areas of the sheet beyond a gap around each board. */
export interface Ground {
  readonly laid: readonly Laid[];
  /** Areas that stay frame. */
  readonly frame: readonly (readonly (readonly number[])[])[];
  readonly gapMm: number;
}

/** Places of a field as what lies on the sheet. */
export function laidOut(designs: readonly PanelDesign[], places: readonly PanelPlace[]): Laid[] {
  return places.map((place) => {
    const design = designs[place.board]!;
    const ring = posedRing(place, design.outline);
    return {
      place,
      design,
      ring,
      box: boxAround([ring]),
      strips: new Strips([ring]),
      cutouts: design.cutouts.map((c) => posedRing(place, c)),
    };
  });
}

/** Edges of a ring that come within a distance of a box. */
function edgesIn(ring: readonly number[], [x0, y0, x1, y1]: Box, mm: number): number[] {
  const out: number[] = [];
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
    if (Math.max(ax, bx) < x0 - mm || Math.min(ax, bx) > x1 + mm) continue;
    if (Math.max(ay, by) < y0 - mm || Math.min(ay, by) > y1 + mm) continue;
    out.push(ax, ay, bx, by);
  }
  return out;
}

/** Least distance between two outlines, mm, as far as they come within a distance of each other. */
export function apart(
  a: Pick<Laid, "ring" | "box">,
  b: Pick<Laid, "ring" | "box">,
  within: number,
): { readonly mm: number; readonly at: readonly [number, number] } {
  let best = Number.POSITIVE_INFINITY;
  let at: readonly [number, number] = [0, 0];
  const [near, far] = [edgesIn(a.ring, b.box, within), edgesIn(b.ring, a.box, within)];
  for (let i = 0; i < near.length; i += 4)
    for (let k = 0; k < far.length; k += 4) {
      const s = [
        near[i]!,
        near[i + 1]!,
        near[i + 2]!,
        near[i + 3]!,
        far[k]!,
        far[k + 1]!,
        far[k + 2]!,
        far[k + 3]!,
      ] as const;
      const d2 = segmentSegment2(...s);
      if (d2 >= best) continue;
      best = d2;
      const p = nearestPoints(...s);
      at = [(p[0] + p[2]) / 2, (p[1] + p[3]) / 2];
    }
  return { mm: Math.sqrt(best), at };
}
