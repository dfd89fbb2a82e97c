import { type Flow, type FlowAsk, RISE_K } from "@kobbin/core";
import { said, written } from "../../../../ui/text/format.ts";

/** A supply may lose so much of its volts on the way before it is told: what regulators are usually off by. */
export const DROP_SHARE = 0.03;

const n = (x: number) => written(String(Number(x.toPrecision(3))));
/** "12.3 mA", "1.45 A". */
export const amps = (ma: number): string => (Math.abs(ma) >= 1000 ? `${n(ma / 1000)} A` : `${n(ma)} mA`);
/** "0.4 mV", "under 0.1 mV". */
export const volts = (mv: number): string =>
  mv < 0.1 ? said("under 0.1 mV") : mv >= 1000 ? `${n(mv / 1000)} V` : `${n(mv)} mV`;
/** How much warmer: "under 0.1 K", "12 K". */
export const kelvin = (k: number): string => (k < 0.1 ? said("under 0.1 K") : `${n(k)} K`);

/** Warmest of tracks and holes of a net. */
export const warmest = (f: Flow): number => Math.max(0, f.stretches[0]?.riseK ?? 0, f.holes[0]?.riseK ?? 0);

/** What of a net wants a look. */
export function flowLook(f: Flow, ask: Pick<FlowAsk, "volts">): "warm" | "drop" | undefined {
  if (warmest(f) > RISE_K) return "warm";
  const most = f.drops[0]?.mv ?? 0;
  return ask.volts !== undefined && most > 1000 * Math.abs(ask.volts) * DROP_SHARE ? "drop" : undefined;
}

/** Nets by what wants a look, then by how warm they get. */
export const byNeed = <T extends { readonly flow: Flow; readonly ask: FlowAsk }>(list: readonly T[]): T[] =>
  [...list].sort(
    (a, b) =>
      Number(flowLook(b.flow, b.ask) !== undefined) - Number(flowLook(a.flow, a.ask) !== undefined) ||
      warmest(b.flow) - warmest(a.flow),
  );
