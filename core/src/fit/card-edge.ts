import type { EdgeContacts, Measure } from "../board/measure-document.ts";
import { railOf } from "../netlist/rails.ts";

/** Angles houses bevel at, degrees. */
export const BEVEL_ANGLES = [20, 30, 45] as const;
/** Beyond the bevel's depth outer copper keeps this distance, mm (domain.md 2.5). */
const BEHIND_BEVEL_MM = 0.2;
/** What a house's bevel may be deeper, mm (domain.md 5.6, ordinary). */
const BEVEL_TOL_MM = 0.25;
/** Boards thinner than this are usually not bevelled, mm. */
export const LEAST_BEVELLED_MM = 1;

/** Flat nose a bevel leaves, by the board's thickness, mm (domain.md 2.5); between them in proportion. */
const NOSES: readonly (readonly [number, number])[] = [
  [1.2, 0.4],
  [1.6, 0.5],
  [2, 0.6],
  [2.4, 0.8],
];

function noseOf(thicknessMm: number): number {
  const after = NOSES.findIndex(([t]) => t >= thicknessMm);
  if (after === 0) return NOSES[0]![1];
  if (after < 0) return NOSES.at(-1)![1];
  const [[t0, n0], [t1, n1]] = [NOSES[after - 1]!, NOSES[after]!];
  return n0 + ((thicknessMm - t0) / (t1 - t0)) * (n1 - n0);
}

/**
 * How far a bevel reaches along the board: d = (t − n) / (2 · tan α) (domain.md 2.5), with the flat nose usual for the thickness.
 * @example bevelDepth(1.6, 20) // 1.511
 */
export const bevelDepth = (thicknessMm: number, angleDeg: number): number =>
  Math.max(0, thicknessMm - noseOf(thicknessMm)) / (2 * Math.tan((angleDeg * Math.PI) / 180));

/** A bevel held against where the contacts end. */
export interface BevelMargin {
  readonly angleDeg: number;
  readonly depthMm: number;
  /** Set-back of the contacts that is right for it. */
  readonly needMm: number;
  /** What is left, below 0 what is missing, mm. */
  readonly marginMm: number;
  /** The grinder can reach copper: even a bevel at its deepest stays clear where it is false. */
  readonly canReach: boolean;
}

/** A rail on the contacts, with how many carry it. */
export interface RailOnContacts {
  readonly net: string;
  readonly kind: "ground" | "supply";
  /** On all sides. */
  readonly contacts: number;
  /** What they carry together, A. */
  readonly amps: number;
}

/** Edge contacts of a side, judged. */
export interface CardEdge {
  readonly side: string;
  readonly contacts: EdgeContacts;
  /** For the chosen thickness; left out while none is chosen. */
  readonly bevels?: readonly BevelMargin[];
  /** Too thin to be bevelled as a rule. */
  readonly isThin: boolean;
}

/**
 * Each contact of several in parallel counts as this share of one alone, since they share unevenly (typical).
 */
export const SHARE_IN_PARALLEL = 0.8;

/** The edge contacts of a board, each side against the bevels there are at the chosen thickness. */
export function cardEdgesOf(m: Measure, thicknessMm: number | undefined): CardEdge[] {
  return Object.entries(m.edgeContacts ?? {}).map(([side, contacts]) => ({
    side,
    contacts,
    ...(thicknessMm === undefined
      ? {}
      : { bevels: BEVEL_ANGLES.map((angle) => marginOf(thicknessMm, angle, contacts.setbackMm)) }),
    isThin: thicknessMm !== undefined && thicknessMm < LEAST_BEVELLED_MM,
  }));
}

/** A bevel against where the contacts begin. */
export function marginOf(thicknessMm: number, angleDeg: number, setbackMm: number): BevelMargin {
  const depthMm = bevelDepth(thicknessMm, angleDeg);
  return {
    angleDeg,
    depthMm: round(depthMm),
    needMm: round(depthMm + BEHIND_BEVEL_MM),
    marginMm: round(setbackMm - depthMm - BEHIND_BEVEL_MM),
    canReach: setbackMm < depthMm + BEVEL_TOL_MM,
  };
}

/**
 * The rails on the edge contacts: how many contacts of all sides carry each, and what they carry together.
 *
 * Nets go by their names ({@link railOf}), contacts by the line of their row. Where several share, {@link SHARE_IN_PARALLEL}
 * of their sum counts.
 *
 * @param ampsEach what one contact of the socket carries, A
 */
export function railsOnContacts(m: Measure, ampsEach: number): RailOnContacts[] {
  const rows = Object.entries(m.edgeContacts ?? {});
  return (m.nets?.islands ?? []).flatMap((island): RailOnContacts[] => {
    const kind = island.name === undefined ? undefined : railOf(island.name);
    if (!kind) return [];
    const contacts = island.pads.filter((p) =>
      rows.some(([side, row]) => p.layer === side && isInRow(p, row)),
    ).length;
    if (contacts === 0) return [];
    const amps = contacts === 1 ? ampsEach : contacts * ampsEach * SHARE_IN_PARALLEL;
    return [{ net: island.name!, kind, contacts, amps: round(amps) }];
  });
}

function isInRow(
  p: { readonly x: number; readonly y: number },
  { from, to, widthMm }: EdgeContacts,
): boolean {
  if (!from || !to) return false;
  const near = (v: number, a: number, b: number) =>
    v >= Math.min(a, b) - widthMm / 2 && v <= Math.max(a, b) + widthMm / 2;
  return near(p.x, from.x, to.x) && near(p.y, from.y, to.y);
}

const round = (v: number) => Math.round(v * 1000) / 1000;
