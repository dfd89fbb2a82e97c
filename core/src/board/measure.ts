import { insideRings } from "../geometry/polygon.ts";
import { KIND } from "../gerber/image.ts";
import { covers } from "../gerber/shapes.ts";
import {
  analyseLayer,
  cutoutRings,
  edgeRings,
  type LayerShapes,
  type Least,
  leastSpace,
  leastStroke,
  leastToRings,
  ringAround,
  shapeFinder,
  smaller,
  unionArea,
} from "./copper.ts";
import { crossCheck } from "./cross-check.ts";
import type { Finding } from "./findings.ts";
import { countSmdPads, groupHoles, joinNets, ringDistance, settlePlating } from "./holes.ts";
import type { Hole, LayerRow, Measure } from "./measure-document.ts";
import { chainOutline, type Outline } from "./outline.ts";
import type { BoardFile, BoardSet } from "./read.ts";
import type { Role, Side } from "./role.ts";

const r6 = (v: number) => Math.round(v * 1e6) / 1e6;

/**
 * Measures a board from what was read out of its files. Exact geometry, never pixels.
 *
 * Method per measure: domain.md 2.4; spacing between islands and between nets, ring on the worst layer, widths from the
 * strokes themselves. About a second for a board of a few thousand objects.
 *
 * @param progress called with what is being measured and the share done
 */
export function measureBoard(
  set: BoardSet,
  progress: (what: string, share: number) => void = () => {},
): Measure {
  const findings: Finding[] = [...set.findings];
  const used = set.files.filter((f) => f.role !== "unknown" && f.role !== "drawing");
  const layers = set.files.map(rowOf);
  const first = (role: Role, side?: Side) =>
    used.find((f) => f.role === role && (side === undefined || f.side === side));
  if (!used.some((f) => f.layer || f.drill))
    return {
      ...empty(layers),
      reason: "No file in the drop has a role on a board.",
      findings: [
        ...findings,
        {
          tag: "archive-invalid",
          level: "error",
          text: "No file in the drop has a role on a board.",
          do: "Drop the layers and drills your layout program wrote.",
        },
      ],
    };
  progress("outline", 0.05);
  const profile = first("profile");
  const outline: Outline | undefined = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
  findings.push(
    ...(outline?.findings ?? [
      {
        tag: "outline-missing",
        level: "error" as const,
        text: "No file holds the board's outline.",
        do: "Export the outline as its own layer and drop it here, or set the role of the file that holds it.",
      },
    ]),
  );

  const copperFiles = used
    .filter((f) => f.role === "copper" && f.layer && f.layer.n > 0)
    .sort((a, b) => order(a) - order(b));
  const unique = copperFiles.filter((f, i) => copperFiles.findIndex((g) => nameOf(g) === nameOf(f)) === i);
  if (unique.length === 0)
    findings.push({
      tag: "no-copper-layer",
      level: "error",
      text: "No file holds copper.",
      do: "Export the copper layers and drop them here, or correct the roles.",
    });
  const copper: LayerShapes[] = unique.map((f, i) => {
    progress(`copper ${nameOf(f)}`, 0.1 + (0.5 * i) / unique.length);
    return analyseLayer(f.layer!, nameOf(f));
  });
  progress("holes", 0.6);
  const drills = used.filter((f) => f.role === "drill" && f.drill);
  if (drills.length === 0 && unique.length > 1)
    findings.push({
      tag: "drill-missing",
      level: "warning",
      text: "No drill file came with the copper.",
      do: "Export the drill file and drop it here.",
    });
  const finders = copper.map((l) => shapeFinder(l.shapes));
  const holes = settlePlating(drills, copper, finders);
  const slots = drills.flatMap((f) =>
    f.drill!.routs.map((s) => ({ ...s, plated: s.plated ?? f.plated === true })),
  );
  const castellated = outline?.isClosed
    ? holes.filter(
        (h) =>
          h.plated && edgeRings(outline).some((ring) => ringDistance(ring, h.x, h.y) <= h.diameterMm / 2),
      )
    : [];
  const isCastellated = new Set(castellated);
  if (castellated.length > 0)
    findings.push({
      tag: "castellated-holes",
      level: "warning",
      at: { x: castellated[0]!.x, y: castellated[0]!.y },
      text: `${castellated.length} plated holes lie on the board's edge and will be cut in half.`,
      do: "Order the option for half holes on the edge, if the house has it.",
    });
  if (outline?.isClosed) {
    const ring = edgeRings(outline);
    const outside = holes.filter((h) => !isCastellated.has(h) && !insideRings(ring, h.x, h.y));
    if (outside.length > 0)
      findings.push({
        tag: "hole-outside-board",
        level: "warning",
        at: { x: outside[0]!.x, y: outside[0]!.y },
        text: `${outside.length} holes lie outside the outline.`,
        do: "Check that drills and layers share one origin.",
      });
  }
  let annular: Least | undefined;
  let [missed, th, vias] = [0, 0, 0];
  const masks = (["top", "bottom"] as const)
    .map((side) => first("mask", side)?.layer)
    .map((m) => (m ? analyseLayer(m, "mask") : undefined));
  const maskFinders = masks.map((m) => (m ? shapeFinder(m.shapes) : undefined));
  const isOpen = (x: number, y: number) =>
    masks.some((m, i) => m !== undefined && maskFinders[i]!(x, y).some((k) => covers(m.shapes[k]!, x, y)));
  for (const h of holes) {
    if (!h.plated) continue;
    const r = h.diameterMm / 2;
    let meets = false;
    let fn: string | undefined;
    copper.forEach((layer, i) => {
      const ring = ringAround(layer, finders[i]!(h.x, h.y), h.x, h.y, r);
      if (!ring) return;
      meets = true;
      const a = layer.image.aperture[layer.shapes[ring.shape]!.object]!;
      fn ??= a >= 0 ? layer.image.apertures[a]?.function?.[0] : undefined;
      if (!isCastellated.has(h))
        annular = smaller(annular, { mm: ring.mm, at: { layer: layer.name, x: h.x, y: h.y } });
    });
    if (!meets) missed++;
    else if (fn === "ViaPad" || (fn !== "ComponentPad" && !isOpen(h.x, h.y))) vias++;
    else th++;
  }
  if (missed > 0 && copper.length > 0)
    findings.push({
      tag: "drill-misaligned",
      level: missed > holes.length * 0.2 ? "error" : "warning",
      text: `${missed} of ${holes.length} plated holes meet no copper.`,
      do: "Check that drills and copper share origin and unit.",
    });
  progress("nets", 0.7);
  const nets = joinNets(copper, finders, holes, slots);
  let [track, space, netSpace, edge, cut]: (Least | undefined)[] = [];
  copper.forEach((layer, i) => {
    track = smaller(track, leastStroke(layer.image, layer.name));
    space = smaller(space, leastSpace(layer));
    netSpace = smaller(
      netSpace,
      leastSpace(layer, (s) => nets.groups.find(nets.offsets[i]! + s)),
    );
    if (outline?.isClosed) {
      edge = smaller(edge, leastToRings(layer, edgeRings(outline)));
      cut = smaller(cut, leastToRings(layer, cutoutRings(outline)));
    }
  });
  progress("mask, paste, silkscreen", 0.85);
  let web: Least | undefined;
  let legend: Least | undefined;
  const maskOpenings: Record<string, { count: number }> = {};
  const paste: Record<string, { count: number; areaMm2: number }> = {};
  const smdPads: Record<string, number> = {};
  (["top", "bottom"] as const).forEach((side, i) => {
    const m = masks[i];
    if (m) {
      maskOpenings[side] = { count: m.islands.count() };
      const least = leastSpace(m);
      if (least) web = smaller(web, { ...least, at: { ...least.at, layer: `mask ${side}` } });
    }
    const p = first("paste", side)?.layer;
    if (p && p.n > 0) {
      const a = analyseLayer(p, `paste ${side}`);
      paste[side] = { count: a.islands.count(), areaMm2: r6(unionArea(a.shapes)) };
    }
    const l = first("legend", side)?.layer;
    if (l) legend = smaller(legend, leastStroke(l, `legend ${side}`));
    const c = copper.find((layer) => layer.name === side);
    if (c && m)
      smdPads[side] = countSmdPads(
        c,
        (x, y) => maskFinders[i]!(x, y).some((k) => covers(m.shapes[k]!, x, y)),
        holes,
      );
  });
  for (const side of ["top", "bottom"] as const)
    if (copper.some((c) => c.name === side) && !first("mask", side))
      findings.push({
        tag: "mask-missing",
        level: "warning",
        text: `There is no mask layer for the ${side}.`,
        do: "Export it, or say in the notes that this side has no mask.",
      });
  const leastHole = holes.reduce<Hole | undefined>(
    (b, h) => (!b || h.diameterMm < b.diameterMm ? h : b),
    undefined,
  );
  const check = set.bom && set.placements ? crossCheck(set.bom, set.placements, findings) : undefined;
  if (set.job?.layers !== undefined && unique.length > 0 && set.job.layers !== unique.length)
    findings.push({
      tag: "job-layer-count",
      level: "warning",
      text: `The job file states ${set.job.layers} copper layers, ${unique.length} were found.`,
      do: "Look for a missing layer.",
    });
  if (
    set.job?.widthMm !== undefined &&
    outline?.widthMm !== undefined &&
    Math.abs(set.job.widthMm - outline.widthMm) > 0.3
  )
    findings.push({
      tag: "job-size",
      level: "warning",
      text: `The job file states a width of ${set.job.widthMm} mm, the outline measures ${outline.widthMm} mm.`,
    });
  const extent = outline?.box ?? boxOfShapes(copper);
  progress("done", 1);
  const least = (key: string, l: Least | undefined) =>
    l ? { [`${key}Mm`]: r6(l.mm), [`${key}At`]: [{ layer: l.at.layer, x: r6(l.at.x), y: r6(l.at.y) }] } : {};
  return {
    kobbin: "measure/1",
    outcome: "accept",
    layers,
    layerOrder: unique.map(nameOf),
    ...(profile ? { outline: outlineKeys(outline!) } : {}),
    ...(extent ? { extentMm: extent } : {}),
    copperLayers: unique.length,
    ...(set.job?.thicknessMm === undefined ? {} : { thicknessMm: set.job.thicknessMm }),
    ...least("minTrack", track),
    ...least("minSpace", space),
    ...least("minNetSpace", netSpace),
    ...(leastHole
      ? least("minHole", { mm: leastHole.diameterMm, at: { layer: "drill", x: leastHole.x, y: leastHole.y } })
      : {}),
    ...least("minAnnular", annular),
    ...least("minCopperToEdge", edge),
    ...(cut ? { minCopperToCutoutMm: r6((cut as Least).mm) } : {}),
    ...least("minMaskWeb", web),
    ...least("minLegendLine", legend),
    holes: groupHoles(holes),
    slots: slots
      .filter((s) => s.isSlot)
      .map((s) => ({
        widthMm: r6(s.widthMm),
        lengthMm: r6(
          Math.hypot(s.points[1]![0] - s.points[0]![0], s.points[1]![1] - s.points[0]![1]) + s.widthMm,
        ),
        plated: s.plated,
        from: s.points[0]!,
        to: s.points[1]!,
      })),
    routedPaths: slots
      .filter((s) => !s.isSlot)
      .map((s) => ({ widthMm: r6(s.widthMm), plated: s.plated, points: s.points })),
    copperFlashes: byLayer(copper, (l) => l.image.kind.reduce((n, k) => n + (k === KIND.flash ? 1 : 0), 0)),
    copperAreaMm2: byLayer(copper, (l) => r6(unionArea(l.shapes))),
    copperIslands: byLayer(copper, (l) => l.islands.count()),
    smdPads,
    throughHolePads: th,
    viaPads: vias,
    maskOpenings,
    paste,
    ...(castellated.length > 0
      ? {
          castellatedHoles: {
            count: castellated.length,
            diameterMm: r6(castellated[0]!.diameterMm),
            edge: edgeOf(castellated, outline!.box!),
          },
        }
      : {}),
    ...(copper.length > 0 ? { nets: { count: nets.count } } : {}),
    ...(check ? { crossCheck: check } : {}),
    findings,
  } as Measure;
}

/** The side of the board's box that the holes lie nearest to, all together. */
function edgeOf(holes: readonly Hole[], [x0, y0, x1, y1]: readonly [number, number, number, number]) {
  const sum = (f: (h: Hole) => number) => holes.reduce((s, h) => s + f(h), 0);
  const sides = [
    ["left", sum((h) => h.x - x0)],
    ["right", sum((h) => x1 - h.x)],
    ["bottom", sum((h) => h.y - y0)],
    ["top", sum((h) => y1 - h.y)],
  ] as const;
  return sides.reduce((a, b) => (b[1] < a[1] ? b : a))[0];
}

function boxOfShapes(copper: readonly LayerShapes[]): [number, number, number, number] | undefined {
  let b: [number, number, number, number] | undefined;
  for (const l of copper)
    for (const { box: s } of l.shapes)
      b = b
        ? [Math.min(b[0], s[0]), Math.min(b[1], s[1]), Math.max(b[2], s[2]), Math.max(b[3], s[3])]
        : [s[0], s[1], s[2], s[3]];
  return b;
}

const byLayer = (copper: readonly LayerShapes[], f: (l: LayerShapes) => number) =>
  Object.fromEntries(copper.map((l) => [l.name, f(l)]));

/** "top", "inner 1", "bottom": what a copper layer is called in documents. */
export const nameOf = (f: { readonly side?: Side; readonly index?: number }) =>
  f.side === "inner" ? `inner ${f.index ?? 1}` : (f.side ?? "copper");
const order = (f: BoardFile) => (f.side === "top" ? 0 : f.side === "bottom" ? 1000 : (f.index ?? 500));

function rowOf(f: BoardFile): LayerRow {
  return {
    file: f.path,
    role: f.role,
    ...(f.side ? { side: f.side } : {}),
    ...(f.index === undefined ? {} : { index: f.index }),
    ...(f.plated === undefined ? {} : { plated: f.plated }),
    because: f.because,
    reason: f.reason,
    objects: f.layer?.n ?? (f.drill ? f.drill.hits.length + f.drill.routs.length : 0),
    bytes: f.bytes,
    ...(f.headers ? { headers: f.headers } : {}),
  };
}

const empty = (layers: readonly LayerRow[]): Omit<Measure, "findings"> => ({
  kobbin: "measure/1",
  outcome: "reject",
  layers,
  layerOrder: [],
  copperLayers: 0,
  holes: [],
  slots: [],
  routedPaths: [],
  copperFlashes: {},
  copperAreaMm2: {},
  copperIslands: {},
  smdPads: {},
  throughHolePads: 0,
  viaPads: 0,
  maskOpenings: {},
  paste: {},
});

function outlineKeys(o: Outline): NonNullable<Measure["outline"]> {
  const { widthMm, heightMm, areaMm2, perimeterMm, minInnerRadiusMm } = o;
  const sizes = { widthMm, heightMm, areaMm2, perimeterMm, minInnerRadiusMm };
  return {
    ...Object.fromEntries(Object.entries(sizes).filter(([, v]) => v !== undefined)),
    cutouts: o.cutouts,
    closed: o.isClosed,
  };
}
