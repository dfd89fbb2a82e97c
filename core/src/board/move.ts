import type { DrillData } from "../drill/read.ts";
import type { Move } from "../findings.ts";
import { transformAperture } from "../gerber/aperture.ts";
import { KIND, type LayerImage } from "../gerber/image.ts";
import type { TestPoint } from "../netlist/read.ts";
import type { Placements } from "../placement/placement.ts";

const x = (move: Move, v: number) => (move.isMirrored ? -v : v) + move.dxMm;
const y = (move: Move, v: number) => v + move.dyMm;

/** One move after another, as one. */
export function composeMoves(first: Move | undefined, then: Move): Move {
  if (!first) return then;
  return {
    dxMm: (then.isMirrored ? -first.dxMm : first.dxMm) + then.dxMm,
    dyMm: first.dyMm + then.dyMm,
    ...((first.isMirrored ?? false) !== (then.isMirrored ?? false) ? { isMirrored: true } : {}),
  };
}

/** A layer moved as a person agreed to; without a move, the layer itself. */
export function moveLayer(image: LayerImage, move: Move | undefined): LayerImage {
  if (!move) return image;
  const geo = image.geo.slice();
  const kind = image.kind.slice();
  for (let i = 0; i < image.n; i++) {
    const o = i * 6;
    if (kind[i] === KIND.region) continue;
    for (let k = 0; k < 6; k += 2) {
      geo[o + k] = x(move, geo[o + k]!);
      geo[o + k + 1] = y(move, geo[o + k + 1]!);
    }
    if (move.isMirrored && kind[i] !== KIND.line && kind[i] !== KIND.flash)
      kind[i] = kind[i] === KIND.arcCw ? KIND.arcCcw : KIND.arcCw;
  }
  const points = image.points.slice();
  for (let k = 0; k < points.length; k += 2) {
    points[k] = x(move, points[k]!);
    points[k + 1] = y(move, points[k + 1]!);
  }
  const mirror = { mirrorX: true, mirrorY: false, degrees: 0, scale: 1 };
  const apertures = move.isMirrored
    ? image.apertures.map((a) => transformAperture(a, mirror))
    : image.apertures;
  return { ...image, geo, kind, points, apertures };
}

/** A drill file moved likewise. */
export function moveDrill(drill: DrillData, move: Move | undefined): DrillData {
  if (!move) return drill;
  return {
    ...drill,
    hits: drill.hits.map((h) => ({ ...h, x: x(move, h.x), y: y(move, h.y) })),
    routs: drill.routs.map((r) => ({
      ...r,
      points: r.points.map(([px, py]) => [x(move, px), y(move, py)] as const),
    })),
  };
}

/** Places moved likewise; a mirrored part's angle runs the other way. */
export function movePlacements(p: Placements, move: Move | undefined): Placements {
  if (!move) return p;
  return {
    ...p,
    parts: p.parts.map((q) => ({
      ...q,
      xMm: x(move, q.xMm),
      yMm: y(move, q.yMm),
      rotationDeg: move.isMirrored ? (540 - q.rotationDeg) % 360 : q.rotationDeg,
    })),
  };
}

/** Test points moved likewise. */
export const movePoints = (points: readonly TestPoint[], move: Move | undefined): readonly TestPoint[] =>
  move ? points.map((p) => ({ ...p, x: x(move, p.x), y: y(move, p.y) })) : points;
