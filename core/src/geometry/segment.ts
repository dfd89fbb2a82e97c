/** Squared distance from a point to the segment a–b; a segment of no length is a point. */
export function pointSegment2(
  px: number,
  py: number,
  ax: number,
  ay: number,
  bx: number,
  by: number,
): number {
  const ux = bx - ax;
  const uy = by - ay;
  const uu = ux * ux + uy * uy;
  let t = uu > 0 ? ((px - ax) * ux + (py - ay) * uy) / uu : 0;
  t = t < 0 ? 0 : t > 1 ? 1 : t;
  const dx = px - ax - t * ux;
  const dy = py - ay - t * uy;
  return dx * dx + dy * dy;
}

/** Squared distance between segments a–b and c–d; 0 when they meet. */
export function segmentSegment2(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): number {
  const ux = bx - ax;
  const uy = by - ay;
  const vx = dx - cx;
  const vy = dy - cy;
  const den = ux * vy - uy * vx;
  // what rounding leaves of segments on one line is no crossing; their ends tell how far they are apart
  if (den * den > 1e-20 * (ux * ux + uy * uy) * (vx * vx + vy * vy)) {
    const wx = cx - ax;
    const wy = cy - ay;
    const s = (wx * vy - wy * vx) / den;
    const t = (wx * uy - wy * ux) / den;
    if (s >= 0 && s <= 1 && t >= 0 && t <= 1) return 0;
  }
  return Math.min(
    pointSegment2(cx, cy, ax, ay, bx, by),
    pointSegment2(dx, dy, ax, ay, bx, by),
    pointSegment2(ax, ay, cx, cy, dx, dy),
    pointSegment2(bx, by, cx, cy, dx, dy),
  );
}

/** The nearest points of segments a–b and c–d: x, y on the first, x, y on the second; where they meet, a common point twice. */
export function nearestPoints(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): [number, number, number, number] {
  const ux = bx - ax;
  const uy = by - ay;
  const vx = dx - cx;
  const vy = dy - cy;
  const den = ux * vy - uy * vx;
  if (den * den > 1e-20 * (ux * ux + uy * uy) * (vx * vx + vy * vy)) {
    const s = ((cx - ax) * vy - (cy - ay) * vx) / den;
    const t = ((cx - ax) * uy - (cy - ay) * ux) / den;
    if (s >= 0 && s <= 1 && t >= 0 && t <= 1) return [ax + s * ux, ay + s * uy, ax + s * ux, ay + s * uy];
  }
  const on = (px: number, py: number, qx: number, qy: number, wx: number, wy: number): [number, number] => {
    const ww = wx * wx + wy * wy;
    const t = ww > 0 ? Math.max(0, Math.min(1, ((px - qx) * wx + (py - qy) * wy) / ww)) : 0;
    return [qx + t * wx, qy + t * wy];
  };
  const tries: [number, number, number, number][] = [
    [...on(cx, cy, ax, ay, ux, uy), cx, cy],
    [...on(dx, dy, ax, ay, ux, uy), dx, dy],
    [ax, ay, ...on(ax, ay, cx, cy, vx, vy)],
    [bx, by, ...on(bx, by, cx, cy, vx, vy)],
  ];
  const far = (p: readonly number[]) => (p[2]! - p[0]!) ** 2 + (p[3]! - p[1]!) ** 2;
  return tries.reduce((a, b) => (far(b) < far(a) ? b : a));
}
