/**
 * Rings sorted into strips by height, so that asking what lies at a point, or first along a way, looks at few edges.
 *
 * Building is O(edges + strips they cross); a question costs the edges of the strips it touches.
 */
export class Strips {
  private readonly edges: Float64Array;
  private readonly buckets: readonly number[][];
  private readonly y0: number;
  private readonly step: number;
  readonly box: readonly [number, number, number, number];

  constructor(rings: readonly ArrayLike<number>[], step = 1) {
    let n = 0;
    let [x0, y0, x1, y1] = [
      Number.POSITIVE_INFINITY,
      Number.POSITIVE_INFINITY,
      Number.NEGATIVE_INFINITY,
      Number.NEGATIVE_INFINITY,
    ];
    for (const r of rings) {
      n += r.length / 2;
      for (let i = 0; i < r.length; i += 2) {
        x0 = Math.min(x0, r[i]!);
        x1 = Math.max(x1, r[i]!);
        y0 = Math.min(y0, r[i + 1]!);
        y1 = Math.max(y1, r[i + 1]!);
      }
    }
    this.box = [x0, y0, x1, y1];
    this.y0 = Number.isFinite(y0) ? y0 : 0;
    this.step = step;
    const count = Number.isFinite(y0) ? Math.floor((y1 - y0) / step) + 1 : 0;
    const buckets: number[][] = Array.from({ length: count }, () => []);
    this.edges = new Float64Array(n * 4);
    let e = 0;
    for (const r of rings)
      for (let i = 0, j = r.length - 2; i < r.length; j = i, i += 2, e++) {
        this.edges.set([r[j]!, r[j + 1]!, r[i]!, r[i + 1]!], e * 4);
        const [lo, hi] = [Math.min(r[j + 1]!, r[i + 1]!), Math.max(r[j + 1]!, r[i + 1]!)];
        for (let k = this.strip(lo); k <= this.strip(hi); k++) buckets[k]?.push(e);
      }
    this.buckets = buckets;
  }

  private strip(y: number): number {
    return Math.floor((y - this.y0) / this.step);
  }

  /** True when the point lies inside by the even-odd rule. */
  inside(x: number, y: number): boolean {
    const b = this.box;
    if (x < b[0] || x > b[2] || y < b[1] || y > b[3]) return false;
    const t = this.edges;
    let inside = false;
    for (const e of this.buckets[this.strip(y)] ?? []) {
      const [ya, yb] = [t[e * 4 + 1]!, t[e * 4 + 3]!];
      if (yb > y !== ya > y && x < ((t[e * 4]! - t[e * 4 + 2]!) * (y - yb)) / (ya - yb) + t[e * 4 + 2]!)
        inside = !inside;
    }
    return inside;
  }

  /** True when a box lies inside and no edge runs through its sides; on an edge it may be called outside. */
  holds([x0, y0, x1, y1]: readonly [number, number, number, number]): boolean {
    return (
      this.inside(x0, y0) &&
      this.inside(x1, y0) &&
      this.inside(x1, y1) &&
      this.inside(x0, y1) &&
      this.firstCrossing(x0, y0, x1, y0) === undefined &&
      this.firstCrossing(x1, y0, x1, y1) === undefined &&
      this.firstCrossing(x1, y1, x0, y1) === undefined &&
      this.firstCrossing(x0, y1, x0, y0) === undefined
    );
  }

  /** Least share of the way from a to b, above `from`, at which it crosses an edge. */
  firstCrossing(ax: number, ay: number, bx: number, by: number, from = 0): number | undefined {
    const b = this.box;
    if (
      Math.max(ax, bx) < b[0] ||
      Math.min(ax, bx) > b[2] ||
      Math.max(ay, by) < b[1] ||
      Math.min(ay, by) > b[3]
    )
      return undefined;
    const t = this.edges;
    let best: number | undefined;
    const last = Math.min(this.buckets.length - 1, this.strip(Math.max(ay, by)));
    for (let k = Math.max(0, this.strip(Math.min(ay, by))); k <= last; k++)
      for (const e of this.buckets[k]!) {
        const [cx, cy] = [t[e * 4]!, t[e * 4 + 1]!];
        const [vx, vy] = [t[e * 4 + 2]! - cx, t[e * 4 + 3]! - cy];
        const [ux, uy] = [bx - ax, by - ay];
        const det = ux * vy - uy * vx;
        if (Math.abs(det) < 1e-12) continue;
        const p = ((cx - ax) * vy - (cy - ay) * vx) / det;
        const q = ((cx - ax) * uy - (cy - ay) * ux) / det;
        if (p > from && p <= 1 && q >= -1e-9 && q <= 1 + 1e-9 && (best === undefined || p < best)) best = p;
      }
    return best;
  }
}
