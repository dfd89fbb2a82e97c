import { signedArea } from "../geometry/polygon.ts";
import { boxAround } from "../geometry/turn.ts";
import { solvePanel } from "./lay/solve.ts";
import {
  DEFAULT_SPEC,
  isRefusal,
  type PanelDesign,
  type PanelLayout,
  type PanelRefusal,
  type PanelSpec,
} from "./spec.ts";

export const ringed = (
  name: string,
  outline: readonly number[],
  more: Partial<PanelDesign> = {},
): PanelDesign => ({
  name,
  outline,
  cutouts: [],
  areaMm2: signedArea(outline),
  box: boxAround([outline]),
  layers: 2,
  bans: [],
  outward: [],
  overhangs: [],
  isTwoSided: false,
  ...more,
});
export const rect = (w: number, h: number, more: Partial<PanelDesign> = {}) =>
  ringed(`${w} × ${h}`, [0, 0, w, 0, w, h, 0, h], more);
export const spec = (more: Partial<PanelSpec>): PanelSpec => ({
  ...DEFAULT_SPEC,
  counts: [9],
  turns: [[0, 90, 180, 270]],
  ...more,
});
export const solved = (designs: readonly PanelDesign[], s: PanelSpec): PanelLayout => {
  const made = solvePanel(designs, s);
  if (isRefusal(made)) throw new Error(made.reason);
  return made;
};
export const refused = (designs: readonly PanelDesign[], s: PanelSpec): PanelRefusal => {
  const made = solvePanel(designs, s);
  if (!isRefusal(made)) throw new Error("it was made");
  return made;
};
