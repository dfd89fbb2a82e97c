import { Groups } from "../board/copper/groups.ts";
import { type Body, passes } from "../board/copper/holes.ts";
import type { Ground } from "../board/measure/measure-ground.ts";
import type { Joined } from "../board/measure/measure-nets.ts";
import { pointSegment2 } from "../geometry/segment.ts";
import { solidCovers } from "../gerber/solids.ts";
import { type Apertures, aperturesOf, type Grid } from "./apertures.ts";
import type { FlowCopper, FlowPin } from "./ask.ts";
import { COPPER_OHM_MM, wallOf } from "./copper-facts.ts";
import { type Mesh, meshOf } from "./solve.ts";

/** Cells are no finer than this, mm: along straight copper a coarse one is as exact. */
const FINEST_MM = 0.1;
/** So many cells of all layers at most, copper or not. */
const MOST_CELLS = 900_000;
/** Of them so many on copper, more or less. */
const MOST_NODES = 60_000;
/** How much coarser a first look is. */
const ROUGH = 4;
/** A pad's own pad lies this near to where it is said to be, mm. */
const SAME_PAD_MM = 0.02;

/** A layer of a net's copper. */
export interface SheetLayer {
  readonly name: string;
  readonly isInner: boolean;
  readonly thickMm: number;
  /** Index among the board's copper layers. */
  readonly index: number;
  readonly pieces: readonly number[];
  readonly faces: Apertures;
}
/** The wall of a plated hole between two layers. */
export interface Wall {
  readonly body: Body;
  readonly from: number;
  readonly to: number;
  readonly siemens: number;
}
/** What flows over the faces of a sheet: A from a cell to its right one, to its upper one, by layer. */
export interface Flowing {
  readonly right: readonly Float64Array[];
  readonly up: readonly Float64Array[];
  /** A that comes into cells from beside them, through faces and walls. */
  readonly intoCells: (cells: ReadonlySet<number>) => number;
}

/** The copper of one net as cells: cell c of layer l is number l · cells + c. */
export interface CopperSheet {
  readonly grid: Grid;
  readonly layers: readonly SheetLayer[];
  readonly walls: readonly Wall[];
  readonly ground: Ground;
  /** The cells a pad lies on. */
  cellsOf(pin: FlowPin): ReadonlySet<number>;
  /** Makes pads one, all of them. @returns a cell of it; undefined where none lies on this copper */
  join(pins: readonly FlowPin[]): number | undefined;
  /** Ends the joining: what the held cell reaches, as a mesh. */
  mesh(held: number): Mesh;
  /** −1 where the held one does not reach it. */
  nodeOf(cell: number): number;
  flowing(volts: Float64Array): Flowing;
}

/** The copper of a net, laid into cells as fine as the budget allows. */
export function sheetOf(ground: Ground, joined: Joined, group: number, copper: FlowCopper): CopperSheet {
  const { nets } = joined;
  const last = ground.copper.length - 1;
  const of = ground.copper.flatMap((l, index) => {
    const pieces: number[] = [];
    for (let k = 0; k < l.solids.count; k++)
      if (nets.groups.find(nets.offsets[index]! + k) === group) pieces.push(k);
    const isInner = index > 0 && index < last;
    const thickMm = isInner ? copper.innerMm : copper.outerMm;
    return pieces.length === 0 ? [] : [{ name: l.name, isInner, thickMm, index, pieces }];
  });
  const boxes = of.flatMap(({ index, pieces }) =>
    pieces.map((k) => ground.copper[index]!.solids.box.subarray(4 * k, 4 * k + 4)),
  );
  const edge = (i: number, best: (a: number, b: number) => number) =>
    boxes.reduce((v, b) => best(v, b[i]!), boxes[0]![i]!);
  const [x, y] = [edge(0, Math.min), edge(1, Math.min)];
  const [w, d] = [edge(2, Math.max) - x, edge(3, Math.max) - y];
  const gridOf = (h: number): Grid => ({
    x0: x - h,
    y0: y - h,
    h,
    nx: Math.ceil(w / h) + 2,
    ny: Math.ceil(d / h) + 2,
  });
  const laid = (grid: Grid) =>
    of.map((l): SheetLayer => ({ ...l, faces: aperturesOf(ground.copper[l.index]!, l.pieces, grid) }));
  // a rough look first: how much of the box is copper
  const finest = Math.max(FINEST_MM, Math.sqrt((w * d * of.length) / MOST_CELLS));
  const rough = finest * ROUGH;
  let h = Math.max(finest, rough * Math.sqrt(onCopper(laid(gridOf(rough))) / MOST_NODES));
  for (;;) {
    const layers = laid(gridOf(h));
    const nodes = onCopper(layers);
    if (nodes <= MOST_NODES * 1.2) return new Sheet(ground, joined, group, gridOf(h), layers, copper);
    h *= Math.sqrt(nodes / MOST_NODES);
  }
}

/** Cells that have copper on a face of theirs. */
const onCopper = (layers: readonly SheetLayer[]): number =>
  layers.reduce((n, { faces }) => {
    let m = 0;
    for (let c = 0; c < faces.right.length; c++) if (faces.right[c]! > 0 || faces.up[c]! > 0) m++;
    return n + m;
  }, 0);

class Sheet implements CopperSheet {
  readonly grid: Grid;
  readonly layers: readonly SheetLayer[];
  readonly walls: readonly Wall[];
  readonly ground: Ground;
  readonly #joined: Joined;
  readonly #cells: number;
  readonly #one: Groups;
  #node: Int32Array;

  constructor(
    ground: Ground,
    joined: Joined,
    group: number,
    grid: Grid,
    layers: readonly SheetLayer[],
    copper: FlowCopper,
  ) {
    this.ground = ground;
    this.grid = grid;
    this.layers = layers;
    this.#joined = joined;
    this.#cells = grid.nx * grid.ny;
    this.#one = new Groups(this.#cells * layers.length);
    this.#node = new Int32Array(0);
    this.walls = joined.bodies.flatMap((body, n) =>
      body.plated && joined.nets.ofBody[n] === group ? this.#wallsOf(body, copper) : [],
    );
  }

  /** A plated hole is one with the copper around it on every layer it passes; between them stands its wall. */
  #wallsOf(body: Body, copper: FlowCopper): Wall[] {
    const [a, b] = [body.points[0]!, body.points.at(-1)!];
    const flank = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const mm2 = wallOf(2 * body.r, flank);
    const steps = Math.max(1, this.ground.copper.length - 1);
    const met = this.layers.flatMap((l, at) => {
      if (!passes(body, l.index)) return [];
      const cells = this.#within(at, body);
      return cells.length === 0 ? [] : [{ at, index: l.index, cell: this.#joinCells(cells) }];
    });
    return met.slice(1).map((to, k): Wall => {
      const from = met[k]!;
      const mm = (copper.boardMm * (to.index - from.index)) / steps;
      return { body, from: from.cell, to: to.cell, siemens: mm2 / (COPPER_OHM_MM * mm) };
    });
  }

  #within(layer: number, body: Body): number[] {
    const { x0, y0, h } = this.grid;
    // a ring left open around the hole is reached over its inner edge
    const reach = body.r + 0.7 * h;
    const out: number[] = [];
    const xs = body.points.map((p) => p[0]);
    const ys = body.points.map((p) => p[1]);
    this.#eachCell(Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys), reach, (i, j) => {
      const [x, y] = [x0 + (i + 0.5) * h, y0 + (j + 0.5) * h];
      const near = body.points.some((p, k) => {
        const q = body.points[Math.min(k + 1, body.points.length - 1)]!;
        return pointSegment2(x, y, p[0], p[1], q[0], q[1]) <= reach * reach;
      });
      if (near) out.push(layer * this.#cells + j * this.grid.nx + i);
    });
    return out;
  }

  #eachCell(
    x1: number,
    y1: number,
    x2: number,
    y2: number,
    more: number,
    each: (i: number, j: number) => void,
  ): void {
    const { x0, y0, h, nx, ny } = this.grid;
    const [i1, i2] = [Math.floor((x1 - more - x0) / h), Math.floor((x2 + more - x0) / h)];
    const [j1, j2] = [Math.floor((y1 - more - y0) / h), Math.floor((y2 + more - y0) / h)];
    for (let j = Math.max(0, j1); j <= Math.min(ny - 1, j2); j++)
      for (let i = Math.max(0, i1); i <= Math.min(nx - 1, i2); i++) each(i, j);
  }

  #joinCells(cells: readonly number[]): number {
    for (const c of cells) this.#one.join(cells[0]!, c);
    return cells[0]!;
  }

  cellsOf(pin: FlowPin): ReadonlySet<number> {
    const at = this.layers.findIndex((l) => l.name === pin.layer);
    if (at < 0) return new Set();
    const { index } = this.layers[at]!;
    const { solids } = this.ground.copper[index]!;
    const { x0, y0, h, nx } = this.grid;
    const pad = this.#joined.pads[index]!.find(
      (p) => Math.hypot(p.x - pin.x, p.y - pin.y) <= SAME_PAD_MM && this.layers[at]!.pieces.includes(p.piece),
    );
    if (!pad) return new Set();
    const [i, j] = [Math.floor((pin.x - x0) / h), Math.floor((pin.y - y0) / h)];
    const cells = new Set([at * this.#cells + j * nx + i]);
    const b = solids.box.subarray(4 * pad.piece, 4 * pad.piece + 4);
    this.#eachCell(b[0]!, b[1]!, b[2]!, b[3]!, 0, (i, j) => {
      if (solidCovers(solids, pad.piece, x0 + (i + 0.5) * h, y0 + (j + 0.5) * h))
        cells.add(at * this.#cells + j * nx + i);
    });
    return cells;
  }

  join(pins: readonly FlowPin[]): number | undefined {
    let first: number | undefined;
    for (const pin of pins)
      for (const c of this.cellsOf(pin)) {
        first ??= c;
        this.#one.join(first, c);
      }
    return first;
  }

  /** Faces with copper, as pairs of cells. */
  #faces(each: (a: number, b: number, siemens: number, layer: number, isUp: boolean) => void): void {
    const { nx } = this.grid;
    this.layers.forEach(({ faces, thickMm }, l) => {
      const sheet = thickMm / COPPER_OHM_MM;
      for (let c = 0; c < this.#cells; c++) {
        const a = l * this.#cells + c;
        if (faces.right[c]! > 0) each(a, a + 1, faces.right[c]! * sheet, l, false);
        if (faces.up[c]! > 0) each(a, a + nx, faces.up[c]! * sheet, l, true);
      }
    });
  }

  mesh(held: number): Mesh {
    const one = this.#one;
    const joins: [number[], number[], number[]] = [[], [], []];
    const reached = new Groups(this.#cells * this.layers.length);
    const add = (a: number, b: number, g: number) => {
      const [p, q] = [one.find(a), one.find(b)];
      if (p === q) return;
      joins[0].push(p);
      joins[1].push(q);
      joins[2].push(g);
      reached.join(p, q);
    };
    this.#faces(add);
    for (const w of this.walls) add(w.from, w.to, w.siemens);
    const home = reached.find(one.find(held));
    this.#node = new Int32Array(this.#cells * this.layers.length).fill(-1);
    let nodes = 0;
    const nodeOf = (root: number) => {
      if (this.#node[root]! < 0) this.#node[root] = nodes++;
      return this.#node[root]!;
    };
    nodeOf(one.find(held));
    const kept: [number[], number[], number[]] = [[], [], []];
    joins[0].forEach((p, e) => {
      if (reached.find(p) !== home) return;
      kept[0].push(nodeOf(p));
      kept[1].push(nodeOf(joins[1][e]!));
      kept[2].push(joins[2][e]!);
    });
    return meshOf(nodes, ...kept);
  }

  nodeOf(cell: number): number {
    return this.#node[this.#one.find(cell)]!;
  }

  flowing(volts: Float64Array): Flowing {
    const [right, up] = [0, 1].map(() => this.layers.map(() => new Float64Array(this.#cells)));
    const between = (a: number, b: number, g: number) => {
      const [p, q] = [this.nodeOf(a), this.nodeOf(b)];
      return p < 0 || q < 0 || p === q ? 0 : (volts[p]! - volts[q]!) * g;
    };
    this.#faces((a, b, g, l, isUp) => {
      (isUp ? up! : right!)[l]![a - l * this.#cells] = between(a, b, g);
    });
    const { nx } = this.grid;
    const intoCells = (cells: ReadonlySet<number>) => {
      let sum = 0;
      for (const c of cells) {
        const l = Math.floor(c / this.#cells);
        const k = c - l * this.#cells;
        if (!cells.has(c - 1) && k > 0) sum += right![l]![k - 1]!;
        if (!cells.has(c + 1)) sum -= right![l]![k]!;
        if (!cells.has(c - nx) && k >= nx) sum += up![l]![k - nx]!;
        if (!cells.has(c + nx)) sum -= up![l]![k]!;
      }
      const roots = new Set([...cells].map((c) => this.#one.find(c)));
      for (const w of this.walls) {
        const [a, b] = [roots.has(this.#one.find(w.from)), roots.has(this.#one.find(w.to))];
        if (a !== b) sum += (a ? -1 : 1) * between(w.from, w.to, w.siemens);
      }
      return sum;
    };
    return { right: right!, up: up!, intoCells };
  }
}
