/** Greatest distance between an arc and its chords when it is measured: half a micrometre. */
export const CHORD_ERROR_MM = 0.0005;

/** Most chords of one arc; a circle of 4 m radius has about as many at the measuring error. */
const MAX_STEPS = 9000;

/**
 * Points along an arc, the start left out, the end exact.
 *
 * Steps follow e = r(1 − cos(π/N)), N = ⌈π / acos(1 − e/r)⌉ per full turn (domain.md 2.3).
 *
 * @param ccw direction seen from the top
 * @param full a start equal to the end means a whole circle instead of nothing
 * @returns [x, y, …] of at least the end point
 */
export function arcPoints(
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  cx: number,
  cy: number,
  ccw: boolean,
  full: boolean,
  error = CHORD_ERROR_MM,
): number[] {
  const r = Math.hypot(x1 - cx, y1 - cy);
  const sweep = arcSweep(x1, y1, x2, y2, cx, cy, ccw, full);
  if (r < 1e-9 || sweep === 0) return [x2, y2];
  const perTurn = Math.max(8, Math.ceil(Math.PI / Math.acos(Math.max(-1, 1 - error / Math.max(r, error)))));
  // a radius of kilometres out of a broken file must not fill the memory
  const steps = Math.min(MAX_STEPS, Math.max(1, Math.ceil((Math.abs(sweep) / (2 * Math.PI)) * perTurn)));
  const start = Math.atan2(y1 - cy, x1 - cx);
  const out: number[] = [];
  for (let k = 1; k < steps; k++) {
    const a = start + (sweep * k) / steps;
    out.push(cx + r * Math.cos(a), cy + r * Math.sin(a));
  }
  out.push(x2, y2);
  return out;
}

/** Signed sweep of an arc in radians, counter-clockwise positive; ±2π for a full circle. */
export function arcSweep(
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  cx: number,
  cy: number,
  ccw: boolean,
  full: boolean,
): number {
  if (x1 === x2 && y1 === y2) return full ? (ccw ? 2 : -2) * Math.PI : 0;
  let sweep = Math.atan2(y2 - cy, x2 - cx) - Math.atan2(y1 - cy, x1 - cx);
  if (ccw && sweep <= 1e-12) sweep += 2 * Math.PI;
  if (!ccw && sweep >= -1e-12) sweep -= 2 * Math.PI;
  return sweep;
}

/** Ring of a whole circle, counter-clockwise. */
export function circleRing(cx: number, cy: number, r: number, error = CHORD_ERROR_MM): number[] {
  return arcPoints(cx + r, cy, cx + r, cy, cx, cy, true, true, error);
}

/** Ring of a capsule: every point within r of the segment. */
export function capsuleRing(
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  r: number,
  error = CHORD_ERROR_MM,
): number[] {
  const length = Math.hypot(x2 - x1, y2 - y1);
  if (length < 1e-9) return circleRing(x1, y1, r, error);
  const nx = (-(y2 - y1) / length) * r;
  const ny = ((x2 - x1) / length) * r;
  return [
    x1 - nx,
    y1 - ny,
    x2 - nx,
    y2 - ny,
    ...arcPoints(x2 - nx, y2 - ny, x2 + nx, y2 + ny, x2, y2, true, false, error),
    x1 + nx,
    y1 + ny,
    ...arcPoints(x1 + nx, y1 + ny, x1 - nx, y1 - ny, x1, y1, true, false, error).slice(0, -2),
  ];
}
