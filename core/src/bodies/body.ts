import type { Measure } from "../board/measure-document.ts";
import { padsByPart } from "../bom/chip-size.ts";
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
  readonly unknown: readonly UnknownBody[];
}

/** A part without a place, or without any word on its size. */
export interface UnknownBody {
  readonly ref: string;
  /** Where it stands all the same, as far as its place or its pads tell. */
  readonly at?: { readonly x: number; readonly y: number };
  readonly side?: "top" | "bottom";
}

type PartPad = NonNullable<NonNullable<Measure["nets"]>["islands"]>[number]["pads"][number] & {
  readonly pin: string;
};

/**
 * The parts of a board as boxes that stand on it.
 *
 * Where a part's pads are known its middle and its direction are theirs (the length runs along the row of its first two
 * pins), so that another program's zero direction does not matter; else those of the placement file.
 */
export function bodiesOf(parts: readonly StandingPart[], measure: Pick<Measure, "nets">): Bodies {
  const pads = padsByPart(measure);
  const bodies: Body[] = [];
  const unknown: UnknownBody[] = [];
  for (const p of parts) {
    const body = bodyOf(p, pads.get(p.ref));
    if (body) bodies.push(body);
    else unknown.push(unknownOf(p, pads.get(p.ref)));
  }
  return { bodies, unknown };
}

function unknownOf(p: StandingPart, pads: readonly PartPad[] | undefined): UnknownBody {
  const [pad] = pads ?? [];
  const at = p.place ? { x: p.place.xMm, y: p.place.yMm } : pad && { x: pad.x, y: pad.y };
  const side = p.place?.side ?? sideOf(pads);
  return { ref: p.ref, ...(at ? { at } : {}), ...(side ? { side } : {}) };
}

/** The side of a part by its pads: of pads on both sides nothing is told. */
function sideOf(pads: readonly PartPad[] | undefined): Body["side"] | undefined {
  const layers = new Set(pads?.map((p) => p.layer));
  const [only] = layers;
  return layers.size === 1 && (only === "top" || only === "bottom") ? only : undefined;
}

function bodyOf(p: StandingPart, pads: readonly PartPad[] | undefined): Body | undefined {
  const seat = pads && seatOf(pads);
  if (!seat && !p.place) return undefined;
  const size = bodySize(p.package, lettersOf(p.ref), seat?.span, p);
  if (!size || size.lengthMm <= 0 || size.widthMm <= 0) return undefined;
  // what is longer across the row of its first pins lies that way
  const isAcross =
    size.lies === "longest" && seat !== undefined && seat.span.acrossMm > seat.span.alongMm + 0.01;
  const turnDeg = (seat ? seat.turnDeg : p.place!.rotationDeg) + (isAcross ? 90 : 0);
  return {
    ...size,
    ref: p.ref,
    // what goes through the board stands on its top unless a place says otherwise
    side: p.place?.side ?? sideOf(pads) ?? "top",
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
