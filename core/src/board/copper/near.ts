import { segmentSegment2 } from "../../geometry/segment.ts";
import { insideSolid, type Solids } from "../../gerber/solids.ts";
import { Groups } from "./groups.ts";

/** Pieces closer than this are one piece of copper. */
export const TOUCH_MM = 0.001;

/** Pairs of separate pieces that come near each other: by the stretches of edge that come nearest, one entry a meeting. */
export interface NearPairs {
  readonly count: number;
  readonly a: Int32Array;
  readonly b: Int32Array;
  readonly mm: Float64Array;
  /** Where the two stretches of each entry begin in {@link edges}. */
  readonly p: Int32Array;
  readonly q: Int32Array;
  /** Stretches of edge, x1 y1 x2 y2 each. */
  readonly edges: Float64Array;
}

/** Islands of a layer and what comes near between them. */
export interface Islands {
  /** Groups of pieces that touch. */
  readonly groups: Groups;
  readonly near: NearPairs;
  readonly reach: number;
}

/**
 * Joins the pieces that touch into islands and lists what comes within `reach` between pieces not (yet) joined.
 *
 * Edges, cut into stretches of a few cells, go into a grid in typed arrays; two stretches are compared once, in the cell
 * that holds the lower left corner of their boxes' overlap. A piece wholly inside an area touches none of its edges: one
 * point of it is looked up in the area by rows of edges. About O(n) for boards, where edges have few neighbours.
 *
 * @param reach mm
 * @throws OverBudget where more lies in one place than on any board
 */
export function findIslands(s: Solids, reach: number): Islands {
  const groups = new Groups(s.count);
  const found = new Found();
  let edges = s.edges;
  if (s.count > 0) {
    const g = gridOf(s, reach);
    edges = g.t;
    compare(s, g, reach, groups, found);
    contain(s, groups);
  }
  return { groups, near: found.done(groups, edges), reach };
}

class Found {
  n = 0;
  a = new Int32Array(4096);
  b = new Int32Array(4096);
  p = new Int32Array(4096);
  q = new Int32Array(4096);
  mm = new Float64Array(4096);

  add(a: number, b: number, mm: number, p: number, q: number): void {
    if (this.n === this.a.length) this.grow();
    const i = this.n++;
    this.a[i] = a;
    this.b[i] = b;
    this.mm[i] = mm;
    this.p[i] = p;
    this.q[i] = q;
  }

  private grow(): void {
    const wider = <T extends Int32Array | Float64Array>(old: T, next: T): T => {
      next.set(old);
      return next;
    };
    const size = this.n * 2;
    this.a = wider(this.a, new Int32Array(size));
    this.b = wider(this.b, new Int32Array(size));
    this.p = wider(this.p, new Int32Array(size));
    this.q = wider(this.q, new Int32Array(size));
    this.mm = wider(this.mm, new Float64Array(size));
  }

  /** What is left between different groups now that all are known. */
  done(groups: Groups, edges: Float64Array): NearPairs {
    const { a, b, p, q, mm } = this;
    let n = 0;
    for (let i = 0; i < this.n; i++) {
      if (groups.find(a[i]!) === groups.find(b[i]!)) continue;
      a[n] = a[i]!;
      b[n] = b[i]!;
      p[n] = p[i]!;
      q[n] = q[i]!;
      mm[n] = mm[i]!;
      n++;
    }
    const cut = <T extends Int32Array | Float64Array>(t: T) => t.subarray(0, n) as T;
    return { count: n, a: cut(a), b: cut(b), p: cut(p), q: cut(q), mm: cut(mm), edges };
  }
}

interface Grid {
  /** Stretches of edge: x1 y1 x2 y2. */
  readonly t: Float64Array;
  /** Boxes of the stretches, grown by radius and half the reach. */
  readonly box: Float64Array;
  readonly owner: Int32Array;
  readonly start: Int32Array;
  readonly item: Int32Array;
  readonly x0: number;
  readonly y0: number;
  readonly columns: number;
  readonly rows: number;
  readonly inverse: number;
}

const MAX_CELLS = 4_000_000;

// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one algorithm: the grid is filled in two passes over the same edges
function gridOf(s: Solids, reach: number): Grid {
  const { edges, firstEdge, radius, box } = s;
  const total = firstEdge[s.count]!;
  let x0 = Number.POSITIVE_INFINITY;
  let y0 = x0;
  let x1 = -x0;
  let y1 = -x0;
  for (let k = 0; k < s.count * 4; k += 4) {
    if (box[k]! < x0) x0 = box[k]!;
    if (box[k + 1]! < y0) y0 = box[k + 1]!;
    if (box[k + 2]! > x1) x1 = box[k + 2]!;
    if (box[k + 3]! > y1) y1 = box[k + 3]!;
  }
  x0 -= reach;
  y0 -= reach;
  x1 += reach;
  y1 += reach;
  const area = (x1 - x0) * (y1 - y0);
  const long = Math.max(x1 - x0, y1 - y0);
  let cell = Math.max(
    reach,
    Math.sqrt((1.2 * area) / total),
    Math.sqrt(area / MAX_CELLS),
    long / 20_000,
    0.05,
  );
  while (entriesOf(s, reach, cell) > Math.max(4_000_000, 12 * total)) cell *= 2;
  const longest = 4 * cell;
  let pieces = 0;
  for (let e = 0; e < total; e++) pieces += cuts(edges, e * 4, longest);
  const t = pieces === total ? edges : new Float64Array(pieces * 4);
  const grown = new Float64Array(pieces * 4);
  const owner = new Int32Array(pieces);
  const columns = Math.floor((x1 - x0) / cell) + 1;
  const rows = Math.floor((y1 - y0) / cell) + 1;
  const inverse = 1 / cell;
  const start = new Int32Array(columns * rows + 1);
  let p = 0;
  for (let k = 0; k < s.count; k++) {
    const grow = radius[k]! + reach / 2 + 1e-6;
    for (let e = firstEdge[k]!; e < firstEdge[k + 1]!; e++) {
      const o = e * 4;
      const n = t === edges ? 1 : cuts(edges, o, longest);
      for (let i = 0; i < n; i++, p++) {
        const q = p * 4;
        if (t !== edges) {
          t[q] = edges[o]! + ((edges[o + 2]! - edges[o]!) * i) / n;
          t[q + 1] = edges[o + 1]! + ((edges[o + 3]! - edges[o + 1]!) * i) / n;
          t[q + 2] = i + 1 === n ? edges[o + 2]! : edges[o]! + ((edges[o + 2]! - edges[o]!) * (i + 1)) / n;
          t[q + 3] =
            i + 1 === n ? edges[o + 3]! : edges[o + 1]! + ((edges[o + 3]! - edges[o + 1]!) * (i + 1)) / n;
        }
        const ax = t[q]!;
        const ay = t[q + 1]!;
        const bx = t[q + 2]!;
        const by = t[q + 3]!;
        grown[q] = (ax < bx ? ax : bx) - grow;
        grown[q + 1] = (ay < by ? ay : by) - grow;
        grown[q + 2] = (ax > bx ? ax : bx) + grow;
        grown[q + 3] = (ay > by ? ay : by) + grow;
        owner[p] = k;
        const c1 = ((grown[q + 2]! - x0) * inverse) | 0;
        const r1 = ((grown[q + 3]! - y0) * inverse) | 0;
        for (let r = ((grown[q + 1]! - y0) * inverse) | 0; r <= r1; r++)
          for (let c = ((grown[q]! - x0) * inverse) | 0; c <= c1; c++) start[r * columns + c + 1]!++;
      }
    }
  }
  for (let c = 0; c < columns * rows; c++) start[c + 1]! += start[c]!;
  const item = new Int32Array(start[columns * rows]!);
  const next = start.slice();
  for (let i = 0; i < pieces; i++) {
    const q = i * 4;
    const c1 = ((grown[q + 2]! - x0) * inverse) | 0;
    const r1 = ((grown[q + 3]! - y0) * inverse) | 0;
    for (let r = ((grown[q + 1]! - y0) * inverse) | 0; r <= r1; r++)
      for (let c = ((grown[q]! - x0) * inverse) | 0; c <= c1; c++) item[next[r * columns + c]!++] = i;
  }
  return { t, box: grown, owner, start, item, x0, y0, columns, rows, inverse };
}

/** Places of the grid all edges would take, stretches of four cells at most counted along their greater side. */
function entriesOf(s: Solids, reach: number, cell: number): number {
  let sum = 0;
  for (let k = 0; k < s.count; k++) {
    const grow = 2 * (s.radius[k]! + reach);
    for (let o = s.firstEdge[k]! * 4; o < s.firstEdge[k + 1]! * 4; o += 4) {
      const w = Math.abs(s.edges[o + 2]! - s.edges[o]!);
      const h = Math.abs(s.edges[o + 3]! - s.edges[o + 1]!);
      const long = w > h ? w : h;
      const short = w > h ? h : w;
      const n = Math.ceil(long / (4 * cell)) || 1;
      sum += n * ((long / n + grow) / cell + 1) * ((short / n + grow) / cell + 1);
    }
  }
  return sum;
}

function cuts(edges: Float64Array, o: number, longest: number): number {
  const w = Math.abs(edges[o + 2]! - edges[o]!);
  const h = Math.abs(edges[o + 3]! - edges[o + 1]!);
  const long = w > h ? w : h;
  return long <= longest ? 1 : Math.ceil(long / longest);
}

/** A cell of more stretches than this is searched for copies of the same one. */
const CROWDED = 1000;

/** Joins stretches of a cell that are drawn more than once and leaves one of each; returns the new end of the cell's list. */
function withoutTwins(s: Solids, g: Grid, from: number, to: number, groups: Groups): number {
  const seen = new Map<string, number>();
  let end = from;
  for (let i = from; i < to; i++) {
    const p = g.item[i]!;
    const o = p * 4;
    const k = g.owner[p]!;
    const key = `${g.t[o]} ${g.t[o + 1]} ${g.t[o + 2]} ${g.t[o + 3]} ${s.radius[k]}`;
    const first = seen.get(key);
    if (first !== undefined) groups.join(first, k);
    else {
      seen.set(key, k);
      g.item[end++] = p;
    }
  }
  return end;
}

function compare(s: Solids, g: Grid, reach: number, groups: Groups, found: Found): void {
  const { t, box, owner, start, item, x0, y0, columns, rows, inverse } = g;
  const { radius } = s;
  for (let row = 0, cell = 0; row < rows; row++) {
    s.work.at(row, rows);
    for (let column = 0; column < columns; column++, cell++) {
      let end = start[cell + 1]!;
      if (end - start[cell]! > CROWDED) end = withoutTwins(s, g, start[cell]!, end, groups);
      s.work.spend(2 * (end - start[cell]!) ** 2);
      for (let i = start[cell]!; i < end; i++) {
        const p = item[i]!;
        const ka = owner[p]!;
        const o = p * 4;
        const ax0 = box[o]!;
        const ay0 = box[o + 1]!;
        const ax1 = box[o + 2]!;
        const ay1 = box[o + 3]!;
        for (let j = i + 1; j < end; j++) {
          const q = item[j]!;
          const b = q * 4;
          const bx0 = box[b]!;
          const by0 = box[b + 1]!;
          if (bx0 > ax1 || by0 > ay1 || box[b + 2]! < ax0 || box[b + 3]! < ay0) continue;
          const kb = owner[q]!;
          if (ka === kb) continue;
          // each pair once: in the cell of the overlap's lower left corner
          if (((((bx0 > ax0 ? bx0 : ax0) - x0) * inverse) | 0) !== column) continue;
          if (((((by0 > ay0 ? by0 : ay0) - y0) * inverse) | 0) !== row) continue;
          if (groups.find(ka) === groups.find(kb)) continue;
          const far = radius[ka]! + radius[kb]!;
          const d2 = segmentSegment2(
            t[o]!,
            t[o + 1]!,
            t[o + 2]!,
            t[o + 3]!,
            t[b]!,
            t[b + 1]!,
            t[b + 2]!,
            t[b + 3]!,
          );
          if (d2 > (far + reach) * (far + reach)) continue;
          const d = Math.sqrt(d2) - far;
          if (d <= TOUCH_MM) groups.join(ka, kb);
          else found.add(ka, kb, d, o, b);
        }
      }
    }
  }
}

/** Joins what lies wholly inside an area: one point of each piece against every area whose box holds the piece. */
function contain(s: Solids, groups: Groups): void {
  const { count, box, edges, firstEdge } = s;
  if (!s.isArea.includes(1)) return;
  let x0 = Number.POSITIVE_INFINITY;
  let y0 = x0;
  let x1 = -x0;
  let y1 = -x0;
  for (let k = 0; k < count; k++) {
    const [x, y] = [edges[firstEdge[k]! * 4]!, edges[firstEdge[k]! * 4 + 1]!];
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
  }
  const cell = Math.max(
    0.2,
    Math.max(x1 - x0, y1 - y0) / 20_000,
    Math.sqrt(((x1 - x0) * (y1 - y0)) / count),
    Math.sqrt(((x1 - x0) * (y1 - y0)) / MAX_CELLS),
  );
  const columns = Math.floor((x1 - x0) / cell) + 1;
  const rows = Math.floor((y1 - y0) / cell) + 1;
  const start = new Int32Array(columns * rows + 1);
  const at = new Int32Array(count);
  for (let k = 0; k < count; k++) {
    const i = firstEdge[k]! * 4;
    at[k] = (((edges[i + 1]! - y0) / cell) | 0) * columns + (((edges[i]! - x0) / cell) | 0);
    start[at[k]! + 1]!++;
  }
  for (let c = 0; c < columns * rows; c++) start[c + 1]! += start[c]!;
  const item = new Int32Array(count);
  const next = start.slice();
  for (let k = 0; k < count; k++) item[next[at[k]!]!++] = k;
  const clamp = (v: number, max: number) => (v < 0 ? 0 : v > max ? max : v);
  for (let k = 0; k < count; k++) {
    if (s.isArea[k] === 0) continue;
    const o = k * 4;
    const [bx0, by0, bx1, by1] = [box[o]!, box[o + 1]!, box[o + 2]!, box[o + 3]!];
    const c0 = clamp(((bx0 - x0) / cell) | 0, columns - 1);
    const c1 = clamp(((bx1 - x0) / cell) | 0, columns - 1);
    const r1 = clamp(((by1 - y0) / cell) | 0, rows - 1);
    for (let r = clamp(((by0 - y0) / cell) | 0, rows - 1); r <= r1; r++) {
      s.work.spend(start[r * columns + c1 + 1]! - start[r * columns + c0]!);
      for (let m = start[r * columns + c0]!; m < start[r * columns + c1 + 1]!; m++) {
        const j = item[m]!;
        if (j === k) continue;
        const q = j * 4;
        if (box[q]! < bx0 || box[q + 1]! < by0 || box[q + 2]! > bx1 || box[q + 3]! > by1) continue;
        if (groups.find(j) === groups.find(k)) continue;
        const e = firstEdge[j]! * 4;
        if (insideSolid(s, k, edges[e]!, edges[e + 1]!)) groups.join(k, j);
      }
    }
  }
}
