import type { Edge } from "./design.ts";

/** Rounds to a number of places. */
export const round = (v: number, places = 4) => Math.round(v * 10 ** places) / 10 ** places;

/** Size, area and length of an outline; arcs exact. */
export function outlineOf(edges: readonly Edge[]) {
  let [area, length] = [0, 0];
  const [xs, ys]: [number[], number[]] = [[], []];
  for (const e of edges) {
    xs.push(e.x1);
    ys.push(e.y1);
    area += (e.x1 * e.y2 - e.x2 * e.y1) / 2;
    if (!e.arc) {
      length += Math.hypot(e.x2 - e.x1, e.y2 - e.y1);
      continue;
    }
    const { cx, cy, ccw } = e.arc;
    const r = Math.hypot(e.x1 - cx, e.y1 - cy);
    let sweep = Math.atan2(e.y2 - cy, e.x2 - cx) - Math.atan2(e.y1 - cy, e.x1 - cx);
    if (ccw && sweep < 0) sweep += 2 * Math.PI;
    if (!ccw && sweep > 0) sweep -= 2 * Math.PI;
    area += (r * r * (sweep - Math.sin(sweep))) / 2;
    length += Math.abs(sweep) * r;
    for (let k = 0; k <= 400; k++) {
      const a = Math.atan2(e.y1 - cy, e.x1 - cx) + (sweep * k) / 400;
      xs.push(cx + r * Math.cos(a));
      ys.push(cy + r * Math.sin(a));
    }
  }
  return {
    widthMm: round(Math.max(...xs) - Math.min(...xs), 2),
    heightMm: round(Math.max(...ys) - Math.min(...ys), 2),
    areaMm2: round(area, 3),
    perimeterMm: round(length, 3),
  };
}
