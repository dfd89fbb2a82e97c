/** A point of the cost curve. */
export interface RulerPoint {
  readonly quantity: number;
  readonly perGood: number;
  /** Whose quotations count here; elsewhere their estimates do. */
  readonly quoted?: readonly string[];
  /** So many things are left out of the figure: it is at least so much. */
  readonly unpriced?: number;
}

/** Places where the unit cost drops against the point before by more than its neighbours do: steps worth knowing. */
export function sweetSpots(points: readonly RulerPoint[]): RulerPoint[] {
  const out: RulerPoint[] = [];
  for (let i = 1; i + 1 < points.length; i++) {
    const [a, b, c] = [points[i - 1]!, points[i]!, points[i + 1]!];
    // where a quotation stands among estimates the step is that of the prices, not of the quantity
    if ([a, b, c].some((p) => Boolean(p.quoted) !== Boolean(b.quoted))) continue;
    if (b.perGood < a.perGood * 0.985 && c.perGood > b.perGood * 0.998) out.push(b);
  }
  return out;
}

/** Whether some of the points rest on quotations and others on estimates. */
export const isMixed = (points: readonly RulerPoint[]): boolean =>
  points.some((p) => p.quoted) && points.some((p) => !p.quoted);
