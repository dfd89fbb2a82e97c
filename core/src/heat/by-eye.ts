import type { HeatWindow } from "./window.ts";

/** What somebody who watches a board melt has pressed so far, ms: it was put on, the solder shone, it was taken off. */
export interface HeatPresses {
  readonly onAt?: number;
  readonly meltedAt?: number;
  readonly offAt?: number;
}

/** How a heat that is watched by eye stands. */
export interface HeatStand {
  readonly phase: "cold" | "heating" | "melted" | "cooling" | "over";
  /** Of the phase. */
  readonly seconds: number;
  /** What is to be done now. */
  readonly say: string;
  /** How it looks: as it should, something is to be done now, too much. */
  readonly look: "fine" | "now" | "late";
  /** What the next press stands for; nothing once it is over. */
  readonly press?: "on" | "melted" | "off";
}

/**
 * A heat without a thermometer, by the window of its paste (domain.md 7.8): seconds from being put on, while the solder is
 * liquid, and until it may be moved: at the steepest fall the window allows, from its greatest peak to the liquidus, no sooner.
 */
export function heatStand(w: HeatWindow, p: HeatPresses, now: number): HeatStand {
  const since = (at: number) => Math.max(0, Math.floor((now - at) / 1000));
  if (p.onAt === undefined)
    return { phase: "cold", seconds: 0, say: "Put it on, and press as you do.", look: "fine", press: "on" };
  if (p.meltedAt === undefined && p.offAt === undefined) {
    const seconds = since(p.onAt);
    return seconds > w.toPeakS
      ? {
          phase: "heating",
          seconds,
          say: `Longer than ${minutes(w.toPeakS)} without melting: too little heat, or the flux is used up.`,
          look: "late",
          press: "melted",
        }
      : { phase: "heating", seconds, say: "Press when the solder shines.", look: "fine", press: "melted" };
  }
  if (p.offAt === undefined) {
    const seconds = since(p.meltedAt!);
    const [least, most] = w.aboveS;
    const at = { phase: "melted", seconds, press: "off" } as const;
    if (seconds < least) return { ...at, say: `Leave it: ${least - seconds} s to go.`, look: "fine" };
    if (seconds <= most) return { ...at, say: "Off now, gently, and level.", look: "now" };
    return { ...at, say: `Liquid for longer than ${most} s: take it off.`, look: "late" };
  }
  const seconds = since(p.offAt);
  const still = stillSeconds(w);
  return seconds < still
    ? { phase: "cooling", seconds, say: `Do not move it: ${still - seconds} s at least.`, look: "now" }
    : { phase: "over", seconds, say: "Move it once every joint is dull.", look: "fine" };
}

/** Seconds before a board may be moved, at the least. @example 250 to 217 °C at 4 °C/s: 9 */
export const stillSeconds = (w: Pick<HeatWindow, "peakC" | "liquidusC" | "coolCps">): number =>
  Math.ceil((w.peakC[1] - w.liquidusC) / w.coolCps);

const minutes = (s: number) => `${s / 60} min`;
