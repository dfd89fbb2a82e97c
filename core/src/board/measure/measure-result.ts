import type { Finding } from "../../findings.ts";
import { KIND } from "../../gerber/image.ts";
import type { BoardSet } from "../board-file.ts";
import type { LayerSolids } from "../copper/copper.ts";
import { groupHoles } from "../copper/holes.ts";
import type { Measure } from "../measure-document.ts";
import { r6 } from "../worst.ts";
import { pinsListed } from "./connectivity.ts";
import { drillTable } from "./drill-table.ts";
import type { measureDrills } from "./drills.ts";
import type { measureCoats } from "./measure-coats.ts";
import type { measureCopper } from "./measure-copper.ts";
import type { Ground } from "./measure-ground.ts";
import { outlineKeys, rowOf, slotKeys } from "./measure-keys.ts";
import type { Joined } from "./measure-nets.ts";

/** Everything that was measured, before it is put into a document. */
export interface Measured extends Ground, Joined {
  readonly drilled: ReturnType<typeof measureDrills>;
  readonly gaps: ReturnType<typeof measureCopper>;
  readonly coats: ReturnType<typeof measureCoats>;
  readonly crossCheck: Measure["crossCheck"];
}

/** The document `measure/1` of a board; keys whose value is not known are left out. */
export function documentOf(set: BoardSet, d: Measured, findings: readonly Finding[]): Measure {
  const { copper, copperFiles, drilled, drills, holes, slots, outline } = d;
  const extent = outline?.box ?? boxOfPieces(copper);
  const thicknessMm = set.job?.thicknessMm;
  return {
    kobbin: "measure/1",
    outcome: "accept",
    layers: set.files.map(rowOf),
    layerOrder: copper.map((l) => l.name),
    ...(d.profile ? { outline: outlineKeys(outline!) } : {}),
    ...(extent ? { extentMm: extent } : {}),
    copperLayers: copper.length,
    ...(thicknessMm === undefined ? {} : { thicknessMm }),
    ...d.gaps.keys,
    ...drilled.keys,
    ...d.coats.keys,
    holes: groupHoles(holes),
    ...(drills.length > 0 ? { drillTable: drillTable(drills, holes, slots) } : {}),
    ...slotKeys(slots),
    copperFlashes: Object.fromEntries(
      copper.map((l, i) => [
        l.name,
        copperFiles[i]!.layer!.kind.reduce((n, k) => n + (k === KIND.flash ? 1 : 0), 0),
      ]),
    ),
    copperAreaMm2: d.gaps.areaMm2,
    copperIslands: Object.fromEntries(copper.map((l) => [l.name, l.islands.groups.count()])),
    ...byArea(d, thicknessMm),
    ...(thicknessMm !== undefined && drilled.leastPlated !== undefined
      ? { aspectRatio: r6(thicknessMm / drilled.leastPlated) }
      : {}),
    ...d.coats.counts,
    throughHolePads: drilled.throughHolePads,
    viaPads: drilled.viaPads,
    toolingHoles: holes.filter((h) => !h.plated && h.diameterMm >= 1).length,
    ...d.panel,
    ...(drilled.castellated ? { castellatedHoles: drilled.castellated } : {}),
    ...(copper.length > 0 ? { nets: netKeys(d) } : {}),
    ...(d.netlist ? { netlist: d.netlist } : {}),
    ...(d.crossCheck ? { crossCheck: d.crossCheck } : {}),
    findings: [...findings],
  };
}

/** What is known only with the board's true area. */
function byArea({ gaps, outline, copper }: Measured, thicknessMm: number | undefined): Partial<Measure> {
  const area = outline?.areaMm2;
  if (!area) return {};
  const areas = Object.entries(gaps.areaMm2);
  return {
    copperShare: Object.fromEntries(areas.map(([k, v]) => [k, r6(v / area)])),
    ...(thicknessMm !== undefined && areas.length === copper.length
      ? { massG: r6(boardMass(area, thicknessMm, Object.values(gaps.areaMm2))) }
      : {}),
  };
}

function netKeys({ nets, netList, copper, listedPoints }: Measured): NonNullable<Measure["nets"]> {
  const isNamed = netList.some((n) => n.pads.some((p) => p.ref && p.pin !== undefined));
  // where the layers name pins, a pad without one has none
  const listed = pinsListed(isNamed ? [] : listedPoints);
  return {
    count: nets.count,
    islands: netList.map((n) => ({
      net: n.net,
      ...(n.name ? { name: n.name } : {}),
      pads: n.pads.map((p) => {
        const layer = copper[p.layer]!.name;
        const pin = p.ref && p.pin !== undefined ? `${p.ref}.${p.pin}` : listed(n.group, layer, p.x, p.y);
        return { layer, x: r6(p.x), y: r6(p.y), ...(pin ? { pin } : {}) };
      }),
    })),
    singlePad: netList.filter((n) => n.pads.length === 1).length,
  };
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
