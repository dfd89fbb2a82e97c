import { choiceOf, type PanelChoice } from "../panel/choice.ts";
import { solvePanel } from "../panel/lay/solve.ts";
import { DEFAULT_SPEC, isRefusal, type PanelDesign } from "../panel/spec.ts";
import { boardK } from "./board-k.fixture.ts";
import type { RunDocument } from "./document/document.ts";
import { FAR, madeMeasure } from "./made-up.fixture.ts";
import { rollUp } from "./roll-up.ts";
import { runDesigns } from "./sheet/panel.ts";

const sized = (w: number, h: number) =>
  madeMeasure({
    outline: {
      widthMm: w,
      heightMm: h,
      areaMm2: w * h,
      perimeterMm: 2 * (w + h),
      cutouts: 0,
      closed: true,
      rings: [[0, 0, w, 0, w, h, 0, h]],
    },
    extentMm: [0, 0, w, h],
    thicknessMm: 1.6,
  });
/** Board K with its outline, and a smaller one. */
export const [measure, small] = [sized(50, 40), sized(20, 20)];
/** A run of Board K alone at the far house. */
export const single = (more: Partial<RunDocument> = {}) =>
  boardK({ boards: [{ name: "Board K", perProduct: 1, measure }], house: FAR, houses: [FAR], ...more });

/** Four of Board K by tabs: 2 × 2, rails above and below. */
export function four(doc: RunDocument): PanelChoice {
  const spec = { ...DEFAULT_SPEC, counts: [4], turns: [[0]], separation: "tabs" as const };
  const made = solvePanel(runDesigns(doc) as PanelDesign[], spec);
  if (isRefusal(made)) throw new Error(made.reason);
  return choiceOf(made, spec, ["board 0"]);
}
/** The same run on those sheets. */
export const onSheets = (more: Partial<RunDocument> = {}) => {
  const doc = single(more);
  return { ...doc, choices: { ...doc.choices, panel: four(doc) } };
};
/** What stands in the margin of Panel. */
export const panelNotes = (doc: RunDocument) => rollUp(doc).notes.filter((n) => n.stage === "panel");
