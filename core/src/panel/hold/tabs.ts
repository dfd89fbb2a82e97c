import { posed, turnOf } from "../../geometry/turn.ts";
import { around, edgeNear } from "../shape/edge-points.ts";
import type { Ground, Laid } from "../shape/laid.ts";
import { type EdgePoint, stretchesOf, tabPositions, tabsForEdge } from "../shape/stretch.ts";
import type { OwnTab, SheetParts, Tab } from "../spec.ts";
import { HeldTogether } from "./held-together.ts";
import { ROWS_APART_MM } from "./perforate.ts";
import { SLACK_MM } from "./tab-body.ts";
import { TabSites } from "./tab-sites.ts";

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
  readonly isFrameLoose: boolean;
} {
  const maker = new TabMaker(ground, widthMm, isTabbed);
  if (own) maker.putOwn(own);
  else for (const l of ground.laid) maker.alongEdges(l, thicknessMm);
  maker.holdTheRest(own ? 1 : 2);
  return {
    tabs: maker.tabs,
    untabbed: maker.untabbed,
    loose: maker.loose(),
    isFrameLoose: maker.isFrameLoose(),
  };
}

/** Shorter straight runs get a tab only where nothing else holds the board, mm. */
const SHORTEST_MM = 10;
/** Closer than this beside each other two tabs would be one, mm. */
const TABS_APART_MM = 1;
const TAKEN = "another tab stands there";
/** So near to a corner of its edge a tab put by hand may look the way of the next stretch, mm. */
const CORNER_MM = 0.05;
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
  private readonly sites: TabSites;
  private readonly held: HeldTogether;
  private readonly width: number;
  private readonly isTabbed: (nx: number, ny: number) => boolean;

  constructor(ground: Ground, width: number, isTabbed: (nx: number, ny: number) => boolean) {
    this.ground = ground;
    this.sites = new TabSites(ground, width);
    this.held = new HeldTogether(ground);
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
        if (!isDone && why && why !== TAKEN) {
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
      // at a corner of a round edge the direction beside may be the one it was found in
      const tab = typeof made === "object" ? made : this.beside(l, p);
      if (tab) this.tabs.push(tab);
      else this.untabbed.push({ copy: o.copy, why: made as string, x: p.x, y: p.y });
    }
  }

  private beside(l: Laid, p: EdgePoint): Tab | undefined {
    for (const mm of [-CORNER_MM, CORNER_MM]) {
      const made = this.byHand(l, edgeNear(l, p.x - p.ny * mm, p.y + p.nx * mm));
      if (typeof made === "object") return made;
    }
    return undefined;
  }

  /** A tab at a point of an edge, both of its shoulders on the board, beside no other; or why there can be none. */
  byHand(l: Laid, p: EdgePoint): Tab | string {
    if (!this.isTabbed(p.nx, p.ny)) return "that edge is scored";
    if (!this.sites.isCarried(l, p)) return "it would reach over a corner";
    const made = this.tabAt(l, p, SLACK_MM);
    if (typeof made === "string") return made || "nothing lies across the gap there";
    const near = this.tabs.some((t) => Math.hypot(t.xMm - made.xMm, t.yMm - made.yMm) < this.width * 0.9);
    return near ? TAKEN : made;
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
        if (!this.held.joins(this.tabs, made)) continue;
        this.tabs.push(made);
        if (!this.loose().includes(copy)) break;
      }
    }
    for (const area of this.held.looseAreas(this.tabs)) this.holdFrame(area);
  }

  /** One tab to an area of the frame that hangs on none: at the first place around the boards beside it that bears one. */
  private holdFrame(area: number): void {
    const [x0, y0, x1, y1] = this.held.areas[-1 - area]!.box;
    const far = this.ground.gapMm * 2.4;
    for (const l of this.ground.laid) {
      const b = l.box;
      if (b[0] > x1 + far || b[2] < x0 - far || b[1] > y1 + far || b[3] < y0 - far) continue;
      for (const p of around(l.ring, NUDGE_MM)) {
        const made = this.byHand(l, p);
        if (typeof made !== "object" || made.between[1] !== 0 || this.held.areaOf(made) !== area) continue;
        this.tabs.push(made);
        return;
      }
    }
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
        out.push({ x, y, nx, ny, d: this.sites.wayOut(l, { x, y, nx, ny }) ?? Number.POSITIVE_INFINITY });
      }
      left -= d;
    }
    const near = out.filter((p) => Number.isFinite(p.d)).sort((p, q) => p.d - q.d || p.y - q.y || p.x - q.x);
    const [first] = near;
    if (!first) return [];
    // of what is about as near and can bear a tab, each next one as far from the others as can be
    const pool: EdgePoint[] = near.filter(
      (p) =>
        p.d <= first.d + 0.6 && this.sites.isCarried(l, p) && typeof this.tabAt(l, p, SLACK_MM) === "object",
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

  /** Copies that nothing holds to the frame, or, without a frame, to the others. */
  loose(): number[] {
    return this.held.loose(this.tabs);
  }

  /** Whether a part of the frame hangs on nothing. */
  isFrameLoose(): boolean {
    return this.held.looseAreas(this.tabs).length > 0;
  }

  /** A tab at a point of an edge, or why there can be none; "" where there is nothing to hold to. */
  private tabAt(l: Laid, p: EdgePoint, slack?: number): Tab | string {
    const made = this.sites.tabAt(l, p, slack);
    return typeof made === "object" && this.meets(made) ? TAKEN : made;
  }

  /** Whether a tab would stand beside one of the same two as if they were one, or its perforations among another's. */
  private meets({ at, between, xMm, yMm }: Tab): boolean {
    const far = 2 * this.width + 2 * this.ground.gapMm;
    return this.tabs.some((t) => {
      const d = Math.hypot(t.xMm - xMm, t.yMm - yMm);
      if (d >= far) return false;
      const isSame = between.every((c) => t.between.includes(c));
      if (isSame && d < this.width + TABS_APART_MM) return true;
      return t.at.some(([u, v]) => at.some(([p, q]) => Math.hypot(u - p, v - q) < ROWS_APART_MM));
    });
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
