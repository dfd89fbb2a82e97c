import type { LayerSolids } from "../board/copper/copper.ts";
import { findIslands } from "../board/copper/near.ts";
import type { Nets } from "../board/copper/nets.ts";
import { nearestPoints } from "../geometry/segment.ts";

/** Two nets that come near each other. */
export interface Neighbours {
  /** Groups of copper, the lower first. */
  readonly a: number;
  readonly b: number;
  readonly mm: number;
  readonly layer: string;
  readonly x: number;
  readonly y: number;
  /** Stretches of edge that come so near: a long run beside each other counts more. */
  readonly meetings: number;
}

/**
 * Pairs of nets closer than twice the board's least gap between nets, each with its nearest place, the nearest first.
 *
 * What an etched board shorts most easily; inner layers count as well as outer ones.
 *
 * @throws OverBudget where more lies in one place than on any board
 */
export function neighboursOf(copper: readonly LayerSolids[], nets: Nets): Neighbours[] {
  const groupOf = (i: number, k: number) => nets.groups.find(nets.offsets[i]! + k);
  const least = leastGap(copper, groupOf);
  if (least === undefined) return [];
  const reach = 2 * least;
  const found = new Map<string, Neighbours>();
  copper.forEach((l, i) => {
    const near = (l.islands.reach < reach ? findIslands(l.solids, reach) : l.islands).near;
    for (let n = 0; n < near.count; n++) {
      const mm = near.mm[n]!;
      if (mm >= reach) continue;
      const [p, q] = [groupOf(i, near.a[n]!), groupOf(i, near.b[n]!)];
      if (p === q) continue;
      const key = p < q ? `${p} ${q}` : `${q} ${p}`;
      const known = found.get(key);
      if (known && known.mm <= mm) {
        found.set(key, { ...known, meetings: known.meetings + 1 });
        continue;
      }
      const e = near.edges;
      const [o, r] = [near.p[n]!, near.q[n]!];
      const [px, py, qx, qy] = nearestPoints(
        e[o]!,
        e[o + 1]!,
        e[o + 2]!,
        e[o + 3]!,
        e[r]!,
        e[r + 1]!,
        e[r + 2]!,
        e[r + 3]!,
      );
      found.set(key, {
        a: Math.min(p, q),
        b: Math.max(p, q),
        mm,
        layer: l.name,
        x: (px + qx) / 2,
        y: (py + qy) / 2,
        meetings: (known?.meetings ?? 0) + 1,
      });
    }
  });
  return [...found.values()].sort((u, v) => u.mm - v.mm || v.meetings - u.meetings || u.a - v.a || u.b - v.b);
}

/** How far gaps are looked for in turn, mm: beyond the last no house asks. */
const REACHES_MM = [0.2, 0.8, 3.2, 12];

/** The least gap between pieces of different groups, mm. */
function leastGap(
  copper: readonly LayerSolids[],
  groupOf: (layer: number, piece: number) => number,
): number | undefined {
  for (const reach of REACHES_MM) {
    let least = Number.POSITIVE_INFINITY;
    copper.forEach((l, i) => {
      const { near } = l.islands.reach < reach ? findIslands(l.solids, reach) : l.islands;
      for (let n = 0; n < near.count; n++)
        if (near.mm[n]! < least && groupOf(i, near.a[n]!) !== groupOf(i, near.b[n]!)) least = near.mm[n]!;
    });
    if (least <= reach) return least;
  }
  return undefined;
}
