import type { Laid } from "./laid.ts";
import type { EdgePoint } from "./stretch.ts";

/** The point of a copy's edge nearest to a point of the sheet, with its direction outward. */
export function edgeNear(l: Laid, x: number, y: number): EdgePoint {
  const { ring } = l;
  let best = Number.POSITIVE_INFINITY;
  let at: EdgePoint = { x: ring[0]!, y: ring[1]!, nx: 0, ny: -1 };
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
    const d = Math.hypot(bx - ax, by - ay);
    if (d < 1e-9) continue;
    const f = Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / (d * d)));
    const [px, py] = [ax + (bx - ax) * f, ay + (by - ay) * f];
    const away = Math.hypot(px - x, py - y);
    if (away < best) {
      best = away;
      at = { x: px, y: py, nx: (by - ay) / d, ny: -(bx - ax) / d };
    }
  }
  return at;
}

/** Points along a ring, so far apart, with their directions outward. */
export function around(ring: readonly number[], step: number): EdgePoint[] {
  const out: EdgePoint[] = [];
  let left = step / 2;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
    const d = Math.hypot(bx - ax, by - ay);
    if (d < 1e-9) continue;
    for (; left <= d; left += step)
      out.push({
        x: ax + ((bx - ax) * left) / d,
        y: ay + ((by - ay) * left) / d,
        nx: (by - ay) / d,
        ny: -(bx - ax) / d,
      });
    left -= d;
  }
  return out;
}
