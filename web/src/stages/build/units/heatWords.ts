import { classOf, heatsOf, type RunRecord, type StepsDocument } from "@kobbin/core";
import { count } from "../../../ui/text/format.ts";

/**
 * How often a board went through the heat whole, with what, and at how many places it was soldered again; empty where nothing
 * of it is written down, which is not the same as never.
 */
export function heatWords(
  steps: StepsDocument["steps"],
  { sittings, defects }: Pick<RunRecord, "sittings" | "defects">,
  unit: number,
): string {
  const heats = heatsOf(steps, sittings ?? [], unit);
  const again = new Set(
    (defects ?? [])
      .filter((d) => d.unit === unit && d.isMended && classOf(d.code) === "joint")
      .map((d) => d.at),
  ).size;
  const whole = heats
    .map((h) => [h.words, h.heater ?? "in what is not said"].filter(Boolean).join(": "))
    .join("; ");
  return [
    heats.length > 0 && `${heats.length === 1 ? "once" : `${heats.length} times`} (${whole})`,
    again > 0 && `soldered again at ${count(again, "place")}`,
  ]
    .filter(Boolean)
    .join("; ");
}
