import { signedArea } from "../geometry/polygon.ts";
import type { Body } from "./body.ts";
import { boxOf, cornersOf } from "./boxes.ts";

/** A face of the turned view, in drawing units of a millimetre, y down. */
export interface Face {
  readonly kind: "board" | "edge" | "top" | "wall";
  /** Of a body's faces: whose. */
  readonly ref?: string;
  /** x0, y0, x1, y1 …; a board's face has its cut-outs as rings of their own. */
  readonly rings: readonly (readonly number[])[];
}

/** The board as seen from a corner above: faces from back to front, and the box they fill. */
export interface Isometric {
  readonly faces: readonly Face[];
  readonly box: readonly [number, number, number, number];
  /** Where each body's top is, for its name. */
  readonly tops: readonly {
    readonly ref: string;
    readonly x: number;
    readonly y: number;
    readonly mm: number;
  }[];
}

const [COS, SIN] = [Math.cos(Math.PI / 6), 0.5];
/** Quarter turns of the view as cosine and sine. */
const QUARTERS = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;
/** A body whose height is not known is drawn as its outline on the board, this thick, mm. */
const FLAT_MM = 0.05;

/**
 * A side of a board with its bodies, seen from a corner above: isometric, so that lengths along all three axes compare.
 *
 * Bodies are drawn from back to front: of two, the one behind a line that parts their footprints comes first; a body of no known
 * height lies flat. The other side is seen as if the board were turned over about its vertical axis.
 *
 * @param rings of the board's outline in mm; an own box where it is not known
 * @param quarter turns of the view, 0 to 3
 */
export function isometricOf(
  bodies: readonly Body[],
  rings: readonly (readonly number[])[],
  thicknessMm: number,
  side: Body["side"],
  quarter = 0,
): Isometric {
  const [c, s] = QUARTERS[((quarter % 4) + 4) % 4]!;
  const mirror = side === "bottom" ? -1 : 1;
  /** On the ground of the view: the viewer looks along +x and +y, from the lower corner. */
  const ground = (x: number, y: number): readonly [number, number] => [
    x * mirror * c - y * s,
    x * mirror * s + y * c,
  ];
  const seen = ([x, y]: readonly [number, number], z: number): readonly [number, number] => [
    (x - y) * COS,
    -(x + y) * SIN - z,
  ];
  const flat = (ring: readonly number[], z: number): number[] => {
    const out: number[] = [];
    for (let i = 0; i < ring.length; i += 2) out.push(...seen(ground(ring[i]!, ring[i + 1]!), z));
    return out;
  };
  const faces: Face[] = [];
  for (const ring of rings)
    faces.push(
      ...walls(ring, ground, seen, -thicknessMm, 0).map((r) => ({ kind: "edge" as const, rings: [r] })),
    );
  faces.push({ kind: "board", rings: rings.map((r) => flat(r, 0)) });
  const tops: Isometric["tops"][number][] = [];
  for (const { body, foot } of inOrder(
    bodies.filter((b) => b.side === side),
    ground,
  )) {
    const z = body.heightMm ?? FLAT_MM;
    if (body.heightMm !== undefined)
      for (const r of walls(foot, (x, y) => [x, y], seen, 0, z))
        faces.push({ kind: "wall", ref: body.ref, rings: [r] });
    const top: number[] = [];
    for (let i = 0; i < foot.length; i += 2) top.push(...seen([foot[i]!, foot[i + 1]!], z));
    faces.push({ kind: "top", ref: body.ref, rings: [top] });
    const [x, y] = seen(ground(body.x, body.y), z);
    tops.push({ ref: body.ref, x, y, mm: body.heightMm ?? 0 });
  }
  return { faces, box: boxAround(faces), tops };
}

/** The upright faces of a ring that look at the viewer: those whose outside points towards -x or -y of the ground. */
function walls(
  ring: readonly number[],
  ground: (x: number, y: number) => readonly [number, number],
  seen: (at: readonly [number, number], z: number) => readonly [number, number],
  from: number,
  until: number,
): number[][] {
  const pts: (readonly [number, number])[] = [];
  for (let i = 0; i < ring.length; i += 2) pts.push(ground(ring[i]!, ring[i + 1]!));
  const turn = Math.sign(signedArea(pts.flat())) || 1;
  const out: { depth: number; face: number[] }[] = [];
  for (let i = 0, j = pts.length - 1; i < pts.length; j = i, i++) {
    const [a, b] = [pts[j]!, pts[i]!];
    // outward normal of a counter-clockwise ring: (dy, -dx)
    const [nx, ny] = [(b[1] - a[1]) * turn, -(b[0] - a[0]) * turn];
    if (nx + ny >= -1e-9) continue;
    out.push({
      depth: a[0] + a[1] + b[0] + b[1],
      face: [...seen(a, from), ...seen(b, from), ...seen(b, until), ...seen(a, until)],
    });
  }
  return out.sort((p, q) => q.depth - p.depth).map((w) => w.face);
}

interface Stood {
  readonly body: Body;
  /** Footprint on the ground of the view. */
  readonly foot: number[];
  readonly box: readonly [number, number, number, number];
}

/** From back to front: whoever lies wholly behind another, along either axis of the ground, is drawn before it. */
function inOrder(
  bodies: readonly Body[],
  ground: (x: number, y: number) => readonly [number, number],
): Stood[] {
  const all = bodies
    .map((body): Stood => {
      const corners = cornersOf(boxOf(body));
      const foot: number[] = [];
      for (let i = 0; i < corners.length; i += 2) foot.push(...ground(corners[i]!, corners[i + 1]!));
      const [xs, ys] = [foot.filter((_, i) => i % 2 === 0), foot.filter((_, i) => i % 2 === 1)];
      return { body, foot, box: [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)] };
    })
    .sort((a, b) => b.box[0] + b.box[1] - (a.box[0] + a.box[1]));
  // beyond this many the rough order of the corners does
  if (all.length > MOST_ORDERED) return all;
  const out: Stood[] = [];
  const state = new Map<Stood, "open" | "done">();
  const put = (s: Stood) => {
    if (state.has(s)) return;
    state.set(s, "open");
    for (const o of all) if (o !== s && !state.has(o) && isBehind(o, s)) put(o);
    state.set(s, "done");
    out.push(s);
  };
  for (const s of all) put(s);
  return out;
}

const MOST_ORDERED = 600;

/** Whether a body may be hidden by another one: they lie over each other as seen, and it is beyond the other's far side. */
function isBehind(a: Stood, b: Stood): boolean {
  const across = (s: Stood) => [s.box[0] - s.box[3], s.box[2] - s.box[1]] as const;
  const [a0, a1] = across(a);
  const [b0, b1] = across(b);
  if (a1 <= b0 || b1 <= a0) return false;
  const isBeyond = a.box[0] >= b.box[2] - 1e-9 || a.box[1] >= b.box[3] - 1e-9;
  const isBefore = b.box[0] >= a.box[2] - 1e-9 || b.box[1] >= a.box[3] - 1e-9;
  return isBeyond && !isBefore;
}

function boxAround(faces: readonly Face[]): [number, number, number, number] {
  const box: [number, number, number, number] = [
    Number.POSITIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  for (const { rings } of faces)
    for (const r of rings)
      for (let i = 0; i < r.length; i += 2) {
        box[0] = Math.min(box[0], r[i]!);
        box[1] = Math.min(box[1], r[i + 1]!);
        box[2] = Math.max(box[2], r[i]!);
        box[3] = Math.max(box[3], r[i + 1]!);
      }
  return box;
}
