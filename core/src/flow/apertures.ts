import type { LayerSolids } from "../board/copper/copper.ts";

/** A square grid over a part of the board, mm as in the files. Cell (i, j) is cell number j · nx + i. */
export interface Grid {
  readonly x0: number;
  readonly y0: number;
  readonly h: number;
  readonly nx: number;
  readonly ny: number;
}

/** How much of each cell's right and upper face is copper, 0 … 1. */
export interface Apertures {
  readonly right: Float32Array;
  readonly up: Float32Array;
}

/** Stretches of a line, from and to, in any order and lying over each other. */
type Stretches = number[];

/**
 * How much of every face of a grid lies on copper: exact lengths along its lines, whatever overlaps counted once. A current
 * that flows evenly along a straight track at any angle flows so over these faces, so that coarse cells lose nothing of it.
 *
 * @param pieces of the layer, by number
 */
export function aperturesOf(layer: LayerSolids, pieces: readonly number[], g: Grid): Apertures {
  const right = new Float32Array(g.nx * g.ny);
  const up = new Float32Array(g.nx * g.ny);
  // the upper faces of row j lie on the line y0 + (j + 1)h, the right ones of column i on x0 + (i + 1)h
  const rows = crossed(layer, pieces, g.y0 + g.h, g.h, g.ny - 1, 0);
  const columns = crossed(layer, pieces, g.x0 + g.h, g.h, g.nx - 1, 1);
  for (const [j, s] of rows.entries()) spread(s, g.x0, g.h, g.nx, up, j * g.nx, 1);
  for (const [i, s] of columns.entries()) spread(s, g.y0, g.h, g.ny, right, i, g.nx);
  return { right, up };
}

/** Adds the shares of the cells along a line that its stretches cover; cell i of the line is number from + i · step. */
function spread(
  s: Stretches,
  start: number,
  h: number,
  cells: number,
  shares: Float32Array,
  from: number,
  step: number,
): void {
  if (s.length === 0) return;
  const order = Array.from({ length: s.length / 2 }, (_, k) => k).sort((a, b) => s[2 * a]! - s[2 * b]!);
  const lay = (a: number, b: number) => {
    const [p, q] = [(a - start) / h, (b - start) / h];
    for (let i = Math.max(0, Math.floor(p)); i < Math.min(cells, q); i++) {
      const on = Math.min(q, i + 1) - Math.max(p, i);
      const k = from + i * step;
      if (on > 1e-9) shares[k] = Math.min(1, shares[k]! + on);
    }
  };
  let [a, b] = [s[2 * order[0]!]!, s[2 * order[0]! + 1]!];
  for (let n = 1; n < order.length; n++) {
    const k = order[n]!;
    if (s[2 * k]! > b) {
      lay(a, b);
      [a, b] = [s[2 * k]!, s[2 * k + 1]!];
    } else b = Math.max(b, s[2 * k + 1]!);
  }
  lay(a, b);
}

/**
 * Where parallel lines run over copper: the line with number k lies at first + k · h.
 *
 * @param axis 0 for lines of one y, 1 for lines of one x
 */
function crossed(
  { solids: s }: LayerSolids,
  pieces: readonly number[],
  first: number,
  h: number,
  lines: number,
  axis: 0 | 1,
): Stretches[] {
  const out: Stretches[] = Array.from({ length: Math.max(0, lines) }, () => []);
  const e = s.edges;
  const [u, v] = [axis, 1 - axis];
  for (const k of pieces) {
    const r = s.radius[k]!;
    const inside = new Map<number, number[]>();
    for (let o = s.firstEdge[k]! * 4; o < s.firstEdge[k + 1]! * 4; o += 4) {
      const [a1, b1, a2, b2] = [e[o + u]!, e[o + v]!, e[o + 2 + u]!, e[o + 2 + v]!];
      const low = Math.max(0, Math.ceil((Math.min(b1, b2) - r - first) / h - 1e-12));
      const high = Math.min(lines - 1, Math.floor((Math.max(b1, b2) + r - first) / h + 1e-12));
      if (high >= low) s.work.spend(high - low + 1);
      for (let line = low; line <= high; line++) {
        const at = first + line * h;
        if (r > 0) {
          const on = capsuleOn(a1, b1, a2, b2, r, at);
          if (on) out[line]!.push(on[0], on[1]);
        } else if (b1 <= at !== b2 <= at) {
          const cut = inside.get(line) ?? [];
          cut.push(a1 + ((at - b1) / (b2 - b1)) * (a2 - a1));
          inside.set(line, cut);
        }
      }
    }
    for (const [line, cuts] of inside) {
      cuts.sort((p, q) => p - q);
      for (let i = 0; i + 1 < cuts.length; i += 2) out[line]!.push(cuts[i]!, cuts[i + 1]!);
    }
  }
  return out;
}

/** The stretch of the line b = at that lies within r of the segment from (a1, b1) to (a2, b2). */
function capsuleOn(
  a1: number,
  b1: number,
  a2: number,
  b2: number,
  r: number,
  at: number,
): readonly [number, number] | undefined {
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  const take = (p: number, q: number) => {
    low = Math.min(low, p);
    high = Math.max(high, q);
  };
  for (const [a, b] of [
    [a1, b1],
    [a2, b2],
  ] as const) {
    const d2 = r * r - (at - b) * (at - b);
    if (d2 >= 0) take(a - Math.sqrt(d2), a + Math.sqrt(d2));
  }
  // between the ends: the two sides of the stroke, cut where they begin and end
  const length = Math.hypot(a2 - a1, b2 - b1);
  if (length > 0) {
    const [na, nb] = [(-(b2 - b1) / length) * r, ((a2 - a1) / length) * r];
    for (const sign of [1, -1]) {
      const [pb, qb] = [b1 + sign * nb, b2 + sign * nb];
      if (pb <= at === qb <= at || pb === qb) continue;
      const on = a1 + sign * na + ((at - pb) / (qb - pb)) * (a2 - a1);
      take(on, on);
    }
  }
  return high > low ? [low, high] : undefined;
}
