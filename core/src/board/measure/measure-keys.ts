import { thinned } from "../../geometry/polygon.ts";
import type { Side } from "../../role/role.ts";
import type { BoardFile } from "../board-file.ts";
import type { LayerRow, Measure, Slot } from "../measure-document.ts";
import type { Outline } from "../outline/outline.ts";
import { r6 } from "../worst.ts";

/** Rings of an outline stay within this of it, mm. */
export const RING_MM = 0.01;
/** Rings with more points in all are not kept in the document. */
export const MOST_RING_POINTS = 1500;

/** "top", "inner 1", "bottom": what a copper layer is called in documents. */
export const layerName = (f: { readonly side?: Side; readonly index?: number }): string =>
  f.side === "inner" ? `inner ${f.index ?? 1}` : (f.side ?? "copper");

/** A file's row of the document. */
export function rowOf(f: BoardFile): LayerRow {
  return {
    file: f.path,
    role: f.role,
    ...(f.side ? { side: f.side } : {}),
    ...(f.index === undefined ? {} : { index: f.index }),
    ...(f.plated === undefined ? {} : { plated: f.plated }),
    because: f.because,
    reason: f.reason,
    objects: f.drill ? f.drill.hits.length + f.drill.routs.length : (f.layer?.n ?? 0),
    bytes: f.bytes,
    ...(f.headers ? { headers: f.headers } : {}),
  };
}

/** The document of a drop nothing could be measured of. */
export const emptyMeasure = (layers: readonly LayerRow[]): Omit<Measure, "findings"> => ({
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
  stencil: {},
  fiducials: {},
  testPads: {},
  toolingHoles: 0,
});

/** What the document says of the outline; sizes only of a closed one. */
export function outlineKeys(o: Outline): NonNullable<Measure["outline"]> {
  const { widthMm, heightMm, areaMm2, perimeterMm, minInnerRadiusMm } = o;
  const sizes = { widthMm, heightMm, areaMm2, perimeterMm, minInnerRadiusMm };
  return {
    ...Object.fromEntries(Object.entries(sizes).filter(([, v]) => v !== undefined)),
    ...(o.minInnerRadiusAt ? { minInnerRadiusAt: [{ layer: "profile", ...o.minInnerRadiusAt }] } : {}),
    cutouts: o.cutouts,
    closed: o.isClosed,
    ...(o.isClosed ? ringKeys(o) : {}),
  };
}

function ringKeys(o: Outline): Pick<NonNullable<Measure["outline"]>, "rings"> {
  const rings = [...o.loops]
    .sort((a, b) => a.depth - b.depth)
    .map((l) => thinned(l.ring, RING_MM).map((v) => Math.round(v * 1e4) / 1e4));
  return rings.reduce((n, r) => n + r.length / 2, 0) > MOST_RING_POINTS ? {} : { rings };
}

/** Slots by their ends, routed paths by their points. */
export function slotKeys(slots: readonly Slot[]): Pick<Measure, "slots" | "routedPaths"> {
  return {
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
  };
}
