import type { EdgeContacts, Measure } from "../board/measure-document.ts";
import { reversed } from "../board/outline/outline-loops.ts";
import type { Body } from "../bodies/body.ts";
import { chipBody } from "../bom/chip-size.ts";
import { lettersOf } from "../bom/refs.ts";
import { insideRings, signedArea } from "../geometry/polygon.ts";
import { boxAround, posedRing } from "../geometry/turn.ts";
import { hardestPads } from "./practice.ts";
import type { Ban, PanelDesign, PanelRefusal, SheetSide } from "./spec.ts";

/** A body reaches over the edge where more of it than this lies outside, mm. */
const OVER_MM = 0.05;
/** A part this high is in the way of a blade (domain.md 6.2). */
const TALL_MM = 5;

/** What a design is made of; `bodies` as far as their sizes are known. */
export interface DesignParts {
  readonly name: string;
  readonly measure: Measure;
  /** Exact rings where the files are at hand; else those of the measure, to a hundredth of a millimetre. */
  readonly rings?: readonly (readonly number[])[];
  readonly bodies: readonly Body[];
  /** Packages by reference, to know ceramic chips. */
  readonly packages?: ReadonlyMap<string, string>;
  /** Contacts are bevelled. */
  readonly isBevelled?: boolean;
  /** Edges that slide into something. */
  readonly snug?: readonly Ban[];
}

/**
 * A measured board as what a sheet needs of it: its edge, and where it may not be cut with the reason (keep-outs of
 * domain.md 6.2).
 *
 * @returns a refusal where the outline is not closed: no sheet can be made of it
 */
export function panelDesign(d: DesignParts): PanelDesign | PanelRefusal {
  const rings = d.rings ?? d.measure.outline?.rings;
  const [outline, ...cutouts] = rings ?? [];
  if (d.measure.outline?.closed && !outline)
    return {
      tag: "outline-not-kept",
      reason: `${d.name} was measured before its outline was kept, or has more corners than are kept.`,
      nearest: [],
      do: "Measure the board again in its Board stage; an outline of more than 1500 corners wants fewer.",
    };
  if (!d.measure.outline?.closed || !outline || outline.length < 6)
    return {
      tag: "outline-open",
      reason: `The outline of ${d.name} does not close: what would lie on the sheet is not known.`,
      nearest: [],
      do: "Close the outline in your layout program, and hand the board over again.",
    };
  const ring = signedArea(outline) < 0 ? reversed(outline) : outline;
  // of a ring of chords the box is a hair too small; the measure's is exact
  const box = d.measure.extentMm ?? boxAround([ring]);
  const contacts = Object.values(d.measure.edgeContacts ?? {});
  const bans = [
    ...contacts.flatMap((c) => contactBans(c, box, ring)),
    ...castellationBans(d.measure, box),
    ...d.bodies.map((b) => bodyBan(b, ring, d.packages?.get(b.ref) ?? "")),
    ...(d.snug ?? []),
  ];
  const copper = d.measure.minCopperToEdgeAt?.[0];
  const hole = d.measure.minHoleToEdgeAt?.[0];
  const { thicknessMm, minCopperToEdgeMm, minHoleToEdgeMm } = d.measure;
  const practice = hardestPads(d.measure);
  return {
    name: d.name,
    outline: ring,
    cutouts,
    areaMm2: signedArea(ring),
    box,
    layers: Math.max(1, d.measure.copperLayers),
    ...(thicknessMm === undefined ? {} : { thicknessMm }),
    bans,
    outward: d.isBevelled ? [...new Set(contacts.map((c) => c.edge))] : [],
    overhangs: bans.flatMap((b) => overhangOf(b, box)),
    ...(practice ? { practice } : {}),
    isTwoSided: d.bodies.some((b) => b.side === "bottom"),
    ...(minCopperToEdgeMm !== undefined && copper
      ? { copperToEdge: { mm: minCopperToEdgeMm, x: copper.x, y: copper.y } }
      : {}),
    ...(minHoleToEdgeMm !== undefined && hole
      ? { holeToEdge: { mm: minHoleToEdgeMm, x: hole.x, y: hole.y } }
      : {}),
  };
}

const HANGS = " hangs over the edge";

/** How far a part that hangs over does so, beyond the box of the board. */
function overhangOf(ban: Ban, [x0, y0, x1, y1]: PanelDesign["box"]): PanelDesign["overhangs"] {
  if (!ban.why.endsWith(HANGS)) return [];
  const [a, b, c, d] = ban.box;
  const mm = Math.max(0, x0 - a, y0 - b, c - x1, d - y1);
  return [{ ref: ban.why.slice(0, -HANGS.length), box: ban.box, mm: Math.round(mm * 100) / 100 }];
}

/** The strip along a side of the box, `inMm` deep. */
function strip(box: PanelDesign["box"], side: SheetSide, from: number, to: number, inMm: number): Ban["box"] {
  const [x0, y0, x1, y1] = box;
  if (side === "left") return [x0 - 0.5, from, x0 + inMm, to];
  if (side === "right") return [x1 - inMm, from, x1 + 0.5, to];
  if (side === "bottom") return [from, y0 - 0.5, to, y0 + inMm];
  return [from, y1 - inMm, to, y1 + 0.5];
}

/** An edge runs along a side of the box where it comes no further from it than this, mm: a bevel needs all of it. */
const ALONG_MM = 0.3;
/** At its ends an edge with contacts may be scored or held by the sides beside it, mm. */
const CORNER_MM = 1;

/** From where to where a board's edge runs along a side of its box, over notches between; undefined where it does not. */
function edgeAlong(
  ring: readonly number[],
  box: PanelDesign["box"],
  side: SheetSide,
): [number, number] | undefined {
  const [x0, y0, x1, y1] = box;
  const isUpright = side === "left" || side === "right";
  const line = { left: x0, right: x1, bottom: y0, top: y1 }[side];
  let [lo, hi] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [a, b] = isUpright ? [ring[j]!, ring[i]!] : [ring[j + 1]!, ring[i + 1]!];
    if (Math.abs(a - line) > ALONG_MM || Math.abs(b - line) > ALONG_MM) continue;
    const [u, v] = isUpright ? [ring[j + 1]!, ring[i + 1]!] : [ring[j]!, ring[i]!];
    lo = Math.min(lo, u, v);
    hi = Math.max(hi, u, v);
  }
  return hi > lo ? [lo, hi] : undefined;
}

/** Contacts bear neither tab nor score over their length, and their edge none anywhere: it is bevelled, or slides into a slot (domain.md F4). */
function contactBans(c: EdgeContacts, box: PanelDesign["box"], ring: readonly number[]): Ban[] {
  const isUpright = c.edge === "left" || c.edge === "right";
  const ends = [c.from, c.to].flatMap((p) => (p ? [isUpright ? p.y : p.x] : []));
  if (ends.length < 2) return [];
  const half = c.widthMm / 2;
  const why = `edge contacts on its ${c.edge} edge`;
  const [from, to] = [Math.min(...ends) - half, Math.max(...ends) + half];
  const along = edgeAlong(ring, box, c.edge);
  const whole = along && [Math.min(from, along[0] + CORNER_MM), Math.max(to, along[1] - CORNER_MM)];
  return [
    { box: strip(box, c.edge, from, to, c.lengthMm + c.setbackMm), why, tabMm: 1, scoreMm: 0, isHard: true },
    ...(whole
      ? [{ box: strip(box, c.edge, whole[0]!, whole[1]!, ALONG_MM), why, tabMm: 0, scoreMm: 0, isHard: true }]
      : []),
  ];
}

function castellationBans(m: Measure, box: PanelDesign["box"]): Ban[] {
  const c = m.castellatedHoles;
  if (!c) return [];
  const [from, to] = c.edge === "left" || c.edge === "right" ? [box[1], box[3]] : ([box[0], box[2]] as const);
  return [
    {
      box: strip(box, c.edge, from, to, c.diameterMm / 2),
      why: `half holes on its ${c.edge} edge`,
      tabMm: 0,
      scoreMm: 0,
      isHard: true,
    },
  ];
}

/** A part's keep-outs: what hangs over cannot be scored, ceramic chips and tall parts want more room than others. */
function bodyBan(b: Body, outline: readonly number[], packageText: string): Ban {
  const [l, w] = [b.lengthMm / 2, b.widthMm / 2];
  const corners = posedRing({ xMm: b.x, yMm: b.y, turnDeg: b.turnDeg }, [-l, -w, l, -w, l, w, -l, w]);
  const box = boxAround([corners]);
  const isOver = reachesOver(corners, outline);
  const isTall = (b.heightMm ?? 0) > TALL_MM;
  const isCeramic = lettersOf(b.ref) === "C" && chipBody(packageText.toUpperCase()) !== undefined;
  if (isOver) return { box, why: `${b.ref}${HANGS}`, tabMm: 0.5, scoreMm: 0, isHard: true };
  if (isCeramic) return { box, why: `${b.ref} is a ceramic chip, which cracks`, tabMm: 3, scoreMm: 3 };
  if (isTall) return { box, why: `${b.ref} is ${b.heightMm} mm high`, tabMm: 1, scoreMm: 3 };
  return { box, why: `${b.ref} is beside it`, tabMm: 1, scoreMm: 1 };
}

function reachesOver(corners: readonly number[], outline: readonly number[]): boolean {
  const [x0, y0, x1, y1] = boxAround([outline]);
  for (let i = 0; i < corners.length; i += 2) {
    const [x, y] = [corners[i]!, corners[i + 1]!];
    if (x < x0 - OVER_MM || x > x1 + OVER_MM || y < y0 - OVER_MM || y > y1 + OVER_MM) return true;
    // pulled in by the allowance, a corner still outside hangs over
    const [cx, cy] = [(corners[0]! + corners[4]!) / 2 - x, (corners[1]! + corners[5]!) / 2 - y];
    const d = Math.hypot(cx, cy) || 1;
    if (!insideRings([outline], x + (cx / d) * OVER_MM, y + (cy / d) * OVER_MM)) return true;
  }
  return false;
}
