import { KIND, type LayerImage, shapesOfObject } from "@kobbin/core";

type Box = [number, number, number, number];

/** Pieces that lie near each other and are drawn alike, as one path. */
export interface Chunk {
  /** Stroke width in mm; 0 is a fill. */
  readonly width: number;
  readonly path: Path2D;
  readonly box: Box;
  n: number;
}

/** Objects of one polarity that stand together: their order does not matter, so they gather by place and width. */
export interface Batch {
  readonly dark: boolean;
  readonly chunks: readonly Chunk[];
}

/** Paths of a few hundred pieces are fastest: neither one an object nor one for all. */
const PIECES = 300;

/**
 * Gathers pieces by place, so that a tile draws only what lies in it. A piece goes to the grid whose cells are at least
 * as large as it is: a long track does not make the chunk of a small cell large.
 */
export class Gatherer {
  /** By width and level, then by cell. */
  private readonly open = new Map<number, Map<number, Chunk>>();
  readonly chunks: Chunk[] = [];

  private readonly cellMm: number;

  constructor(cellMm: number) {
    this.cellMm = cellMm;
  }

  /** The path to draw a piece on that lies in this box (stroke width not counted). */
  at(x0: number, y0: number, x1: number, y1: number, width: number): Path2D {
    const extent = Math.max(x1 - x0, y1 - y0);
    let [level, cell] = [0, this.cellMm];
    while (cell < extent) {
      cell *= 2;
      level++;
    }
    const kind = Math.round(width * 1e6) * 64 + level;
    let cells = this.open.get(kind);
    if (!cells) {
      cells = new Map();
      this.open.set(kind, cells);
    }
    const at = Math.floor((x0 + x1) / 2 / cell) * 1_000_003 + Math.floor((y0 + y1) / 2 / cell);
    let chunk = cells.get(at);
    if (!chunk || chunk.n >= PIECES) {
      chunk = { width, path: new Path2D(), box: [x0, y0, x1, y1], n: 0 };
      cells.set(at, chunk);
      this.chunks.push(chunk);
    }
    const b = chunk.box;
    const r = width / 2;
    if (x0 - r < b[0]) b[0] = x0 - r;
    if (y0 - r < b[1]) b[1] = y0 - r;
    if (x1 + r > b[2]) b[2] = x1 + r;
    if (y1 + r > b[3]) b[3] = y1 + r;
    chunk.n++;
    return chunk.path;
  }
}

/** A layer as batches to draw one after the other. */
export function batches(image: LayerImage, cellMm: number): Batch[] {
  const out: Batch[] = [];
  /** Pads of one ring, about the place they are flashed at, by aperture. */
  const pads = new Map<number, { rings: number[][]; box: Box }>();
  let open: { dark: boolean; gather: Gatherer } | undefined;
  for (let i = 0; i < image.n; i++) {
    const dark = image.dark[i] === 1;
    if (!open || open.dark !== dark) {
      open = { dark, gather: new Gatherer(cellMm) };
      out.push({ dark, chunks: open.gather.chunks });
    }
    const kind = image.kind[i]!;
    const a = kind === KIND.region ? undefined : image.apertures[image.aperture[i]!];
    const o = i * 6;
    const g = image.geo;
    const [x1, y1, x2, y2] = [g[o]!, g[o + 1]!, g[o + 2]!, g[o + 3]!];
    if (kind === KIND.line && a?.circleMm !== undefined && (x1 !== x2 || y1 !== y2)) {
      const path = open.gather.at(
        Math.min(x1, x2),
        Math.min(y1, y2),
        Math.max(x1, x2),
        Math.max(y1, y2),
        a.circleMm,
      );
      path.moveTo(x1, y1);
      path.lineTo(x2, y2);
      continue;
    }
    if (kind === KIND.flash && a?.circleMm !== undefined) {
      const r = a.circleMm / 2;
      const path = open.gather.at(x1 - r, y1 - r, x1 + r, y1 + r, 0);
      path.moveTo(x1 + r, y1);
      path.arc(x1, y1, r, 0, 2 * Math.PI);
      continue;
    }
    const known = kind === KIND.flash ? pads.get(image.aperture[i]!) : undefined;
    if (known) {
      const [bx0, by0, bx1, by1] = known.box;
      const path = open.gather.at(x1 + bx0, y1 + by0, x1 + bx1, y1 + by1, 0);
      for (const ring of known.rings) ringTo(path, ring, x1, y1);
      continue;
    }
    const shapes = shapesOfObject(image, i);
    if (kind === KIND.flash && shapes.length === 1 && shapes[0]!.rings.length === 1) {
      const s = shapes[0]!;
      const ring = s.rings[0]!.map((v, k) => v - (k % 2 === 0 ? x1 : y1));
      pads.set(image.aperture[i]!, {
        rings: [signed(ring) < 0 ? turned(ring) : ring],
        box: [s.box[0] - x1, s.box[1] - y1, s.box[2] - x1, s.box[3] - y1],
      });
    }
    for (const s of shapes) {
      const path = open.gather.at(...s.box, 0);
      // all the same way round, or what overlaps would cancel out
      const isTurned = s.rings.length > 0 && signed(s.rings[0]!) < 0;
      for (const ring of s.rings) ringTo(path, isTurned ? turned(ring) : ring);
      if (s.rings.length > 0) continue;
      for (let k = 0; k < s.edges.length; k += 4)
        capsuleTo(path, s.edges[k]!, s.edges[k + 1]!, s.edges[k + 2]!, s.edges[k + 3]!, s.r);
    }
  }
  return out;
}

/** A closed ring on a path, moved by dx, dy. */
export function ringTo(path: Path2D, ring: readonly number[], dx = 0, dy = 0): void {
  path.moveTo(ring[0]! + dx, ring[1]! + dy);
  for (let i = 2; i < ring.length; i += 2) path.lineTo(ring[i]! + dx, ring[i + 1]! + dy);
  path.closePath();
}

function capsuleTo(path: Path2D, x1: number, y1: number, x2: number, y2: number, r: number): void {
  const a = Math.atan2(y2 - y1, x2 - x1);
  path.moveTo(x1 + r * Math.cos(a + Math.PI / 2), y1 + r * Math.sin(a + Math.PI / 2));
  path.arc(x1, y1, r, a + Math.PI / 2, a + 1.5 * Math.PI);
  path.arc(x2, y2, r, a - Math.PI / 2, a + Math.PI / 2);
  path.closePath();
}

function signed(ring: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < ring.length; i += 2) {
    const j = (i + 2) % ring.length;
    sum += ring[i]! * ring[j + 1]! - ring[j]! * ring[i + 1]!;
  }
  return sum;
}

function turned(ring: readonly number[]): number[] {
  const out: number[] = [];
  for (let i = ring.length - 2; i >= 0; i -= 2) out.push(ring[i]!, ring[i + 1]!);
  return out;
}
