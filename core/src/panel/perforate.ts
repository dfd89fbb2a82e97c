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
