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
  if (den !== 0) {
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
