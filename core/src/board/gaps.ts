import { segmentSegment2 } from "../geometry/segment.ts";
import { covers, type Shape } from "../gerber/shapes.ts";

/** The least distance between two shapes that come close, with its place. */
export interface Gap {
  readonly a: number;
  readonly b: number;
  /** Zero or less where they touch. */
  readonly mm: number;
  readonly x: number;
  readonly y: number;
}

/** Shapes closer than this are one piece of copper. */
export const TOUCH_MM = 0.001;

/**
 * All pairs of shapes whose edges come within `reach` of each other, the least distance per pair.
 *
 * A grid of edges: each edge enters the cells it comes near, pairs are compared within a cell. Containment (a pad wholly
 * inside a fill) counts as touching. About O(n) for boards, where edges have few neighbours.
 *
 * @param reach mm
 */
export function findGaps(shapes: readonly Shape[], reach: number): Gap[] {
  const cell = Math.max(0.5, reach * 2);
  const cells = new Map<number, number[]>();
  const offsets = new Int32Array(shapes.length + 1);
  shapes.forEach((s, k) => {
    offsets[k + 1] = offsets[k]! + s.edges.length / 4;
  });
  const total = offsets[shapes.length]!;
  const owner = new Int32Array(total);
  for (let k = 0; k < shapes.length; k++) owner.fill(k, offsets[k]!, offsets[k + 1]!);
  const half = cell * Math.SQRT1_2;
  for (let e = 0; e < total; e++) {
    const s = shapes[owner[e]!]!;
    const o = (e - offsets[owner[e]!]!) * 4;
    const [ax, ay, bx, by] = [s.edges[o]!, s.edges[o + 1]!, s.edges[o + 2]!, s.edges[o + 3]!];
    const grow = s.r + reach / 2 + 1e-6;
    const x0 = Math.floor((Math.min(ax, bx) - grow) / cell);
    const x1 = Math.floor((Math.max(ax, bx) + grow) / cell);
    const y0 = Math.floor((Math.min(ay, by) - grow) / cell);
    const y1 = Math.floor((Math.max(ay, by) + grow) / cell);
    const near = (grow + half) ** 2;
    for (let cx = x0; cx <= x1; cx++)
      for (let cy = y0; cy <= y1; cy++) {
        if (x1 > x0 && y1 > y0) {
          const [mx, my] = [(cx + 0.5) * cell, (cy + 0.5) * cell];
          if (segmentSegment2(ax, ay, bx, by, mx, my, mx, my) > near) continue;
        }
        const key = (cx + 32768) * 65536 + (cy + 32768);
        const list = cells.get(key);
        if (list) list.push(e);
        else cells.set(key, [e]);
      }
  }
  const best = new Map<number, Gap>();
  const keep = (a: number, b: number, mm: number, x: number, y: number) => {
    const key = a * shapes.length + b;
    const old = best.get(key);
    if (!old || mm < old.mm) best.set(key, { a, b, mm, x, y });
  };
  for (const list of cells.values()) {
    let next = 0;
    for (let i = 0; i < list.length; i++) {
      const e = list[i]!;
      const ka = owner[e]!;
      const sa = shapes[ka]!;
      const o = (e - offsets[ka]!) * 4;
      const [ax, ay, bx, by] = [sa.edges[o]!, sa.edges[o + 1]!, sa.edges[o + 2]!, sa.edges[o + 3]!];
      // edges stand in the order of their shapes: the rest of the own shape is passed over at once
      if (i >= next) for (next = i + 1; next < list.length && owner[list[next]!] === ka; ) next++;
      for (let j = next; j < list.length; j++) {
        const f = list[j]!;
        const kb = owner[f]!;
        const sb = shapes[kb]!;
        const p = (f - offsets[kb]!) * 4;
        const [cx, cy, dx, dy] = [sb.edges[p]!, sb.edges[p + 1]!, sb.edges[p + 2]!, sb.edges[p + 3]!];
        const far = reach + sa.r + sb.r;
        if (
          Math.min(ax, bx) - far > Math.max(cx, dx) ||
          Math.max(ax, bx) + far < Math.min(cx, dx) ||
          Math.min(ay, by) - far > Math.max(cy, dy) ||
          Math.max(ay, by) + far < Math.min(cy, dy)
        )
          continue;
        const d = Math.sqrt(segmentSegment2(ax, ay, bx, by, cx, cy, dx, dy)) - sa.r - sb.r;
        if (d > reach) continue;
        const [a, b] = ka < kb ? [ka, kb] : [kb, ka];
        const x =
          (Math.max(Math.min(ax, bx), Math.min(cx, dx)) + Math.min(Math.max(ax, bx), Math.max(cx, dx))) / 2;
        const y =
          (Math.max(Math.min(ay, by), Math.min(cy, dy)) + Math.min(Math.max(ay, by), Math.max(cy, dy))) / 2;
        keep(a, b, d, x, y);
      }
    }
  }
  // a shape wholly inside an area touches no edge of it
  shapes.forEach((area, k) => {
    if (area.rings.length === 0) return;
    const [x0, y0, x1, y1] = area.box;
    shapes.forEach((s, m) => {
      if (m === k || s.box[0] < x0 || s.box[1] < y0 || s.box[2] > x1 || s.box[3] > y1) return;
      const known = best.get(Math.min(k, m) * shapes.length + Math.max(k, m));
      if (known && known.mm <= TOUCH_MM) return;
      if (covers(area, s.edges[0]!, s.edges[1]!))
        keep(Math.min(k, m), Math.max(k, m), 0, s.edges[0]!, s.edges[1]!);
    });
  });
  return [...best.values()];
}

/** Union-find over 0…n−1. */
export class Groups {
  private readonly parent: Int32Array;

  constructor(n: number) {
    this.parent = Int32Array.from({ length: n }, (_, i) => i);
  }

  find(i: number): number {
    let r = i;
    while (this.parent[r] !== r) r = this.parent[r]!;
    while (this.parent[i] !== r) [i, this.parent[i]] = [this.parent[i]!, r];
    return r;
  }

  join(a: number, b: number): void {
    const [x, y] = [this.find(a), this.find(b)];
    if (x !== y) this.parent[Math.max(x, y)] = Math.min(x, y);
  }

  count(): number {
    let n = 0;
    for (let i = 0; i < this.parent.length; i++) if (this.find(i) === i) n++;
    return n;
  }
}

/** Shapes grouped into separate islands: those that touch within a micrometre are one. */
export function islandsOf(shapes: readonly Shape[], gaps: readonly Gap[]): Groups {
  const groups = new Groups(shapes.length);
  for (const g of gaps) if (g.mm <= TOUCH_MM) groups.join(g.a, g.b);
  return groups;
}
