import { pointSegment2 } from "../geometry/segment.ts";
import type { Work } from "../geometry/work.ts";

/** The edges of some pieces, as solids keep them. */
export interface Edged {
  readonly edges: Float64Array;
  readonly firstEdge: Int32Array;
  readonly box: Float64Array;
  readonly work: Work;
}

/** Rows an edge stands in, on average, at most. */
const MOST_ROWS_AN_EDGE = 16;

/** Rows of edges of an area, so that a point's ray meets few of them. */
export class RowIndex {
  private readonly start: Int32Array;
  private readonly item: Int32Array;
  private readonly y0: number;
  private readonly inverse: number;
  private readonly rows: number;
  private readonly e: Float64Array;
  private readonly work: Work;

  constructor(s: Edged, k: number) {
    this.e = s.edges;
    this.work = s.work;
    const [from, to] = [s.firstEdge[k]!, s.firstEdge[k + 1]!];
    this.y0 = s.box[k * 4 + 1]!;
    const high = Math.max(1e-9, s.box[k * 4 + 3]! - this.y0);
    // tall edges stand in many rows: fewer rows then, or the index outgrows the edges
    let tall = 0;
    for (let i = from; i < to; i++) tall += Math.abs(this.e[i * 4 + 3]! - this.e[i * 4 + 1]!) / high;
    this.rows = Math.max(
      1,
      Math.min(4096, (to - from) >> 2, Math.ceil((MOST_ROWS_AN_EDGE * (to - from)) / (tall + 1e-9))),
    );
    this.inverse = this.rows / high;
    this.start = new Int32Array(this.rows + 1);
    for (let i = from; i < to; i++)
      for (let r = this.low(i), end = this.high(i); r <= end; r++) this.start[r + 1]!++;
    for (let r = 0; r < this.rows; r++) this.start[r + 1]! += this.start[r]!;
    this.item = new Int32Array(this.start[this.rows]!);
    const next = this.start.slice();
    for (let i = from; i < to; i++)
      for (let r = this.low(i), end = this.high(i); r <= end; r++) this.item[next[r]!++] = i;
  }

  private row(y: number): number {
    const r = ((y - this.y0) * this.inverse) | 0;
    return r < 0 ? 0 : r >= this.rows ? this.rows - 1 : r;
  }
  private low(i: number): number {
    return this.row(Math.min(this.e[i * 4 + 1]!, this.e[i * 4 + 3]!));
  }
  private high(i: number): number {
    return this.row(Math.max(this.e[i * 4 + 1]!, this.e[i * 4 + 3]!));
  }

  /** Squared distance from a point to the nearest edge, as far as one comes within `most`; else infinite. */
  distance2(x: number, y: number, most: number): number {
    const { e } = this;
    let best = Number.POSITIVE_INFINITY;
    const from = this.start[this.row(y - most)]!;
    const end = this.start[this.row(y + most) + 1]!;
    this.work.spend(2 + ((end - from) >> 2));
    for (let m = from; m < end; m++) {
      const i = this.item[m]! * 4;
      const ax = e[i]!;
      const bx = e[i + 2]!;
      if ((ax < bx ? ax : bx) - x > most || x - (ax > bx ? ax : bx) > most) continue;
      const d = pointSegment2(x, y, ax, e[i + 1]!, bx, e[i + 3]!);
      if (d < best) best = d;
    }
    return best <= most * most ? best : Number.POSITIVE_INFINITY;
  }

  inside(x: number, y: number): boolean {
    const { e } = this;
    const r = this.row(y);
    this.work.spend(2 + this.start[r + 1]! - this.start[r]!);
    let inside = false;
    for (let m = this.start[r]!; m < this.start[r + 1]!; m++) {
      const i = this.item[m]! * 4;
      const y1 = e[i + 1]!;
      const y2 = e[i + 3]!;
      if (y1 > y !== y2 > y && x < ((e[i + 2]! - e[i]!) * (y - y1)) / (y2 - y1) + e[i]!) inside = !inside;
    }
    return inside;
  }
}
