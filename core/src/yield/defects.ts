import { DEFECT_CODES, type DefectClass, type DefectCode } from "../shape/defects.ts";

/** The class a code is of. */
export const classOf = (code: DefectCode): DefectClass =>
  (Object.keys(DEFECT_CODES) as DefectClass[]).find((c) =>
    (DEFECT_CODES[c] as readonly string[]).includes(code),
  )!;

/** Bounds of a share, 0 to 1. */
export type Interval = readonly [low: number, high: number];

/**
 * Where a share lies with 95 % confidence, by what was seen (Wilson, 1927; domain.md 9.7: 28 of 30 → 0.787 to 0.982). From
 * nothing seen everything is possible.
 */
export function wilson(hits: number, of: number, z = 1.959964): Interval {
  if (of === 0) return [0, 1];
  const p = hits / of;
  const z2 = z * z;
  const middle = p + z2 / (2 * of);
  const half = z * Math.sqrt((p * (1 - p)) / of + z2 / (4 * of * of));
  const at = (x: number) => Math.min(1, Math.max(0, x / (1 + z2 / of)));
  return [hits === 0 ? 0 : at(middle - half), hits === of ? 1 : at(middle + half)];
}

/** What was found on so many boards. */
export interface DefectRates {
  readonly defects: number;
  /** A board. */
  readonly perUnit: number;
  /** Of a million joints; not known where nobody says how many there are. */
  readonly perMillion?: number;
  /** Share of boards without any, if defects fall where they will: e to the minus defects a board. */
  readonly clean: number;
}

/**
 * Defects a board and of a million joints (domain.md 9.7, EX 9.6: 7 on 31 boards of 98 joints: 0.2258, 2304, 0.798).
 *
 * @param joints of one board; 0 where it is not known
 * @returns nothing where no board was looked at
 */
export function defectRates(defects: number, units: number, joints: number): DefectRates | undefined {
  if (units <= 0) return undefined;
  const perUnit = defects / units;
  return {
    defects,
    perUnit,
    ...(joints > 0 ? { perMillion: (1e6 * defects) / (units * joints) } : {}),
    clean: Math.exp(-perUnit),
  };
}

/** One bar of a Pareto chart: how many, and the share of all up to and with it. */
export interface Bar {
  readonly name: string;
  readonly n: number;
  readonly upTo: number;
}

/**
 * Names by how often they come, most often first, of equals by name; EX 9.7: bridge 9, insufficient 5, polarity 3, missing 2,
 * other 1 → 0.45, 0.70, 0.85, 0.95, 1.00.
 */
export function pareto(names: readonly string[]): Bar[] {
  const counts = new Map<string, number>();
  for (const n of names) counts.set(n, (counts.get(n) ?? 0) + 1);
  let sum = 0;
  return [...counts]
    .sort(([a, n], [b, m]) => m - n || (a < b ? -1 : 1))
    .map(([name, n]) => {
      sum += n;
      return { name, n, upTo: sum / names.length };
    });
}
