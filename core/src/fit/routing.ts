import type { Measure } from "../board/measure-document.ts";
import { reversed } from "../board/outline/outline-loops.ts";
import { clipAreas, offsetRings } from "../geometry/clip.ts";
import { insideRings, signedArea } from "../geometry/polygon.ts";
import { orGivenUp, Work } from "../geometry/work.ts";

/** Cutters houses have, mm across (domain.md 5.6); the first is the usual one. */
export const CUTTERS_MM = [2, 1.6, 1, 0.8] as const;
/** A board narrower than this somewhere breaks easily while it is cut out, mm (typical). */
export const NECK_MM = 2;
/** Straight for so long a side holds a tab, mm. */
const TAB_SIDE_MM = 5;
/** What is smaller than this is rounding, mm². */
const LEAST_MM2 = 0.008;
const MOST_STEPS = 60_000_000;

/** A piece of an area with how large it is. */
export interface Piece {
  readonly ring: readonly number[];
  readonly areaMm2: number;
  readonly x: number;
  readonly y: number;
}

/** An outline under a cutter. */
export interface Routing {
  /** What the cutter leaves standing in inner corners, slits and notches narrower than itself. */
  readonly left: readonly Piece[];
  /** Where the board is narrower than {@link NECK_MM}. */
  readonly thin: readonly Piece[];
  /** Straight sides that hold a tab: x0, y0, x1, y1. */
  readonly sides: readonly (readonly [number, number, number, number])[];
  /** Slots and routed paths of the drill files narrower than the cutter: they take another one. */
  readonly narrowSlots: readonly { readonly widthMm: number; readonly x: number; readonly y: number }[];
}

/**
 * What becomes of an outline under a round cutter.
 *
 * The board grown by the cutter's radius and shrunk again is what is left after cutting: what is in that and not in the board
 * stays standing. The board shrunk by half a neck and grown again lacks what is narrower.
 *
 * @returns undefined where the outline is not known, or takes more steps than a board's can
 */
export function routingOf(m: Measure, cutterMm: number): Routing | undefined {
  const drawn = m.outline?.rings;
  if (!drawn || drawn.length === 0) return undefined;
  return orGivenUp(
    () => judged(m, oriented(drawn), cutterMm, new Work(MOST_STEPS)),
    () => undefined,
  );
}

function judged(m: Measure, board: number[][], cutterMm: number, work: Work): Routing {
  const r = cutterMm / 2;
  const grown = offsetRings(board, r, "round", work);
  const after = offsetRings(grown, -r, "round", work);
  const eroded = offsetRings(board, -NECK_MM / 2, "pointed", work);
  const wide = offsetRings(eroded, NECK_MM / 2, "pointed", work);
  return {
    left: pieces(clipAreas("difference", after, board, work)),
    thin: pieces(clipAreas("difference", board, wide, work)).filter((p) => p.areaMm2 > NECK_MM ** 2 / 40),
    sides: board.flatMap((ring) => (signedArea(ring) > 0 ? straightSides(ring, m) : [])),
    narrowSlots: [
      ...m.slots.map((s) => ({
        widthMm: s.widthMm,
        x: (s.from[0] + s.to[0]) / 2,
        y: (s.from[1] + s.to[1]) / 2,
      })),
      ...m.routedPaths.map((p) => ({
        widthMm: p.widthMm,
        x: p.points[0]?.[0] ?? 0,
        y: p.points[0]?.[1] ?? 0,
      })),
    ].filter((s) => s.widthMm < cutterMm - 1e-6),
  };
}

/** Outer rings counter-clockwise and holes clockwise, told by how many others each lies in. */
function oriented(rings: readonly (readonly number[])[]): number[][] {
  return rings.map((ring) => {
    const depth = rings.filter((o) => o !== ring && insideRings([o], ring[0]!, ring[1]!)).length;
    const isOuter = depth % 2 === 0;
    return signedArea(ring) > 0 === isOuter ? [...ring] : reversed(ring);
  });
}

function pieces(areas: readonly number[][][]): Piece[] {
  return areas
    .map(([ring = [], ...holes]): Piece => {
      const areaMm2 = Math.abs(signedArea(ring)) - holes.reduce((s, h) => s + Math.abs(signedArea(h)), 0);
      const n = ring.length / 2;
      const sum = (o: number) => ring.reduce((s, v, i) => (i % 2 === o ? s + v : s), 0);
      return { ring, areaMm2: Math.round(areaMm2 * 1e4) / 1e4, x: sum(0) / n, y: sum(1) / n };
    })
    .filter((p) => p.areaMm2 >= LEAST_MM2)
    .sort((a, b) => b.areaMm2 - a.areaMm2);
}

/** Sides long enough for a tab; none on an edge with contacts, which is bevelled. */
function straightSides(ring: readonly number[], m: Measure): [number, number, number, number][] {
  const edges = new Set(Object.values(m.edgeContacts ?? {}).map((c) => c.edge));
  const out: [number, number, number, number][] = [];
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
    if (Math.hypot(bx - ax, by - ay) < TAB_SIDE_MM) continue;
    // counter-clockwise: the board lies at the left of the way walked
    const faces =
      Math.abs(bx - ax) < 1e-6
        ? by > ay
          ? "right"
          : "left"
        : Math.abs(by - ay) < 1e-6
          ? bx > ax
            ? "bottom"
            : "top"
          : undefined;
    if (faces && edges.has(faces)) continue;
    out.push([ax, ay, bx, by]);
  }
  return out;
}
