import type { LayerSolids } from "../board/copper/copper.ts";
import { type Body, nearBody, passes } from "../board/copper/holes.ts";
import type { Nets } from "../board/copper/nets.ts";
import type { Spot } from "./spots.ts";

/** Islands joined by plated holes: island → island → how many holes join the two. */
export type Joints = ReadonlyMap<number, ReadonlyMap<number, number>>;

/** Which islands of copper each plated hole joins. O(holes). */
export function jointsOf(copper: readonly LayerSolids[], nets: Nets, bodies: readonly Body[]): Joints {
  const joints = new Map<number, Map<number, number>>();
  const add = (a: number, b: number) => {
    const of = joints.get(a) ?? new Map<number, number>();
    of.set(b, (of.get(b) ?? 0) + 1);
    joints.set(a, of);
  };
  for (const b of bodies) {
    if (!b.plated) continue;
    const met = new Set<number>();
    copper.forEach((l, i) => {
      if (passes(b, i)) nearBody(l, b, -1e-6, (k) => met.add(nets.offsets[i]! + l.islands.groups.find(k)));
    });
    for (const p of met) for (const q of met) if (p !== q) add(p, q);
  }
  return joints;
}

/**
 * How many times the way from one island to each other must go through a single via, on the way with fewest of them.
 *
 * Breadth first with steps of 0 and 1 (Dial 1969): two islands joined by several holes cost nothing.
 */
export function singleVias(joints: Joints, from: number): Map<number, number> {
  const cost = new Map([[from, 0]]);
  let now = [from];
  for (let level = 0; now.length > 0; level++) {
    const next: number[] = [];
    for (let i = 0; i < now.length; i++) {
      const at = now[i]!;
      if (cost.get(at) !== level) continue;
      for (const [to, holes] of joints.get(at) ?? []) {
        const c = level + (holes === 1 ? 1 : 0);
        if (c >= (cost.get(to) ?? Number.POSITIVE_INFINITY)) continue;
        cost.set(to, c);
        (c === level ? now : next).push(to);
      }
    }
    now = next;
  }
  return cost;
}

/** Two spots of one net, the way between them in mm and the single vias it needs at least. */
export interface EndToEnd {
  readonly a: Spot;
  readonly b: Spot;
  readonly mm: number;
  readonly lone: number;
}

/** A single via weighs as much as this much way, mm. */
const HOLE_MM = 8;

/** The two spots of a net that try most of it: far apart, with single vias between. By two sweeps, each from the last one's end. */
export function endToEnd(joints: Joints, spots: readonly Spot[]): EndToEnd | undefined {
  const sweep = (from: Spot): EndToEnd | undefined => {
    const cost = singleVias(joints, from.island);
    let best: EndToEnd | undefined;
    let most = -1;
    for (const b of spots) {
      if (b === from) continue;
      const mm = Math.hypot(b.x - from.x, b.y - from.y);
      const lone = cost.get(b.island) ?? 0;
      // of two alike the larger is easier to touch
      const weight = mm + HOLE_MM * lone + Math.min(b.sizeMm, 2) / 100;
      if (weight <= most) continue;
      most = weight;
      best = { a: from, b, mm, lone };
    }
    return best;
  };
  const first = spots[0] && sweep(spots[0]);
  return first && sweep(first.b);
}
