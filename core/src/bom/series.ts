import { lettersOf } from "./refs.ts";
import { E24, isPreferred, readValue } from "./value.ts";

/**
 * True where a resistor, capacitor or inductor has a value that no series of preferred numbers holds, which is a typing
 * error as a rule (IEC 60063; domain.md 3.3): resistors up to E192, the others up to E24. Values that do not read are
 * none, nor jumpers, nor shunts below an ohm, which come in round milliohms.
 *
 * @example isOutOfSeries("4k8", "R1") // true
 */
export function isOutOfSeries(valueText: string, ref: string | undefined): boolean {
  const { value } = readValue(valueText, ref);
  const kind = lettersOf(ref ?? "");
  if (!value || value.si <= 0 || (kind === "R" && value.si < 1) || !["R", "C", "L"].includes(kind))
    return false;
  // three digits before the point; what is left of a double's dust is less than a millionth
  const scaled = value.si / 10 ** (Math.floor(Math.log10(value.si) + 1e-9) - 2);
  const digits = Math.round(scaled);
  if (Math.abs(scaled - digits) > 1e-6 * digits) return true;
  if (kind === "R") return !isPreferred(String(digits));
  return digits % 10 !== 0 || !E24.includes(digits / 10);
}

/**
 * The values of the series of 24 next below and next above a value; one where the value is in the series itself.
 * @example nearestPreferred(300e3 / 7) // [39000, 43000]
 */
export function nearestPreferred(value: number): number[] {
  if (!(value > 0) || !Number.isFinite(value)) return [];
  const decade = 10 ** (Math.floor(Math.log10(value) + 1e-9) - 1);
  const steps = [...E24, 100].map((d) => Number((d * decade).toPrecision(6)));
  const below = steps.filter((s) => s <= value * (1 + 1e-9)).at(-1)!;
  const above = steps.find((s) => s >= value * (1 - 1e-9))!;
  return below === above ? [below] : [below, above];
}
