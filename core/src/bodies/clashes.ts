import type { Measure } from "../board/measure-document.ts";
import type { Body } from "./body.ts";
import { type Box, boxOf, gapOf, isApart, overEdge, pointToBox, waysApart } from "./boxes.ts";

/** Two bodies in each other's way, or one in the way of a screw or beyond the edge. */
export interface Clash {
  readonly kind: "parts" | "screw" | "edge";
  readonly refs: readonly string[];
  /** Room between them as drawn, mm; below 0 they lie in each other. Beyond the edge: how far, below 0. */
  readonly gapMm: number;
  /** What may be less or more of it, mm. */
  readonly tolMm: number;
  readonly verdict: "collides" | "may-touch";
  /** Of these only the pads are known: what stands between them may stand beside the body, or under it. */
  readonly byPads?: readonly string[];
  readonly side: Body["side"];
  readonly x: number;
  readonly y: number;
  /** The smallest move along a side of either that clears it, where one does without meeting anything else. */
  readonly move?: Move;
}

/** One part moved along the board. */
export interface Move {
  readonly ref: string;
  readonly dx: number;
  readonly dy: number;
}

/** A screw's head is as wide as its hole times this (ISO metric heads over close holes, recalled). */
const HEAD = 1.8;
/** Unplated holes from here on take a screw, mm. */
const SCREW_MM = 2;
/** Moves are told in steps of this, mm. */
const STEP_MM = 0.05;
/** Pairs that are looked for; parts heaped on one spot make more than anybody reads. */
export const MOST_CLASHES = 300;
/** For so many of them the smallest move is looked for. */
const MOST_MOVES = 60;
/** So far over the edge is still at it, mm. */
const AT_EDGE_MM = 0.1;

/**
 * What of the bodies is in each other's way: neighbours of one side, under a screw's head, beyond the edge.
 *
 * Side tolerances of two bodies add up as squares. Where only the pads of a part are known nothing is called a collision: its
 * body may stand above what lies between them.
 * Bodies are swept by x, so a board of n parts costs about n times the neighbours of one; after {@link MOST_CLASHES} pairs it ends.
 */
export function clashesOf(
  bodies: readonly Body[],
  measure: Pick<Measure, "outline" | "drillTable">,
): Clash[] {
  const boxes = new Map(bodies.map((b) => [b, boxOf(b)]));
  const rings = measure.outline?.rings ?? [];
  const world: World = { bodies, boxes, rings };
  return [
    ...neighbours(world),
    ...screws(bodies, boxes, measure),
    ...(rings.length === 0 ? [] : edges(bodies, boxes, rings)),
  ];
}

interface World {
  readonly bodies: readonly Body[];
  readonly boxes: ReadonlyMap<Body, Box>;
  readonly rings: readonly (readonly number[])[];
}

const radius = (b: Body) => Math.hypot(b.lengthMm, b.widthMm) / 2;

function neighbours(world: World): Clash[] {
  const { bodies, boxes } = world;
  const sorted = [...bodies].sort((a, b) => a.x - radius(a) - (b.x - radius(b)));
  const out: Clash[] = [];
  for (let i = 0; i < sorted.length && out.length < MOST_CLASHES; i++) {
    const a = sorted[i]!;
    for (let k = i + 1; k < sorted.length && out.length < MOST_CLASHES; k++) {
      const b = sorted[k]!;
      if (b.x - radius(b) > a.x + radius(a) + 1) break;
      if (a.side !== b.side || Math.abs(a.y - b.y) > radius(a) + radius(b) + 1) continue;
      const gapMm = gapOf(boxes.get(a)!, boxes.get(b)!);
      const tolMm = Math.hypot(a.tolMm, b.tolMm);
      if (gapMm >= tolMm) continue;
      const byPads = [a, b].filter((o) => o.sizeFrom === "pads").map((o) => o.ref);
      const move = byPads.length > 0 || out.length >= MOST_MOVES ? undefined : moveOf(a, b, tolMm, world);
      out.push({
        kind: "parts",
        refs: [a.ref, b.ref],
        gapMm: round(gapMm),
        tolMm: round(tolMm),
        verdict: gapMm < -tolMm && byPads.length === 0 ? "collides" : "may-touch",
        ...(byPads.length > 0 ? { byPads } : {}),
        side: a.side,
        x: round((a.x + b.x) / 2),
        y: round((a.y + b.y) / 2),
        ...(move ? { move } : {}),
      });
    }
  }
  return out.sort((a, b) => a.gapMm - b.gapMm);
}

/**
 * The smallest move of either body, along a side of either of the two, that parts them by their tolerances and leads into nothing
 * else. Of equal ones the smaller body moves.
 */
function moveOf(a: Body, b: Body, tolMm: number, world: World): Move | undefined {
  const ways = waysApart(world.boxes.get(a)!, world.boxes.get(b)!, tolMm).flatMap(({ mm, x, y }) => {
    const steps = Math.ceil(mm / STEP_MM - 1e-6) * STEP_MM;
    return [
      { body: b, mm: steps, dx: x * steps, dy: y * steps },
      { body: a, mm: steps, dx: -x * steps, dy: -y * steps },
    ];
  });
  ways.sort((p, q) => p.mm - q.mm || radius(p.body) - radius(q.body));
  const way = ways.find(({ body, dx, dy }) =>
    isFree({ ...body, x: body.x + dx, y: body.y + dy }, body, world),
  );
  return way && { ref: way.body.ref, dx: round(way.dx), dy: round(way.dy) };
}

function isFree(moved: Body, was: Body, { bodies, boxes, rings }: World): boolean {
  const box = boxOf(moved);
  // a part that hangs over the edge already may go on doing so
  if (rings.length > 0 && overEdge(box, rings) > Math.max(AT_EDGE_MM, overEdge(boxes.get(was)!, rings)))
    return false;
  return bodies.every(
    (o) =>
      o === was ||
      o.side !== moved.side ||
      Math.hypot(o.x - moved.x, o.y - moved.y) > radius(o) + radius(moved) + 1 ||
      isApart(box, boxes.get(o)!, Math.hypot(o.tolMm, moved.tolMm) - 1e-9),
  );
}

function screws(
  bodies: readonly Body[],
  boxes: ReadonlyMap<Body, Box>,
  measure: Pick<Measure, "drillTable">,
): Clash[] {
  const holes = (measure.drillTable ?? [])
    .filter((r) => !r.plated && r.slots === 0 && r.diameterMm >= SCREW_MM)
    .flatMap((r) => r.at.map(({ x, y }) => ({ x, y, headMm: r.diameterMm * HEAD })));
  return bodies.flatMap((b) =>
    holes.flatMap(({ x, y, headMm }): Clash[] => {
      const gapMm = pointToBox(x, y, boxes.get(b)!) - headMm / 2;
      if (gapMm >= b.tolMm) return [];
      return [
        {
          kind: "screw",
          refs: [b.ref],
          gapMm: round(gapMm),
          tolMm: b.tolMm,
          verdict: gapMm < -b.tolMm ? "collides" : "may-touch",
          side: b.side,
          x,
          y,
        },
      ];
    }),
  );
}

function edges(
  bodies: readonly Body[],
  boxes: ReadonlyMap<Body, Box>,
  rings: readonly (readonly number[])[],
): Clash[] {
  return bodies.flatMap((b): Clash[] => {
    const over = overEdge(boxes.get(b)!, rings);
    if (over <= AT_EDGE_MM) return [];
    return [
      {
        kind: "edge",
        refs: [b.ref],
        gapMm: round(-over),
        tolMm: b.tolMm,
        verdict: over > AT_EDGE_MM + b.tolMm ? "collides" : "may-touch",
        side: b.side,
        x: b.x,
        y: b.y,
      },
    ];
  });
}

// a zero has no sign
const round = (v: number) => Math.round(v * 1000) / 1000 + 0;
