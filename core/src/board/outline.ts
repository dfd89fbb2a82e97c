import { arcPoints, arcSweep } from "../geometry/arc.ts";
import { insideRings, signedArea } from "../geometry/polygon.ts";
import { segmentSegment2 } from "../geometry/segment.ts";
import { KIND, type LayerImage } from "../gerber/image.ts";
import type { Finding } from "./findings.ts";

/** A piece of outline: a line, or an arc about a centre. */
interface Piece {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  arc?: { cx: number; cy: number; ccw: boolean };
}

/** A closed loop of the profile. */
export interface Loop {
  /** Flattened ring in mm, counter-clockwise. */
  readonly ring: readonly number[];
  /** Exact, arcs as arcs. */
  readonly areaMm2: number;
  readonly perimeterMm: number;
  readonly box: readonly [number, number, number, number];
  /** 0 board, 1 cut-out, 2 board inside a cut-out. */
  readonly depth: number;
  /** Least radius at which the edge turns toward the material of a cutter; 0 for a sharp corner; undefined if none. */
  readonly innerRadiusMm?: number;
}

/** The board's outline as measured. */
export interface Outline {
  readonly isClosed: boolean;
  readonly loops: readonly Loop[];
  readonly largestGapMm: number;
  readonly findings: readonly Finding[];
  readonly widthMm?: number;
  readonly heightMm?: number;
  readonly areaMm2?: number;
  readonly perimeterMm?: number;
  readonly cutouts: number;
  readonly minInnerRadiusMm?: number;
  readonly box?: readonly [number, number, number, number];
}

/** Joining distances tried in turn, with the level at which each is reported. */
const STEPS = [
  { mm: 0.01, level: undefined },
  { mm: 0.05, level: "remark" },
  { mm: 0.25, level: "warning" },
] as const;

/**
 * Chains the centre lines of a profile layer into loops and measures them.
 *
 * Steps: pieces shorter than 0.5 µm and duplicates go; ends within 0.01 mm are joined silently, to 0.05 mm with a
 * remark, to 0.25 mm with a caution; beyond that the outline is open and no size is claimed. Area with arcs:
 * ½ Σ(xᵢyᵢ₊₁ − xᵢ₊₁yᵢ) + Σ ± ½ r²(θ − sin θ) (domain.md 2.3).
 *
 * @param file name for the findings
 */
export function chainOutline(image: LayerImage, file: string): Outline {
  const pieces = collectPieces(image);
  if (pieces.length === 0)
    return {
      isClosed: false,
      loops: [],
      largestGapMm: 0,
      cutouts: 0,
      findings: [
        {
          tag: "outline-missing",
          level: "error",
          file,
          text: "The profile layer draws nothing.",
          do: "Export the board's outline into its own layer and drop it here.",
        },
      ],
    };
  let best: Chained | undefined;
  for (const step of STEPS) {
    best = chain(pieces, step.mm);
    if (best.open.length === 0) return measured(best, step, file, []);
  }
  // closed loops that hold everything else make the rest strays, not an open outline
  const strays = best!.open;
  const outer = best!.loops
    .map((l) => boxOf(l))
    .find((b) => strays.every((s) => s.every((p) => inBox(b, p))));
  if (outer) return measured(best!, STEPS[2], file, strays);
  const gap = best!.gaps[0];
  return {
    isClosed: false,
    loops: [],
    largestGapMm: gap?.mm ?? 0,
    cutouts: 0,
    findings: [
      {
        tag: "outline-open",
        level: "error",
        file,
        ...(gap ? { at: { layer: "profile", x: gap.x, y: gap.y } } : {}),
        text: gap
          ? `The outline does not close: at ${gap.x.toFixed(2)}, ${gap.y.toFixed(2)} mm the next end is ${gap.mm.toFixed(2)} mm away.`
          : "The outline does not close.",
        do: "Join the ends in your layout program and export the outline again.",
      },
    ],
  };
}

function measured(
  found: Chained,
  step: (typeof STEPS)[number],
  file: string,
  strays: readonly (readonly Piece[])[],
): Outline {
  const findings: Finding[] = [];
  const gap = found.joined;
  if (step.level && gap.mm > 0.01)
    findings.push({
      tag: "outline-gap",
      level: gap.mm > 0.05 ? "warning" : "remark",
      file,
      at: { layer: "profile", x: gap.x, y: gap.y },
      text: `Ends of the outline ${gap.mm.toFixed(3)} mm apart were joined.`,
      do: "Check the place on the picture.",
    });
  for (const s of strays.slice(0, 3))
    findings.push({
      tag: "outline-stray",
      level: "warning",
      file,
      at: { layer: "profile", x: s[0]!.x1, y: s[0]!.y1 },
      text: `A line in the profile layer belongs to no closed loop (near ${s[0]!.x1.toFixed(2)}, ${s[0]!.y1.toFixed(2)} mm).`,
      do: "Take it out of the outline layer, or say in the notes what it means.",
    });
  const rings = found.loops.map((l) => flatten(l));
  const loops: Loop[] = found.loops
    .map((loop, k) => {
      const ring = rings[k]!;
      const isCcw = signedArea(ring) >= 0;
      const depth = rings.filter((r, m) => m !== k && insideRings([r], ring[0]!, ring[1]!)).length;
      const inner = innerRadius(loop, isCcw, depth % 2 === 1);
      return {
        ring: isCcw ? ring : reversed(ring),
        areaMm2: Math.abs(exactArea(loop)),
        perimeterMm: loop.reduce((sum, p) => sum + lengthOf(p), 0),
        depth,
        box: exactBox(loop),
        ...(inner === undefined ? {} : { innerRadiusMm: inner }),
      };
    })
    .sort((a, b) => b.areaMm2 - a.areaMm2);
  const outer = loops.filter((l) => l.depth === 0);
  if (outer.length > 1)
    findings.push({
      tag: "outline-several",
      level: "warning",
      file,
      text: `The profile holds ${outer.length} separate outlines; the largest is taken as the board.`,
      do: "If this is a panel of several boards, hand over one board.",
    });
  const board = outer[0];
  if (!board) return { isClosed: false, loops, largestGapMm: found.joined.mm, cutouts: 0, findings };
  const crossing = findCrossing(board.ring);
  if (crossing)
    findings.push({
      tag: "outline-self-crossing",
      level: "error",
      file,
      at: { layer: "profile", x: crossing[0], y: crossing[1] },
      text: `The outline crosses itself at ${crossing[0].toFixed(2)}, ${crossing[1].toFixed(2)} mm.`,
      do: "Redraw the outline there.",
    });
  const cutouts = loops.filter((l) => l.depth === 1 && insideRings([board.ring], l.ring[0]!, l.ring[1]!));
  const box = board.box;
  const radii = [board, ...cutouts].flatMap((l) => (l.innerRadiusMm === undefined ? [] : [l.innerRadiusMm]));
  return {
    isClosed: true,
    loops,
    largestGapMm: found.joined.mm,
    cutouts: cutouts.length,
    findings,
    box,
    widthMm: clean(box[2] - box[0]),
    heightMm: clean(box[3] - box[1]),
    areaMm2: clean(board.areaMm2 - cutouts.reduce((s, l) => s + l.areaMm2, 0)),
    perimeterMm: clean(board.perimeterMm),
    ...(radii.length > 0 ? { minInnerRadiusMm: clean(Math.min(...radii)) } : {}),
  };
}

/** Removes the dust of binary arithmetic below a nanometre. */
const clean = (v: number) => Math.round(v * 1e6) / 1e6;

function collectPieces(image: LayerImage): Piece[] {
  const out: Piece[] = [];
  const seen = new Set<string>();
  const push = (p: Piece) => {
    if (lengthOf(p) < 0.0005) return;
    const k = (v: number) => Math.round(v * 1000);
    const ends = [`${k(p.x1)} ${k(p.y1)}`, `${k(p.x2)} ${k(p.y2)}`].sort().join("|");
    const key = p.arc ? `${ends}|${k(p.arc.cx)} ${k(p.arc.cy)}` : ends;
    if (seen.has(key)) return;
    seen.add(key);
    out.push(p);
  };
  const g = image.geo;
  for (let i = 0; i < image.n; i++) {
    const o = i * 6;
    const kind = image.kind[i]!;
    if (kind === KIND.flash || image.dark[i] === 0) continue;
    if (kind === KIND.region) {
      const [a, b] = [g[o]!, g[o + 1]!];
      for (let k = a; k < b; k++) {
        const n = k + 1 < b ? k + 1 : a;
        const pt = image.points;
        push({ x1: pt[k * 2]!, y1: pt[k * 2 + 1]!, x2: pt[n * 2]!, y2: pt[n * 2 + 1]! });
      }
      continue;
    }
    const p: Piece = { x1: g[o]!, y1: g[o + 1]!, x2: g[o + 2]!, y2: g[o + 3]! };
    if (kind !== KIND.line) p.arc = { cx: g[o + 4]!, cy: g[o + 5]!, ccw: kind === KIND.arcCcw };
    push(p);
  }
  return out;
}

const sweepOf = (p: Piece) => arcSweep(p.x1, p.y1, p.x2, p.y2, p.arc!.cx, p.arc!.cy, p.arc!.ccw, true);

function lengthOf(p: Piece): number {
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

interface Chained {
  loops: Piece[][];
  open: Piece[][];
  joined: { mm: number; x: number; y: number };
  gaps: { mm: number; x: number; y: number }[];
}

/** Walks from piece to piece, always to the nearest free end within the tolerance. O(n) with a grid of ends. */
function chain(pieces: readonly Piece[], tolerance: number): Chained {
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
  const used = new Uint8Array(pieces.length);
  const nearest = (x: number, y: number): { end: number; mm: number } | undefined => {
    let best: { end: number; mm: number } | undefined;
    const [cx, cy] = [Math.floor(x / cell), Math.floor(y / cell)];
    for (let a = cx - 1; a <= cx + 1; a++)
      for (let b = cy - 1; b <= cy + 1; b++)
        for (const e of grid.get(`${a} ${b}`) ?? []) {
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
    while (!isRing) {
      const next = nearest(last.x2, last.y2);
      const home = Math.hypot(last.x2 - walk[0]!.x1, last.y2 - walk[0]!.y1);
      if (!next || (walk.length > 1 && home <= tolerance && home <= next.mm)) break;
      notes.push({ mm: next.mm, x: last.x2, y: last.y2 });
      used[next.end >> 1] = 1;
      last = next.end % 2 === 0 ? pieces[next.end >> 1]! : turned(pieces[next.end >> 1]!);
      walk.push(last);
    }
    if (isRing || (walk.length > 1 && close(tolerance))) {
      notes.push({ mm: Math.hypot(last.x2 - first.x1, last.y2 - first.y1), x: last.x2, y: last.y2 });
      out.loops.push(walk);
      for (const n of notes) if (n.mm > out.joined.mm) out.joined = n;
    } else out.open.push(walk);
  }
  for (const walk of out.open) {
    const [a, b] = [walk[0]!, walk[walk.length - 1]!];
    let mm = Math.hypot(b.x2 - a.x1, b.y2 - a.y1);
    for (const other of out.open) {
      if (other === walk) continue;
      mm = Math.min(mm, Math.hypot(b.x2 - other[0]!.x1, b.y2 - other[0]!.y1));
      const end = other[other.length - 1]!;
      mm = Math.min(mm, Math.hypot(b.x2 - end.x2, b.y2 - end.y2));
    }
    out.gaps.push({ mm, x: b.x2, y: b.y2 });
  }
  out.gaps.sort((a, b) => a.mm - b.mm);
  return out;
}

function flatten(loop: readonly Piece[]): number[] {
  const ring: number[] = [];
  for (const p of loop) {
    if (p.arc) ring.push(...arcPoints(p.x1, p.y1, p.x2, p.y2, p.arc.cx, p.arc.cy, p.arc.ccw, true));
    else ring.push(p.x2, p.y2);
  }
  return ring;
}

function reversed(ring: readonly number[]): number[] {
  const out: number[] = [];
  for (let i = ring.length - 2; i >= 0; i -= 2) out.push(ring[i]!, ring[i + 1]!);
  return out;
}

function exactArea(loop: readonly Piece[]): number {
  let sum = 0;
  const [x0, y0] = [loop[0]!.x1, loop[0]!.y1];
  for (const p of loop) {
    sum += ((p.x1 - x0) * (p.y2 - y0) - (p.x2 - x0) * (p.y1 - y0)) / 2;
    if (p.arc) {
      const theta = sweepOf(p);
      const r = Math.hypot(p.x1 - p.arc.cx, p.y1 - p.arc.cy);
      sum += (r * r * (theta - Math.sin(theta))) / 2;
    }
  }
  return sum;
}

const direction = (p: Piece, atEnd: boolean): [number, number] => {
  if (!p.arc) {
    const l = Math.hypot(p.x2 - p.x1, p.y2 - p.y1);
    return [(p.x2 - p.x1) / l, (p.y2 - p.y1) / l];
  }
  const [x, y] = atEnd ? [p.x2, p.y2] : [p.x1, p.y1];
  const r = Math.hypot(x - p.arc.cx, y - p.arc.cy) || 1;
  const s = p.arc.ccw ? 1 : -1;
  return [(-s * (y - p.arc.cy)) / r, (s * (x - p.arc.cx)) / r];
};

/** Least radius where a cutter must turn into the material: right turns of a board's edge, left turns of a cut-out's. */
function innerRadius(loop: readonly Piece[], isCcw: boolean, isCutout: boolean): number | undefined {
  const inward = (isCcw ? -1 : 1) * (isCutout ? -1 : 1);
  let best: number | undefined;
  const take = (r: number) => {
    if (best === undefined || r < best) best = r;
  };
  loop.forEach((p, k) => {
    if (p.arc && Math.sign(sweepOf(p)) === inward) take(Math.hypot(p.x1 - p.arc.cx, p.y1 - p.arc.cy));
    if (loop.length < 2) return;
    const q = loop[(k + 1) % loop.length]!;
    const [a, b] = [direction(p, true), direction(q, false)];
    const cross = a[0] * b[1] - a[1] * b[0];
    if (Math.sign(cross) === inward && Math.abs(cross) > 0.15) take(0);
  });
  return best;
}

type Box = readonly [number, number, number, number];
const ringBox = (ring: readonly number[]): [number, number, number, number] => {
  const b: [number, number, number, number] = [ring[0]!, ring[1]!, ring[0]!, ring[1]!];
  for (let i = 0; i < ring.length; i += 2) {
    b[0] = Math.min(b[0], ring[i]!);
    b[1] = Math.min(b[1], ring[i + 1]!);
    b[2] = Math.max(b[2], ring[i]!);
    b[3] = Math.max(b[3], ring[i + 1]!);
  }
  return b;
};
const boxOf = (loop: readonly Piece[]) => ringBox(flatten(loop));

/** Box of a loop with the arcs' own extremes, not their chords'. */
function exactBox(loop: readonly Piece[]): [number, number, number, number] {
  const points: number[] = [];
  for (const p of loop) {
    points.push(p.x1, p.y1, p.x2, p.y2);
    if (!p.arc) continue;
    const { cx, cy } = p.arc;
    const r = Math.hypot(p.x1 - cx, p.y1 - cy);
    const sweep = sweepOf(p);
    const start = Math.atan2(p.y1 - cy, p.x1 - cx);
    for (let k = -4; k <= 4; k++) {
      const turn = ((k * Math.PI) / 2 - start) * Math.sign(sweep);
      if (turn > 0 && turn < Math.abs(sweep))
        points.push(
          cx + r * Math.round(Math.cos((k * Math.PI) / 2)),
          cy + r * Math.round(Math.sin((k * Math.PI) / 2)),
        );
    }
  }
  return ringBox(points);
}
const inBox = (b: Box, p: Piece) => p.x1 >= b[0] && p.x1 <= b[2] && p.y1 >= b[1] && p.y1 <= b[3];

/** First place where two edges that are not neighbours meet; rings beyond 3,000 points are not searched. */
function findCrossing(ring: readonly number[]): [number, number] | undefined {
  const n = ring.length / 2;
  if (n > 3000) return undefined;
  for (let a = 0; a < n; a++) {
    const [ax, ay, bx, by] = edge(ring, a, n);
    for (let b = a + 2; b < n; b++) {
      if (a === 0 && b === n - 1) continue;
      const [cx, cy, dx, dy] = edge(ring, b, n);
      if (Math.max(ax, bx) < Math.min(cx, dx) || Math.max(cx, dx) < Math.min(ax, bx)) continue;
      if (Math.max(ay, by) < Math.min(cy, dy) || Math.max(cy, dy) < Math.min(ay, by)) continue;
      if (segmentSegment2(ax, ay, bx, by, cx, cy, dx, dy) === 0) return [cx, cy];
    }
  }
  return undefined;
}

const edge = (ring: readonly number[], k: number, n: number): [number, number, number, number] => {
  const m = (k + 1) % n;
  return [ring[k * 2]!, ring[k * 2 + 1]!, ring[m * 2]!, ring[m * 2 + 1]!];
};
