import type { Hit, Rout } from "./data.ts";

/** Holes and paths a file may hold once its repeats and patterns are written out. */
export const MOST_HOLES = 500_000;

interface Taken {
  readonly hits: readonly Hit[];
  readonly routs: readonly Rout[];
}

/** A pattern of holes: taken down from M25 to M01, laid again by M02 with a step, ended by M08. */
export class Pattern {
  /** Where it begins among the hits and the paths. */
  private readonly begin: { readonly hits: number; readonly routs: number };
  private done: Taken | undefined;
  /** By how much it was moved last. */
  private dx = 0;
  private dy = 0;

  constructor(hits: number, routs: number) {
    this.begin = { hits, routs };
  }

  /** What was drilled and cut since it began is what it holds. */
  close(all: Taken): void {
    this.done = { hits: all.hits.slice(this.begin.hits), routs: all.routs.slice(this.begin.routs) };
  }

  get isTaken(): boolean {
    return this.done !== undefined;
  }

  /**
   * Lays it again so many times, each a step on from the one before; its holes and paths are added to the lists.
   * @returns false, and nothing is laid, where that makes more holes or paths than a board has
   */
  lay(times: number, dx: number, dy: number, to: { readonly hits: Hit[]; readonly routs: Rout[] }): boolean {
    const { hits, routs } = this.done!;
    const now = to.hits.length + to.routs.length;
    if (now + (hits.length + routs.length) * times > MOST_HOLES) return false;
    for (let k = 0; k < times; k++) {
      this.dx += dx;
      this.dy += dy;
      for (const h of hits) to.hits.push({ ...h, x: h.x + this.dx, y: h.y + this.dy });
      for (const r of routs)
        to.routs.push({
          ...r,
          points: r.points.map(([x, y]): [number, number] => [x + this.dx, y + this.dy]),
        });
    }
    return true;
  }
}
