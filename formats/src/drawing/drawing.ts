/** A circle of a drawing, in its own units, y up. */
export interface DrawnCircle {
  readonly x: number;
  readonly y: number;
  readonly diameter: number;
}

/** What is taken out of a drawing: circles and how large everything is, in its own units, y up. */
export interface Drawing {
  readonly kind: "drawing";
  /** What one of its units is in millimetres; left out where the file does not say it. */
  readonly unitMm?: number;
  readonly circles: readonly DrawnCircle[];
  /** Width and height of all that is drawn; left out where nothing is. */
  readonly size?: readonly [number, number];
  /** What could not be taken, in sentences. */
  readonly notes: readonly string[];
}

export type ReadDrawing = Drawing | { readonly kind: "refused"; readonly why: string };

/**
 * Largest drawing that is read, bytes, and most shapes and different circles of it; and most steps: points that are made,
 * letters that are walked, five for each thing that is looked at. A few lines can ask for any number of these.
 */
export const DRAWING_LIMITS = {
  bytes: 8 * 1024 * 1024,
  shapes: 200_000,
  circles: 5000,
  steps: 8_000_000,
} as const;
/** Steps of one thing that is looked at. */
export const LOOK = 5;

/** More shapes than a drawing may have. */
export class TooManyShapes extends Error {}

/** Gathers shapes as they are read. */
export class Gathered {
  readonly circles: DrawnCircle[] = [];
  private readonly near = new Map<string, DrawnCircle[]>();
  private steps = 0;
  private box: [number, number, number, number] | undefined;
  private count = 0;

  /** Counts work before it is done. @throws TooManyShapes where it is more than any drawing of a case needs */
  spend(steps: number): void {
    this.steps += steps;
    if (!(this.steps <= DRAWING_LIMITS.steps)) throw new TooManyShapes();
  }

  /** A ring or a line by points on it: x0, y0, x1, y1 … Closed where it ends where it began. */
  shape(points: readonly number[]): void {
    this.one();
    for (let i = 0; i < points.length; i += 2) this.reach(points[i]!, points[i + 1]!);
    const circle = circleOf(points);
    if (circle) this.add(circle);
  }

  get size(): readonly [number, number] | undefined {
    return this.box && [this.box[2] - this.box[0], this.box[3] - this.box[1]];
  }

  /** One circle drawn twice, or as two lines of a wall on one spot, is one. */
  private add(c: DrawnCircle): void {
    const near = Math.max(1e-9, c.diameter * 1e-3);
    const isSame = (o: DrawnCircle) =>
      Math.hypot(o.x - c.x, o.y - c.y) <= near && Math.abs(o.diameter - c.diameter) <= near;
    if (!(c.diameter > 0) || [...cellsOf(c, 1)].some((cell) => this.near.get(cell)?.some(isSame))) return;
    if (this.circles.length >= DRAWING_LIMITS.circles) throw new TooManyShapes();
    this.circles.push(c);
    for (const cell of cellsOf(c, 0)) {
      const there = this.near.get(cell);
      if (there) there.push(c);
      else this.near.set(cell, [c]);
    }
  }

  private one(): void {
    if (++this.count > DRAWING_LIMITS.shapes) throw new TooManyShapes();
  }

  private reach(x: number, y: number): void {
    if (!Number.isFinite(x) || !Number.isFinite(y)) return;
    const b = this.box;
    this.box = b
      ? [Math.min(b[0], x), Math.min(b[1], y), Math.max(b[2], x), Math.max(b[3], y)]
      : [x, y, x, y];
  }
}

/** Diameters a fifth of a percent apart are a class; a cell of it is half as wide again as what counts as the same place. */
const CLASS = 1.002;

/** The cells of a grid over place and diameter in which a circle lies, or in which one that is the same could lie. */
function* cellsOf(c: DrawnCircle, around: 0 | 1): Generator<string> {
  const own = Math.round(Math.log(c.diameter) / Math.log(CLASS));
  for (let size = own - around; size <= own + around; size++) {
    const width = Math.max(1e-9, CLASS ** size * 1e-3) * 1.5;
    const [x, y] = [Math.floor(c.x / width), Math.floor(c.y / width)];
    for (let i = x - around; i <= x + around; i++)
      for (let k = y - around; k <= y + around; k++) yield `${size} ${i} ${k}`;
  }
}

/** Points of a circle lie within this share of its radius from it; curves that only look round do not. */
const ROUND = 0.004;
/** A ring with fewer points than this is a polygon, however regular. */
const LEAST_POINTS = 16;

function circleOf(points: readonly number[]): DrawnCircle | undefined {
  const n = points.length / 2;
  if (n < LEAST_POINTS) return undefined;
  const [xs, ys] = [points.filter((_, i) => i % 2 === 0), points.filter((_, i) => i % 2 === 1)];
  const [x0, x1, y0, y1] = [least(xs), most(xs), least(ys), most(ys)];
  const [x, y, r] = [(x0 + x1) / 2, (y0 + y1) / 2, (x1 - x0 + y1 - y0) / 4];
  const isClosed = Math.hypot(points[0]! - points.at(-2)!, points[1]! - points.at(-1)!) <= r * 0.02;
  if (r <= 0 || !isClosed) return undefined;
  for (let i = 0; i < n; i++)
    if (Math.abs(Math.hypot(xs[i]! - x, ys[i]! - y) / r - 1) > ROUND) return undefined;
  return { x, y, diameter: 2 * r };
}

const least = (v: readonly number[]) => v.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
const most = (v: readonly number[]) => v.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
