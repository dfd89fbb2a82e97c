import { arcPoints, capsuleRing } from "../geometry/arc.ts";
import { type Area, clipAreas } from "../geometry/clip.ts";
import { OverBudget, Work } from "../geometry/work.ts";
import { KIND, type LayerImage } from "./image.ts";
import { RowIndex } from "./row-index.ts";
import { ringsOf, type Shape, shapesOf, shapesOfObject } from "./shapes.ts";

/**
 * The solid pieces of a layer in typed arrays: each is every point within `radius` of its edges, and, for an area, the
 * inside of its edges by the even-odd rule. Lengths in mm.
 */
export interface Solids {
  readonly count: number;
  /** Edges of all pieces, x1 y1 x2 y2 each; the edges of one ring follow each other, none has length zero in an area. */
  readonly edges: Float64Array;
  /** Edges of piece k are firstEdge[k] … firstEdge[k + 1] − 1. */
  readonly firstEdge: Int32Array;
  /** Half the stroke's width; 0 for areas. */
  readonly radius: Float64Array;
  readonly isArea: Uint8Array;
  /** x0 y0 x1 y1 of each piece, its radius included. */
  readonly box: Float64Array;
  /** The object of the image each piece came from. */
  readonly object: Int32Array;
  /** What measuring these pieces may take; every search among them is counted in it. */
  readonly work: Work;
  /** Rows of edges of the large areas, made when first asked. */
  readonly rows: Map<number, RowIndex>;
}

/** Edges of one layer's pieces at most: with the grid over them half a gigabyte. */
const MAX_EDGES = 4_000_000;

/** Growing columns behind {@link Solids}. */
export class SolidsBuilder {
  private n = 0;
  private e = 0;
  private edges: Float64Array;
  private firstEdge: Int32Array;
  private radius: Float64Array;
  private isArea: Uint8Array;
  private box: Float64Array;
  private object: Int32Array;
  private readonly work: Work;

  constructor(pieces = 256, edges = 1024, work = new Work()) {
    this.work = work;
    this.edges = new Float64Array(edges * 4);
    this.firstEdge = new Int32Array(pieces + 1);
    this.radius = new Float64Array(pieces);
    this.isArea = new Uint8Array(pieces);
    this.box = new Float64Array(pieces * 4);
    this.object = new Int32Array(pieces);
  }

  edge(x1: number, y1: number, x2: number, y2: number): void {
    let o = this.e * 4;
    if (o === this.edges.length) {
      if (this.e >= MAX_EDGES)
        throw new OverBudget(`its copies come to more than ${MAX_EDGES / 1e6} million edges`);
      this.edges = grown(this.edges);
    }
    const t = this.edges;
    t[o++] = x1;
    t[o++] = y1;
    t[o++] = x2;
    t[o] = y2;
    this.e++;
  }

  /** Edges of a closed ring, those of no length left out. */
  ring(ring: ArrayLike<number>, dx = 0, dy = 0): void {
    const n = ring.length;
    for (let i = 0, j = n - 2; i < n; j = i, i += 2)
      if (ring[i] !== ring[j] || ring[i + 1] !== ring[j + 1])
        this.edge(ring[j]! + dx, ring[j + 1]! + dy, ring[i]! + dx, ring[i + 1]! + dy);
  }

  /** Ends a piece: the edges added since the last call are its own. */
  close(object: number, radius: number, isArea: boolean): void {
    const from = this.firstEdge[this.n]!;
    if (from === this.e) return;
    if (this.n + 1 === this.radius.length) this.growPieces();
    const k = this.n++;
    const t = this.edges;
    let x0 = Number.POSITIVE_INFINITY;
    let y0 = x0;
    let x1 = -x0;
    let y1 = -x0;
    for (let i = from * 4; i < this.e * 4; i += 2) {
      const x = t[i]!;
      const y = t[i + 1]!;
      if (x < x0) x0 = x;
      if (x > x1) x1 = x;
      if (y < y0) y0 = y;
      if (y > y1) y1 = y;
    }
    const o = k * 4;
    this.box[o] = x0 - radius;
    this.box[o + 1] = y0 - radius;
    this.box[o + 2] = x1 + radius;
    this.box[o + 3] = y1 + radius;
    this.radius[k] = radius;
    this.isArea[k] = isArea ? 1 : 0;
    this.object[k] = object;
    this.firstEdge[this.n] = this.e;
  }

  private growPieces(): void {
    this.firstEdge = grown(this.firstEdge, this.radius.length * 2 + 1);
    this.radius = grown(this.radius);
    this.isArea = grown(this.isArea);
    this.box = grown(this.box);
    this.object = grown(this.object);
  }

  done(): Solids {
    const { n, e } = this;
    return {
      count: n,
      edges: this.edges.subarray(0, e * 4),
      firstEdge: this.firstEdge.subarray(0, n + 1),
      radius: this.radius.subarray(0, n),
      isArea: this.isArea.subarray(0, n),
      box: this.box.subarray(0, n * 4),
      object: this.object.subarray(0, n),
      work: this.work,
      rows: new Map(),
    };
  }
}

function grown<T extends Float64Array | Int32Array | Uint8Array>(old: T, length = old.length * 2): T {
  const next = new (old.constructor as new (n: number) => T)(length);
  next.set(old);
  return next;
}

/**
 * The solid pieces of a layer after its polarity. Strokes of round stamps stay exact capsules; layers without clear
 * objects are packed in one pass, O(edges); what clear objects erase goes through the clipping package.
 *
 * @param work what this and all searches among the pieces may take
 * @throws OverBudget where the layer is larger or more tangled than a board can be
 */
export function solidsOf(image: LayerImage, work = new Work()): Solids {
  if (image.dark.includes(0)) return packShapes(shapesOf(image, work), work);
  const b = new SolidsBuilder(image.n + 1, Math.max(1024, image.n * 2), work);
  const g = image.geo;
  for (let i = 0; i < image.n; i++) {
    const kind = image.kind[i]!;
    const o = i * 6;
    if (kind === KIND.region) {
      const ring = image.points.subarray(g[o]! * 2, g[o + 1]! * 2);
      const areas = cutIns(ring, work);
      if (!areas) {
        b.ring(ring);
        b.close(i, 0, true);
      } else
        for (const area of areas) {
          for (const part of area) b.ring(part);
          b.close(i, 0, true);
        }
      continue;
    }
    const a = image.apertures[image.aperture[i]!]!;
    if (kind === KIND.flash) {
      for (const c of a.capsules) {
        b.edge(c.x1 + g[o]!, c.y1 + g[o + 1]!, c.x2 + g[o]!, c.y2 + g[o + 1]!);
        b.close(i, c.r, false);
      }
      for (const area of a.areas) {
        for (const ring of area) b.ring(ring, g[o]!, g[o + 1]!);
        b.close(i, 0, true);
      }
    } else if (a.circleMm !== undefined) {
      if (kind === KIND.line) b.edge(g[o]!, g[o + 1]!, g[o + 2]!, g[o + 3]!);
      else {
        let [x, y] = [g[o]!, g[o + 1]!];
        const path = arcPoints(x, y, g[o + 2]!, g[o + 3]!, g[o + 4]!, g[o + 5]!, kind === KIND.arcCcw, true);
        for (let k = 0; k < path.length; k += 2) {
          b.edge(x, y, path[k]!, path[k + 1]!);
          x = path[k]!;
          y = path[k + 1]!;
        }
      }
      b.close(i, a.circleMm / 2, false);
    } else for (const s of shapesOfObject(image, i)) addShape(b, s);
  }
  return b.done();
}

/** Shapes made elsewhere, packed. */
export function packShapes(shapes: readonly Shape[], work = new Work()): Solids {
  const b = new SolidsBuilder(shapes.length + 1, 1024, work);
  for (const s of shapes) addShape(b, s);
  return b.done();
}

function addShape(b: SolidsBuilder, s: Shape): void {
  if (s.rings.length > 0) for (const ring of s.rings) b.ring(ring);
  else
    for (let k = 0; k < s.edges.length; k += 4)
      b.edge(s.edges[k]!, s.edges[k + 1]!, s.edges[k + 2]!, s.edges[k + 3]!);
  b.close(s.object, s.r, s.rings.length > 0);
}

/**
 * A contour that walks to a hole and back along the same line (a cut-in) as an area with its hole; undefined for the
 * usual contour without one. A contour that touches or crosses itself is cleaned in passing.
 */
export function cutIns(ring: ArrayLike<number>, work: Work): Area[] | undefined {
  const n = ring.length / 2;
  if (n < 8) return undefined;
  const seen = new Set<string>();
  const k = (v: number) => Math.round(v * 1e6);
  for (let i = 0, j = n - 1; i < n; j = i, i++) {
    const from = `${k(ring[j * 2]!)},${k(ring[j * 2 + 1]!)}`;
    const to = `${k(ring[i * 2]!)},${k(ring[i * 2 + 1]!)}`;
    if (seen.has(`${to} ${from}`)) return clipAreas("union", [ring], [], work);
    seen.add(`${from} ${to}`);
  }
  return undefined;
}

/** Rings of a piece for the clipping package: an area's own, a capsule's flattened outline. */
export function ringsOfSolid(s: Solids, k: number): number[][] {
  const [from, to] = [s.firstEdge[k]!, s.firstEdge[k + 1]!];
  const e = s.edges;
  if (s.isArea[k]) {
    const rings: number[][] = [];
    let ring: number[] = [];
    for (let i = from * 4; i < to * 4; i += 4) {
      if (ring.length > 0 && (e[i] !== e[i - 2] || e[i + 1] !== e[i - 1])) {
        rings.push(ring);
        ring = [];
      }
      ring.push(e[i + 2]!, e[i + 3]!);
    }
    rings.push(ring);
    return rings;
  }
  const r = s.radius[k]!;
  if (to - from === 1)
    return [capsuleRing(e[from * 4]!, e[from * 4 + 1]!, e[from * 4 + 2]!, e[from * 4 + 3]!, r)];
  const edges = e.subarray(from * 4, to * 4);
  return [...ringsOf({ edges, r, rings: [], object: 0, box: [0, 0, 0, 0] })].map((x) => [...x]);
}

/** True when the point lies within the piece or on its edge. */
export function solidCovers(s: Solids, k: number, x: number, y: number): boolean {
  const o = k * 4;
  if (x < s.box[o]! || y < s.box[o + 1]! || x > s.box[o + 2]! || y > s.box[o + 3]!) return false;
  if (s.isArea[k]) return insideSolid(s, k, x, y);
  return edgeDistance2(s, k, x, y) <= s.radius[k]! ** 2;
}

/** So many edges are looked through as fast as an index. */
const MANY_EDGES = 48;

function rowsOf(s: Solids, k: number): RowIndex {
  let index = s.rows.get(k);
  if (!index) {
    index = new RowIndex(s, k);
    s.rows.set(k, index);
  }
  return index;
}

/** Even-odd over the edges of an area. */
export function insideSolid(s: Solids, k: number, x: number, y: number): boolean {
  const e = s.edges;
  if (s.firstEdge[k + 1]! - s.firstEdge[k]! > MANY_EDGES) return rowsOf(s, k).inside(x, y);
  s.work.spend(s.firstEdge[k + 1]! - s.firstEdge[k]!);
  let inside = false;
  for (let i = s.firstEdge[k]! * 4, end = s.firstEdge[k + 1]! * 4; i < end; i += 4) {
    const y1 = e[i + 1]!;
    const y2 = e[i + 3]!;
    if (y1 > y !== y2 > y && x < ((e[i + 2]! - e[i]!) * (y - y1)) / (y2 - y1) + e[i]!) inside = !inside;
  }
  return inside;
}

/** Squared distance from a point to the nearest edge of a piece, its radius left aside. */
export function edgeDistance2(s: Solids, k: number, x: number, y: number): number {
  const e = s.edges;
  s.work.spend((s.firstEdge[k + 1]! - s.firstEdge[k]!) >> 2);
  let best = Number.POSITIVE_INFINITY;
  for (let i = s.firstEdge[k]! * 4, end = s.firstEdge[k + 1]! * 4; i < end; i += 4) {
    const ux = e[i + 2]! - e[i]!;
    const uy = e[i + 3]! - e[i + 1]!;
    const uu = ux * ux + uy * uy;
    let t = uu > 0 ? ((x - e[i]!) * ux + (y - e[i + 1]!) * uy) / uu : 0;
    t = t < 0 ? 0 : t > 1 ? 1 : t;
    const dx = x - e[i]! - t * ux;
    const dy = y - e[i + 1]! - t * uy;
    const d = dx * dx + dy * dy;
    if (d < best) best = d;
  }
  return best;
}

/** Distance from a point to a piece, mm: 0 inside it. */
export function distanceTo(s: Solids, k: number, x: number, y: number): number {
  if (s.isArea[k] && insideSolid(s, k, x, y)) return 0;
  return Math.max(0, Math.sqrt(edgeDistance2(s, k, x, y)) - s.radius[k]!);
}

/** As {@link distanceTo} where a distance beyond `most` does not matter: it is infinite then, and a pour need not be walked whole. */
export function distanceWithin(s: Solids, k: number, x: number, y: number, most: number): number {
  if (!s.isArea[k] || s.firstEdge[k + 1]! - s.firstEdge[k]! <= MANY_EDGES) return distanceTo(s, k, x, y);
  if (insideSolid(s, k, x, y)) return 0;
  return Math.max(0, Math.sqrt(rowsOf(s, k).distance2(x, y, most + s.radius[k]!)) - s.radius[k]!);
}
