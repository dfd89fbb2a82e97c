import { arcSweep } from "../../geometry/arc.ts";
import { clipAreas } from "../../geometry/clip.ts";
import type { Work } from "../../geometry/work.ts";
import { KIND, type LayerImage } from "../../gerber/image.ts";
import { ringsOf, shapesOfObject } from "../../gerber/shapes.ts";

/** A piece of outline: a line, or an arc about a centre. */
export interface Piece {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  arc?: { cx: number; cy: number; ccw: boolean };
}

/** The middle of an arc: which of the two sides between its ends it takes. */
export function middleOf(p: Piece): [number, number] {
  const { cx, cy } = p.arc!;
  const r = Math.hypot(p.x1 - cx, p.y1 - cy);
  const angle = Math.atan2(p.y1 - cy, p.x1 - cx) + sweepOf(p) / 2;
  return [cx + r * Math.cos(angle), cy + r * Math.sin(angle)];
}

/**
 * The pieces an outline is made of: the middle lines of what is drawn with a pen, and the edges of what is filled, as
 * the final image shows it. What is drawn twice counts once; two arcs are the same where they take the same side.
 */
export function collectPieces(image: LayerImage, work: Work): Piece[] {
  const out: Piece[] = [];
  const seen = new Set<string>();
  const k = (v: number) => Math.round(v * 1000);
  const push = (p: Piece) => {
    if (lengthOf(p) < 0.0005) return;
    const ends = [`${k(p.x1)} ${k(p.y1)}`, `${k(p.x2)} ${k(p.y2)}`].sort().join("|");
    const key = p.arc ? `${ends}|${middleOf(p).map(k).join(" ")}` : ends;
    if (seen.has(key)) return;
    seen.add(key);
    out.push(p);
  };
  const g = image.geo;
  const drawn: Piece[] = [];
  const filled: { rings: readonly (readonly number[])[]; isDark: boolean }[] = [];
  for (let i = 0; i < image.n; i++) {
    const o = i * 6;
    const kind = image.kind[i]!;
    const isDark = image.dark[i] === 1;
    // a flash, a region, and whatever takes away: what is left of it has an edge
    if (kind === KIND.flash || kind === KIND.region || !isDark) {
      for (const s of shapesOfObject(image, i)) filled.push({ rings: ringsOf(s, work), isDark });
      continue;
    }
    const p: Piece = { x1: g[o]!, y1: g[o + 1]!, x2: g[o + 2]!, y2: g[o + 3]! };
    if (kind !== KIND.line) p.arc = { cx: g[o + 4]!, cy: g[o + 5]!, ccw: kind === KIND.arcCcw };
    drawn.push(p);
  }
  for (const p of withoutOverlaps(drawn, work)) push(p);
  for (const ring of edgesOf(filled, work))
    for (let a = 0; a < ring.length; a += 2) {
      const b = (a + 2) % ring.length;
      push({ x1: ring[a]!, y1: ring[a + 1]!, x2: ring[b]!, y2: ring[b + 1]! });
    }
  return out;
}

/** How far one line runs over another before the two are one, mm; ends that only meet stay two. */
const OVERLAP_MM = 0.02;

/** Lines that run over each other on one straight line, as one each; all others as they are. */
function withoutOverlaps(lines: readonly Piece[], work: Work): readonly Piece[] {
  const carriers = new Map<string, Piece[]>();
  for (const p of lines) {
    const l = p.arc ? 0 : lengthOf(p);
    if (l < OVERLAP_MM) continue;
    const flip = p.x2 < p.x1 || (p.x2 === p.x1 && p.y2 < p.y1) ? -1 : 1;
    const [dx, dy] = [(flip * (p.x2 - p.x1)) / l, (flip * (p.y2 - p.y1)) / l];
    const key = `${Math.round(dx * 1e4)} ${Math.round(dy * 1e4)} ${Math.round((p.y1 * dx - p.x1 * dy) * 500)}`;
    const list = carriers.get(key);
    if (list) list.push(p);
    else carriers.set(key, [p]);
  }
  work.spend(lines.length * 4);
  const gone = new Set<Piece>();
  const made = new Map<Piece, Piece>();
  for (const list of carriers.values()) {
    if (list.length < 2) continue;
    const l0 = lengthOf(list[0]!);
    const [dx, dy] = [(list[0]!.x2 - list[0]!.x1) / l0, (list[0]!.y2 - list[0]!.y1) / l0];
    const on = list
      .map((p) => {
        const [a, b] = [p.x1 * dx + p.y1 * dy, p.x2 * dx + p.y2 * dy];
        return a <= b
          ? { p, a, b, from: [p.x1, p.y1], to: [p.x2, p.y2] }
          : { p, a: b, b: a, from: [p.x2, p.y2], to: [p.x1, p.y1] };
      })
      .sort((u, v) => u.a - v.a || u.b - v.b);
    let run = on[0]!;
    for (const next of on.slice(1)) {
      if (run.b - next.a <= OVERLAP_MM || (run.a === next.a && run.b === next.b)) {
        run = next;
        continue;
      }
      const end = next.b > run.b ? next : run;
      const whole = { x1: run.from[0]!, y1: run.from[1]!, x2: end.to[0]!, y2: end.to[1]! };
      gone.add(next.p);
      made.set(run.p, whole);
      run = { ...run, b: end.b, to: end.to };
    }
  }
  // a few lines over each other are an outline drawn in pieces; hundreds on one line are none
  if (made.size === 0 || gone.size > 3 * (lines.length - gone.size)) return lines;
  return lines.flatMap((p) => (gone.has(p) ? [] : [made.get(p) ?? p]));
}

/** Edges of filled objects laid over each other in their order: dark ones join, clear ones take away. */
function edgesOf(
  filled: readonly { readonly rings: readonly (readonly number[])[]; readonly isDark: boolean }[],
  work: Work,
): number[][] {
  let now: number[][] = [];
  for (let i = 0; i < filled.length; ) {
    const { isDark } = filled[i]!;
    const batch: (readonly number[])[] = [];
    for (; i < filled.length && filled[i]!.isDark === isDark; i++) batch.push(...filled[i]!.rings);
    now = clipAreas(
      isDark ? "union" : "difference",
      isDark ? [...now, ...batch] : now,
      isDark ? [] : batch,
      work,
    ).flat();
  }
  return now;
}

export const sweepOf = (p: Piece) => arcSweep(p.x1, p.y1, p.x2, p.y2, p.arc!.cx, p.arc!.cy, p.arc!.ccw, true);

export function lengthOf(p: Piece): number {
  if (!p.arc) return Math.hypot(p.x2 - p.x1, p.y2 - p.y1);
  return Math.abs(sweepOf(p)) * Math.hypot(p.x1 - p.arc.cx, p.y1 - p.arc.cy);
}

const turned = (p: Piece): Piece => ({
  x1: p.x2,
  y1: p.y2,
  x2: p.x1,
  y2: p.y1,
  ...(p.arc ? { arc: { ...p.arc, ccw: !p.arc.ccw } } : {}),
});

export interface Chained {
  loops: Piece[][];
  open: Piece[][];
  joined: { mm: number; x: number; y: number };
  gaps: { mm: number; x: number; y: number }[];
}

/** Walks from piece to piece, always to the nearest free end within the tolerance. O(n) with a grid of ends. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one algorithm: chains grow from both ends until none does
export function chain(pieces: readonly Piece[], tolerance: number, work: Work): Chained {
  const cell = Math.max(tolerance, 0.01) * 2;
  const grid = new Map<string, number[]>();
  const keyOf = (x: number, y: number) => `${Math.floor(x / cell)} ${Math.floor(y / cell)}`;
  const endX = (e: number) => (e % 2 === 0 ? pieces[e >> 1]!.x1 : pieces[e >> 1]!.x2);
  const endY = (e: number) => (e % 2 === 0 ? pieces[e >> 1]!.y1 : pieces[e >> 1]!.y2);
  const put = (e: number) => {
    const key = keyOf(endX(e), endY(e));
    const list = grid.get(key);
    if (list) list.push(e);
    else grid.set(key, [e]);
  };
  for (let i = 0; i < pieces.length; i++) {
    put(i * 2);
    put(i * 2 + 1);
  }
  const spent = (list: readonly number[] = []) => {
    work.spend(20 + list.length);
    return list;
  };
  const used = new Uint8Array(pieces.length);
  const nearest = (x: number, y: number): { end: number; mm: number } | undefined => {
    let best: { end: number; mm: number } | undefined;
    const [cx, cy] = [Math.floor(x / cell), Math.floor(y / cell)];
    for (let a = cx - 1; a <= cx + 1; a++)
      for (let b = cy - 1; b <= cy + 1; b++)
        for (const e of spent(grid.get(`${a} ${b}`))) {
          if (used[e >> 1]) continue;
          const mm = Math.hypot(endX(e) - x, endY(e) - y);
          if (mm <= tolerance && (!best || mm < best.mm)) best = { end: e, mm };
        }
    return best;
  };
  const out: Chained = { loops: [], open: [], joined: { mm: 0, x: 0, y: 0 }, gaps: [] };
  for (let s = 0; s < pieces.length; s++) {
    if (used[s]) continue;
    used[s] = 1;
    const first = pieces[s]!;
    const walk: Piece[] = [first];
    const notes: { mm: number; x: number; y: number }[] = [];
    let last = first;
    const close = (limit: number) => Math.hypot(last.x2 - walk[0]!.x1, last.y2 - walk[0]!.y1) <= limit;
    const isRing = first.arc !== undefined && first.x1 === first.x2 && first.y1 === first.y2;
    let isBack = false;
    while (!isRing) {
      const next = nearest(last.x2, last.y2);
      const home = Math.hypot(last.x2 - walk[0]!.x1, last.y2 - walk[0]!.y1);
      if (walk.length > 1 && home <= tolerance && home <= (next?.mm ?? tolerance)) break;
      if (!next) {
        // it may have been taken up in its middle: on from its other end
        if (isBack || !nearest(walk[0]!.x1, walk[0]!.y1)) break;
        isBack = true;
        walk.reverse();
        for (let i = 0; i < walk.length; i++) walk[i] = turned(walk[i]!);
        last = walk[walk.length - 1]!;
        continue;
      }
      notes.push({ mm: next.mm, x: last.x2, y: last.y2 });
      used[next.end >> 1] = 1;
      last = next.end % 2 === 0 ? pieces[next.end >> 1]! : turned(pieces[next.end >> 1]!);
      walk.push(last);
    }
    if (isRing || (walk.length > 1 && close(tolerance))) {
      notes.push({ mm: Math.hypot(last.x2 - walk[0]!.x1, last.y2 - walk[0]!.y1), x: last.x2, y: last.y2 });
      out.loops.push(walk);
      for (const n of notes) if (n.mm > out.joined.mm) out.joined = n;
    } else out.open.push(walk);
  }
  const ends = out.open.flatMap((walk) => {
    const [a, b] = [walk[0]!, walk[walk.length - 1]!];
    return [
      [a.x1, a.y1],
      [b.x2, b.y2],
    ] as const;
  });
  work.spend(ends.length * ends.length);
  ends.forEach(([x, y], i) => {
    let mm = Number.POSITIVE_INFINITY;
    ends.forEach(([u, v], j) => {
      if (j !== i) mm = Math.min(mm, Math.hypot(u - x, v - y));
    });
    out.gaps.push({ mm, x, y });
  });
  out.gaps.sort((a, b) => a.mm - b.mm);
  return out;
}
