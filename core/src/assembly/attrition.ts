import type { PackageClass } from "./package-class.ts";

/** Share and least number lost, by hand and by machine (domain.md 3.7, placeholder values a shop replaces). */
export const ATTRITION: Readonly<
  Record<
    PackageClass | "costly",
    { readonly hand: readonly [number, number]; readonly machine: readonly [number, number] }
  >
> = {
  chip0201: { hand: [0.1, 10], machine: [0.05, 50] },
  chip0402: { hand: [0.08, 5], machine: [0.03, 20] },
  chip: { hand: [0.05, 3], machine: [0.02, 10] },
  diode: { hand: [0.03, 2], machine: [0.02, 5] },
  small: { hand: [0.03, 2], machine: [0.02, 5] },
  tab: { hand: [0.02, 1], machine: [0.01, 1] },
  gull: { hand: [0.02, 1], machine: [0.01, 1] },
  gullFine: { hand: [0.02, 1], machine: [0.01, 1] },
  leadless: { hand: [0.02, 1], machine: [0.01, 1] },
  ball: { hand: [0, 1], machine: [0, 1] },
  connector: { hand: [0.01, 1], machine: [0.01, 2] },
  through: { hand: [0, 1], machine: [0, 1] },
  loose: { hand: [0, 0], machine: [0, 0] },
  costly: { hand: [0, 1], machine: [0, 1] },
};

/**
 * Parts to have for n boards: n·q + max(⌈n·q·a⌉, m) (domain.md 3.7).
 * @example needOf(31, 8, "chip", "hand") // 261 (EX 3.2)
 */
export function needOf(
  boards: number,
  perBoard: number,
  kind: PackageClass | "costly",
  by: "hand" | "machine",
): number {
  const net = boards * perBoard;
  if (net === 0) return 0;
  const [share, least] = ATTRITION[kind][by];
  return net + Math.max(Math.ceil(net * share - 1e-9), least);
}
