import type { PackageClass } from "./package-class.ts";
import type { CountedPart } from "./yield.ts";

/** Seconds by iron and to place on paste (domain.md 7.3; placeholder values of a practised builder). */
const IRON: Readonly<Record<PackageClass, (joints: number) => number>> = {
  chip: () => 25,
  chip0402: () => 40,
  chip0201: () => 90,
  diode: () => 25,
  small: () => 30,
  tab: () => 30,
  gull: (j) => 20 + 3 * j,
  gullFine: (j) => 40 + 3.5 * j,
  leadless: () => 120,
  ball: () => 240,
  connector: (j) => 30 + 4 * j,
  through: (j) => 8 + 7 * j,
  loose: () => 0,
};
const PLACE: Readonly<Record<PackageClass, number>> = {
  chip: 6,
  chip0402: 9,
  chip0201: 18,
  diode: 6,
  small: 8,
  tab: 8,
  gull: 12,
  gullFine: 20,
  leadless: 20,
  ball: 30,
  connector: 15,
  through: 0,
  loose: 0,
};

/** Own time for one board, by step, in seconds. */
export interface BoardTime {
  readonly print: number;
  readonly place: number;
  readonly reflow: number;
  readonly solder: number;
  readonly inspect: number;
  readonly total: number;
  /** Boards that are heated in one load. */
  readonly perLoad: number;
}

/** Seconds of own time to place a part of a line and to solder it, for all of them on a board (domain.md 7.3). */
export function secondsOf(p: CountedPart): { readonly place: number; readonly solder: number } {
  if (p.method === "house" || p.count === 0) return { place: 0, solder: 0 };
  const polarised = p.isPolarised && p.kind !== "through" ? 2 : 0;
  return p.method === "stencil" && p.kind !== "through"
    ? { place: p.count * (PLACE[p.kind] + polarised), solder: 0 }
    : { place: 0, solder: p.count * (IRON[p.kind](p.joints) + polarised) };
}

/** Seconds of soldering a joint that goes through the board that are for cutting its lead (domain.md 7.3). */
export const TRIM_SECONDS = 2;
/** Seconds to wash a board: the middle of 30 to 60 (domain.md 7.3). */
export const WASH_SECONDS = 45;

/**
 * Own time per board. Stencil: print 60, place, reflow 360 a load, through-hole by iron, inspection 20 + 0.6 a joint;
 * iron: every part by hand. What a house solders costs no own time here (domain.md 7.3).
 *
 * @param perLoad boards in one reflow load
 * @param boards in one product: each is looked at by itself
 * @param sides that get paste, over the boards of one product: each is printed and heated by itself
 * @example Board K: iron 888 s, stencil on a plate with 4 a load 496.8 s (EX 7.2)
 */
export function boardTime(parts: readonly CountedPart[], perLoad = 4, boards = 1, sides = boards): BoardTime {
  let [place, solder, joints] = [0, 0, 0];
  let hasPaste = false;
  for (const p of parts) {
    if (p.method === "house" || p.count === 0) continue;
    const seconds = secondsOf(p);
    joints += p.count * p.joints;
    if (p.method === "stencil" && p.kind !== "through") hasPaste = true;
    place += seconds.place;
    solder += seconds.solder;
  }
  const print = hasPaste ? 60 * sides : 0;
  const reflow = hasPaste ? (360 * sides) / perLoad : 0;
  const inspect = joints > 0 && hasPaste ? 20 * boards + 0.6 * joints : 0;
  return { print, place, reflow, solder, inspect, total: print + place + reflow + solder + inspect, perLoad };
}

/**
 * Own set-up time of a run in minutes (domain.md 7.3): a stencil is mounted, lined up and cleaned for each side; an iron
 * and the files and questions of a house are one piece of work a design.
 */
export const setupMinutes = (method: "iron" | "stencil" | "house", designs: number, sides: number): number =>
  method === "stencil" ? 35 * sides : { iron: 15, house: 30 }[method] * designs;
/** Minutes to check an oven's profile for a run (domain.md 7.3). */
export const OVEN_CHECK_MIN = 15;
