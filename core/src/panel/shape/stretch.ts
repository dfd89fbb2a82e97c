import { pointSegment2 } from "../../geometry/segment.ts";
import type { Ban, PanelDesign } from "../spec.ts";

/** A place on a board's edge: a point, and the direction outward. */
export interface EdgePoint {
  readonly x: number;
  readonly y: number;
  readonly nx: number;
  readonly ny: number;
}

/** A straight run of a board's edge. */
export interface Stretch {
  readonly ax: number;
  readonly ay: number;
  readonly bx: number;
  readonly by: number;
  readonly lengthMm: number;
  /** Outward. */
  readonly nx: number;
  readonly ny: number;
}

/** Corners of an outline may lie this far off a line, mm. */
const OFF_MM = 0.02;
/** Shorter runs hold nothing. */
const SHORTEST_MM = 1.5;

/** The straight runs of a counter-clockwise outline, the longest first. */
export function stretchesOf(outline: readonly number[]): Stretch[] {
  const n = outline.length / 2;
  const at = (i: number) =>
    [outline[(((i % n) + n) % n) * 2]!, outline[(((i % n) + n) % n) * 2 + 1]!] as const;
  const heading = (i: number) => {
    const [p, q] = [at(i), at(i + 1)];
    return Math.atan2(q[1] - p[1], q[0] - p[0]);
  };
  const turns = (i: number) => {
    const d = heading(i) - heading(i - 1);
    return Math.abs(Math.atan2(Math.sin(d), Math.cos(d)));
  };
  // begin at the sharpest corner, so that no run is cut in two
  let first = 0;
  for (let i = 1; i < n; i++) if (turns(i) > turns(first)) first = i;
  const out: Stretch[] = [];
  for (let i = 0; i < n; ) {
    let k = i + 1;
    const [a] = [at(first + i)];
    while (k < n) {
      const b = at(first + k + 1);
      let isStraight = turns(first + k) < 0.02;
      for (let m = i + 1; m <= k && isStraight; m++) {
        const p = at(first + m);
        isStraight = pointSegment2(p[0], p[1], a[0], a[1], b[0], b[1]) <= OFF_MM * OFF_MM;
      }
      if (!isStraight) break;
      k++;
    }
    const b = at(first + k);
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (length >= SHORTEST_MM) {
      const [dx, dy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
      out.push({ ax: a[0], ay: a[1], bx: b[0], by: b[1], lengthMm: length, nx: dy, ny: -dx });
    }
    i = k;
  }
  return out.sort((p, q) => q.lengthMm - p.lengthMm);
}

/** Share of a side of the board's box that is straight edge. */
export function straightShare(d: PanelDesign, side: "left" | "right" | "top" | "bottom"): number {
  const [x0, y0, x1, y1] = d.box;
  const isUpright = side === "left" || side === "right";
  const level = side === "left" ? x0 : side === "right" ? x1 : side === "bottom" ? y0 : y1;
  const on = (s: Stretch) =>
    isUpright
      ? Math.abs(s.ax - level) < OFF_MM && Math.abs(s.bx - level) < OFF_MM
      : Math.abs(s.ay - level) < OFF_MM && Math.abs(s.by - level) < OFF_MM;
  const whole = isUpright ? y1 - y0 : x1 - x0;
  return stretchesOf(d.outline)
    .filter(on)
    .reduce((n, s) => n + s.lengthMm / whole, 0);
}

/** Tabs an edge needs: one below 25 mm, else two, at most 50 mm apart, 40 in thin boards (domain.md 6.2). */
export function tabsForEdge(lengthMm: number, thicknessMm: number): number {
  return Math.max(lengthMm < 25 ? 1 : 2, Math.ceil(lengthMm / (thicknessMm < 1 ? 40 : 50)));
}

/** Middles of the tabs of an edge, from its start: the first at most 15 mm from the corner. */
export function tabPositions(lengthMm: number, n: number): number[] {
  if (n <= 1) return [lengthMm / 2];
  const first = Math.min(15, lengthMm / 4);
  return Array.from({ length: n }, (_, i) => first + ((lengthMm - 2 * first) * i) / (n - 1));
}

/** The ban a cut from a to b runs into, with its distance to keep. */
export function banAt(bans: readonly Ban[], ax: number, ay: number, bx: number, by: number): Ban | undefined {
  return bans.find((b) => b.tabMm !== undefined && meetsBox(b.box, b.tabMm, ax, ay, bx, by));
}

function meetsBox(
  [x0, y0, x1, y1]: Ban["box"],
  grow: number,
  ax: number,
  ay: number,
  bx: number,
  by: number,
): boolean {
  // Liang and Barsky, 1984: the part of the segment inside the grown box
  let [t0, t1] = [0, 1];
  for (const [p, d, lo, hi] of [
    [ax, bx - ax, x0 - grow, x1 + grow],
    [ay, by - ay, y0 - grow, y1 + grow],
  ] as const) {
    if (Math.abs(d) < 1e-12) {
      if (p < lo || p > hi) return false;
      continue;
    }
    const [u, v] = [(lo - p) / d, (hi - p) / d];
    t0 = Math.max(t0, Math.min(u, v));
    t1 = Math.min(t1, Math.max(u, v));
  }
  return t0 <= t1;
}
