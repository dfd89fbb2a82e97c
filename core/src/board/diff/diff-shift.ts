import { KIND } from "../../gerber/image.ts";
import type { BoardFile, BoardSet } from "../board-file.ts";
import { chainOutline } from "../outline/outline.ts";

/** Differences narrower than this are drawing noise, mm. */
export const NOISE_MM = 0.005;

/** Added to a place of the other board, it lies where it is on this one, mm. */
export type Shift = readonly [number, number];

interface Point {
  readonly x: number;
  readonly y: number;
  /** Points of one kind may be each other: a hole of that diameter, a pad of that size on that layer. */
  readonly kind: string;
}

/** Points of a board that vote, spread over it; and those that are looked up. */
const VOTERS = 40;
const JUDGES = 400;
/** Points of one board that are looked at in all. */
const MOST_POINTS = 20_000;
/** How near a point must lie to another to be it, mm. */
const SAME_MM = 0.01;

/**
 * How another board is laid on this one, whatever origin either is drawn about: by equal outlines, by a common corner, or by
 * the shift that most holes and pads agree on (domain.md 2.11). No turn and no mirroring: these are changes.
 *
 * Each way is judged by the share of some hundred holes and pads that have their like there; equal outlines win unless
 * another way is clearly better, and nothing moves where none is.
 */
export function commonShift(now: BoardSet, other: BoardSet): Shift {
  const [p, q] = [pointsOf(now), pointsOf(other)];
  const [a, b] = [boxOf(now), boxOf(other)];
  const at = finderOf(q);
  const sample = spread(p, JUDGES);
  const score = ([dx, dy]: Shift) => sample.filter((v) => at(v, dx, dy)).length / Math.max(1, sample.length);
  const corners: Shift[] =
    a && b
      ? [
          [a[0] - b[0], a[1] - b[1]],
          [a[2] - b[2], a[1] - b[1]],
          [a[0] - b[0], a[3] - b[3]],
          [a[2] - b[2], a[3] - b[3]],
        ]
      : [];
  const isEqual =
    a !== undefined &&
    b !== undefined &&
    Math.abs(a[2] - a[0] - b[2] + b[0]) < NOISE_MM &&
    Math.abs(a[3] - a[1] - b[3] + b[1]) < NOISE_MM;
  let best: Shift = isEqual ? corners[0]! : [0, 0];
  let most = score(best) + (isEqual ? 0.2 : 0.05);
  for (const c of [[0, 0] as const, ...corners, ...voted(spread(p, VOTERS), q)]) {
    const s = score(c);
    if (s > most + 1e-9) [best, most] = [c, s];
  }
  return best;
}

function boxOf(s: BoardSet): readonly [number, number, number, number] | undefined {
  const f = s.files.find((x) => x.role === "profile" && x.layer);
  return f?.layer ? chainOutline(f.layer, f.path).box : undefined;
}

function pointsOf(s: BoardSet): Point[] {
  const out: Point[] = [];
  const put = (x: number, y: number, kind: string) => {
    if (out.length < MOST_POINTS) out.push({ x, y, kind });
  };
  const size = (v: number) => Math.round(v * 100);
  for (const f of s.files)
    if (f.role === "drill") for (const h of f.drill?.hits ?? []) put(h.x, h.y, `hole ${size(h.diameterMm)}`);
  for (const f of s.files) if (f.role === "copper" && f.side !== "inner") putFlashes(f, put, size);
  return out;
}

function putFlashes(
  f: BoardFile,
  put: (x: number, y: number, kind: string) => void,
  size: (v: number) => number,
): void {
  const { layer } = f;
  for (let i = 0; layer && i < layer.n; i++) {
    if (layer.kind[i] !== KIND.flash || layer.dark[i] === 0) continue;
    const [x0, y0, x1, y1] = layer.apertures[layer.aperture[i]!]?.box ?? [0, 0, 0, 0];
    put(layer.geo[i * 6]!, layer.geo[i * 6 + 1]!, `${f.side} ${size(x1 - x0)} ${size(y1 - y0)}`);
  }
}

const spread = <T>(list: readonly T[], most: number): T[] => {
  const step = Math.max(1, list.length / most);
  return Array.from({ length: Math.min(most, list.length) }, (_, i) => list[Math.floor(i * step)]!);
};

/** Looks a point up among the other board's, moved. */
function finderOf(points: readonly Point[]): (p: Point, dx: number, dy: number) => boolean {
  const cell = 0.1;
  const cells = new Map<string, Point[]>();
  for (const p of points) {
    const key = `${Math.round(p.x / cell)} ${Math.round(p.y / cell)}`;
    const list = cells.get(key);
    if (list) list.push(p);
    else cells.set(key, [p]);
  }
  return (p, dx, dy) => {
    const [x, y] = [p.x - dx, p.y - dy];
    for (let a = -1; a <= 1; a++)
      for (let b = -1; b <= 1; b++)
        for (const q of cells.get(`${Math.round(x / cell) + a} ${Math.round(y / cell) + b}`) ?? [])
          if (q.kind === p.kind && Math.abs(q.x - x) <= SAME_MM && Math.abs(q.y - y) <= SAME_MM) return true;
    return false;
  };
}

/** Shifts that most pairs of like points agree on, the three with most votes. */
function voted(voters: readonly Point[], points: readonly Point[]): Shift[] {
  const byKind = new Map<string, Point[]>();
  for (const q of points) {
    const list = byKind.get(q.kind);
    if (list) list.push(q);
    else byKind.set(q.kind, [q]);
  }
  const votes = new Map<string, { readonly at: Shift; n: number }>();
  for (const p of voters)
    for (const q of byKind.get(p.kind) ?? []) {
      const [dx, dy] = [p.x - q.x, p.y - q.y];
      const key = `${Math.round(dx * 100)} ${Math.round(dy * 100)}`;
      const known = votes.get(key);
      if (known) known.n++;
      else votes.set(key, { at: [dx, dy], n: 1 });
    }
  return [...votes.values()]
    .sort((a, b) => b.n - a.n)
    .slice(0, 3)
    .map((v) => v.at);
}
