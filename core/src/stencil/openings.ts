import type { LayerSolids } from "../board/copper/copper.ts";
import { openingsOf, type PasteOpening } from "../board/copper/paste.ts";
import type { KnownPin } from "../board/pins.ts";
import { clipAreas } from "../geometry/clip.ts";
import { ringsOfSolid } from "../gerber/solids.ts";
import { addTo } from "../grouped.ts";

/** An opening of a stencil with its outline. */
export interface FoilOpening extends PasteOpening {
  /** Outer rings, mm. */
  readonly rings: readonly (readonly number[])[];
  /** Direction of its longer side, a unit vector. */
  readonly along: readonly [number, number];
  /** Middle of the nearest other opening, mm; nothing where it is farther than {@link NEAR_MM}. */
  readonly pitchMm?: number;
  /** "U1.4", where the files tell which pad lies under it. */
  readonly pin?: string;
}

/** Neighbours farther away are nobody's pitch, mm. */
export const NEAR_MM = 1.3;

/** The openings of a paste layer with outline, direction, nearest neighbour and pin. */
export function foilOpenings(layer: LayerSolids, pins: readonly KnownPin[]): FoilOpening[] {
  const { solids: s, islands } = layer;
  const groups = new Map<number, number[]>();
  for (let k = 0; k < s.count; k++) {
    const g = islands.groups.find(k);
    addTo(groups, g, k);
  }
  const pieces = [...groups.values()];
  const openings = openingsOf(layer);
  const near = nearest(openings);
  const pinAt = pinsOf(openings, pins);
  return openings.map((o, i): FoilOpening => {
    const own = pieces[i]!;
    const rings =
      own.length === 1
        ? ringsOfSolid(s, own[0]!)
        : clipAreas(
            "union",
            own.flatMap((k) => ringsOfSolid(s, k)),
            [],
            s.work,
          ).map((a) => a[0]!);
    const pin = pinAt[i];
    return {
      ...o,
      rings,
      along: directionOf(rings[0] ?? []),
      ...(near[i]! < NEAR_MM ? { pitchMm: near[i]! } : {}),
      ...(pin === undefined ? {} : { pin }),
    };
  });
}

/** Distance from each middle to the nearest other one, by a grid of cells as wide as is looked for. */
function nearest(list: readonly PasteOpening[]): number[] {
  const cells = new Map<string, number[]>();
  const cell = (o: PasteOpening) => [Math.floor(o.x / NEAR_MM), Math.floor(o.y / NEAR_MM)] as const;
  list.forEach((o, i) => {
    const key = cell(o).join();
    const has = cells.get(key);
    if (has) has.push(i);
    else cells.set(key, [i]);
  });
  return list.map((o, i) => {
    const [cx, cy] = cell(o);
    let best = Number.POSITIVE_INFINITY;
    for (let x = cx - 1; x <= cx + 1; x++)
      for (let y = cy - 1; y <= cy + 1; y++)
        for (const k of cells.get(`${x},${y}`) ?? [])
          if (k !== i) best = Math.min(best, Math.hypot(list[k]!.x - o.x, list[k]!.y - o.y));
    return best;
  });
}

/** The pin whose pad's middle lies nearest to each opening's, within half its length; panes of one pad have one pin. */
function pinsOf(openings: readonly PasteOpening[], pins: readonly KnownPin[]): (string | undefined)[] {
  const sorted = [...pins].sort((a, b) => a.x - b.x);
  const from = (x: number) => {
    let [lo, hi] = [0, sorted.length];
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (sorted[mid]!.x < x) lo = mid + 1;
      else hi = mid;
    }
    return lo;
  };
  return openings.map((o) => {
    const reach = Math.max(o.lengthMm / 2, 0.05);
    let best: { readonly d: number; readonly pin: string } | undefined;
    for (let k = from(o.x - reach); k < sorted.length && sorted[k]!.x <= o.x + reach; k++) {
      const d = Math.hypot(sorted[k]!.x - o.x, sorted[k]!.y - o.y);
      if (d <= reach && (!best || d < best.d)) best = { d, pin: sorted[k]!.pin };
    }
    return best?.pin;
  });
}

/** Direction of the longer side of the narrowest box around a ring. */
function directionOf(ring: readonly number[]): readonly [number, number] {
  let best: { readonly narrow: number; readonly along: readonly [number, number] } | undefined;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const l = Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
    if (l < 1e-6) continue;
    const [ux, uy] = [(ring[i]! - ring[j]!) / l, (ring[i + 1]! - ring[j + 1]!) / l];
    const [a0, a1] = spread(ring, ux, uy);
    const [b0, b1] = spread(ring, -uy, ux);
    const [a, b] = [a1 - a0, b1 - b0];
    const narrow = Math.min(a, b);
    if (!best || narrow < best.narrow - 1e-9) best = { narrow, along: a >= b ? [ux, uy] : [-uy, ux] };
  }
  return best?.along ?? [1, 0];
}

/** From where to where a ring reaches in a direction. */
export function spread(ring: readonly number[], ux: number, uy: number): readonly [number, number] {
  let [lo, hi] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let k = 0; k < ring.length; k += 2) {
    const v = ring[k]! * ux + ring[k + 1]! * uy;
    lo = Math.min(lo, v);
    hi = Math.max(hi, v);
  }
  return [lo, hi];
}
