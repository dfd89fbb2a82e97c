import { turnOf, unposed } from "../../geometry/turn.ts";
import { around, edgeNear } from "../shape/edge-points.ts";
import { withFreeSides } from "../shape/free-sides.ts";
import { type Laid, laidOut } from "../shape/laid.ts";
import type { EdgePoint } from "../shape/stretch.ts";
import type { OwnTab, PanelDesign, PanelLayout, PanelSpec, Tab } from "../spec.ts";
import { TabMaker, tabbedSides } from "./tabs.ts";

/** A tab that can stand where it is held. */
export interface HeldTab {
  readonly tab: Tab;
  readonly own: OwnTab;
}

/** Where a tab is held: it can stand there, or why not, and the nearest place along the edge where it can. */
export type TabAt =
  | (HeldTab & { readonly why?: undefined })
  | { readonly why: string; readonly nearest?: HeldTab };

/** How far along the edge, and in what steps, the nearest place is looked for, mm. */
const REACH_MM = 25;
const STEP_MM = 0.5;

const round = (v: number) => Math.round(v * 1000) / 1000;

/**
 * Tabs of a sheet in the hand: answers where one may stand while it is dragged, quick enough for every frame.
 *
 * @param layout the sheet as it was laid out
 * @param without index of the tab that is held: it is not in its own way
 */
export class TabHand {
  private readonly laid: readonly Laid[];
  private readonly maker: TabMaker;

  constructor(
    designs: readonly PanelDesign[],
    spec: Pick<PanelSpec, "tabMm" | "free">,
    layout: PanelLayout,
    without?: number,
  ) {
    this.laid = laidOut(withFreeSides(designs, spec), layout.places);
    this.maker = new TabMaker(
      { laid: this.laid, frame: layout.frame, gapMm: layout.gapMm },
      spec.tabMm,
      tabbedSides(layout),
    );
    this.maker.tabs.push(...layout.tabs.filter((_, i) => i !== without));
  }

  /** A tab on a copy's edge near a point of the sheet. */
  at(copy: number, x: number, y: number): TabAt {
    const l = this.laid.find((k) => k.place.copy === copy);
    if (!l) return { why: "there is no such board" };
    const p = edgeNear(l, x, y);
    const made = this.maker.byHand(l, p);
    if (typeof made === "object") return { tab: made, own: ownOf(l, p) };
    const nearest = this.nearest(l, p);
    return { why: made, ...(nearest ? { nearest } : {}) };
  }

  /** The middle of the longest way along a copy's edge between two of its tabs, where one more may stand. */
  oneMore(copy: number): HeldTab | undefined {
    const l = this.laid.find((k) => k.place.copy === copy);
    if (!l) return undefined;
    const own = this.maker.tabs.filter((t) => t.between.includes(copy));
    const far = (p: EdgePoint) =>
      Math.min(Number.POSITIVE_INFINITY, ...own.map((t) => Math.hypot(t.xMm - p.x, t.yMm - p.y)));
    const sites = around(l.ring, 1)
      .map((p) => ({ p, d: far(p) }))
      .sort((a, b) => b.d - a.d);
    for (const { p } of sites) {
      const made = this.maker.byHand(l, p);
      if (typeof made === "object") return { tab: made, own: ownOf(l, p) };
    }
    return undefined;
  }

  private nearest(l: Laid, from: EdgePoint): HeldTab | undefined {
    const near = around(l.ring, STEP_MM)
      .map((p) => ({ p, d: Math.hypot(p.x - from.x, p.y - from.y) }))
      .filter((s) => s.d <= REACH_MM)
      .sort((a, b) => a.d - b.d);
    for (const { p } of near) {
      const made = this.maker.byHand(l, p);
      if (typeof made === "object") return { tab: made, own: ownOf(l, p) };
    }
    return undefined;
  }
}

function ownOf(l: Laid, p: EdgePoint): OwnTab {
  const [x, y] = unposed(l.place, p.x, p.y);
  return { copy: l.place.copy, xMm: round(x), yMm: round(y) };
}

/** The tabs of a sheet as if each had been put by hand: on the edge of the board it begins at. */
export function ownTabsOf(designs: readonly PanelDesign[], layout: PanelLayout): OwnTab[] {
  const laid = laidOut(designs, layout.places);
  return layout.tabs.flatMap((t) => {
    const l = laid.find((k) => k.place.copy === t.between[0]);
    if (!l) return [];
    const [c, s] = turnOf(t.acrossDeg);
    const [x, y] = [t.xMm - (c * t.gapMm) / 2, t.yMm - (s * t.gapMm) / 2];
    return [ownOf(l, edgeNear(l, x, y))];
  });
}
