import { Strips } from "../geometry/strips.ts";
import { type Pose, posed, turnOf, unposed } from "../geometry/turn.ts";
import type { Ground, Laid } from "./laid.ts";
import { insetOf, rowOfHoles } from "./perforate.ts";
import type { OwnTab, SheetParts, Tab } from "./spec.ts";
import { banAt, type EdgePoint, stretchesOf, tabPositions, tabsForEdge } from "./stretch.ts";

/** What lies at a point of the sheet. */
type At = { readonly copy: number } | "frame" | "nothing";

/** Why a stretch of a copy's edge got no tab. */
export interface Untabbed {
  readonly copy: number;
  readonly why: string;
  readonly x: number;
  readonly y: number;
}

/**
 * Tabs over the gaps: on each straight run as many as its length asks for, moved to the nearest place where nothing on
 * either side forbids it, opposite runs sharing theirs; then, where a board would not be held, where it comes nearest to
 * its neighbours or the frame.
 *
 * @param isTabbed whether tabs may stand where the edge looks that way; others are scored, or are the sheet's edge
 * @param own tabs put by hand, in the place of those that would be found
 */
export function placeTabs(
  ground: Ground,
  widthMm: number,
  thicknessMm: number,
  isTabbed: (nx: number, ny: number) => boolean,
  own?: readonly OwnTab[],
): {
  readonly tabs: readonly Tab[];
  readonly untabbed: readonly Untabbed[];
  readonly loose: readonly number[];
} {
  const maker = new TabMaker(ground, widthMm, isTabbed);
  if (own) maker.putOwn(own);
  else for (const l of ground.laid) maker.alongEdges(l, thicknessMm);
  maker.holdTheRest(own ? 1 : 2);
  return { tabs: maker.tabs, untabbed: maker.untabbed, loose: maker.loose() };
}

/** By how much a round edge may draw back at a tab's shoulders, mm. */
const SLACK_MM = 1.2;
/** Shorter straight runs get a tab only where nothing else holds the board, mm. */
const SHORTEST_MM = 10;
/** Steps a tab may be moved along an edge, mm. */
const NUDGE_MM = 0.5;

/** Where tabs may stand at all: not across a direction that is scored. */
export const tabbedSides =
  (s: Pick<SheetParts, "across" | "along">) =>
  (nx: number, ny: number): boolean =>
    (s.across === "tabs" && s.along === "tabs") ||
    (s.across === "tabs" && Math.abs(nx) > 0.99) ||
    (s.along === "tabs" && Math.abs(ny) > 0.99);

/** Puts tabs over the gaps of a sheet, one by one. */
export class TabMaker {
  readonly tabs: Tab[] = [];
  readonly untabbed: Untabbed[] = [];
  private readonly ground: Ground;
  private readonly frame: Strips;
  private readonly neighbours = new Map<number, readonly Laid[]>();
  private readonly width: number;
  private readonly isTabbed: (nx: number, ny: number) => boolean;

  constructor(ground: Ground, width: number, isTabbed: (nx: number, ny: number) => boolean) {
    this.ground = ground;
    // areas lie apart: one parity serves all of them
    this.frame = new Strips(ground.frame.flat());
    this.width = width;
    this.isTabbed = isTabbed;
  }

  alongEdges(l: Laid, thicknessMm: number): void {
    const [c, s] = turnOf(l.place.turnDeg);
    for (const e of stretchesOf(l.design.outline)) {
      const [nx, ny] = [e.nx * c - e.ny * s, e.nx * s + e.ny * c];
      if (e.lengthMm < Math.max(SHORTEST_MM, this.width + 1) || !this.isTabbed(nx, ny)) continue;
      const [dx, dy] = [(e.bx - e.ax) / e.lengthMm, (e.by - e.ay) / e.lengthMm];
      const wanted = tabPositions(e.lengthMm, tabsForEdge(e.lengthMm, thicknessMm));
      for (const target of wanted) {
        const point = (t: number): EdgePoint => {
          const [x, y] = posed(l.place, e.ax + dx * t, e.ay + dy * t);
          return { x, y, nx, ny };
        };
        if (this.isServed(l, point(target), e.lengthMm / wanted.length / 2)) continue;
        let why: string | undefined;
        const reach = e.lengthMm / wanted.length / 2;
        let isDone = false;
        for (let off = 0; off <= reach && !isDone; off += NUDGE_MM)
          for (const t of off === 0 ? [target] : [target + off, target - off]) {
            if (t < this.width / 2 + 0.5 || t > e.lengthMm - this.width / 2 - 0.5) continue;
            const made = this.tabAt(l, point(t));
            if (typeof made === "object") {
              this.tabs.push(made);
              isDone = true;
              break;
            }
            why ??= made;
          }
        if (!isDone && why) {
          const p = point(target);
          this.untabbed.push({ copy: l.place.copy, why, x: p.x, y: p.y });
        }
      }
    }
  }

  /** Tabs by hand; what cannot stand there is told with its reason. */
  putOwn(own: readonly OwnTab[]): void {
    for (const o of own) {
      const l = this.ground.laid.find((k) => k.place.copy === o.copy);
      if (!l) continue;
      const p = edgeNear(l, ...posed(l.place, o.xMm, o.yMm));
      const made = this.byHand(l, p);
      if (typeof made === "object") this.tabs.push(made);
      else this.untabbed.push({ copy: o.copy, why: made, x: p.x, y: p.y });
    }
  }

  /** A tab at a point of an edge, both of its shoulders on the board, beside no other; or why there can be none. */
  byHand(l: Laid, p: EdgePoint): Tab | string {
    if (!this.isTabbed(p.nx, p.ny)) return "that edge is scored";
    if (!this.isCarried(l, p)) return "it would reach over a corner";
    const made = this.tabAt(l, p, SLACK_MM);
    if (typeof made === "string") return made || "nothing lies across the gap there";
    const near = this.tabs.some((t) => Math.hypot(t.xMm - made.xMm, t.yMm - made.yMm) < this.width * 0.9);
    return near ? "another tab stands there" : made;
  }

  /** Closest approaches, until every board has so many tabs and all hang together. */
  holdTheRest(least: number): void {
    const count = (copy: number) => this.tabs.filter((t) => t.between.includes(copy)).length;
    for (const l of this.ground.laid) {
      if (count(l.place.copy) >= least) continue;
      for (const p of this.nearSites(l)) {
        const made = this.tabAt(l, p, SLACK_MM);
        if (typeof made !== "object" || this.isServed(l, p, this.width)) continue;
        this.tabs.push(made);
        if (count(l.place.copy) >= least + 1) break;
      }
    }
    for (const copy of this.loose()) {
      const l = this.ground.laid.find((k) => k.place.copy === copy)!;
      if (!this.loose().includes(copy)) continue;
      for (const p of this.nearSites(l)) {
        const made = this.tabAt(l, p, SLACK_MM);
        if (typeof made !== "object" || this.isServed(l, p, this.width)) continue;
        this.tabs.push(made);
        if (!this.loose().includes(copy)) break;
      }
    }
  }

  /** Copies that nothing holds to the frame, or, without a frame, to the others. */
  loose(): number[] {
    const group = new Map<number, number>();
    const find = (k: number): number => {
      const up = group.get(k) ?? k;
      return up === k ? k : find(up);
    };
    for (const { between } of this.tabs) group.set(find(between[0]), find(between[1]));
    const copies = this.ground.laid.map((l) => l.place.copy);
    const home = this.ground.frame.length > 0 ? find(0) : find(copies[0] ?? 0);
    return copies.length === 1 && this.ground.frame.length === 0
      ? []
      : copies.filter((c) => find(c) !== home);
  }

  /** Points all around an outline, those nearest to something first, spread apart. */
  private nearSites(l: Laid): EdgePoint[] {
    const out: (EdgePoint & { d: number })[] = [];
    const ring = l.ring;
    let length = 0;
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      length += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
    const step = Math.max(0.5, length / 90);
    let left = step / 2;
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
      const d = Math.hypot(bx - ax, by - ay);
      if (d < 1e-9) continue;
      for (; left <= d; left += step) {
        const f = left / d;
        const [nx, ny] = [(by - ay) / d, -(bx - ax) / d];
        if (!this.isTabbed(nx, ny)) continue;
        const [x, y] = [ax + (bx - ax) * f, ay + (by - ay) * f];
        out.push({ x, y, nx, ny, d: this.wayOut(l, { x, y, nx, ny }) ?? Number.POSITIVE_INFINITY });
      }
      left -= d;
    }
    const near = out.filter((p) => Number.isFinite(p.d)).sort((p, q) => p.d - q.d || p.y - q.y || p.x - q.x);
    const [first] = near;
    if (!first) return [];
    // of what is about as near and can bear a tab, each next one as far from the others as can be
    const pool: EdgePoint[] = near.filter(
      (p) => p.d <= first.d + 0.6 && this.isCarried(l, p) && typeof this.tabAt(l, p, SLACK_MM) === "object",
    );
    const chosen: EdgePoint[] = [];
    const least = (p: EdgePoint) => Math.min(...chosen.map((q) => Math.hypot(p.x - q.x, p.y - q.y)));
    let next: EdgePoint | undefined = pool[0];
    while (next && chosen.length < 6) {
      chosen.push(next);
      const spread: EdgePoint[] = pool.filter((p) => least(p) > this.width);
      next = spread.reduce<EdgePoint | undefined>((a, p) => (!a || least(p) > least(a) ? p : a), undefined);
    }
    return chosen;
  }

  /** Distance outward to the next board or the frame. */
  private wayOut(l: Laid, p: EdgePoint): number | undefined {
    const reach = this.exact(l, p);
    return reach && reach.mm <= this.ground.gapMm * 2.2 ? reach.mm : undefined;
  }

  /** Both shoulders of a tab stand on the board itself, as far as a round edge may draw back. */
  private isCarried(l: Laid, p: EdgePoint): boolean {
    const half = (this.width / 2) * 0.96;
    return [-half, half].every((f) =>
      l.strips.inside(p.x - p.ny * f - p.nx * SLACK_MM, p.y + p.nx * f - p.ny * SLACK_MM),
    );
  }

  /** Copies a tab of this one can reach. */
  private near(l: Laid): readonly Laid[] {
    let found = this.neighbours.get(l.place.copy);
    if (!found) {
      const r = this.ground.gapMm * 2.5;
      found = this.ground.laid.filter(
        (k) =>
          k !== l &&
          k.box[0] <= l.box[2] + r &&
          k.box[2] >= l.box[0] - r &&
          k.box[1] <= l.box[3] + r &&
          k.box[3] >= l.box[1] - r,
      );
      this.neighbours.set(l.place.copy, found);
    }
    return found;
  }

  private at(x: number, y: number, except: Laid): At {
    for (const l of this.near(except)) {
      const b = l.box;
      if (x < b[0] || x > b[2] || y < b[1] || y > b[3]) continue;
      if (l.strips.inside(x, y)) return { copy: l.place.copy };
    }
    return this.frame.inside(x, y) ? "frame" : "nothing";
  }

  /** A tab at a point of an edge, or why there can be none; "" where there is nothing to hold to. */
  private tabAt(l: Laid, p: EdgePoint, slack = 0.06): Tab | string {
    const { gapMm } = this.ground;
    const [tx, ty] = [-p.ny, p.nx];
    const half = this.width / 2;
    const own = this.banned(l, p.x, p.y, tx, ty, half);
    if (own) return own;
    const reach = this.exact(l, p);
    if (reach === undefined || reach.mm > gapMm * 2.2) return "";
    // both shoulders must stand on the same
    for (const f of [-0.96, 0.96]) {
      const q = { ...p, x: p.x + tx * half * f, y: p.y + ty * half * f };
      const at = this.at(q.x + q.nx * (reach.mm + slack), q.y + q.ny * (reach.mm + slack), l);
      if (at === "nothing" || (at === "frame" ? 0 : at.copy) !== reach.to) return "";
      // and be free between
      const middle = this.at(q.x + q.nx * reach.mm * 0.5, q.y + q.ny * reach.mm * 0.5, l);
      if (middle !== "nothing") return "";
    }
    const other = this.ground.laid.find((k) => k.place.copy === reach.to);
    const [fx, fy] = [p.x + p.nx * reach.mm, p.y + p.ny * reach.mm];
    if (other) {
      const there = this.banned(other, fx, fy, tx, ty, half);
      if (there) return there;
    }
    const [near, far] = [l, other].map((k) => insetOf(k?.design.copperToEdge?.mm)) as [number, number];
    const at = [
      ...rowOfHoles(p.x - p.nx * near, p.y - p.ny * near, tx, ty, this.width),
      ...(other ? rowOfHoles(fx + p.nx * far, fy + p.ny * far, tx, ty, this.width) : []),
    ];
    return {
      xMm: round((p.x + fx) / 2),
      yMm: round((p.y + fy) / 2),
      widthMm: this.width,
      between: [l.place.copy, reach.to],
      holes: at.length,
      acrossDeg: Math.round(((Math.atan2(p.ny, p.nx) * 180) / Math.PI) * 1e6) / 1e6,
      gapMm: Math.round(reach.mm * 1e6) / 1e6,
      at,
    };
  }

  /** Exact distance outward to the edge of what is there. */
  private exact(l: Laid, p: EdgePoint): { readonly mm: number; readonly to: number } | undefined {
    const far = this.ground.gapMm * 2.4;
    const [ex, ey] = [p.x + p.nx * far, p.y + p.ny * far];
    let best: { mm: number; to: number } | undefined;
    const look = (strips: Strips, to: number) => {
      const t = strips.firstCrossing(p.x, p.y, ex, ey, 0.05 / far);
      if (t !== undefined && (!best || t * far < best.mm)) best = { mm: t * far, to };
    };
    for (const k of this.near(l)) look(k.strips, k.place.copy);
    look(this.frame, 0);
    return best;
  }

  private banned(l: Laid, x: number, y: number, tx: number, ty: number, half: number): string | undefined {
    const [ax, ay] = unposed(l.place, x - tx * half, y - ty * half);
    const [bx, by] = unposed(l.place, x + tx * half, y + ty * half);
    return banAt(l.design.bans, ax, ay, bx, by)?.why;
  }

  /** A tab of this copy stands there already. */
  private isServed(l: Laid, p: EdgePoint, within: number): boolean {
    return this.tabs.some(
      (t) =>
        t.between.includes(l.place.copy) &&
        Math.hypot(t.xMm - p.x - (p.nx * t.gapMm) / 2, t.yMm - p.y - (p.ny * t.gapMm) / 2) <
          Math.max(within, this.width * 0.9),
    );
  }
}

const round = (v: number) => Math.round(v * 1e4) / 1e4;

/** The point of a copy's edge nearest to a point of the sheet, with its direction outward. */
export function edgeNear(l: Laid, x: number, y: number): EdgePoint {
  const { ring } = l;
  let best = Number.POSITIVE_INFINITY;
  let at: EdgePoint = { x: ring[0]!, y: ring[1]!, nx: 0, ny: -1 };
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
    const d = Math.hypot(bx - ax, by - ay);
    if (d < 1e-9) continue;
    const f = Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / (d * d)));
    const [px, py] = [ax + (bx - ax) * f, ay + (by - ay) * f];
    const away = Math.hypot(px - x, py - y);
    if (away < best) {
      best = away;
      at = { x: px, y: py, nx: (by - ay) / d, ny: -(bx - ax) / d };
    }
  }
  return at;
}

/** The rectangle of a tab, reaching into both sides, as far as round edges draw back. */
export function tabRing(t: Tab, widthMm: number, into = 0.7): number[] {
  const [c, s] = turnOf(t.acrossDeg);
  const [h, w] = [t.gapMm / 2 + into, widthMm / 2];
  const pose: Pose = { xMm: t.xMm, yMm: t.yMm, turnDeg: 0 };
  const at = (u: number, v: number) => posed(pose, u * c - v * s, u * s + v * c);
  return [...at(-h, -w), ...at(h, -w), ...at(h, w), ...at(-h, w)];
}
