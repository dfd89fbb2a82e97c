import { type DataShape, fields, maybe, number, tuple } from "../shape/index.ts";

export const ALLOYS = ["lead", "silver", "bismuth"] as const;
export type Alloy = (typeof ALLOYS)[number];
/** What each is called. */
export const ALLOY_WORDS: Readonly<Record<Alloy, string>> = {
  lead: "tin-lead",
  silver: "tin-silver-copper",
  bismuth: "tin-bismuth",
};

/** What a paste wants of its heat: the mean range of its alloy until its data sheet says otherwise. */
export interface HeatWindow {
  readonly liquidusC: number;
  /** Levels of the soak, and how long it should last. */
  readonly soakC: readonly [number, number];
  readonly soakS: readonly [number, number];
  /** Seconds above the liquidus, and the bounds that must not be left; without those the first must not. */
  readonly aboveS: readonly [number, number];
  readonly aboveOuterS?: readonly [number, number];
  readonly peakC: readonly [number, number];
  /** Steepest rise and fall, °C/s. */
  readonly rampCps: number;
  readonly coolCps: number;
  readonly coolOuterCps?: number;
  /** Between the probes while all are above the liquidus, °C. */
  readonly spreadC: number;
  readonly toPeakS: number;
}

/** Ranges by alloy (domain.md 7.8): tin-lead 63/37, tin-silver-copper, tin-bismuth. */
export const WINDOWS: Readonly<Record<Alloy, HeatWindow>> = {
  lead: {
    liquidusC: 183,
    soakC: [100, 150],
    soakS: [60, 120],
    aboveS: [45, 90],
    aboveOuterS: [30, 150],
    peakC: [205, 225],
    rampCps: 3,
    coolCps: 4,
    coolOuterCps: 6,
    spreadC: 10,
    toPeakS: 360,
  },
  silver: {
    liquidusC: 217,
    soakC: [150, 200],
    soakS: [60, 120],
    aboveS: [45, 90],
    aboveOuterS: [30, 150],
    peakC: [235, 250],
    rampCps: 3,
    coolCps: 4,
    coolOuterCps: 6,
    spreadC: 10,
    toPeakS: 480,
  },
  bismuth: {
    liquidusC: 138,
    soakC: [90, 130],
    soakS: [60, 120],
    aboveS: [30, 90],
    peakC: [165, 185],
    rampCps: 2,
    coolCps: 3,
    spreadC: 10,
    toPeakS: 360,
  },
};

const value = number(0, 100_000);
const range: DataShape = (v, path) => {
  const wrong = tuple(value, value)(v, path);
  if (wrong) return wrong;
  const [least, most] = v as [number, number];
  return least > most ? `${path} is from ${least} to ${most}, which is nothing` : undefined;
};
const none: DataShape = (_, path) => `${path} is no part of a window`;
/** What of a window is another than its alloy's. */
export const windowShape: DataShape = fields(
  {
    liquidusC: maybe(value),
    soakC: maybe(range),
    soakS: maybe(range),
    aboveS: maybe(range),
    aboveOuterS: maybe(range),
    peakC: maybe(range),
    rampCps: maybe(value),
    coolCps: maybe(value),
    coolOuterCps: maybe(value),
    spreadC: maybe(value),
    toPeakS: maybe(value),
  },
  none,
);
