import { chosenValues } from "./fit-options.ts";
import type { BandKey, House, HouseLimits, PriceBand } from "./house.ts";
import type { FabOptions } from "./options.ts";

type Single = Exclude<keyof HouseLimits, "minBoardMm" | "maxBoardMm">;
const isSides = (v: number | readonly [number, number]): v is readonly [number, number] =>
  typeof v !== "number";

/** The narrower of two limits of one key. */
function narrower(key: string, a: number, b: number): number {
  return key.startsWith("max") ? Math.min(a, b) : Math.max(a, b);
}

/**
 * What a house holds for a board: its limits, those of the layer stack in their place, and what the values chosen narrow.
 *
 * @param layers of the board; a stack without limits of its own has the house's
 */
export function limitsOf(house: House, layers: number, options: FabOptions): HouseLimits {
  const stack = house.stacks?.find((s) => s.layers.includes(layers))?.limits;
  const out: Record<string, number | readonly [number, number]> = { ...house.limits, ...stack };
  for (const { limits } of chosenValues(house, options))
    for (const [key, value] of Object.entries(limits ?? {}) as [
      Single,
      number | readonly [number, number],
    ][]) {
      const has = out[key];
      if (isSides(value) || has === undefined || isSides(has)) out[key] = value;
      else out[key] = narrower(key, has, value);
    }
  return out as HouseLimits;
}

/**
 * The steps of extra price a board reaches: of each limit the lowest step its measure lies below.
 *
 * @param measured what the board has, by the limit that judges it; what is not measured reaches none
 */
export function bandsOf(
  house: House,
  measured: Readonly<Partial<Record<BandKey, number>>>,
): (PriceBand & { readonly value: number })[] {
  const least = new Map<string, PriceBand & { value: number }>();
  for (const band of house.bands ?? []) {
    const values = band.limits.flatMap((key) => measured[key] ?? []);
    const value = Math.min(...values);
    if (values.length === 0 || value >= band.below - 1e-9) continue;
    const key = band.limits.join(" ");
    const has = least.get(key);
    if (!has || band.below < has.below) least.set(key, { ...band, value });
  }
  return [...least.values()];
}
