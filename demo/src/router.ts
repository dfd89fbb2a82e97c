import type { Pad, Track } from "./design.ts";

/** Rules the demo boards are drawn to, in mm. */
export interface RouteRules {
  readonly width: number;
  readonly clearance: number;
  readonly viaPad: number;
  readonly viaDrill: number;
  readonly grid: number;
}

export interface Routed {
  readonly tracks: readonly Track[];
  readonly vias: readonly { readonly net: string; readonly x: number; readonly y: number }[];
}

/**
 * Connects the pads of each net on two layers by breadth-first search on a grid (Lee 1961 with costs).
 *
 * Nets that find no way go to the front and everything is laid again, a bounded number of times.
 * @param free says where copper may go, edges and holes kept away
 * @throws Error naming the nets left when no order works
 */
export function route(
  pads: readonly Pad[],
  w: number,
  h: number,
  free: (x: number, y: number, reach: number) => boolean,
  rules: RouteRules,
): Routed {
  const nets = new Map<string, Pad[]>();
  for (const p of pads) if (p.net !== "") nets.set(p.net, [...(nets.get(p.net) ?? []), p]);
  let order = [...nets.entries()]
    .filter(([, list]) => list.length > 1)
    .sort((a, b) => span(a[1]) - span(b[1]) || (a[0] < b[0] ? -1 : 1))
    .map(([n]) => n);
  for (let attempt = 0; attempt < 40; attempt++) {
    const board = new Grid(pads, w, h, free, rules);
    const failed = order.filter((net) => !board.connect(net, nets.get(net)!));
    if (failed.length === 0) return { tracks: board.tracks, vias: board.vias };
    order = [...failed, ...order.filter((n) => !failed.includes(n))];
    if (attempt === 39) throw new Error(`no way for ${failed.join(", ")}`);
  }
  throw new Error("unreachable");
}

const span = (pads: readonly Pad[]) => {
  const xs = pads.map((p) => p.x);
  const ys = pads.map((p) => p.y);
  return Math.max(...xs) - Math.min(...xs) + Math.max(...ys) - Math.min(...ys);
};

class Grid {
  readonly tracks: Track[] = [];
  readonly vias: { net: string; x: number; y: number }[] = [];
  private readonly nx: number;
  private readonly ny: number;
  /** Per layer and cell: 0 free, n only net n may pass, −1 nobody. */
  private readonly lane: Int32Array[];
  private readonly viaLane: Int32Array;
  private readonly ids = new Map<string, number>();
  private readonly rules: RouteRules;

  constructor(
    pads: readonly Pad[],
    w: number,
    h: number,
    free: (x: number, y: number, reach: number) => boolean,
    rules: RouteRules,
  ) {
    this.rules = rules;
    const g = rules.grid;
    this.nx = Math.floor(w / g) + 1;
    this.ny = Math.floor(h / g) + 1;
    this.lane = [new Int32Array(this.nx * this.ny), new Int32Array(this.nx * this.ny)];
    this.viaLane = new Int32Array(this.nx * this.ny);
    for (let j = 0; j < this.ny; j++)
      for (let i = 0; i < this.nx; i++) {
        const c = j * this.nx + i;
        if (!free(i * g, j * g, rules.width / 2)) this.lane[0]![c] = this.lane[1]![c] = -1;
        if (!free(i * g, j * g, rules.viaPad / 2)) this.viaLane[c] = -1;
      }
    for (const p of pads) {
      const id = this.id(p.net === "" ? `unconnected ${p.ref} ${p.pin}` : p.net);
      const layers = p.side === "through" ? [0, 1] : p.side === "top" ? [0] : [1];
      const isRound = p.shape === "circle";
      this.stamp(
        id,
        layers,
        (x, y) =>
          isRound ? Math.hypot(x - p.x, y - p.y) - p.w / 2 : boxDistance(x - p.x, y - p.y, p.w / 2, p.h / 2),
        p.x,
        p.y,
        Math.hypot(p.w, p.h) / 2,
      );
    }
  }

  private id(net: string): number {
    let n = this.ids.get(net);
    if (n === undefined) {
      n = this.ids.size + 1;
      this.ids.set(net, n);
    }
    return n;
  }

  private stamp(
    id: number,
    layers: readonly number[],
    distance: (x: number, y: number) => number,
    cx: number,
    cy: number,
    reach: number,
  ): void {
    const { grid: g, clearance, width, viaPad } = this.rules;
    const track = clearance + width / 2 + 0.04;
    const via = clearance + viaPad / 2 + 0.02;
    const r = reach + via;
    const mark = (lane: Int32Array, c: number) => {
      if (lane[c] === 0) lane[c] = id;
      else if (lane[c] !== id) lane[c] = -1;
    };
    for (
      let j = Math.max(0, Math.floor((cy - r) / g));
      j <= Math.min(this.ny - 1, Math.ceil((cy + r) / g));
      j++
    )
      for (
        let i = Math.max(0, Math.floor((cx - r) / g));
        i <= Math.min(this.nx - 1, Math.ceil((cx + r) / g));
        i++
      ) {
        const d = distance(i * g, j * g);
        const c = j * this.nx + i;
        if (d < track) for (const l of layers) mark(this.lane[l]!, c);
        if (d < via) mark(this.viaLane, c);
      }
  }

  /** Grows a tree from the first pad to all others. */
  connect(net: string, pads: readonly Pad[]): boolean {
    const id = this.id(net);
    const tree = new Set<number>(this.cellsOf(pads[0]!));
    const todo = [...pads.slice(1)].sort(
      (a, b) =>
        Math.hypot(a.x - pads[0]!.x, a.y - pads[0]!.y) - Math.hypot(b.x - pads[0]!.x, b.y - pads[0]!.y),
    );
    for (const pad of todo) {
      const targets = new Set(this.cellsOf(pad));
      if ([...targets].some((t) => tree.has(t))) continue;
      const path = this.search(id, tree, targets, pad);
      if (!path) return false;
      this.lay(net, id, path);
      for (const c of path) tree.add(c);
      for (const c of targets) tree.add(c);
    }
    return true;
  }

  private cellsOf(p: Pad): number[] {
    const g = this.rules.grid;
    const out: number[] = [];
    const layers = p.side === "through" ? [0, 1] : p.side === "top" ? [0] : [1];
    const [hw, hh] = [Math.max(0, p.w / 2 - 0.1), Math.max(0, p.h / 2 - 0.1)];
    for (let j = Math.ceil((p.y - hh) / g); j <= Math.floor((p.y + hh) / g + 1e-9); j++)
      for (let i = Math.ceil((p.x - hw) / g - 1e-9); i <= Math.floor((p.x + hw) / g + 1e-9); i++) {
        if (p.shape === "circle" && Math.hypot(i * g - p.x, j * g - p.y) > p.w / 2 - 0.1) continue;
        for (const l of layers) out.push(l * this.nx * this.ny + j * this.nx + i);
      }
    if (out.length === 0)
      for (const l of layers)
        out.push(l * this.nx * this.ny + Math.round(p.y / g) * this.nx + Math.round(p.x / g));
    return out;
  }

  private search(
    id: number,
    from: ReadonlySet<number>,
    to: ReadonlySet<number>,
    goal: Pad,
  ): number[] | undefined {
    const size = this.nx * this.ny;
    const cost = new Float64Array(size * 2).fill(Number.POSITIVE_INFINITY);
    const back = new Int32Array(size * 2).fill(-1);
    const heap = new Heap();
    const g = this.rules.grid;
    const [gi, gj] = [goal.x / g, goal.y / g];
    const guess = (c: number) => {
      const k = c % size;
      const [dx, dy] = [Math.abs((k % this.nx) - gi), Math.abs(Math.floor(k / this.nx) - gj)];
      return Math.max(0, Math.max(dx, dy) + 0.41 * Math.min(dx, dy) - 4);
    };
    for (const c of from) {
      cost[c] = 0;
      heap.push(guess(c), c);
    }
    for (let c = heap.pop(); c !== undefined; c = heap.pop()) {
      if (to.has(c)) {
        const path: number[] = [];
        for (let k = c; k >= 0; k = back[k]!) path.push(k);
        return path.reverse();
      }
      const layer = c >= size ? 1 : 0;
      const k = c % size;
      const [i, j] = [k % this.nx, Math.floor(k / this.nx)];
      const step = (next: number, price: number) => {
        const total = cost[c]! + price;
        if (total < cost[next]! - 1e-9) {
          cost[next] = total;
          back[next] = c;
          heap.push(total + guess(next), next);
        }
      };
      for (let dj = -1; dj <= 1; dj++)
        for (let di = -1; di <= 1; di++) {
          if ((di === 0 && dj === 0) || i + di < 0 || j + dj < 0 || i + di >= this.nx || j + dj >= this.ny)
            continue;
          const n = (j + dj) * this.nx + i + di;
          const lane = this.lane[layer]![n]!;
          if (lane !== 0 && lane !== id) continue;
          const isAcross = layer === 0 ? di === 0 : dj === 0;
          step(layer * size + n, (di !== 0 && dj !== 0 ? 1.45 : 1) * (isAcross ? 1.15 : 1));
        }
      if (this.viaLane[k] === 0 || this.viaLane[k] === id) {
        const other = this.lane[1 - layer]![k]!;
        if (other === 0 || other === id) step((1 - layer) * size + k, 12);
      }
    }
    return undefined;
  }

  private lay(net: string, id: number, path: readonly number[]): void {
    const size = this.nx * this.ny;
    const g = this.rules.grid;
    const at = (c: number): [number, number, number] => [
      ((c % size) % this.nx) * g,
      Math.floor((c % size) / this.nx) * g,
      c >= size ? 1 : 0,
    ];
    let start = 0;
    const flush = (end: number) => {
      if (end <= start) return;
      const [x1, y1, l] = at(path[start]!);
      const [x2, y2] = at(path[end]!);
      this.tracks.push({ net, layer: l === 0 ? "top" : "bottom", x1, y1, x2, y2, width: this.rules.width });
      const length2 = (x2 - x1) ** 2 + (y2 - y1) ** 2;
      this.stamp(
        id,
        [l],
        (x, y) => {
          const t =
            length2 > 0
              ? Math.max(0, Math.min(1, ((x - x1) * (x2 - x1) + (y - y1) * (y2 - y1)) / length2))
              : 0;
          return Math.hypot(x - x1 - t * (x2 - x1), y - y1 - t * (y2 - y1)) - this.rules.width / 2;
        },
        (x1 + x2) / 2,
        (y1 + y2) / 2,
        Math.sqrt(length2) / 2 + this.rules.width,
      );
    };
    for (let k = 1; k < path.length; k++) {
      const [x0, y0, l0] = at(path[k - 1]!);
      const [x1, y1, l1] = at(path[k]!);
      if (l0 !== l1) {
        flush(k - 1);
        start = k;
        this.vias.push({ net, x: x1, y: y1 });
        this.stamp(
          id,
          [0, 1],
          (x, y) => Math.hypot(x - x1, y - y1) - this.rules.viaPad / 2,
          x1,
          y1,
          this.rules.viaPad / 2,
        );
        continue;
      }
      if (k + 1 < path.length) {
        const [x2, y2, l2] = at(path[k + 1]!);
        if (l2 === l1 && Math.abs(x2 - x1 - (x1 - x0)) < 1e-9 && Math.abs(y2 - y1 - (y1 - y0)) < 1e-9)
          continue;
      }
      flush(k);
      start = k;
    }
  }
}

const boxDistance = (dx: number, dy: number, hw: number, hh: number) =>
  Math.hypot(Math.max(0, Math.abs(dx) - hw), Math.max(0, Math.abs(dy) - hh));

/** A binary heap of cells by cost. */
class Heap {
  private readonly keys: number[] = [];
  private readonly cells: number[] = [];

  push(key: number, cell: number): void {
    let i = this.keys.length;
    this.keys.push(key);
    this.cells.push(cell);
    while (i > 0) {
      const p = (i - 1) >> 1;
      if (this.keys[p]! <= key) break;
      this.keys[i] = this.keys[p]!;
      this.cells[i] = this.cells[p]!;
      i = p;
    }
    this.keys[i] = key;
    this.cells[i] = cell;
  }

  pop(): number | undefined {
    if (this.keys.length === 0) return undefined;
    const top = this.cells[0]!;
    const key = this.keys.pop()!;
    const cell = this.cells.pop()!;
    const n = this.keys.length;
    if (n > 0) {
      let i = 0;
      for (;;) {
        let c = 2 * i + 1;
        if (c >= n) break;
        if (c + 1 < n && this.keys[c + 1]! < this.keys[c]!) c++;
        if (this.keys[c]! >= key) break;
        this.keys[i] = this.keys[c]!;
        this.cells[i] = this.cells[c]!;
        i = c;
      }
      this.keys[i] = key;
      this.cells[i] = cell;
    }
    return top;
  }
}
