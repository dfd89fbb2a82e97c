import type { Rout } from "../drill/read.ts";
import { KIND } from "../gerber/image.ts";
import { covers, edgeWithin } from "../gerber/shapes.ts";
import { type LayerShapes, ringAround } from "./copper.ts";
import { Groups } from "./gaps.ts";
import type { Hole, Measure } from "./measure-document.ts";
import type { BoardFile } from "./read.ts";

const r6 = (v: number) => Math.round(v * 1e6) / 1e6;

/** Holes of all drill files; where nothing says it, a hole with copper around it on any layer is plated. */
export function settlePlating(
  drills: readonly BoardFile[],
  copper: readonly LayerShapes[],
  finders: readonly ((x: number, y: number) => readonly number[])[],
): Hole[] {
  return drills.flatMap((f) =>
    f.drill!.hits.map((h) => {
      const told = h.plated ?? (typeof f.plated === "boolean" ? f.plated : undefined);
      const plated =
        told ??
        copper.some(
          (l, i) => (ringAround(l, finders[i]!(h.x, h.y), h.x, h.y, h.diameterMm / 2)?.mm ?? -1) > 0,
        );
      return { x: h.x, y: h.y, diameterMm: h.diameterMm, plated };
    }),
  );
}

export function groupHoles(holes: readonly Hole[]): Measure["holes"] {
  const groups = new Map<string, { diameterMm: number; plated: boolean; count: number }>();
  for (const h of holes) {
    const key = `${Math.round(h.diameterMm * 1e4)} ${h.plated}`;
    const g = groups.get(key);
    if (g) g.count++;
    else groups.set(key, { diameterMm: r6(h.diameterMm), plated: h.plated, count: 1 });
  }
  return [...groups.values()].sort(
    (a, b) => a.diameterMm - b.diameterMm || Number(b.plated) - Number(a.plated),
  );
}

/** Islands of all layers joined by plated holes and slots (domain.md 2.8); the count leaves out nothing drawn. */
export function joinNets(
  copper: readonly LayerShapes[],
  finders: readonly ((x: number, y: number) => readonly number[])[],
  holes: readonly Hole[],
  slots: readonly (Rout & { plated: boolean })[],
) {
  const offsets: number[] = [];
  let total = 0;
  for (const l of copper) {
    offsets.push(total);
    total += l.shapes.length;
  }
  const groups = new Groups(total);
  copper.forEach((l, i) => {
    for (let s = 0; s < l.shapes.length; s++) groups.join(offsets[i]! + s, offsets[i]! + l.islands.find(s));
  });
  const joinAt = (points: readonly (readonly [number, number])[], r: number) => {
    let last = -1;
    for (const [x, y] of points)
      copper.forEach((l, i) => {
        for (const k of finders[i]!(x, y)) {
          const s = l.shapes[k]!;
          if (!covers(s, x, y) && !edgeWithin(s, x, y, r - 1e-6)) continue;
          if (last >= 0) groups.join(last, offsets[i]! + k);
          last = offsets[i]! + k;
        }
      });
  };
  for (const h of holes) if (h.plated) joinAt([[h.x, h.y]], h.diameterMm / 2);
  for (const s of slots) if (s.plated) joinAt(s.points, s.widthMm / 2);
  return { groups, offsets, count: groups.count() };
}

/** Copper flashes and filled pads opened by the mask without a hole in them. */
export function countSmdPads(
  layer: LayerShapes,
  isOpen: (x: number, y: number) => boolean,
  holes: readonly Hole[],
): number {
  const at = new Set(holes.map((h) => `${Math.round(h.x * 20)} ${Math.round(h.y * 20)}`));
  const { image } = layer;
  let n = 0;
  for (let i = 0; i < image.n; i++) {
    if (image.kind[i] !== KIND.flash || image.dark[i] === 0) continue;
    const [x, y] = [image.geo[i * 6]!, image.geo[i * 6 + 1]!];
    const fn = image.apertures[image.aperture[i]!]?.function?.[0];
    if (fn === "FiducialPad" || at.has(`${Math.round(x * 20)} ${Math.round(y * 20)}`)) continue;
    if (isOpen(x, y)) n++;
  }
  return n;
}

export function ringDistance(ring: readonly number[], x: number, y: number): number {
  let best = Number.POSITIVE_INFINITY;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
    const uu = (bx - ax) ** 2 + (by - ay) ** 2;
    const t = uu > 0 ? Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / uu)) : 0;
    best = Math.min(best, Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay)));
  }
  return best;
}
