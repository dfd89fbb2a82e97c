import type { Measure } from "../board/measure-document.ts";
import { lettersOf } from "../bom/refs.ts";
import type { Placement } from "../placement/placement.ts";
import { type BodySize, bodySize, type PadSpan, type StatedSize } from "./size.ts";

/** A part as a box on the board. Sizes are nominal; how far each side may lie elsewhere is its tolerance. */
export interface Body extends BodySize {
  readonly ref: string;
  readonly side: "top" | "bottom";
  /** Its middle, mm as in the files. */
  readonly x: number;
  readonly y: number;
  /** From the x axis to its length, counter-clockwise as seen from the top, degrees. */
  readonly turnDeg: number;
  /** Of each of its sides, ± mm. */
  readonly tolMm: number;
  /** Of its height, ± mm; 0 where the height is a greatest one. */
  readonly heightTolMm: number;
}

/** A part that stands on the board. */
export interface StandingPart extends StatedSize {
  readonly ref: string;
  readonly package: string;
  readonly place?: Pick<Placement, "xMm" | "yMm" | "rotationDeg" | "side"> | undefined;
}

/** Sides of a body lie within this of where they are drawn, mm: moulding and placing together (typical). */
const SIDE_TOL_MM = 0.11;
/** A height somebody stated is a nominal one, mm. */
const HEIGHT_TOL_MM = 0.1;

/** Bodies of a board, and the parts of which no size is known. */
export interface Bodies {
  readonly bodies: readonly Body[];
  /** References without a place or without any word on their size. */
  readonly unknown: readonly string[];
}

/**
 * The parts of a board as boxes that stand on it.
 *
 * Where a part's pads are known its middle and its direction are theirs (the length runs along the row of its first two
 * pins), so that another program's zero direction does not matter; else those of the placement file.
 */
export function bodiesOf(parts: readonly StandingPart[], measure: Pick<Measure, "nets">): Bodies {
  const pads = padsOf(measure);
  const bodies: Body[] = [];
  const unknown: string[] = [];
  for (const p of parts) {
    const body = bodyOf(p, pads.get(p.ref));
    if (body) bodies.push(body);
    else unknown.push(p.ref);
  }
  return { bodies, unknown };
}

interface Pads {
  readonly list: { x: number; y: number; pin: string }[];
  readonly layers: Set<string>;
}

function padsOf(measure: Pick<Measure, "nets">): Map<string, Pads> {
  const out = new Map<string, Pads>();
  for (const island of measure.nets?.islands ?? [])
    for (const { pin, x, y, layer } of island.pads) {
      const dot = pin?.lastIndexOf(".") ?? -1;
      if (dot <= 0) continue;
      const ref = pin!.slice(0, dot);
      const pads = out.get(ref) ?? { list: [], layers: new Set<string>() };
      out.set(ref, pads);
      pads.list.push({ x, y, pin: pin!.slice(dot + 1) });
      pads.layers.add(layer);
    }
  return out;
}

function bodyOf(p: StandingPart, pads: Pads | undefined): Body | undefined {
  const seat = pads && seatOf(pads.list);
  if (!seat && !p.place) return undefined;
  const size = bodySize(p.package, lettersOf(p.ref), seat?.span, p);
  if (!size || size.lengthMm <= 0 || size.widthMm <= 0) return undefined;
  // what is longer across the row of its first pins lies that way
  const isAcross =
    size.lies === "longest" && seat !== undefined && seat.span.acrossMm > seat.span.alongMm + 0.01;
  const turnDeg = (seat ? seat.turnDeg : p.place!.rotationDeg) + (isAcross ? 90 : 0);
  const own = pads && pads.layers.size === 1 ? [...pads.layers][0] : undefined;
  return {
    ...size,
    ref: p.ref,
    side: p.place?.side ?? (own === "bottom" ? "bottom" : "top"),
    x: seat?.x ?? p.place!.xMm,
    y: seat?.y ?? p.place!.yMm,
    turnDeg,
    tolMm: size.sizeFrom === "pads" ? 0 : SIDE_TOL_MM,
    heightTolMm: size.heightFrom === "stated" ? HEIGHT_TOL_MM : 0,
  };
}

interface Seat {
  readonly x: number;
  readonly y: number;
  readonly turnDeg: number;
  readonly span: PadSpan;
}

/** Middle, direction and extents of a part's pads; one pad tells no direction. */
function seatOf(pads: readonly { x: number; y: number; pin: string }[]): Seat | undefined {
  const sorted = [...pads].sort((a, b) => byPin(a.pin, b.pin));
  const [first] = sorted;
  const second = sorted.find((p) => Math.hypot(p.x - first!.x, p.y - first!.y) > 0.05);
  if (!first || !second) return undefined;
  const angle = Math.atan2(second.y - first.y, second.x - first.x);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  let [u0, u1, v0, v1] = [
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  for (const { x, y } of pads) {
    const [u, v] = [x * c + y * s, y * c - x * s];
    u0 = Math.min(u0, u);
    u1 = Math.max(u1, u);
    v0 = Math.min(v0, v);
    v1 = Math.max(v1, v);
  }
  const [u, v] = [(u0 + u1) / 2, (v0 + v1) / 2];
  return {
    x: u * c - v * s,
    y: u * s + v * c,
    turnDeg: Math.round(((angle * 180) / Math.PI) * 1000) / 1000,
    span: { alongMm: round(u1 - u0), acrossMm: round(v1 - v0) },
  };
}

const byPin = (a: string, b: string) => {
  const [m, n] = [Number(a), Number(b)];
  return Number.isFinite(m) && Number.isFinite(n) ? m - n : a < b ? -1 : a > b ? 1 : 0;
};
const round = (v: number) => Math.round(v * 1000) / 1000;
