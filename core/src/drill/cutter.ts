import { arcPoints } from "../geometry/arc.ts";
import type { DrillTool, Rout } from "./data.ts";

type Point = [number, number];

/** How an arc is given: by its radius, or by how far its centre lies from its beginning. */
export interface ArcWords {
  readonly radius: number | undefined;
  readonly i: number | undefined;
  readonly j: number | undefined;
}

/** The cutter of a rout file: up or down, on a straight way or an arc, and the path it has cut since it went down. */
export class Cutter {
  isRouting = false;
  isDown = false;
  /** 1 straight, 2 clockwise, 3 counter-clockwise. */
  arc: 1 | 2 | 3 = 1;
  private path: Point[] = [];

  down(x: number, y: number): void {
    this.isDown = true;
    this.path = [[x, y]];
  }

  /** @returns the path that ends here, one point where it only went down and up again; undefined where it was up */
  lift(): readonly Point[] | undefined {
    const cut = this.isDown ? this.path : undefined;
    this.isDown = false;
    this.path = [];
    return cut;
  }

  /**
   * Goes on cutting to a place, mm.
   * @param farthest an arc whose centre lies farther from its beginning is a straight line
   * @returns false where an arc has no centre, or none that fits its ends, and a straight line was taken
   */
  cut(from: Readonly<Point>, to: Readonly<Point>, words: ArcWords, farthest: number): boolean {
    const isCcw = this.arc === 3;
    const [x, y] = from;
    let centre: Readonly<Point> | undefined;
    if (this.arc !== 1 && (words.i !== undefined || words.j !== undefined))
      centre = [x + (words.i ?? 0), y + (words.j ?? 0)];
    else if (this.arc !== 1 && words.radius !== undefined)
      centre = centreByRadius(from, to, Math.abs(words.radius), isCcw);
    if (!centre || !(Math.hypot(centre[0] - x, centre[1] - y) < farthest)) {
      this.path.push([...to]);
      return this.arc === 1;
    }
    const points = arcPoints(x, y, to[0], to[1], centre[0], centre[1], isCcw, false, 0.002);
    for (let k = 0; k < points.length; k += 2) this.path.push([points[k]!, points[k + 1]!]);
    return true;
  }
}

/** A path as the file's data. */
export const routOf = (
  points: readonly Point[],
  tool: DrillTool & { mm: number },
  isSlot: boolean,
): Rout => ({
  points,
  widthMm: tool.mm,
  plated: tool.plated,
  tool,
  isSlot,
});

/** Centre of the arc of at most half a turn with a radius through two points; undefined where the radius is too small. */
function centreByRadius(
  [x1, y1]: Readonly<Point>,
  [x2, y2]: Readonly<Point>,
  r: number,
  isCcw: boolean,
): Readonly<Point> | undefined {
  const [dx, dy] = [x2 - x1, y2 - y1];
  const d = Math.hypot(dx, dy);
  const rest = r * r - (d * d) / 4;
  if (d === 0 || rest < -1e-4 * r * r - 1e-9) return undefined;
  const h = (Math.sqrt(Math.max(0, rest)) / d) * (isCcw ? 1 : -1);
  return [(x1 + x2) / 2 - dy * h, (y1 + y2) / 2 + dx * h];
}
