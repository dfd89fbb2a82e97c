import type { Finding } from "../findings.ts";
import { orGivenUp, Work } from "../geometry/work.ts";
import { KIND } from "../gerber/image.ts";
import type { Role, Side } from "../role/role.ts";
import { Attempts, NotMeasurable } from "./attempts.ts";
import type { BoardFile, BoardSet } from "./board-file.ts";
import { isIn, openPads } from "./coats.ts";
import { checkNames, checkNetlist } from "./connectivity.ts";
import { analyseLayer, type LayerSolids } from "./copper.ts";
import { drillTable } from "./drill-table.ts";
import { measureDrills } from "./drills.ts";
import { compareFootprints, sayDoubledNames } from "./footprints.ts";
import { bodiesOf, groupHoles, settlePlating, settleSlots } from "./holes.ts";
import { checkAgainstJob } from "./job-figures.ts";
import { measureCoats } from "./measure-coats.ts";
import { measureCopper } from "./measure-copper.ts";
import type { Measure } from "./measure-document.ts";
import { emptyMeasure, layerName, outlineKeys, rowOf, slotKeys } from "./measure-keys.ts";
import { joinNets, listNets, padsOf } from "./nets.ts";
import { chainOutline } from "./outline.ts";
import { padsByRef, patternsOf } from "./part-pads.ts";
import { sayUnmarked, shapeOf } from "./pin-marks.ts";
import { reconcile } from "./reconcile.ts";
import { sayMissingNames } from "./references.ts";
import { checkRegistration } from "./registration-check.ts";
import { sayPanel } from "./sets.ts";
import { r6 } from "./worst.ts";

const SIDES = ["top", "bottom"] as const;

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

function measured(
  set: BoardSet,
  findings: Finding[],
  attempts: Attempts,
  progress: (what: string, share: number) => void,
): Measure {
  const used = set.files.filter((f) => f.role !== "unknown" && f.role !== "drawing");
  const layers = set.files.map(rowOf);
  const first = (role: Role, side?: Side) =>
    used.find((f) => f.role === role && (side === undefined || f.side === side));
  if (!used.some((f) => f.layer || f.drill)) {
    const reason = "No file in the drop has a role on a board.";
    findings.push({
      tag: "archive-invalid",
      level: "error",
      text: reason,
      do: "Drop the layers and drills your layout program wrote.",
    });
    return { ...emptyMeasure(layers), reason, findings };
  }
  progress("outline", 0.05);
  const profile = first("profile");
  const outline = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
  findings.push(...(outline?.findings ?? [NO_OUTLINE]));
  sayPanel(used, outline, findings);
  const copperFiles = copperOf(used);
  if (copperFiles.length === 0)
    findings.push({
      tag: "no-copper-layer",
      level: "error",
      text: "No file holds copper.",
      do: "Export the copper layers and drop them here, or correct the roles.",
    });
  const copper = copperFiles.map((f, i) => {
    progress(`copper ${layerName(f)}`, 0.1 + (0.4 * i) / copperFiles.length);
    return attempts.needed(`The copper ${layerName(f)} (${f.path})`, (work) =>
      analyseLayer(f.layer!, layerName(f), work),
    );
  });
  // without its mask a side is another board; paste and silkscreen are only looked at
  const masks = SIDES.map((side) => {
    const f = first("mask", side);
    return f?.layer
      ? attempts.needed(`The mask ${side} (${f.path})`, (work) =>
          analyseLayer(f.layer!, `mask ${side}`, work),
        )
      : undefined;
  });
  const coat = (role: "paste" | "legend", side: "top" | "bottom") => {
    const f = first(role, side);
    const name = role === "paste" ? "paste" : "silkscreen";
    return f?.layer
      ? attempts.optional(
          `The ${name} ${side} (${f.path})`,
          role === "paste"
            ? `The openings of the stencil on the ${side} are`
            : `Lines and text on the ${side} are`,
          (work) => analyseLayer(f.layer!, `${role} ${side}`, work),
        )
      : undefined;
  };

  progress("holes", 0.55);
  const drills = used.filter((f) => f.role === "drill" && f.drill);
  const holes = settlePlating(drills, copper);
  const slots = settleSlots(drills, copper);
  const bodies = bodiesOf(holes, slots);
  progress("nets", 0.6);
  const nets = joinNets(copper, bodies);
  const pads = copper.map((l, i) => padsOf(l, i, bodies));
  const openOf = copper.map((l, i) => openPads(pads[i]!, masks[SIDES.indexOf(l.name as "top" | "bottom")]));
  const netList = listNets(nets, copper, pads.flat());
  const netlist = set.netlist
    ? checkNetlist(set.netlist.points, set.netlist.file, nets, copper, findings)
    : undefined;
  checkNames(netList, findings);
  progress("drills", 0.65);
  const isOpen = (x: number, y: number) => masks.some((m) => m && isIn(m, x, y));
  const drilled = measureDrills(
    { drills, holes, slots, bodies, copper, outline, nets, isOpen, attempts },
    findings,
  );
  checkRegistration(
    used,
    holes,
    copper.map((l, i) => ({ ...l, file: copperFiles[i]! })),
    pads.flat(),
    findings,
  );

  progress("tracks and gaps", 0.7);
  const gaps = measureCopper(copper, nets, outline, attempts);

  progress("mask, paste, silkscreen", 0.82);
  const coats = measureCoats(
    {
      first,
      masks,
      copper,
      openOf,
      outline,
      coat,
      netOf: (i, k) => nets.groups.find(nets.offsets[i]! + k),
    },
    findings,
  );
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
  const check = reconcile(set.bom, set.placements, byRef, openOf.flat(), sideOf, placementFile, findings);
  checkAgainstJob(set, copperFiles.length, outline, findings);
  const { areaMm2: copperAreaMm2 } = gaps;
  const extent = outline?.box ?? boxOfPieces(copper);
  progress("done", 1);
  const area = outline?.areaMm2;
  const thicknessMm = set.job?.thicknessMm;
  return {
    kobbin: "measure/1",
    outcome: "accept",
    layers,
    layerOrder: copper.map((l) => l.name),
    ...(profile ? { outline: outlineKeys(outline!) } : {}),
    ...(extent ? { extentMm: extent } : {}),
    copperLayers: copper.length,
    ...(thicknessMm === undefined ? {} : { thicknessMm }),
    ...gaps.keys,
    ...drilled.keys,
    ...coats.keys,
    holes: groupHoles(holes),
    ...(drills.length > 0 ? { drillTable: drillTable(drills, holes, slots) } : {}),
    ...slotKeys(slots),
    copperFlashes: Object.fromEntries(
      copper.map((l, i) => [
        l.name,
        copperFiles[i]!.layer!.kind.reduce((n, k) => n + (k === KIND.flash ? 1 : 0), 0),
      ]),
    ),
    copperAreaMm2,
    copperIslands: Object.fromEntries(copper.map((l) => [l.name, l.islands.groups.count()])),
    ...(area
      ? { copperShare: Object.fromEntries(Object.entries(copperAreaMm2).map(([k, v]) => [k, r6(v / area)])) }
      : {}),
    ...(area && thicknessMm !== undefined && Object.keys(copperAreaMm2).length === copper.length
      ? { massG: r6(boardMass(area, thicknessMm, Object.values(copperAreaMm2))) }
      : {}),
    ...(thicknessMm !== undefined && drilled.leastPlated !== undefined
      ? { aspectRatio: r6(thicknessMm / drilled.leastPlated) }
      : {}),
    ...coats.counts,
    throughHolePads: drilled.throughHolePads,
    viaPads: drilled.viaPads,
    toolingHoles: holes.filter((h) => !h.plated && h.diameterMm >= 1).length,
    ...(drilled.castellated ? { castellatedHoles: drilled.castellated } : {}),
    ...(copper.length > 0
      ? {
          nets: {
            count: nets.count,
            islands: netList.map((n) => ({
              net: n.net,
              ...(n.name ? { name: n.name } : {}),
              pads: n.pads.map((p) => ({
                layer: copper[p.layer]!.name,
                x: r6(p.x),
                y: r6(p.y),
                ...(p.ref && p.pin !== undefined ? { pin: `${p.ref}.${p.pin}` } : {}),
              })),
            })),
            singlePad: netList.filter((n) => n.pads.length === 1).length,
          },
        }
      : {}),
    ...(netlist ? { netlist } : {}),
    ...(check ? { crossCheck: check } : {}),
    findings,
  };
}

const NO_OUTLINE: Finding = {
  tag: "outline-missing",
  level: "error",
  text: "No file holds the board's outline.",
  do: "Export the outline as its own layer and drop it here, or set the role of the file that holds it.",
};

/** One file per copper layer, in order through the board. */
function copperOf(used: readonly BoardFile[]): BoardFile[] {
  const order = (f: BoardFile) => (f.side === "top" ? 0 : f.side === "bottom" ? 1000 : (f.index ?? 500));
  const all = used
    .filter((f) => f.role === "copper" && f.layer && f.layer.n > 0)
    .sort((a, b) => order(a) - order(b));
  return all.filter((f, i) => all.findIndex((g) => layerName(g) === layerName(f)) === i);
}

/** Grams of laminate (1.85 g/cm³) and 35 µm copper (8.96 g/cm³) over the board's true area (densities of domain.md, typical). */
const boardMass = (areaMm2: number, thicknessMm: number, copperMm2: readonly number[]) =>
  (areaMm2 * (thicknessMm - 0.035 * copperMm2.length) * 1.85 +
    copperMm2.reduce((a, b) => a + b, 0) * 0.035 * 8.96) /
  1000;

function boxOfPieces(copper: readonly LayerSolids[]): [number, number, number, number] | undefined {
  let b: [number, number, number, number] | undefined;
  for (const { solids: s } of copper)
    for (let o = 0; o < s.count * 4; o += 4)
      b = b
        ? [
            Math.min(b[0], s.box[o]!),
            Math.min(b[1], s.box[o + 1]!),
            Math.max(b[2], s.box[o + 2]!),
            Math.max(b[3], s.box[o + 3]!),
          ]
        : [s.box[o]!, s.box[o + 1]!, s.box[o + 2]!, s.box[o + 3]!];
  return b;
}
