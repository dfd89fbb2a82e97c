import type { Finding } from "../findings.ts";
import { orGivenUp, Work } from "../geometry/work.ts";
import { Attempts, NotMeasurable } from "./attempts.ts";
import type { BoardSet } from "./board-file.ts";
import { compareFootprints, sayDoubledNames } from "./check/footprints.ts";
import { padsByRef, patternsOf } from "./check/part-pads.ts";
import { sayUnmarked, shapeOf } from "./check/pin-marks.ts";
import { reconcile } from "./check/reconcile.ts";
import { sayMissingNames } from "./check/references.ts";
import { checkRegistration } from "./check/registration-check.ts";
import { isIn } from "./copper/coats.ts";
import { measureDrills } from "./measure/drills.ts";
import { measureCoats } from "./measure/measure-coats.ts";
import { measureCopper } from "./measure/measure-copper.ts";
import { type Ground, groundOf, type Progress } from "./measure/measure-ground.ts";
import { emptyMeasure, rowOf } from "./measure/measure-keys.ts";
import { type Joined, joinBoard } from "./measure/measure-nets.ts";
import { documentOf } from "./measure/measure-result.ts";
import type { Measure } from "./measure-document.ts";
import { checkAgainstJob } from "./read/job-figures.ts";

/**
 * Measures a board from what was read out of its files. Exact geometry, never pixels.
 *
 * Method per measure: domain.md 2.4; spacing between islands and between nets, ring on the worst layer, widths from the
 * strokes and from the necks of filled areas. Each least value carries its worst places.
 *
 * What takes more steps than a board can need is given up and said; its figures are left out.
 *
 * @param progress called with what is being measured and the share done
 * @param work what measuring may take in all
 */
export function measureBoard(
  set: BoardSet,
  progress: (what: string, share: number) => void = () => {},
  work = Work.ofBoard(),
): Measure {
  const findings: Finding[] = [...set.findings];
  const attempts = new Attempts(findings, work);
  let stage = "";
  const tell = (what: string, share: number) => {
    stage = what;
    progress(what, share);
  };
  try {
    // whatever is not a piece of its own is one with its stage
    return orGivenUp(
      () => measured(set, findings, attempts, tell),
      (error) => attempts.giveUp(`Measuring (${stage})`, error),
    );
  } catch (error) {
    if (!(error instanceof NotMeasurable)) throw error;
    return { ...emptyMeasure(set.files.map(rowOf)), reason: error.message, findings };
  }
}

function measured(set: BoardSet, findings: Finding[], attempts: Attempts, progress: Progress): Measure {
  if (!set.files.some((f) => f.role !== "unknown" && f.role !== "drawing" && (f.layer || f.drill)))
    return nothingThere(set, findings);
  const ground = groundOf(set, findings, attempts, progress);
  const joined = joinBoard(set, ground, findings, progress);
  const { copper, copperFiles, masks, outline } = ground;
  const { drills, holes, slots, bodies, nets, pads, openOf } = joined;
  progress("drills", 0.65);
  const isOpen = (x: number, y: number) => masks.some((m) => m && isIn(m, x, y));
  const drilled = measureDrills(
    { drills, holes, slots, bodies, copper, outline, nets, isOpen, attempts },
    findings,
  );
  const layers = copper.map((l, i) => ({ ...l, file: copperFiles[i]! }));
  checkRegistration(ground.used, holes, layers, pads.flat(), findings);
  progress("tracks and gaps", 0.7);
  const gaps = measureCopper(copper, nets, outline, attempts);
  progress("mask, paste, silkscreen", 0.82);
  const netOf = (i: number, k: number) => nets.groups.find(nets.offsets[i]! + k);
  const coats = measureCoats({ ...ground, openOf, netOf }, findings);
  const crossCheck = compareWithParts(set, ground, joined, coats, findings, attempts);
  checkAgainstJob(set, copperFiles.length, outline, findings);
  progress("done", 1);
  return documentOf(set, { ...ground, ...joined, drilled, gaps, coats, crossCheck }, findings);
}

function nothingThere(set: BoardSet, findings: Finding[]): Measure {
  const reason = "No file in the drop has a role on a board.";
  findings.push({
    tag: "archive-invalid",
    level: "error",
    text: reason,
    do: "Drop the layers and drills your layout program wrote.",
  });
  return { ...emptyMeasure(set.files.map(rowOf)), reason, findings };
}

/** Pads by the part they belong to, held against their like, the ink, the parts list and the places. */
function compareWithParts(
  set: BoardSet,
  { copper }: Ground,
  { openOf }: Joined,
  coats: ReturnType<typeof measureCoats>,
  findings: Finding[],
  attempts: Attempts,
): Measure["crossCheck"] {
  const sideOf = (i: number) => copper[i]!.name;
  const byRef = padsByRef(openOf.flat(), sideOf, set.netlist?.points ?? [], coats.isSoldered, (p) =>
    shapeOf(copper[p.layer]!.image, p.object),
  );
  const patterns = patternsOf(byRef, set.placements?.parts ?? []);
  compareFootprints(patterns, findings);
  sayDoubledNames(new Map([...byRef].map(([ref, p]) => [ref, p.places])), findings);
  attempts.optional("The search for marks of direction", "Which parts lack one is", () =>
    sayUnmarked(patterns, byRef, coats.legends, set.bom, findings),
  );
  sayMissingNames(patterns, coats.legends, findings);
  const placementFile = set.files.find((f) => f.role === "placement")?.path ?? "";
  return reconcile(set.bom, set.placements, byRef, openOf.flat(), sideOf, placementFile, findings);
}
