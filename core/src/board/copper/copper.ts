import { unionRingArea } from "../../geometry/clip.ts";
import { nearestPoints, segmentSegment2 } from "../../geometry/segment.ts";
import { Work } from "../../geometry/work.ts";
import { KIND, type LayerImage } from "../../gerber/image.ts";
import { withoutCopies } from "../../gerber/same-objects.ts";
import { ringsOfSolid, type Solids, solidsOf } from "../../gerber/solids.ts";
import type { Outline } from "../outline/outline.ts";
import type { Worst } from "../worst.ts";
import { type Finder, finderOf } from "./finder.ts";
import { findIslands, type Islands, type NearPairs } from "./near.ts";

/** One layer as solid pieces, with its islands, what comes near between them, and a finder of the pieces near a point. */
export interface LayerSolids {
  readonly name: string;
  readonly image: LayerImage;
  readonly solids: Solids;
  readonly islands: Islands;
  readonly find: Finder;
}

/** Most boards have gaps within this, which is what houses' limits are about; where there are none the reach widens. */
const FIRST_REACH_MM = 0.2;

/** Gaps wider than this are not searched: no house asks. */
const FARTHEST_MM = 12;

/**
 * Pieces, islands and near pairs of a layer; the reach widens until two islands come near each other.
 *
 * @param work what this and all that is measured on the layer may take
 * @throws OverBudget where the layer holds more, or more in one place, than a board can
 */
export function analyseLayer(drawn: LayerImage, name: string, work = new Work()): LayerSolids {
  const image = withoutCopies(drawn);
  const solids = solidsOf(image, work);
  let islands = findIslands(solids, FIRST_REACH_MM);
  while (islands.reach < FARTHEST_MM && islands.near.count === 0 && islands.groups.count() > 1)
    islands = findIslands(solids, Math.min(FARTHEST_MM, islands.reach * 4));
  return { name, image, solids, islands, find: finderOf(solids) };
}

/** Adds the gaps between pieces of different groups; wider gaps are searched for where near ones say nothing. */
export function addSpaces(worst: Worst, layer: LayerSolids, groupOf?: (piece: number) => number): void {
  let { islands } = layer;
  const put = (near: NearPairs) => {
    let found = 0;
    for (let i = 0; i < near.count; i++) {
      if (groupOf && groupOf(near.a[i]!) === groupOf(near.b[i]!)) continue;
      found++;
      if (near.mm[i]! >= worst.limit) continue;
      const t = near.edges;
      const [o, r] = [near.p[i]!, near.q[i]!];
      const [px, py, qx, qy] = nearestPoints(
        t[o]!,
        t[o + 1]!,
        t[o + 2]!,
        t[o + 3]!,
        t[r]!,
        t[r + 1]!,
        t[r + 2]!,
        t[r + 3]!,
      );
      // the middle of the gap, not of the centre lines
      const [ra, rb] = [layer.solids.radius[near.a[i]!]!, layer.solids.radius[near.b[i]!]!];
      const d = Math.hypot(qx - px, qy - py) || 1;
      const s = (ra + (d - ra - rb) / 2) / d;
      worst.add(Math.max(0, near.mm[i]!), layer.name, px + (qx - px) * s, py + (qy - py) * s);
    }
    return found;
  };
  if (put(islands.near) > 0 || !groupOf) return;
  // all near pairs lie inside one net: look farther, if there is another net at all
  const first = layer.solids.count > 0 ? groupOf(0) : 0;
  let isAlone = true;
  for (let k = 1; k < layer.solids.count && isAlone; k++) isAlone = groupOf(k) === first;
  while (!isAlone && islands.reach < FARTHEST_MM) {
    islands = findIslands(layer.solids, Math.min(FARTHEST_MM, islands.reach * 4));
    if (put(islands.near) > 0) return;
  }
}

/**
 * Adds the narrowest strokes of a layer: stamps that draw lines at least twice their width long in all. Rectangular
 * stamps count by their lesser side.
 */
export function addStrokes(worst: Worst, image: LayerImage, name: string): void {
  const length = new Float64Array(image.apertures.length);
  const g = image.geo;
  const isStroke = (i: number) => {
    const kind = image.kind[i]!;
    return kind !== KIND.flash && kind !== KIND.region && image.dark[i] !== 0;
  };
  for (let i = 0; i < image.n; i++) {
    if (!isStroke(i)) continue;
    const o = i * 6;
    length[image.aperture[i]!]! +=
      Math.hypot(g[o + 2]! - g[o]!, g[o + 3]! - g[o + 1]!) || (image.kind[i] === KIND.line ? 0 : 1);
  }
  const width = Float64Array.from(image.apertures, (a, k) => {
    const mm = a.circleMm ?? Math.min(a.box[2] - a.box[0], a.box[3] - a.box[1]);
    return mm > 0 && length[k]! >= 2 * mm ? mm : Number.POSITIVE_INFINITY;
  });
  for (let i = 0; i < image.n; i++) {
    if (!isStroke(i)) continue;
    const mm = width[image.aperture[i]!]!;
    if (mm >= worst.limit) continue;
    const o = i * 6;
    worst.add(mm, name, (g[o]! + g[o + 2]!) / 2, (g[o + 1]! + g[o + 3]!) / 2);
  }
}

/**
 * Area of the union of a layer's pieces in mm²: islands never overlap, so each is summed on its own. A piece alone is
 * exact; pieces that touch go through the clipping package together, arcs flattened to half a micrometre.
 */
export function unionArea(layer: LayerSolids): number {
  const { solids: s, islands } = layer;
  const members = new Map<number, number[]>();
  for (let k = 0; k < s.count; k++) {
    const g = islands.groups.find(k);
    const list = members.get(g);
    if (list) list.push(k);
    else members.set(g, [k]);
  }
  let sum = 0;
  for (const list of members.values())
    sum +=
      list.length === 1
        ? ownArea(s, list[0]!)
        : unionRingArea(
            list.flatMap((k) => ringsOfSolid(s, k)),
            s.work,
          );
  return sum;
}

/** Area of one piece: of a straight capsule πr² + 2rl, else by its rings. */
function ownArea(s: Solids, k: number): number {
  const [from, to] = [s.firstEdge[k]!, s.firstEdge[k + 1]!];
  if (s.isArea[k] || to - from > 1) return unionRingArea(ringsOfSolid(s, k), s.work);
  const r = s.radius[k]!;
  const o = from * 4;
  const l = Math.hypot(s.edges[o + 2]! - s.edges[o]!, s.edges[o + 3]! - s.edges[o + 1]!);
  return Math.PI * r * r + 2 * r * l;
}

/** Adds the distances from the pieces' edges to the segments of rings; far stretches of ring are passed over by their box. */
export function addToRings(worst: Worst, layer: LayerSolids, rings: readonly (readonly number[])[]): void {
  const { solids, name } = layer;
  const { box, edges, firstEdge, radius } = solids;
  const STRETCH = 16;
  for (const ring of rings)
    for (let from = 0; from < ring.length / 2; from += STRETCH) {
      const part: number[] = [];
      for (let k = from; k <= Math.min(from + STRETCH, ring.length / 2); k++) {
        const m = k % (ring.length / 2);
        part.push(ring[m * 2]!, ring[m * 2 + 1]!);
      }
      const [x0, y0, x1, y1] = boxOf(part);
      solids.work.spend(solids.count);
      for (let k = 0; k < solids.count; k++) {
        const near = worst.limit;
        const o = k * 4;
        if (
          box[o]! - near > x1 ||
          box[o + 2]! + near < x0 ||
          box[o + 1]! - near > y1 ||
          box[o + 3]! + near < y0
        )
          continue;
        const r = radius[k]!;
        let best = near;
        let at: [number, number] | undefined;
        solids.work.spend((firstEdge[k + 1]! - firstEdge[k]!) >> 2);
        for (let i = firstEdge[k]! * 4; i < firstEdge[k + 1]! * 4; i += 4) {
          const [ax, ay, bx, by] = [edges[i]!, edges[i + 1]!, edges[i + 2]!, edges[i + 3]!];
          const reach = best + r;
          if (ax < x0 - reach && bx < x0 - reach) continue;
          if (ax > x1 + reach && bx > x1 + reach) continue;
          if (ay < y0 - reach && by < y0 - reach) continue;
          if (ay > y1 + reach && by > y1 + reach) continue;
          for (let q = 0; q + 3 < part.length; q += 2) {
            const d2 = segmentSegment2(part[q]!, part[q + 1]!, part[q + 2]!, part[q + 3]!, ax, ay, bx, by);
            const mm = Math.max(0, Math.sqrt(d2) - r);
            if (mm >= best) continue;
            best = mm;
            const p = nearestPoints(ax, ay, bx, by, part[q]!, part[q + 1]!, part[q + 2]!, part[q + 3]!);
            at = [(p[0] + p[2]) / 2, (p[1] + p[3]) / 2];
          }
        }
        if (at) worst.add(best, name, at[0], at[1]);
      }
    }
}

function boxOf(points: readonly number[]): [number, number, number, number] {
  const b: [number, number, number, number] = [points[0]!, points[1]!, points[0]!, points[1]!];
  for (let i = 2; i < points.length; i += 2) {
    b[0] = Math.min(b[0], points[i]!);
    b[1] = Math.min(b[1], points[i + 1]!);
    b[2] = Math.max(b[2], points[i]!);
    b[3] = Math.max(b[3], points[i + 1]!);
  }
  return b;
}

/** Rings of the outline by what they are: outer edge and cut-outs. */
export const edgeRings = (outline: Outline) =>
  outline.loops
    .filter((l) => l.depth === 0)
    .slice(0, 1)
    .map((l) => l.ring);
export const cutoutRings = (outline: Outline) =>
  outline.loops.filter((l) => l.depth === 1).map((l) => l.ring);
