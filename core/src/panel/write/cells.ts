import { type Area, clipAreas, offsetRings } from "../../geometry/clip.ts";
import { signedArea } from "../../geometry/polygon.ts";
import { Strips } from "../../geometry/strips.ts";
import { type Box, boxAround } from "../../geometry/turn.ts";
import { KIND, type LayerImage } from "../../gerber/image.ts";
import { ringsOf, shapesOfObject } from "../../gerber/shapes.ts";

/** What of an object belongs to the board: all of it, a part as areas without holes, or nothing. */
export type Share = "whole" | "none" | readonly (readonly number[])[];

/** Pieces outside of a cell that are smaller than this are rounding, mm². */
const DUST_MM2 = 1e-6;

/**
 * Room of one copy: the board's outline grown by half the gap, so that no copy's layers reach into another's.
 *
 * Layers are drawn beyond a board's edge all the time (the outline itself, ink of a connector that hangs over, a title);
 * what lies outside of the cell is no part of the board and is cut off.
 */
export class Cell {
  readonly ring: readonly number[];
  private readonly strips: Strips;
  private readonly inner: Box | undefined;

  constructor(outline: readonly number[], growMm: number) {
    this.ring = growMm > 1e-9 ? (offsetRings([outline], growMm)[0] ?? [...outline]) : outline;
    this.strips = new Strips([this.ring]);
    const box = boxAround([this.ring]);
    // a rectangle needs no look at its edges
    this.inner =
      Math.abs(signedArea(this.ring) - (box[2] - box[0]) * (box[3] - box[1])) < 1e-6 ? box : undefined;
  }

  /** True where a box lies in the cell; of a rectangle its edge included, on another's edge it may be called outside. */
  holds([x0, y0, x1, y1]: Box): boolean {
    const b = this.strips.box;
    const e = 1e-7;
    if (x0 < b[0] - e || y0 < b[1] - e || x1 > b[2] + e || y1 > b[3] + e) return false;
    if (this.inner) return true;
    return this.strips.holds([x0, y0, x1, y1]);
  }

  /** Whether a point lies in the cell. */
  has(x: number, y: number): boolean {
    return this.strips.inside(x, y);
  }

  /** What of each object of a layer belongs to the board. */
  sharesOf(image: LayerImage): Share[] {
    return Array.from({ length: image.n }, (_, i) => this.shareOf(image, i));
  }

  private shareOf(image: LayerImage, i: number): Share {
    if (this.holds(objectBox(image, i))) return "whole";
    const rings = shapesOfObject(image, i).flatMap((s) => ringsOf(s));
    if (rings.length === 0) return "none";
    const outside = areaOf(clipAreas("difference", rings, [this.ring]));
    if (outside < DUST_MM2) return "whole";
    const inside = clipAreas("intersection", rings, [this.ring]);
    return areaOf(inside) < DUST_MM2 ? "none" : inside.flatMap(withoutHoles);
  }
}

const areaOf = (areas: readonly Area[]) =>
  areas.reduce((n, a) => n + a.reduce((m, r) => m + signedArea(r), 0), 0);

/** An area as pieces without holes: cut through the middle of a hole until there is none. */
export function withoutHoles(area: Area): number[][] {
  const [outer, hole] = area;
  if (!outer) return [];
  if (!hole) return [outer];
  const [x0, y0, x1, y1] = boxAround([outer]);
  const h = boxAround([hole]);
  const x = (h[0] + h[2]) / 2;
  const half = (a: number, b: number) => [a, y0 - 1, b, y0 - 1, b, y1 + 1, a, y1 + 1];
  return [half(x0 - 1, x), half(x, x1 + 1)].flatMap((clip) =>
    clipAreas("intersection", area, [clip]).flatMap(withoutHoles),
  );
}

/** A box around what an object paints; of an arc around its whole circle. */
export function objectBox(image: LayerImage, i: number): Box {
  const g = image.geo;
  const o = i * 6;
  const kind = image.kind[i]!;
  if (kind === KIND.region) return boxAround([image.points.subarray(g[o]! * 2, g[o + 1]! * 2)]);
  const [a0, b0, a1, b1] = image.apertures[image.aperture[i]!]!.box;
  const [x, y] = [g[o]!, g[o + 1]!];
  if (kind === KIND.flash) return [x + a0, y + b0, x + a1, y + b1];
  const [p, q] = [g[o + 2]!, g[o + 3]!];
  if (kind === KIND.line)
    return [Math.min(x, p) + a0, Math.min(y, q) + b0, Math.max(x, p) + a1, Math.max(y, q) + b1];
  const [cx, cy] = [g[o + 4]!, g[o + 5]!];
  const r = Math.hypot(x - cx, y - cy);
  return [cx - r + a0, cy - r + b0, cx + r + a1, cy + r + b1];
}
