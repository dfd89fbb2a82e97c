import type { PackageClass } from "./package-class.ts";

/** Share lost and least number lost, by hand and by machine. */
export interface Loss {
  readonly hand: readonly [share: number, least: number];
  readonly machine: readonly [share: number, least: number];
}

/** What is lost of a kind of package; "costly" parts are looked after whatever their package. */
export type LossKind = PackageClass | "costly";

/** What a shop lost otherwise than usual. */
export type OwnLosses = Readonly<Partial<Record<LossKind, Loss>>>;

/** Usual losses (domain.md 3.7, placeholder values a shop replaces). */
export const ATTRITION: Readonly<Record<LossKind, Loss>> = {
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
 * @param own the shop's own losses, where it has them
 * @example needOf(31, 8, "chip", "hand") // 261 (EX 3.2)
 */
export function needOf(
  boards: number,
  perBoard: number,
  kind: LossKind,
  by: "hand" | "machine",
  own: OwnLosses = {},
): number {
  const net = boards * perBoard;
  if (net === 0) return 0;
  const [share, least] = (own[kind] ?? ATTRITION[kind])[by];
  return net + Math.max(Math.ceil(net * share - 1e-9), least);
}

/** Pitch of the pockets in a tape, mm; classes that do not come in tape of a few millimetres are left out. */
const POCKET_MM: Readonly<Partial<Record<LossKind, number>>> = {
  chip0201: 2,
  chip0402: 2,
  chip: 4,
  diode: 4,
  small: 4,
};

/** Whether a class comes in tape, as a strip that a feeder takes. */
export const isTaped = (kind: LossKind): boolean => POCKET_MM[kind] !== undefined;

/**
 * Parts that go as the leader of a strip in a feeder: ⌈length / pocket pitch⌉ (domain.md 3.7).
 * @example leaderPieces("chip", 150) // 38 (EX 3.3)
 */
export const leaderPieces = (kind: LossKind, leaderMm: number): number => {
  const pitch = POCKET_MM[kind];
  return pitch === undefined ? 0 : Math.ceil(leaderMm / pitch - 1e-9);
};
