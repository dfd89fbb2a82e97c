import type { BoardColours } from "../workers/paint.ts";

/** Mask colours as they look on copper and beside it; our own mixing, by eye. */
const MASKS: Readonly<Record<string, readonly [string, string]>> = {
  green: ["#1f5a45", "#2f7a5c"],
  black: ["#1d2124", "#34393c"],
  blue: ["#1f3f6e", "#315a93"],
  white: ["#e9e6dd", "#d8d2c2"],
  red: ["#7d2429", "#a03a3a"],
  clear: ["#b99a5b", "#c98f4e"],
  purple: ["#3a2150", "#553377"],
  yellow: ["#b8921a", "#d0ab33"],
  none: ["#b7a878", "#c4844c"],
};
const INKS: Readonly<Record<string, string>> = { white: "#f2efe6", black: "#15181a", yellow: "#e3c33e" };

const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** Colours of a painted board: its own materials, and the page's paper under it. */
export function boardColours(mask: string, finish: string, legend: string): BoardColours {
  const [body, copper] = MASKS[mask] ?? MASKS.green!;
  return {
    mask: body,
    copperUnderMask: copper,
    finish:
      finish.startsWith("levelled") ||
      finish === "tinned" ||
      finish.includes("silver") ||
      finish.includes("tin")
        ? "#c5c7c4"
        : finish === "bare" || finish === "organic"
          ? "#c98a55"
          : "#d9b45f",
    laminate: "#b7a878",
    legend: INKS[legend] ?? INKS.white!,
    edge: token("--metal-line"),
    forward: token("--metal"),
    paper: token("--sheet"),
    grid: token("--grid"),
  };
}
