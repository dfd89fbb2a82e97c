import type { BoardSet } from "../board/board-file.ts";
import { chainOutline } from "../board/outline/outline.ts";
import { insideRings } from "../geometry/polygon.ts";
import { orGivenUp } from "../geometry/work.ts";
import { KIND } from "../gerber/image.ts";
import { ringsOf, shapesOf } from "../gerber/shapes.ts";

/** A side of a board in line art for printed sheets: rings and strokes in mm, seen from that side. */
export interface SideDrawing {
  readonly side: "top" | "bottom";
  readonly box: readonly [number, number, number, number];
  readonly outline: readonly (readonly number[])[];
  /** Openings of the mask: what is not covered. */
  readonly openings: readonly (readonly number[])[];
  readonly legend: readonly { readonly width: number; readonly lines: readonly number[] }[];
  readonly holes: readonly { readonly x: number; readonly y: number; readonly d: number }[];
  readonly slots: readonly { readonly points: readonly (readonly [number, number])[]; readonly d: number }[];
}

/** Line art of one side; the bottom is mirrored as it is seen. Undefined without a closed outline. */
export function drawSide(set: BoardSet, side: "top" | "bottom"): SideDrawing | undefined {
  const profile = set.files.find((f) => f.role === "profile" && f.layer);
  const outline = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
  if (!outline?.isClosed || !outline.box) return undefined;
  const [x0, y0, x1, y1] = outline.box;
  const flip = side === "bottom";
  const fx = (x: number) => (flip ? x0 + x1 - x : x);
  const ring = (r: readonly number[]) => r.map((v, i) => (i % 2 === 0 ? fx(v) : v));
  const mask = set.files.find((f) => f.role === "mask" && f.side === side)?.layer;
  const ink = set.files.find((f) => f.role === "legend" && f.side === side)?.layer;
  const widths = new Map<number, number[]>();
  if (ink)
    for (let i = 0; i < ink.n; i++) {
      if (ink.kind[i] !== KIND.line) continue;
      const o = i * 6;
      const w = ink.apertures[ink.aperture[i]!]?.circleMm ?? 0.15;
      const list = widths.get(w) ?? [];
      list.push(fx(ink.geo[o]!), ink.geo[o + 1]!, fx(ink.geo[o + 2]!), ink.geo[o + 3]!);
      widths.set(w, list);
    }
  const drills = set.files.flatMap((f) => (f.role === "drill" && f.drill ? [f.drill] : []));
  const board = outline.loops.filter((l) => l.depth === 0).map((l) => l.ring);
  return {
    side,
    box: [x0, y0, x1, y1],
    outline: outline.loops.map((l) => ring(l.ring)),
    openings: mask
      ? orGivenUp(
          () => shapesOf(mask).flatMap((s) => ringsOf(s).slice(0, 1).map(ring)),
          () => [],
        )
      : [],
    legend: [...widths].map(([width, lines]) => ({ width, lines })),
    holes: drills.flatMap((d) =>
      d.hits
        .filter((h) => insideRings(board, h.x, h.y))
        .map((h) => ({ x: fx(h.x), y: h.y, d: h.diameterMm })),
    ),
    slots: drills.flatMap((d) =>
      d.routs.map((r) => ({ points: r.points.map(([x, y]) => [fx(x), y] as const), d: r.widthMm })),
    ),
  };
}
