/** A round post or hole: its middle and diameter, mm. */
export interface Round {
  readonly x: number;
  readonly y: number;
  readonly diameterMm: number;
}

/** Where a board lies: a point p of its files at turn(p, counter-clockwise about 0/0) + (x, y). */
export interface Shift {
  readonly xMm: number;
  readonly yMm: number;
  readonly turnDeg: number;
}

/** Sharpness of the stand-in for the greatest, 1/mm, from soft to so sharp that a nanometre tells. */
const SHARPNESS = [8, 32, 128, 512, 2048, 8192, 32_768, 131_072, 524_288, 2_097_152];
const STEPS = 25;

type Three = readonly [number, number, number];

/** The stand-in for the greatest lack of room at a place, with its slope and how it bends. */
interface Soft {
  readonly value: number;
  readonly slope: Three;
  /** xx, xy, xz, yy, yz, zz. */
  readonly bend: readonly number[];
}

/**
 * The position of a board in which the tightest of its holes has most room about its post.
 *
 * Maximises min over i of holeᵢ − postᵢ − 2·distanceᵢ, over shift and turn: begun from the rigid least-squares fit, then
 * Newton steps with a line search on (1/β)·log Σ exp(β·(2·distanceᵢ − roomᵢ)), β sharpened step by step. The function is
 * convex in the shift and nearly so in small turns, so what is found is the best near the least-squares fit, to about
 * log(n)/β, a micrometre's thousandth; a hundredth of one where the holes lie nearly on one spot. O(n) a step, some hundred steps.
 *
 * @param holes as in the board's files; `holes[i]` belongs to `posts[i]`
 */
export function bestShift(posts: readonly Round[], holes: readonly Round[]): Shift {
  // about their middles, so that what both are drawn about makes no difference to the steps
  const [p, h] = [middleOf(posts), middleOf(holes)];
  const about = (list: readonly Round[], m: Round) => list.map((r) => ({ ...r, x: r.x - m.x, y: r.y - m.y }));
  const at = bestAbout(about(posts, p), about(holes, h));
  const turn = (at.turnDeg * Math.PI) / 180;
  const [s, c] = [Math.sin(turn), Math.cos(turn)];
  return { ...at, xMm: at.xMm + p.x - (c * h.x - s * h.y), yMm: at.yMm + p.y - (s * h.x + c * h.y) };
}

const middleOf = (list: readonly Round[]): Round => ({
  x: list.reduce((t, r) => t + r.x, 0) / list.length,
  y: list.reduce((t, r) => t + r.y, 0) / list.length,
  diameterMm: 0,
});

function bestAbout(posts: readonly Round[], holes: readonly Round[]): Shift {
  const n = posts.length;
  const [x0, y0, turn0] = rigidFit(posts, holes);
  const room = posts.map((p, i) => holes[i]!.diameterMm - p.diameterMm);
  // a turn counts as far as it moves the farthest hole: steps of like size in all three
  const reach = Math.max(1e-3, ...holes.map((h) => Math.hypot(h.x, h.y)));
  const soft = ([x, y, z]: Three, beta: number): Soft => {
    const [s, c] = [Math.sin(z / reach), Math.cos(z / reach)];
    // a distance of nothing has no direction: it is rounded off where it could not be told
    const blunt = (0.1 / beta) ** 2;
    const f = new Float64Array(n);
    const g: Three[] = [];
    const across: Three[] = [];
    for (let i = 0; i < n; i++) {
      const h = holes[i]!;
      const [rx, ry] = [c * h.x - s * h.y, s * h.x + c * h.y];
      const [dx, dy] = [rx + x - posts[i]!.x, ry + y - posts[i]!.y];
      const d = Math.sqrt(dx * dx + dy * dy + blunt);
      f[i] = 2 * d - room[i]!;
      const [ux, uy] = [dx / d, dy / d];
      g.push([2 * ux, 2 * uy, (2 * (-ux * ry + uy * rx)) / reach]);
      const k = Math.sqrt(2 / d);
      across.push([-uy * k, ux * k, ((uy * ry + ux * rx) * k) / reach]);
    }
    const most = Math.max(...f);
    const w = f.map((v) => Math.exp(beta * (v - most)));
    const total = w.reduce((t, v) => t + v, 0);
    const slope: [number, number, number] = [0, 0, 0];
    const bend = [0, 0, 0, 0, 0, 0];
    for (let i = 0; i < n; i++) {
      const p = w[i]! / total;
      for (const k of [0, 1, 2] as const) slope[k] += p * g[i]![k];
      add(bend, g[i]!, beta * p);
      add(bend, across[i]!, p);
    }
    add(bend, slope, -beta);
    return { value: most + Math.log(total) / beta, slope, bend };
  };
  let at: Three = [x0, y0, turn0 * reach];
  for (const beta of SHARPNESS) {
    let now = soft(at, beta);
    for (let step = 0; step < STEPS; step++) {
      const s = solve3(now.bend, now.slope);
      const gain = s[0] * now.slope[0] + s[1] * now.slope[1] + s[2] * now.slope[2];
      if (!(gain > 1e-13)) break;
      let k = 1;
      let next = now;
      let to = at;
      for (; k > 1e-9; k /= 2) {
        to = [at[0] - k * s[0], at[1] - k * s[1], at[2] - k * s[2]];
        next = soft(to, beta);
        if (next.value <= now.value - 1e-4 * k * gain) break;
      }
      if (!(next.value < now.value)) break;
      [at, now] = [to, next];
    }
  }
  return { xMm: at[0], yMm: at[1], turnDeg: (at[2] / reach) * (180 / Math.PI) };
}

/** Room of each hole about its post where the board lies so: hole − post − 2 × distance of middles, mm. */
export function roomAt(posts: readonly Round[], holes: readonly Round[], at: Shift): number[] {
  const turn = (at.turnDeg * Math.PI) / 180;
  const [s, c] = [Math.sin(turn), Math.cos(turn)];
  return posts.map((p, i) => {
    const h = holes[i]!;
    const [dx, dy] = [c * h.x - s * h.y + at.xMm - p.x, s * h.x + c * h.y + at.yMm - p.y];
    return h.diameterMm - p.diameterMm - 2 * Math.hypot(dx, dy);
  });
}

/** The shift and turn with the least sum of squared distances (Procrustes, without mirroring). */
function rigidFit(posts: readonly Round[], holes: readonly Round[]): [number, number, number] {
  const n = posts.length;
  const mean = (list: readonly Round[], k: "x" | "y") => list.reduce((t, p) => t + p[k], 0) / n;
  const [px, py, hx, hy] = [mean(posts, "x"), mean(posts, "y"), mean(holes, "x"), mean(holes, "y")];
  let [dot, cross] = [0, 0];
  for (let i = 0; i < n; i++) {
    const [ax, ay] = [holes[i]!.x - hx, holes[i]!.y - hy];
    const [bx, by] = [posts[i]!.x - px, posts[i]!.y - py];
    dot += ax * bx + ay * by;
    cross += ax * by - ay * bx;
  }
  const turn = dot === 0 && cross === 0 ? 0 : Math.atan2(cross, dot);
  const [s, c] = [Math.sin(turn), Math.cos(turn)];
  return [px - (c * hx - s * hy), py - (s * hx + c * hy), turn];
}

/** Adds k·v·vᵀ to a symmetric matrix kept as xx, xy, xz, yy, yz, zz. */
function add(m: number[], v: Three, k: number): void {
  m[0]! += k * v[0] * v[0];
  m[1]! += k * v[0] * v[1];
  m[2]! += k * v[0] * v[2];
  m[3]! += k * v[1] * v[1];
  m[4]! += k * v[1] * v[2];
  m[5]! += k * v[2] * v[2];
}

/** Solves (m + a little)·s = g by Cholesky's way; the slope itself where the matrix is no hill. */
function solve3(m: readonly number[], g: Three): Three {
  const e = 1e-12 * (m[0]! + m[3]! + m[5]!) + 1e-12;
  const a = Math.sqrt(m[0]! + e);
  const b = m[1]! / a;
  const c = m[2]! / a;
  const d = Math.sqrt(m[3]! + e - b * b);
  const f = (m[4]! - b * c) / d;
  const h = Math.sqrt(m[5]! + e - c * c - f * f);
  if (!(a > 0 && d > 0 && h > 0)) return g;
  const u = g[0] / a;
  const v = (g[1] - b * u) / d;
  const w = (g[2] - c * u - f * v) / h;
  const z = w / h;
  const y = (v - f * z) / d;
  return [(u - b * y - c * z) / a, y, z];
}
