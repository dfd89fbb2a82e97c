import { insideRings } from "../../geometry/polygon.ts";
import { type Box, boxAround, posedRing } from "../../geometry/turn.ts";
import { noFitOf } from "../shape/no-fit.ts";
import type { PanelDesign } from "../spec.ts";
import { clean, type Field, type Room, type Slot, turnedBox } from "./grid.ts";

/** Boards that are laid by their outlines: beyond, their boxes have to do. */
export const MOST_INTERLOCKED = 24;
/** Places of one board in one turn that are tried, the lowest first. */
const MOST_PLACES = 4000;

/** A design in one turn: its box, about the origin of its files. */
interface Shape {
  readonly board: number;
  readonly turnDeg: number;
  readonly box: Box;
}

/** Where another may not be, from the one it is held against. */
interface Against {
  readonly rings: readonly (readonly number[])[];
  readonly box: Box;
}

interface Put {
  readonly shape: Shape;
  readonly x: number;
  readonly y: number;
}

/**
 * Several designs laid by their outlines into a room of fixed width: the largest first, each at the lowest place that is
 * free, of those where it touches what lies there (bottom-left placement on no-fit polygons, after Burke et al. 2006),
 * in the turn that leaves it lowest.
 */
export class Interlock {
  private readonly shapes: readonly (readonly Shape[])[];
  private readonly areas: readonly number[];
  private readonly known = new Map<string, Against>();
  private readonly designs: readonly PanelDesign[];
  private readonly gap: number;

  constructor(designs: readonly PanelDesign[], turns: readonly (readonly number[])[], gap: number) {
    this.designs = designs;
    this.gap = gap;
    this.areas = designs.map((d) => d.areaMm2);
    this.shapes = designs.map((d, board) =>
      [...new Set(turns[board]!.map(wholeTurn))].map((turnDeg) => ({
        board,
        turnDeg,
        box: turnedBox(d, turnDeg),
      })),
    );
  }

  /** The field of so many of each; nothing where they do not go in, or are too many. */
  field(counts: readonly number[], room: Room): Field | undefined {
    const order = counts
      .flatMap((n, board) => Array.from({ length: n }, () => board))
      .sort((a, b) => this.areas[b]! - this.areas[a]! || a - b);
    if (order.length > MOST_INTERLOCKED) return undefined;
    const put: Put[] = [];
    for (const board of order) {
      const next = this.lowest(board, put, room);
      if (!next) return undefined;
      put.push(next);
    }
    return asField(put);
  }

  private lowest(board: number, put: readonly Put[], room: Room): Put | undefined {
    let best: Put | undefined;
    const top = (p: Put) => p.y + p.shape.box[3];
    for (const shape of this.shapes[board]!) {
      const found = this.place(shape, put, room, best ? top(best) : Number.POSITIVE_INFINITY);
      if (!found) continue;
      const isLower = !best || top(found) < top(best) - 1e-6;
      const isLeft = best && Math.abs(top(found) - top(best)) <= 1e-6 && leftOf(found) < leftOf(best) - 1e-6;
      if (isLower || isLeft) best = found;
    }
    return best;
  }

  /** The lowest, then leftmost free place of a shape whose top stays below a height. */
  private place(s: Shape, put: readonly Put[], room: Room, below: number): Put | undefined {
    const [x0, x1] = [-s.box[0], room.widthMm - s.box[2]];
    const [y0, y1] = [-s.box[1], Math.min(room.heightMm - s.box[3], below - s.box[3] + 1e-6)];
    if (x1 < x0 - 1e-6 || y1 < y0 - 1e-6) return undefined;
    const against = put.map((p) => ({ p, a: this.against(p.shape, s) }));
    const isFree = (x: number, y: number) =>
      !against.some(({ p, a }) => {
        const [u, v] = [x - p.x, y - p.y];
        return u > a.box[0] && u < a.box[2] && v > a.box[1] && v < a.box[3] && insideRings(a.rings, u, v);
      });
    const places: [number, number][] = [
      [x0, y0],
      [x1, y0],
    ];
    const add = (x: number, y: number) => {
      if (x >= x0 - 1e-6 && x <= x1 + 1e-6 && y >= y0 - 1e-6 && y <= y1 + 1e-6) places.push([up(x), up(y)]);
    };
    for (const { p, a } of against)
      for (const r of a.rings)
        for (let i = 0, j = r.length - 2; i < r.length; j = i, i += 2) {
          const [ax, ay, bx, by] = [r[j]! + p.x, r[j + 1]! + p.y, r[i]! + p.x, r[i + 1]! + p.y];
          add(ax, ay);
          for (const x of [x0, x1]) if (ax < x !== bx < x) add(x, ay + ((by - ay) * (x - ax)) / (bx - ax));
          if (ay < y0 !== by < y0) add(ax + ((bx - ax) * (y0 - ay)) / (by - ay), y0);
        }
    places.sort((p, q) => p[1] - q[1] || p[0] - q[0]);
    const free = places.slice(0, MOST_PLACES).find(([x, y]) => isFree(x, y));
    return free ? { shape: s, x: free[0], y: free[1] } : undefined;
  }

  private against(a: Shape, b: Shape): Against {
    const key = `${a.board} ${a.turnDeg} ${b.board} ${b.turnDeg}`;
    let found = this.known.get(key);
    if (!found) {
      // turned together they are what one is to the other turned by the difference
      const [p, q] = [this.designs[a.board]!.outline, this.designs[b.board]!.outline];
      const rings = noFitOf(p, q, this.gap, wholeTurn(b.turnDeg - a.turnDeg)).map((r) =>
        posedRing({ xMm: 0, yMm: 0, turnDeg: a.turnDeg }, r),
      );
      found = { rings, box: boxAround(rings) };
      this.known.set(key, found);
    }
    return found;
  }
}

const wholeTurn = (t: number): number => ((t % 360) + 360) % 360;
/** To whole micrometres, never closer. */
const up = (v: number): number => Math.ceil(v * 1000 - 1e-6) / 1000;
const leftOf = (p: Put): number => p.x + p.shape.box[0];

function asField(put: readonly Put[]): Field {
  const boxes = put.map(({ shape, x, y }) => [
    shape.box[0] + x,
    shape.box[1] + y,
    shape.box[2] + x,
    shape.box[3] + y,
  ]);
  const slots = put.map(
    ({ shape }, i): Slot => ({
      board: shape.board,
      turnDeg: shape.turnDeg,
      x: clean(boxes[i]![0]!),
      y: clean(boxes[i]![1]!),
    }),
  );
  return {
    slots,
    widthMm: clean(Math.ceil(Math.max(...boxes.map((b) => b[2]!)) * 10 - 1e-3) / 10),
    heightMm: clean(Math.ceil(Math.max(...boxes.map((b) => b[3]!)) * 10 - 1e-3) / 10),
    across: "tabs",
    along: "tabs",
    how: "several interlocked",
  };
}
