/** Perforations of a tab: diameter and pitch, mm (domain.md 6.2). */
export const PERFORATION = { diameterMm: 0.5, pitchMm: 0.8 } as const;

/**
 * Perforations in one row across a tab: n = ⌊(W − d)/p⌋ + 1.
 * @example perforations(5) // 6, over 4.5 mm (EX 6.1)
 */
export function perforations(widthMm: number): number {
  const { diameterMm: d, pitchMm: p } = PERFORATION;
  return widthMm < d ? 0 : Math.floor((widthMm - d) / p + 1e-9) + 1;
}

/** Perforations keep this far from copper at least, mm; {@link COPPER_WANTED_MM} is usual (domain.md 6.2). */
const COPPER_LEAST_MM = 0.2;
export const COPPER_WANTED_MM = 1;

/**
 * How far inside of a board's edge a row of perforations stands: half a hole, so that nothing sticks out when it breaks, but
 * never so far that a hole comes near copper; then it moves out onto the edge, and half a hole beyond at most.
 *
 * @param copperMm least distance of the board's copper from its edge; as far as is usual where it is not known
 */
export function insetOf(copperMm: number | undefined): number {
  const r = PERFORATION.diameterMm / 2;
  return Math.max(-r, Math.min(r, (copperMm ?? Number.POSITIVE_INFINITY) - r - COPPER_LEAST_MM));
}

/** From the walls of a board's perforations to its copper, where they meet where it comes nearest. */
export const perforationToCopper = (copperMm: number): number =>
  copperMm - insetOf(copperMm) - PERFORATION.diameterMm / 2;

/** Where the holes of one row stand along a tab, mm from its middle. */
export function rowOffsets(widthMm: number): number[] {
  const n = perforations(widthMm);
  const first = -((n - 1) * PERFORATION.pitchMm) / 2;
  return Array.from({ length: n }, (_, i) => first + i * PERFORATION.pitchMm);
}

/** Steeper than this an edge does not run across a tab: by how much a hole is moved along the tab to stand as far from it. */
const MOST_STRETCH = 1.6;
const SLOPE_MM = 0.1;

/**
 * Middles of one row of perforations, each as far inside of its own board's edge as wanted: the row follows an edge that is
 * round or runs aslant.
 *
 * @param edge how far in front of the row's line the edge of the board lies at a place along it, mm, positive outward;
 *   nothing where it does not
 * @param insetMm as far inside of the edge
 * @returns along the row and across it, outward, mm; nothing where the edge does not reach along the whole tab
 */
export function rowAlong(
  widthMm: number,
  edge: (along: number) => number | undefined,
  insetMm: number,
): (readonly [along: number, out: number])[] | undefined {
  const row: (readonly [number, number])[] = [];
  for (const s of rowOffsets(widthMm)) {
    const out = edge(s);
    if (out === undefined) return undefined;
    const [a, b] = [edge(s - SLOPE_MM) ?? out, edge(s + SLOPE_MM) ?? out];
    const stretch = Math.min(MOST_STRETCH, Math.hypot(1, (b - a) / (2 * SLOPE_MM)));
    row.push([s, out - insetMm * stretch]);
  }
  return row;
}

/** Two rows of perforations are so far apart from middle to middle at least, as two holes of one row are, mm. */
export const ROWS_APART_MM = PERFORATION.pitchMm - 0.05;

/** Middles of one row half way between two edges. @see rowAlong */
export function rowBetween(
  widthMm: number,
  near: (along: number) => number | undefined,
  far: (along: number) => number | undefined,
): (readonly [along: number, out: number])[] | undefined {
  return rowAlong(
    widthMm,
    (s) => {
      const [a, b] = [near(s), far(s)];
      return a === undefined || b === undefined ? undefined : (a + b) / 2;
    },
    0,
  );
}
