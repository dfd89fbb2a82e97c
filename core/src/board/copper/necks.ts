import { segmentSegment2 } from "../../geometry/segment.ts";
import { Work } from "../../geometry/work.ts";
import { KIND } from "../../gerber/image.ts";
import { distanceTo, insideSolid, type Solids, SolidsBuilder } from "../../gerber/solids.ts";
import type { Worst } from "../worst.ts";
import type { LayerSolids } from "./copper.ts";

/**
 * Adds the narrow places inside filled areas: where the copper between two edges of one area is narrowest.
 *
 * A neck is a local least distance between two edges across the inside: from each of its ends the way grows longer, or
 * stays as long, along the edge in both directions. So it lies between a corner that points inward and an edge, between
 * two such corners, or between parallel edges that face each other over at least twice their distance (the rule for
 * strokes). Corners along an arc that bulges outward are never its ends, and edges that lie on each other, as a fill cut
 * in to its holes has them, are no edges. Pads and small fills of a few edges count as drawn; a neck that other copper of
 * the layer covers on a side is none. O(edges) with a grid; only filled areas that were drawn as areas or cut by clear
 * objects are searched.
 *
 * @param reach mm, wider necks are not looked for
 */
export function addNecks(worst: Worst, layer: LayerSolids, reach: number): void {
  const { solids: s, image } = layer;
  for (let k = 0; k < s.count; k++) {
    if (!s.isArea[k] || image.kind[s.object[k]!] !== KIND.region) continue;
    const [w, h] = [s.box[k * 4 + 2]! - s.box[k * 4]!, s.box[k * 4 + 3]! - s.box[k * 4 + 1]!];
    // a fill as small as a pad is judged as a pad, not as a track
    if (Math.max(w, h) < 2 * Math.min(w, h) && Math.max(w, h) < 2) continue;
    necksOf(
      s,
      k,
      reach,
      () => worst.limit,
      (mm, x, y, ux, uy) => {
        // just beyond both edges there must be no copper of another piece
        for (const side of [-1, 1]) {
          const [px, py] = [x + side * ux * (mm / 2 + 0.002), y + side * uy * (mm / 2 + 0.002)];
          let isCovered = false;
          layer.find(px, py, 0.002, (other) => {
            isCovered = other !== k && distanceTo(s, other, px, py) === 0;
            return isCovered;
          });
          if (isCovered) return;
        }
        worst.add(mm, layer.name, x, y);
      },
    );
  }
}

/**
 * Adds the narrow places of the board itself: between two edges of the outline, or of the outline and a cut-out, across
 * the material. A house's handling, a score line or a hot tool breaks a board there.
 *
 * @param rings the outline and its cut-outs, flattened
 * @param reach mm, wider places are not looked for
 */
export function addOutlineNecks(
  worst: Worst,
  rings: readonly (readonly number[])[],
  reach: number,
  work = new Work(),
): void {
  const b = new SolidsBuilder(1, 1024, work);
  for (const ring of rings) b.ring(ring);
  b.close(0, 0, true);
  const s = b.done();
  if (s.count === 0) return;
  necksOf(
    s,
    0,
    reach,
    () => worst.limit,
    (mm, x, y) => worst.add(mm, "profile", x, y),
  );
}

type Found = (mm: number, x: number, y: number, ux: number, uy: number) => void;

function necksOf(s: Solids, k: number, reach: number, limit: () => number, found: Found): void {
  const [from, to] = [s.firstEdge[k]!, s.firstEdge[k + 1]!];
  const w = wallsOf(s.edges, from, to);
  const e = s.edges;
  const cell = Math.max(reach, 0.1);
  const grid = new Map<number, number[]>();
  // long edges are walked in stretches, or a slanted one would fill its whole box
  const each = (i: number, grow: number, visit: (key: number) => void) => {
    const o = i * 4;
    const [ax, ay, bx, by] = [e[o]!, e[o + 1]!, e[o + 2]!, e[o + 3]!];
    const n = Math.ceil(Math.max(Math.abs(bx - ax), Math.abs(by - ay)) / (4 * cell)) || 1;
    for (let k = 0; k < n; k++) {
      const [px, py] = [ax + ((bx - ax) * k) / n, ay + ((by - ay) * k) / n];
      const [qx, qy] = [ax + ((bx - ax) * (k + 1)) / n, ay + ((by - ay) * (k + 1)) / n];
      const x1 = Math.floor((Math.max(px, qx) + grow) / cell);
      const y1 = Math.floor((Math.max(py, qy) + grow) / cell);
      for (let x = Math.floor((Math.min(px, qx) - grow) / cell); x <= x1; x++)
        for (let y = Math.floor((Math.min(py, qy) - grow) / cell); y <= y1; y++)
          visit((x + 1_000_000) * 4_000_000 + y + 1_000_000);
    }
  };
  for (let i = from; i < to; i++)
    if (w.isWall(i))
      each(i, 0, (key) => {
        const list = grid.get(key);
        if (list) list.push(i);
        else grid.set(key, [i]);
      });
  const stamp = new Int32Array(to - from).fill(-1);
  for (let i = from; i < to; i++) {
    s.work.at(i - from, to - from);
    // what is wider than the places that are kept is not looked for
    const most = Math.min(reach, limit());
    if (w.isWall(i))
      each(i, most, (key) => {
        const near = grid.get(key) ?? [];
        s.work.spend(1 + near.length);
        for (const j of near) {
          if (j <= i || stamp[j - from] === i) continue;
          stamp[j - from] = i;
          s.work.spend(10);
          const a = i * 4;
          const b = j * 4;
          if (areApart(e, a, b, most)) continue;
          const d2 = segmentSegment2(
            e[a]!,
            e[a + 1]!,
            e[a + 2]!,
            e[a + 3]!,
            e[b]!,
            e[b + 1]!,
            e[b + 2]!,
            e[b + 3]!,
          );
          const d = Math.sqrt(d2);
          if (d > reach || d < 1e-4 || d >= limit()) continue;
          const across = facing(w, i, j, d);
          if (!across) continue;
          const [x, y, ux, uy] = across;
          // copper on both sides of the way across: a way along the edge itself is none
          const off = Math.min(0.001, d / 10);
          if (insideSolid(s, k, x - uy * off, y + ux * off) && insideSolid(s, k, x + uy * off, y - ux * off))
            found(d, x, y, ux, uy);
        }
      });
  }
}

/** Whether the boxes of two edges lie farther from each other than so much. */
function areApart(e: Float64Array, a: number, b: number, mm: number): boolean {
  for (let o = 0; o < 2; o++) {
    const p = e[a + o]!;
    const q = e[a + o + 2]!;
    const r = e[b + o]!;
    const s = e[b + o + 2]!;
    if (Math.min(p, q) - Math.max(r, s) > mm || Math.min(r, s) - Math.max(p, q) > mm) return true;
  }
  return false;
}

/**
 * The middle and direction of the shortest way between two edges, if that way is a local least: each end lies within its
 * edge with the way square to it, or on a corner from which both edges lead away.
 */
function facing(w: Walls, i: number, j: number, d: number): Across | undefined {
  const [ax, ay, ux, uy, la] = w.line(i);
  const [cx, cy, vx, vy, lb] = w.line(j);
  if (Math.abs(ux * vy - uy * vx) < 0.02) {
    // opposite walls of a strip, as far as they face each other
    const [p, q] = [(cx - ax) * ux + (cy - ay) * uy, (cx + vx * lb - ax) * ux + (cy + vy * lb - ay) * uy];
    const from = Math.max(0, Math.min(p, q));
    const until = Math.min(la, Math.max(p, q));
    if (until - from >= 2 * d) {
      const m = (from + until) / 2;
      const [x, y] = [ax + ux * m, ay + uy * m];
      const sign = Math.sign((cx - x) * -uy + (cy - y) * ux) || 1;
      const [nx, ny] = [-uy * sign, ux * sign];
      return [x + (nx * d) / 2, y + (ny * d) / 2, nx, ny];
    }
  }
  const ends = (k: number) =>
    [false, true].map((isEnd) => ({ k, isEnd, at: w.end(k, isEnd) })) satisfies Corner[];
  const [own, others] = [ends(i), ends(j)];
  // a corner against an edge: the corner's foot must fall inside the edge
  for (const [corners, k] of [
    [others, i],
    [own, j],
  ] as const) {
    const [qx, qy, wx, wy, l] = w.line(k);
    for (const c of corners) {
      const t = (c.at[0] - qx) * wx + (c.at[1] - qy) * wy;
      if (t <= 1e-9 || t >= l - 1e-9) continue;
      const way = across(c.at, [qx + wx * t, qy + wy * t], d);
      if (way && leadsAway(w, c, way[2], way[3])) return way;
    }
  }
  for (const c of own)
    for (const o of others) {
      const way = across(c.at, o.at, d);
      if (way && leadsAway(w, c, way[2], way[3]) && leadsAway(w, o, -way[2], -way[3])) return way;
    }
  return undefined;
}

/** Middle and direction of a way, mm. */
type Across = readonly [x: number, y: number, ux: number, uy: number];
type Point = readonly [number, number];
interface Corner {
  readonly k: number;
  readonly isEnd: boolean;
  readonly at: Point;
}

/** How far an edge may lean into the way, as a sine: what rounding of coordinates makes of a square corner. */
const MOST_CLOSING = 1e-3;

function across(p: Point, q: Point, d: number): Across | undefined {
  const [x, y] = [q[0] - p[0], q[1] - p[1]];
  const far = Math.hypot(x, y);
  return Math.abs(far - d) > 1e-7 ? undefined : [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2, x / far, y / far];
}

/** Neither edge that leaves a corner leads towards where the way goes. */
function leadsAway(w: Walls, c: Corner, ux: number, uy: number): boolean {
  const [, , ox, oy] = w.line(c.k);
  const back = c.isEnd ? -1 : 1;
  const [nx, ny] = w.leaving(c.k, c.isEnd) ?? [0, 0];
  return back * (ox * ux + oy * uy) <= MOST_CLOSING && nx * ux + ny * uy <= MOST_CLOSING;
}

/** The edges of one piece, each with those before and after it. */
interface Walls {
  /** False where another edge lies on it the other way round. */
  isWall(i: number): boolean;
  /** Start, direction and length. */
  line(i: number): readonly [x: number, y: number, ux: number, uy: number, length: number];
  end(i: number, isEnd: boolean): Point;
  /** The direction in which the next edge leaves from an end. */
  leaving(i: number, isEnd: boolean): Point | undefined;
}

/** Edges remembered of one point: more meet only in files made to be slow. */
const MOST_AT_A_POINT = 16;

function wallsOf(e: Float64Array, from: number, to: number): Walls {
  // a number for a point; what shares it by chance is told apart below
  const key = (x: number, y: number) => x + y * 7919.1313;
  const starts = new Map<number, number[]>();
  const endings = new Map<number, number[]>();
  const put = (map: Map<number, number[]>, k: number, i: number) => {
    const list = map.get(k);
    if (!list) map.set(k, [i]);
    else if (list.length < MOST_AT_A_POINT) list.push(i);
  };
  const isSame = (i: number, a: number, j: number, b: number) =>
    e[i * 4 + a] === e[j * 4 + b] && e[i * 4 + a + 1] === e[j * 4 + b + 1];
  for (let i = from; i < to; i++) put(starts, key(e[i * 4]!, e[i * 4 + 1]!), i);
  const isLaid = new Uint8Array(to - from);
  for (let i = from; i < to; i++)
    for (const j of starts.get(key(e[i * 4 + 2]!, e[i * 4 + 3]!)) ?? [])
      if (isSame(i, 2, j, 0) && isSame(i, 0, j, 2)) isLaid[i - from] = 1;
  for (let i = from; i < to; i++) if (!isLaid[i - from]) put(endings, key(e[i * 4 + 2]!, e[i * 4 + 3]!), i);
  const line = (i: number) => {
    const [x, y, x2, y2] = [e[i * 4]!, e[i * 4 + 1]!, e[i * 4 + 2]!, e[i * 4 + 3]!];
    const l = Math.hypot(x2 - x, y2 - y);
    return [x, y, (x2 - x) / l, (y2 - y) / l, l] as const;
  };
  return {
    isWall: (i) => !isLaid[i - from],
    line,
    end: (i, isEnd) => [e[i * 4 + (isEnd ? 2 : 0)]!, e[i * 4 + (isEnd ? 3 : 1)]!],
    leaving(i, isEnd) {
      const o = isEnd ? 2 : 0;
      const near = (isEnd ? starts : endings).get(key(e[i * 4 + o]!, e[i * 4 + o + 1]!)) ?? [];
      const next = near.filter((j) => j !== i && !isLaid[j - from] && isSame(i, o, j, isEnd ? 0 : 2));
      if (next.length !== 1) return undefined;
      const [, , ux, uy] = line(next[0]!);
      return isEnd ? [ux, uy] : [-ux, -uy];
    },
  };
}
