import type { MeterAnswer } from "@kobbin/contract";
import { chance } from "./catalogue.ts";

/** Readings lie so far from what the probes are near, at most. */
const SPREAD = 0.01;

/**
 * What a simulated meter shows. It touches no board: what its probes would be near is told to it, and it shows something
 * within a hundredth of that.
 *
 * @param reading tells one reading from every other; the same one shows the same
 * @param near decimal text in the unit
 */
export function shownBy(reading: string, unit: string, near: string | undefined): MeterAnswer {
  const told = near === undefined ? Number.NaN : Number(near);
  const at = Number.isFinite(told) ? told : 10 * chance(`${reading} of nothing`);
  const value = at * (1 + SPREAD * (2 * chance(reading) - 1));
  return { shows: String(Number(value.toPrecision(4))), unit };
}
