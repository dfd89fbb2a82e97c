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

/** Middles of one row, along a line through x, y in a direction. */
export function rowOfHoles(
  x: number,
  y: number,
  alongX: number,
  alongY: number,
  widthMm: number,
): [number, number][] {
  const n = perforations(widthMm);
  const first = -((n - 1) * PERFORATION.pitchMm) / 2;
  return Array.from({ length: n }, (_, i) => {
    const s = first + i * PERFORATION.pitchMm;
    return [round(x + alongX * s), round(y + alongY * s)];
  });
}

const round = (v: number) => Math.round(v * 1e4) / 1e4;
