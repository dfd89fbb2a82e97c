import { apart, type Laid, laidOut } from "../shape/laid.ts";
import type { PanelDesign, PanelRefusal, SheetParts } from "../spec.ts";

/** Whether boards may lie so at all: quick enough to be asked while one is dragged. */
export const clashAt = (
  designs: readonly PanelDesign[],
  gapMm: number,
  s: SheetParts,
): PanelRefusal | undefined => clashOf(laidOut(designs, s.places), s, gapMm);

/** Boards that overlap, come nearer than the cutter, or leave the sheet. */
export function clashOf(laid: readonly Laid[], s: SheetParts, gapMm: number): PanelRefusal | undefined {
  const e = 1e-4;
  for (const l of laid) {
    const [x0, y0, x1, y1] = l.box;
    const [gx, gy] = [s.across === "tabs" ? gapMm : 0, s.along === "tabs" ? gapMm : 0];
    const lo = (rail: number, gap: number) => (rail > 0 ? rail + gap : 0);
    if (
      x0 < lo(s.rails.left, gx) - e ||
      y0 < lo(s.rails.bottom, gy) - e ||
      x1 > s.widthMm - lo(s.rails.right, gx) + e ||
      y1 > s.heightMm - lo(s.rails.top, gy) + e
    )
      return {
        tag: "off-the-sheet",
        reason: `Copy ${l.place.copy} reaches into a rail or over the sheet's edge.`,
        at: { x: (x0 + x1) / 2, y: (y0 + y1) / 2 },
        nearest: [],
      };
  }
  for (let i = 0; i < laid.length; i++)
    for (let k = i + 1; k < laid.length; k++) {
      const [a, b] = [laid[i]!, laid[k]!];
      const least = Math.min(s.across === "tabs" ? gapMm : 0, s.along === "tabs" ? gapMm : 0);
      const far = (p: number, q: number) => p > q + least + e;
      if (
        far(a.box[0], b.box[2]) ||
        far(b.box[0], a.box[2]) ||
        far(a.box[1], b.box[3]) ||
        far(b.box[1], a.box[3])
      )
        continue;
      const near = nearness(a, b, least);
      if (near)
        return {
          tag: "boards-collide",
          reason: `Copies ${a.place.copy} and ${b.place.copy} ${near.mm <= 0 ? "lie over each other" : `come within ${near.mm.toFixed(2)} mm, less than the cutter's ${gapMm} mm`}.`,
          at: { x: near.x, y: near.y },
          nearest: [],
        };
    }
  return undefined;
}

function nearness(a: Laid, b: Laid, least: number): { mm: number; x: number; y: number } | undefined {
  const { mm, at } = apart(a, b, least + 0.1);
  const overlaps =
    a.strips.inside(...middleOf(b)) ||
    b.strips.inside(...middleOf(a)) ||
    (mm < 1e-7 && least > 0) ||
    (least === 0 && crossesInto(a, b));
  if (overlaps) return { mm: 0, x: at[0], y: at[1] };
  return mm < least - 2e-3 ? { mm, x: at[0], y: at[1] } : undefined;
}

/** Boards that share an edge touch; those whose boxes overlap by more lie over each other. */
function crossesInto(a: Laid, b: Laid): boolean {
  const w = Math.min(a.box[2], b.box[2]) - Math.max(a.box[0], b.box[0]);
  const h = Math.min(a.box[3], b.box[3]) - Math.max(a.box[1], b.box[1]);
  return w > 1e-3 && h > 1e-3 && apart(a, b, 0.1).mm < 1e-7;
}

/** A point that is board, and in no cut-out: the middle of the longest piece across, at some height. */
export function middleOf(l: {
  readonly ring: readonly number[];
  readonly box: readonly number[];
  readonly cutouts?: readonly (readonly number[])[];
}): readonly [number, number] {
  const [, y0, , y1] = l.box as [number, number, number, number];
  let best: [number, number] = [l.ring[0]!, l.ring[1]!];
  let most = -1;
  for (const f of [0.5, 0.31, 0.69, 0.13, 0.87, 0.05, 0.95]) {
    const y = y0 + (y1 - y0) * f + 1e-7;
    const xs: number[] = [];
    for (const ring of [l.ring, ...(l.cutouts ?? [])])
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
        const [ya, yb] = [ring[j + 1]!, ring[i + 1]!];
        if (ya > y !== yb > y) xs.push(ring[j]! + ((ring[i]! - ring[j]!) * (y - ya)) / (yb - ya));
      }
    xs.sort((p, q) => p - q);
    for (let k = 0; k + 1 < xs.length; k += 2)
      if (xs[k + 1]! - xs[k]! > most) {
        most = xs[k + 1]! - xs[k]!;
        best = [(xs[k]! + xs[k + 1]!) / 2, y];
      }
  }
  return best;
}
