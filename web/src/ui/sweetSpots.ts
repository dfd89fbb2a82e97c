/** A point of the cost curve. */
export interface RulerPoint {
  readonly quantity: number;
  readonly perGood: number;
  /** So many things are left out of the figure: it is at least so much. */
  readonly unpriced?: number;
}

/** Places where the unit cost drops against the point before by more than its neighbours do: steps worth knowing. */
export function sweetSpots(points: readonly RulerPoint[]): RulerPoint[] {
  const out: RulerPoint[] = [];
  for (let i = 1; i + 1 < points.length; i++) {
    const [a, b, c] = [points[i - 1]!, points[i]!, points[i + 1]!];
    if (b.perGood < a.perGood * 0.985 && c.perGood > b.perGood * 0.998) out.push(b);
  }
  return out;
}
