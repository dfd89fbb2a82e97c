import { INTENDED } from "../fit/intended.ts";
import type { Intended } from "../fit/row.ts";
import type { LessonCheck } from "./lesson.ts";

type PlaceCheck = Extract<LessonCheck, { kind: "place" }>;

/** What cannot be at one place with what, on whichever sides: light goes through both, and where the board is cut out nothing is. */
const NEVER: Readonly<Record<Intended, readonly Intended[]>> = {
  solder: ["window", "cutout"],
  contact: ["window", "cutout"],
  copper: ["window", "cutout"],
  window: ["solder", "contact", "copper", "cutout"],
  drawing: ["cutout"],
  cutout: ["solder", "contact", "copper", "window", "drawing"],
};

/**
 * Why no board can hold two lessons at once: both are of one place (the middle of the one lies in the other, or they name a
 * pin both) and want of it what cannot be together. Limits of measures and slots all count one way, so two of them never do.
 *
 * @returns the two in words; undefined where a board can hold both, or where one is by pins and the other by a place: where a
 *   pin lies is another on every board
 */
export function contradictionOf(a: LessonCheck, b: LessonCheck): string | undefined {
  if (a.kind !== "place" || b.kind !== "place" || !NEVER[a.what].includes(b.what)) return undefined;
  return isOnePlace(a, b) ? `one place is not ${INTENDED[a.what]} and ${INTENDED[b.what]}` : undefined;
}

function isOnePlace(a: PlaceCheck, b: PlaceCheck): boolean {
  if (a.at && b.at)
    return (
      Math.hypot(a.at[0] - b.at[0], a.at[1] - b.at[1]) <= Math.max(a.diameterMm, b.diameterMm) / 2 + 1e-9
    );
  return a.pins?.some((p) => b.pins?.includes(p)) ?? false;
}
