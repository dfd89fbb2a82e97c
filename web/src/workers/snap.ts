import { type BoardSet, chainOutline, KIND } from "@kobbin/core";

/** What a snapped point is, in words. */
export interface Snapped {
  readonly x: number;
  readonly y: number;
  readonly what: string;
}

const CELL = 1;

/** Points of a board that a measuring hand means: middles of holes and pads, ends of tracks, corners of outline and fills. */
export class Snapper {
  private readonly cells = new Map<number, { x: number; y: number; what: string; side: string }[]>();

  constructor(set: BoardSet) {
    for (const f of set.files) {
      for (const h of f.role === "drill" ? (f.drill?.hits ?? []) : [])
        this.put(h.x, h.y, "middle of a hole", "");
      for (const r of f.role === "drill" ? (f.drill?.routs ?? []) : [])
        for (const [x, y] of r.points) this.put(x, y, "end of a slot", "");
      if (f.role === "profile" && f.layer)
        for (const loop of chainOutline(f.layer, f.path).loops)
          for (let i = 0; i < loop.ring.length; i += 2)
            this.put(loop.ring[i]!, loop.ring[i + 1]!, "the board's edge", "");
      if (f.role !== "copper" || !f.layer || !f.side) continue;
      const { n, kind, geo, points } = f.layer;
      for (let i = 0; i < n; i++) {
        const o = i * 6;
        if (kind[i] === KIND.region) {
          if (geo[o + 1]! - geo[o]! > 400) continue;
          for (let k = geo[o]!; k < geo[o + 1]!; k++)
            this.put(points[k * 2]!, points[k * 2 + 1]!, "corner of a fill", f.side);
        } else {
          this.put(
            geo[o]!,
            geo[o + 1]!,
            kind[i] === KIND.flash ? "middle of a pad" : "end of a track",
            f.side,
          );
          if (kind[i] !== KIND.flash) this.put(geo[o + 2]!, geo[o + 3]!, "end of a track", f.side);
        }
      }
    }
  }

  private put(x: number, y: number, what: string, side: string): void {
    const key = Math.floor(x / CELL) * 100_000 + Math.floor(y / CELL);
    const list = this.cells.get(key);
    if (list) list.push({ x, y, what, side });
    else this.cells.set(key, [{ x, y, what, side }]);
  }

  /** The nearest point within reach; pads and holes win over what is about as near. */
  nearest(x: number, y: number, reachMm: number, side: string): Snapped | undefined {
    let best: Snapped | undefined;
    let least = reachMm;
    const r = Math.ceil(reachMm / CELL);
    const [cx, cy] = [Math.floor(x / CELL), Math.floor(y / CELL)];
    for (let a = cx - r; a <= cx + r; a++)
      for (let b = cy - r; b <= cy + r; b++)
        for (const p of this.cells.get(a * 100_000 + b) ?? []) {
          if (p.side !== "" && p.side !== side) continue;
          const d = Math.hypot(p.x - x, p.y - y) * (p.what.startsWith("middle") ? 0.7 : 1);
          if (d >= least) continue;
          least = d;
          best = { x: p.x, y: p.y, what: p.what };
        }
    return best;
  }
}
