import { insideRings } from "../../geometry/polygon.ts";
import { boxAround, posedRing } from "../../geometry/turn.ts";
import { grownFew, type Pairs, pairsOf, turnedPairs } from "../shape/no-fit.ts";
import type { PanelDesign } from "../spec.ts";
import { clean, type Field, MOST_COPIES, onItsSide, type Room, type Slot } from "./grid.ts";

/** Lattices that are laid out on the sheet. */
const MOST_LATTICES = 8;

interface Lattice {
  /** Where the other board of a pair lies from the first; none for boards one way round. */
  readonly t?: readonly [number, number];
  readonly dx: number;
  readonly v: readonly [number, number];
  readonly density: number;
}

/** Heights a vertical line through x leaves the rings at, above a point that is inside; the lowest one. */
function leaveUp(rings: readonly (readonly number[])[], x: number, y: number): number {
  let best = Number.POSITIVE_INFINITY;
  for (const r of rings)
    for (let i = 0, j = r.length - 2; i < r.length; j = i, i += 2) {
      const [xa, xb] = [r[j]!, r[i]!];
      if (xa < x === xb < x) continue;
      const at = r[j + 1]! + ((r[i + 1]! - r[j + 1]!) * (x - xa)) / (xb - xa);
      if (at > y + 1e-7 && at < best) best = at;
    }
  return best;
}

/** Least distance between equal columns of boards (and their opposites at t), and what is then near. */
class Columns {
  readonly dx: number | undefined;
  private readonly pairs: Pairs;
  private readonly t: readonly [number, number] | undefined;
  private readonly reach: number;
  private readonly box: readonly [number, number, number, number];

  constructor(pairs: Pairs, t: readonly [number, number] | undefined) {
    this.pairs = pairs;
    this.t = t;
    this.box = boxAround([...pairs.same, ...(t ? pairs.opposite : [])]);
    this.reach = 2 * Math.max(this.box[2] - this.box[0], this.box[3] - this.box[1]) + 1;
    this.dx = leaveRight(pairs, t, (x, y) => this.hits(x, y), this.reach);
  }

  private in(rings: readonly (readonly number[])[], x: number, y: number): boolean {
    const b = this.box;
    return x > b[0] && x < b[2] && y > b[1] && y < b[3] && insideRings(rings, x, y);
  }

  private hits(x: number, y: number): boolean {
    const { pairs, t } = this;
    return (
      this.in(pairs.same, x, y) ||
      (t !== undefined &&
        (this.in(pairs.opposite, x + t[0], y + t[1]) || this.in(pairs.opposite, t[0] - x, t[1] - y)))
    );
  }

  /** The least distance between rows that are moved along by a share of the columns' distance. */
  rows(share: number, area: number): Lattice | undefined {
    const { pairs, t, dx } = this;
    if (dx === undefined) return undefined;
    const sx = share * dx;
    let dy = 1e-3;
    for (let round = 0; round < 200; round++) {
      const k = NEAR_COLUMNS.find((m) => this.hits(sx + m * dx, dy));
      if (k === undefined) break;
      const x = sx + k * dx;
      const ups: number[] = [];
      if (this.in(pairs.same, x, dy)) ups.push(leaveUp(pairs.same, x, dy));
      if (t && this.in(pairs.opposite, x + t[0], dy + t[1]))
        ups.push(leaveUp(pairs.opposite, x + t[0], dy + t[1]) - t[1]);
      // seen from the other board the sheet is turned: what goes up goes down there
      if (t && this.in(pairs.opposite, t[0] - x, t[1] - dy))
        ups.push(t[1] + leaveUp(mirrored(pairs.opposite), x - t[0], dy - t[1]));
      const next = Math.max(...ups);
      if (!Number.isFinite(next) || next > this.reach) return undefined;
      dy = Math.ceil(next * 1000 - 1e-6) / 1000 + (next <= dy ? 1e-3 : 0);
    }
    for (const k of NEAR_COLUMNS)
      if (this.hits(sx + k * dx, dy) || this.hits(2 * sx + k * dx, 2 * dy)) return undefined;
    return { ...(t ? { t } : {}), dx, v: [sx, dy], density: ((t ? 2 : 1) * area) / (dx * dy) };
  }
}

const NEAR_COLUMNS = [0, -1, 1, -2, 2, -3, 3];

const mirrors = new WeakMap<object, readonly (readonly number[])[]>();
function mirrored(rings: readonly (readonly number[])[]): readonly (readonly number[])[] {
  let m = mirrors.get(rings);
  if (!m) {
    m = rings.map((r) => r.map((v) => -v));
    mirrors.set(rings, m);
  }
  return m;
}

/** Smallest column distance above 0 that is free, and free twice and three times over. */
function leaveRight(
  pairs: Pairs,
  t: readonly [number, number] | undefined,
  hits: (x: number, y: number) => boolean,
  reach: number,
): number | undefined {
  const exits = new Set<number>();
  const cut = (rings: readonly (readonly number[])[], y: number, toDx: (x: number) => number) => {
    for (const r of rings)
      for (let i = 0, j = r.length - 2; i < r.length; j = i, i += 2) {
        const [ya, yb] = [r[j + 1]!, r[i + 1]!];
        if (ya < y !== yb < y) exits.add(toDx(r[j]! + ((r[i]! - r[j]!) * (y - ya)) / (yb - ya)));
        else if (Math.abs(ya - y) < 1e-6) exits.add(toDx(r[j]!));
      }
  };
  cut(pairs.same, 0, (x) => x);
  if (t) {
    cut(pairs.opposite, t[1], (x) => x - t[0]);
    cut(pairs.opposite, t[1], (x) => t[0] - x);
  }
  for (const x of [...exits].filter((e) => e > 0.5 && e <= reach).sort((a, b) => a - b)) {
    const dx = Math.ceil(x * 1000 - 1e-6) / 1000;
    if (!hits(dx, 0) && !hits(2 * dx, 0) && !hits(3 * dx, 0)) return dx;
  }
  return undefined;
}

/**
 * Places along the edges of the no-fit polygon at which two boards, one turned by half, lie close: its corners, where the
 * two boxes are flush, and some between.
 */
function pairPlaces(
  rings: readonly (readonly number[])[],
  size: number,
  [fx, fy]: readonly [number, number],
): [number, number][] {
  const out: [number, number][] = [];
  for (const r of rings)
    for (let i = 0, j = r.length - 2; i < r.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [r[j]!, r[j + 1]!, r[i]!, r[i + 1]!];
      out.push([ax, ay]);
      if (ax < fx !== bx < fx) out.push([fx, ay + ((by - ay) * (fx - ax)) / (bx - ax)]);
      if (ay < fy !== by < fy) out.push([ax + ((bx - ax) * (fy - ay)) / (by - ay), fy]);
      const steps = Math.min(6, Math.floor(Math.hypot(bx - ax, by - ay) / size));
      for (let k = 1; k <= steps; k++) {
        const f = k / (steps + 1);
        out.push([ax + (bx - ax) * f, ay + (by - ay) * f]);
      }
    }
  return out;
}

/**
 * The densest lattices of a design: boards all one way round, and pairs head to tail (no-fit polygons over the outline
 * grown by half the gap; columns at the least distance, rows raised until nothing touches).
 *
 * @param turnDeg the first board of a pair is turned by; the other by half a turn more
 */
export function latticesOf(
  outline: readonly number[],
  gap: number,
  area: number,
  mayOppose: boolean,
  turnDeg = 0,
): Lattice[] {
  const half = { xMm: 0, yMm: 0, turnDeg: 180 };
  const grown = posedRing({ ...half, turnDeg }, grownFew(outline, gap));
  const opposite = posedRing(half, grown);
  const pairs = turnedPairs(pairsOf(outline, gap, mayOppose), turnDeg);
  const found: Lattice[] = [];
  const shares = [0, 0.5, 0.25, 0.75];
  const add = (t: [number, number] | undefined, list: readonly number[]) => {
    const columns = new Columns(pairs, t);
    for (const share of list) {
      const l = columns.rows(share, area);
      if (l) found.push(l);
    }
  };
  add(undefined, [...shares, 1 / 3, 2 / 3, 0.125, 0.375, 0.625, 0.875]);
  if (mayOppose) {
    const box = boxAround([grown]);
    const all = pairPlaces(pairs.opposite, Math.max(box[2] - box[0], box[3] - box[1]) / 8, [
      box[0] + box[2],
      box[1] + box[3],
    ]);
    // the tightest boxes of two promise the tightest lattices
    const boxOfPair = ([x, y]: readonly [number, number]) => {
      const o = boxAround([opposite]);
      const w = Math.max(box[2], o[2] + x) - Math.min(box[0], o[0] + x);
      const h = Math.max(box[3], o[3] + y) - Math.min(box[1], o[1] + y);
      return w * h;
    };
    const best = all.sort((p, q) => boxOfPair(p) - boxOfPair(q)).slice(0, 24);
    for (const t of best) add(t, shares);
  }
  return found.sort((a, b) => b.density - a.density).slice(0, MOST_LATTICES);
}

/** A board of a lattice: its box and its turn. */
interface Laid {
  readonly turnDeg: number;
  readonly box: readonly [number, number, number, number];
}

/**
 * Interlocking fields of one design: the densest lattices, both ways over the sheet, as many boards as lie whole in the
 * room, or the smallest window that holds the count.
 */
export function nestedFields(
  d: PanelDesign,
  board: number,
  room: Room,
  count: number | "fill",
  turns: readonly number[],
  gap: number,
): Field[] {
  const out: Field[] = [];
  const done = new Set<number>();
  const halfOf = (t: number) => ((t % 180) + 180) % 180;
  for (const turnDeg of turns) {
    const half = halfOf(turnDeg);
    if (done.has(half)) continue;
    done.add(half);
    out.push(...fieldsOf(d, board, room, count, turns, turnDeg, gap));
    // a quarter turn of the whole field is another field: found in the room on its side
    const quarter = turns.filter((t) => halfOf(t) === halfOf(half + 90));
    if (quarter.length === 0 || (quarter.length < 2 && turns.filter((t) => halfOf(t) === half).length > 1))
      continue;
    done.add(halfOf(half + 90));
    const onSide = { widthMm: room.heightMm, heightMm: room.widthMm };
    out.push(...fieldsOf(d, board, onSide, count, turns, turnDeg, gap).map((f) => onItsSide(f, [d])));
  }
  return out;
}

function fieldsOf(
  d: PanelDesign,
  board: number,
  room: Room,
  count: number | "fill",
  turns: readonly number[],
  turnDeg: number,
  gap: number,
): Field[] {
  const mayOppose = turns.some((u) => (((u - turnDeg) % 360) + 360) % 360 === 180);
  const ring = posedRing({ xMm: 0, yMm: 0, turnDeg }, d.outline);
  const own = boxAround([ring]);
  const other = boxAround([posedRing({ xMm: 0, yMm: 0, turnDeg: 180 }, ring)]);
  return latticesOf(d.outline, gap, d.areaMm2, mayOppose, turnDeg).flatMap(
    (l) => windowOf(l, own, other, turnDeg, board, room, count) ?? [],
  );
}

function windowOf(
  l: Lattice,
  own: readonly [number, number, number, number],
  other: readonly [number, number, number, number],
  turnDeg: number,
  board: number,
  room: Room,
  count: number | "fill",
): Field | undefined {
  const laid: Laid[] = [];
  const [nx, ny] = [Math.ceil(room.widthMm / l.dx) + 3, Math.ceil(room.heightMm / l.v[1]) + 3];
  if (nx * ny > 40 * MOST_COPIES) return undefined;
  const at = (b: readonly [number, number, number, number], x: number, y: number) =>
    [b[0] + x, b[1] + y, b[2] + x, b[3] + y] as const;
  for (let j = -2; j <= ny; j++) {
    const drift = l.v[0] * j - l.dx * Math.floor((l.v[0] * j) / l.dx);
    for (let i = -2; i <= nx; i++) {
      const [x, y] = [i * l.dx + drift, j * l.v[1]];
      laid.push({ turnDeg, box: at(own, x, y) });
      if (l.t) laid.push({ turnDeg: turnDeg + 180, box: at(other, x + l.t[0], y + l.t[1]) });
    }
  }
  // a window begins where boards begin: of one column and row of the lattice, that is all there is to try
  const lefts = startsOf(laid, 0, l.dx);
  const lows = startsOf(laid, 1, l.v[1]);
  let best: { boards: Laid[]; x: number; y: number; w: number; h: number } | undefined;
  for (const x of lefts)
    for (const y of lows) {
      const inside = laid.filter(
        (p) =>
          p.box[0] >= x - 1e-6 &&
          p.box[1] >= y - 1e-6 &&
          p.box[2] <= x + room.widthMm + 1e-6 &&
          p.box[3] <= y + room.heightMm + 1e-6,
      );
      const boards = count === "fill" ? inside : smallest(inside, count, x, y);
      if (!boards || boards.length === 0 || boards.length > MOST_COPIES) continue;
      const w = Math.max(...boards.map((p) => p.box[2])) - x;
      const h = Math.max(...boards.map((p) => p.box[3])) - y;
      const isBetter =
        !best ||
        boards.length > best.boards.length ||
        (boards.length === best.boards.length && w * h < best.w * best.h - 1e-6);
      if (isBetter) best = { boards, x, y, w, h };
    }
  if (!best) return undefined;
  const { boards, x, y, w, h } = best;
  const slots = boards
    .map(
      (p): Slot => ({
        board,
        turnDeg: p.turnDeg % 360,
        x: Math.round((p.box[0] - x) * 1000) / 1000,
        y: Math.round((p.box[1] - y) * 1000) / 1000,
      }),
    )
    .sort((a, b) => a.y - b.y || a.x - b.x);
  return {
    slots,
    widthMm: clean(Math.ceil(w * 10 - 1e-3) / 10),
    heightMm: clean(Math.ceil(h * 10 - 1e-3) / 10),
    across: "tabs",
    along: "tabs",
    how: l.t ? "head to tail" : "interlocked",
  };
}

/** Distinct beginnings of boards along an axis within one period. */
function startsOf(laid: readonly Laid[], axis: 0 | 1, period: number): number[] {
  const out = new Map<number, number>();
  for (const p of laid) {
    const v = p.box[axis];
    if (v >= 0 && v < period + 1e-9) out.set(Math.round(v * 1000), v);
  }
  return [...out.values()].sort((a, b) => a - b).slice(0, 6);
}

/** The smallest window from x, y on that holds so many of the boards. */
function smallest(inside: readonly Laid[], count: number, x: number, y: number): Laid[] | undefined {
  if (inside.length < count) return undefined;
  let best: { boards: Laid[]; area: number } | undefined;
  // up, so that the board it is taken from lies inside
  const rights = [...new Set(inside.map((p) => Math.ceil(p.box[2] * 1000 - 1e-6) / 1000))].sort(
    (a, b) => a - b,
  );
  const upward = [...inside].sort((a, b) => a.box[3] - b.box[3]);
  const leastHeight = upward[0]!.box[3] - y;
  for (const right of rights) {
    // wider windows only get larger
    if (best && (right - x) * leastHeight >= best.area) break;
    const boards: Laid[] = [];
    for (const p of upward) {
      if (p.box[2] <= right + 1e-6) boards.push(p);
      if (boards.length === count) break;
    }
    if (boards.length < count) continue;
    const area = (right - x) * (boards.at(-1)!.box[3] - y);
    if (!best || area < best.area - 1e-6) best = { boards, area };
  }
  return best?.boards;
}
