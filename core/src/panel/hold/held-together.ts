import { Strips } from "../../geometry/strips.ts";
import { turnOf } from "../../geometry/turn.ts";
import type { Ground } from "../shape/laid.ts";
import type { Tab } from "../spec.ts";

/** What tabs hold together: boards, and the areas of the frame, which are one with each other only through boards. */
export class HeldTogether {
  private readonly ground: Ground;
  /** The areas of the frame, each by itself. */
  readonly areas: readonly Strips[];

  constructor(ground: Ground) {
    this.ground = ground;
    this.areas = ground.frame.map((a) => new Strips(a));
  }

  /** What hangs together: copies by their numbers, areas of the frame below 0, from −1. */
  private groups(tabs: readonly Tab[]): (node: number) => number {
    const group = new Map<number, number>();
    const find = (k: number): number => {
      const up = group.get(k) ?? k;
      return up === k ? k : find(up);
    };
    for (const t of tabs)
      group.set(find(t.between[0]), find(t.between[1] === 0 ? this.areaOf(t) : t.between[1]));
    return find;
  }

  /** The area of the frame that a tab ends at: −1 for the first. */
  areaOf(t: Tab): number {
    const [c, s] = turnOf(t.acrossDeg);
    const far = t.gapMm / 2 + 0.06;
    const i = this.areas.findIndex((a) => a.inside(t.xMm + c * far, t.yMm + s * far));
    return -1 - Math.max(0, i);
  }

  /** Whether one more tab would join what does not hang together yet. */
  joins(tabs: readonly Tab[], t: Tab): boolean {
    const find = this.groups(tabs);
    return find(t.between[0]) !== find(t.between[1] === 0 ? this.areaOf(t) : t.between[1]);
  }

  /** Copies that nothing holds to the frame, or, without a frame, to the others. */
  loose(tabs: readonly Tab[]): number[] {
    const find = this.groups(tabs);
    const copies = this.ground.laid.map((l) => l.place.copy);
    const home = this.areas.length > 0 ? find(-1) : find(copies[0] ?? 0);
    return copies.length === 1 && this.areas.length === 0 ? [] : copies.filter((c) => find(c) !== home);
  }

  /** Areas of the frame that nothing holds to the first one, as below 0. */
  looseAreas(tabs: readonly Tab[]): number[] {
    const find = this.groups(tabs);
    return this.areas.map((_, i) => -1 - i).filter((k) => find(k) !== find(-1));
  }
}
