/**
 * Signed area of a simple ring.
 *
 * Shoelace sum about the first vertex, to lose fewer digits far from the origin. O(n).
 *
 * @param ring [x0, y0, x1, y1, …] in mm, not closed, either winding
 * @returns mm²; positive when counter-clockwise; 0 for fewer than three vertices
 * @example signedArea([0, 0, 1, 0, 1, 1]) // 0.5
 */
export function signedArea(ring: ArrayLike<number>): number {
  const x0 = ring[0] ?? 0;
  const y0 = ring[1] ?? 0;
  let sum = 0;
  for (let i = 2; i + 3 < ring.length; i += 2) {
    sum += (ring[i]! - x0) * (ring[i + 3]! - y0) - (ring[i + 2]! - x0) * (ring[i + 1]! - y0);
  }
  return sum / 2;
}

/** True when the point lies inside by the even-odd rule over all rings; on the edge either answer may come. */
export function insideRings(rings: readonly ArrayLike<number>[], x: number, y: number): boolean {
  let inside = false;
  for (const ring of rings) {
    const n = ring.length;
    for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
      const yi = ring[i + 1]!;
      const yj = ring[j + 1]!;
      if (yi > y !== yj > y && x < ((ring[j]! - ring[i]!) * (y - yi)) / (yj - yi) + ring[i]!)
        inside = !inside;
    }
  }
  return inside;
}

/**
 * Convex hull of points, counter-clockwise (monotone chain, Andrew 1979).
 * @param points [x0, y0, …]; @returns a ring without repeated or collinear points
 */
export function convexHull(points: readonly number[]): number[] {
  const pts: [number, number][] = [];
  for (let i = 0; i < points.length; i += 2) pts.push([points[i]!, points[i + 1]!]);
  pts.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: [number, number][]) => {
    const out: [number, number][] = [];
    for (const p of list) {
      while (out.length >= 2) {
        const [b, a] = [out[out.length - 1]!, out[out.length - 2]!];
        if ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) > 0) break;
        out.pop();
      }
      out.push(p);
    }
    out.pop();
    return out;
  };
  return [...half(pts), ...half(pts.reverse())].flat();
}

/**
 * A ring with as few of its own points as stay within a tolerance of it (Douglas and Peucker, 1973).
 *
 * The point farthest from the first splits the ring; each half keeps its farthest point while that lies beyond the tolerance.
 * O(n²) at worst, O(n log n) as a rule; no recursion, so that long rings do not run out of stack.
 *
 * @param ring x0, y0, x1, y1 …, not closed
 * @returns at least 3 of the points where there are as many, in their order
 */
export function thinned(ring: ArrayLike<number>, tolerance: number): number[] {
  const n = ring.length / 2;
  if (n <= 3) return Array.from(ring);
  const keep = new Uint8Array(n);
  const farthest = (from: number, until: number): readonly [number, number] => {
    const [ax, ay] = [ring[from * 2]!, ring[from * 2 + 1]!];
    const [bx, by] = [ring[(until % n) * 2]!, ring[(until % n) * 2 + 1]!];
    const length = Math.hypot(bx - ax, by - ay);
    let [best, at] = [-1, from];
    for (let i = from + 1; i < until; i++) {
      const [px, py] = [ring[i * 2]! - ax, ring[i * 2 + 1]! - ay];
      const t =
        length > 0 ? Math.max(0, Math.min(1, (px * (bx - ax) + py * (by - ay)) / (length * length))) : 0;
      const d = Math.hypot(px - t * (bx - ax), py - t * (by - ay));
      if (d > best) [best, at] = [d, i];
    }
    return [best, at];
  };
  // a ring has no ends: its first point and the one farthest from it stand for them
  const [, opposite] = farthest(0, n);
  keep[0] = keep[opposite] = 1;
  const todo: [number, number][] = [
    [0, opposite],
    [opposite, n],
  ];
  for (let next = todo.pop(); next; next = todo.pop()) {
    const [from, until] = next;
    const [far, at] = farthest(from, until);
    if (far <= tolerance) continue;
    keep[at] = 1;
    todo.push([from, at], [at, until]);
  }
  const out: number[] = [];
  for (let i = 0; i < n; i++) if (keep[i]) out.push(ring[i * 2]!, ring[i * 2 + 1]!);
  // a sliver within the tolerance keeps its shape
  return out.length >= 6 ? out : Array.from(ring);
}
