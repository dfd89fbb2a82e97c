import { MOST_OPENINGS } from "../board/measure-document.ts";
import {
  anything,
  type DataShape,
  fields,
  flag,
  list,
  mapOf,
  maybe,
  number,
  oneOf,
  text,
  tuple,
  whole,
} from "./shape.ts";

const mm = number(-1e6, 1e6);
const size = number(1e-3, 1e6);
const point = tuple(mm, mm);
const place = fields({ layer: text(80), x: mm, y: mm, mm: maybe(mm) });
const counts = mapOf(number(0, 1e9), 200);
const refs = list(text(80), 50_000);
const level = oneOf("error", "warning", "remark");

const finding = fields({
  tag: text(60, 1),
  level,
  file: maybe(text(1000)),
  line: maybe(whole()),
  row: maybe(whole()),
  at: maybe(fields({ layer: maybe(text(80)), x: mm, y: mm })),
  about: maybe(list(text(300), 50_000)),
  text: text(20_000),
  do: maybe(text(20_000)),
});

const layer = fields({
  file: text(1000),
  role: text(40, 1),
  side: maybe(oneOf("top", "bottom", "inner")),
  index: maybe(whole(0, 1000)),
  plated: maybe(oneOf(true, false, "mixed")),
  because: text(40),
  reason: text(2000),
  objects: whole(),
  bytes: whole(0, 1e12),
  headers: maybe(list(text(2000), 2000)),
});

const least = Object.fromEntries(
  [
    "Track",
    "Neck",
    "Space",
    "NetSpace",
    "Hole",
    "Annular",
    "BoardNeck",
    "CopperToEdge",
    "CopperToCutout",
    "CopperToSlot",
    "DrillToForeignCopper",
    "NpthToCopper",
    "HoleToHole",
    "HoleToEdge",
    "MaskWeb",
    "MaskExpansion",
    "LegendLine",
    "LegendToOpening",
    "OpeningToCopper",
    "LegendText",
    "Pitch",
  ].flatMap((k): [string, DataShape][] => [
    [`min${k}Mm`, maybe(mm)],
    [`min${k}At`, maybe(list(place, 200))],
  ]),
);

/** The document `measure/1`, as far as something is computed from it. */
export const measureShape: DataShape = fields({
  kobbin: oneOf("measure/1"),
  outcome: oneOf("accept", "reject"),
  layers: list(layer, 5000),
  layerOrder: list(text(80), 200),
  outline: maybe(
    fields({
      // a board that has a width and a height has some
      widthMm: maybe(size),
      heightMm: maybe(size),
      areaMm2: maybe(number(0, 1e9)),
      perimeterMm: maybe(number(0, 1e9)),
      cutouts: whole(),
      closed: flag,
      minInnerRadiusMm: maybe(mm),
      rings: maybe(list(list(mm, 4000), 1500)),
    }),
  ),
  extentMm: maybe(tuple(mm, mm, mm, mm)),
  copperLayers: whole(0, 1000),
  thicknessMm: maybe(number(0, 1000)),
  ...least,
  holes: list(fields({ diameterMm: mm, plated: flag, count: whole() }), 20_000),
  slots: list(fields({ widthMm: mm, lengthMm: mm, plated: flag, from: point, to: point }), 100_000),
  routedPaths: list(fields({ widthMm: mm, plated: flag, points: list(point, 100_000) }), 100_000),
  copperFlashes: counts,
  copperAreaMm2: counts,
  copperIslands: counts,
  smdPads: counts,
  throughHolePads: whole(),
  viaPads: whole(),
  maskOpenings: mapOf(fields({ count: whole() }), 20),
  paste: mapOf(fields({ count: whole(), areaMm2: number(0, 1e9) }), 20),
  stencil: maybe(
    mapOf(
      fields({
        byThicknessMm: mapOf(
          fields({
            minAreaRatio: maybe(number()),
            minAspectRatio: maybe(number()),
            below066: maybe(whole()),
          }),
          50,
        ),
        thickestMm: number(0, 100),
        apertures: maybe(list(anything(4, 2000), 100_000)),
        openings: maybe(list(number(-1e6, 1e6), 4 * MOST_OPENINGS)),
        pasteGrams: mapOf(number(0, 1e6), 50),
      }),
      20,
    ),
  ),
  edgeContacts: maybe(
    mapOf(
      fields({
        count: whole(),
        pitchMm: mm,
        widthMm: mm,
        lengthMm: mm,
        setbackMm: mm,
        edge: maybe(oneOf("left", "right", "top", "bottom")),
        tabMm: maybe(mm),
        from: maybe(fields({ x: mm, y: mm })),
        to: maybe(fields({ x: mm, y: mm })),
        odd: maybe(list(fields({ x: mm, y: mm }), 5000)),
        maskBetween: maybe(whole()),
        tieBars: maybe(whole()),
      }),
      20,
    ),
  ),
  castellatedHoles: maybe(
    fields({ count: whole(), diameterMm: mm, edge: oneOf("left", "right", "top", "bottom") }),
  ),
  nets: maybe(
    fields({
      count: whole(),
      singlePad: maybe(whole()),
      islands: maybe(
        list(
          fields({
            net: whole(),
            name: maybe(text(1000)),
            pads: list(fields({ layer: text(80), x: mm, y: mm, pin: maybe(text(300)) }), 500_000),
          }),
          500_000,
        ),
      ),
    }),
  ),
  netlist: maybe(fields({ nets: whole(), points: whole(), agrees: flag })),
  fiducials: maybe(counts),
  testPads: maybe(counts),
  toolingHoles: maybe(whole()),
  copies: maybe(whole()),
  pieces: maybe(
    list(
      fields({
        copies: whole(1),
        areaMm2: mm,
        holes: whole(),
        diametersMm: mm,
        holesSpreadMm: mm,
        pads: whole(),
        padsSpreadMm: mm,
      }),
      1000,
    ),
  ),
  aspectRatio: maybe(number()),
  copperShare: maybe(counts),
  massG: maybe(number(0, 1e9)),
  crossCheck: maybe(
    fields({
      inBomNotPlaced: maybe(refs),
      placedNotInBom: maybe(refs),
      placedButDnp: maybe(refs),
      partsOnBottom: maybe(refs),
      throughHole: maybe(refs),
      withoutPads: maybe(refs),
      padsWithoutPart: maybe(refs),
    }),
  ),
  findings: list(finding, 100_000),
});
