/** Where something is put: turned counter-clockwise about 0/0, then moved. Never mirrored. */
export interface Pose {
  readonly xMm: number;
  readonly yMm: number;
  readonly turnDeg: number;
}

/** Cosine and sine of a turn; quarter turns are exact. */
export function turnOf(degrees: number): readonly [cos: number, sin: number] {
  const quarter = (((degrees % 360) + 360) % 360) / 90;
  if (quarter === 0) return [1, 0];
  if (quarter === 1) return [0, 1];
  if (quarter === 2) return [-1, 0];
  if (quarter === 3) return [0, -1];
  const a = (degrees * Math.PI) / 180;
  return [Math.cos(a), Math.sin(a)];
}

/**
 * Where a point lies after a pose.
 * @example posed({ xMm: 40, yMm: 0, turnDeg: 90 }, 10, 5) // [35, 10], EX 6.5
 */
export function posed(p: Pose, x: number, y: number): [number, number] {
  const [c, s] = turnOf(p.turnDeg);
  return [x * c - y * s + p.xMm, x * s + y * c + p.yMm];
}

/** The point that a pose brings to x, y. */
export function unposed(p: Pose, x: number, y: number): [number, number] {
  const [c, s] = turnOf(p.turnDeg);
  const [u, v] = [x - p.xMm, y - p.yMm];
  return [u * c + v * s, v * c - u * s];
}

/** A ring x0, y0, x1, y1 … after a pose. */
export function posedRing(p: Pose, ring: ArrayLike<number>): number[] {
  const [c, s] = turnOf(p.turnDeg);
  const out = new Array<number>(ring.length);
  for (let i = 0; i < ring.length; i += 2) {
    const [x, y] = [ring[i]!, ring[i + 1]!];
    out[i] = x * c - y * s + p.xMm;
    out[i + 1] = x * s + y * c + p.yMm;
  }
  return out;
}

export type Box = readonly [x0: number, y0: number, x1: number, y1: number];

/** Box around rings; nothing for none. */
export function boxAround(rings: readonly ArrayLike<number>[]): Box {
  let [x0, y0, x1, y1] = [
    Number.POSITIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  for (const ring of rings)
    for (let i = 0; i < ring.length; i += 2) {
      x0 = Math.min(x0, ring[i]!);
      x1 = Math.max(x1, ring[i]!);
      y0 = Math.min(y0, ring[i + 1]!);
      y1 = Math.max(y1, ring[i + 1]!);
    }
  return [x0, y0, x1, y1];
}

/** Box of a box after a pose. */
export function posedBox(p: Pose, b: Box): Box {
  return boxAround([posedRing(p, [b[0], b[1], b[2], b[1], b[2], b[3], b[0], b[3]])]);
}
