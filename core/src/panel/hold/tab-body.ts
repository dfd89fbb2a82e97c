import type { Strips } from "../../geometry/strips.ts";
import { type Pose, posed, turnOf } from "../../geometry/turn.ts";
import type { Laid } from "../shape/laid.ts";
import type { EdgePoint } from "../shape/stretch.ts";
import type { Tab } from "../spec.ts";
import { insetOf, PERFORATION, ROWS_APART_MM, rowAlong, rowBetween, rowOffsets } from "./perforate.ts";

/** By how much a round edge may draw back at a tab's shoulders, mm. */
export const SLACK_MM = 1.2;
/** A tab reaches into what it holds by as much, so that the two are one, mm. */
const OVERLAP_MM = 0.05;
/** Points of a hole's rim that are looked at. */
const RIM = Array.from({ length: 12 }, (_, i) => (2 * Math.PI * i) / 12);

/** What a tab holds: a board, and another board or the frame. */
export interface Held {
  readonly near: Laid;
  readonly far: Laid | undefined;
  readonly frame: Strips;
}

/** Perforations of a tab, and how far it reaches into what it holds on either side, where an edge draws back from it. */
export interface TabBody {
  readonly at: readonly (readonly [number, number])[];
  readonly intoMm: readonly [near: number, far: number];
}

/**
 * What a tab is at a point of an edge: a row of perforations along the edge of each board that it holds, or one between the
 * two where there is no room for both.
 *
 * @param p point of the first board's edge, with its direction outward
 * @param reachMm from there to what it holds on the other side
 * @returns nothing where an edge does not reach along the whole tab, or a hole would reach into the board beside
 */
export function bodyOf(
  { near, far, frame }: Held,
  p: EdgePoint,
  reachMm: number,
  widthMm: number,
  gapMm: number,
): TabBody | undefined {
  const [x0, y0] = [p.x + (p.nx * reachMm) / 2, p.y + (p.ny * reachMm) / 2];
  const reach = gapMm * 1.2 + SLACK_MM;
  /** How far before the middle of the gap, seen outward, something begins at a place along the tab. */
  const edge = (of: Strips, sign: 1 | -1) => (s: number) => {
    const [x, y] = [x0 - p.ny * s, y0 + p.nx * s];
    const t = of.firstCrossing(x, y, x + sign * p.nx * reach, y + sign * p.ny * reach);
    return t === undefined ? undefined : sign * t * reach;
  };
  const put = (row: ReturnType<typeof rowAlong>) =>
    row?.map(([s, out]): [number, number] => [
      round(x0 - p.ny * s + p.nx * out),
      round(y0 + p.nx * s + p.ny * out),
    ]);
  const [mine, theirs] = [edge(near.strips, -1), edge(far ? far.strips : frame, 1)];
  const intoMm = [drawnBack(mine, widthMm, reachMm), drawnBack(theirs, widthMm, reachMm)] as const;
  if (intoMm.some((mm) => mm === undefined)) return undefined;
  const first = put(rowAlong(widthMm, mine, insetOf(near.design.copperToEdge?.mm)));
  if (!first) return undefined;
  const done = (at: readonly (readonly [number, number])[]) => ({
    at,
    intoMm: intoMm as readonly [number, number],
  });
  if (!far) return done(first);
  const second = put(rowAlong(widthMm, theirs, -insetOf(far.design.copperToEdge?.mm)));
  if (!second) return undefined;
  const isApart = first.every(([x, y]) =>
    second.every(([u, v]) => Math.hypot(u - x, v - y) >= ROWS_APART_MM),
  );
  const reaches = (row: readonly (readonly [number, number])[], of: Laid) =>
    row.some(([x, y]) => touches(of, x, y));
  if (isApart) return reaches(first, far) || reaches(second, near) ? undefined : done([...first, ...second]);
  const between = put(rowBetween(widthMm, mine, theirs));
  return !between || reaches(between, near) || reaches(between, far) ? undefined : done(between);
}

/** By how much an edge draws back along a tab from where it stands at its middle, and a little more; nothing where it ends. */
function drawnBack(
  edge: (along: number) => number | undefined,
  widthMm: number,
  reachMm: number,
): number | undefined {
  let most = 0;
  for (const s of [-widthMm / 2 + 0.01, ...rowOffsets(widthMm), widthMm / 2 - 0.01]) {
    const out = edge(s);
    if (out === undefined) return undefined;
    most = Math.max(most, Math.abs(out) - reachMm / 2);
  }
  return Math.round((most + OVERLAP_MM) * 1e4) / 1e4;
}

/** Whether a perforation reaches into a board. */
function touches(l: Laid, x: number, y: number): boolean {
  const r = PERFORATION.diameterMm / 2 - 1e-3;
  const [x0, y0, x1, y1] = l.box;
  if (x < x0 - r || x > x1 + r || y < y0 - r || y > y1 + r) return false;
  return l.strips.inside(x, y) || RIM.some((a) => l.strips.inside(x + r * Math.cos(a), y + r * Math.sin(a)));
}

/**
 * A tab as a closed ring.
 *
 * @param into by how much it reaches into what it holds on both sides; as far as their edges draw back, if not said
 */
export function tabRing(t: Tab, widthMm: number, into?: number): number[] {
  const [c, s] = turnOf(t.acrossDeg);
  const [near, far] = into === undefined ? (t.intoMm ?? [BEFORE_MM, BEFORE_MM]) : [into, into];
  const w = widthMm / 2;
  const h = t.gapMm / 2;
  const pose: Pose = { xMm: t.xMm, yMm: t.yMm, turnDeg: 0 };
  const at = (u: number, v: number) => posed(pose, u * c - v * s, u * s + v * c);
  return [...at(-h - near, -w), ...at(h + far, -w), ...at(h + far, w), ...at(-h - near, w)];
}

/** Of tabs that were kept before it was worked out. */
const BEFORE_MM = 0.7;

const round = (v: number) => Math.round(v * 1e4) / 1e4;
