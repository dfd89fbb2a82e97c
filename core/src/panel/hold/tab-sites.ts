import { Strips } from "../../geometry/strips.ts";
import { unposed } from "../../geometry/turn.ts";
import type { Ground, Laid } from "../shape/laid.ts";
import { banAt, type EdgePoint } from "../shape/stretch.ts";
import type { Tab } from "../spec.ts";
import { bodyOf, SLACK_MM } from "./tab-body.ts";

/** What lies at a point of the sheet. */
type At = { readonly copy: number } | "frame" | "nothing";

/** Of the gap, free beside a tab. */
const BESIDE = 0.4;

/** Where tabs may stand on a sheet, one by one, whatever other tabs there are. */
export class TabSites {
  private readonly ground: Ground;
  private readonly frame: Strips;
  private readonly width: number;
  private readonly neighbours = new Map<number, readonly Laid[]>();

  constructor(ground: Ground, width: number) {
    this.ground = ground;
    // areas lie apart: one parity serves all of them
    this.frame = new Strips(ground.frame.flat());
    this.width = width;
  }

  /** Distance outward to the next board or the frame. */
  wayOut(l: Laid, p: EdgePoint): number | undefined {
    const reach = this.exact(l, p);
    return reach && reach.mm <= this.ground.gapMm * 2.2 ? reach.mm : undefined;
  }

  /** Both shoulders of a tab stand on the board itself, as far as a round edge may draw back. */
  isCarried(l: Laid, p: EdgePoint): boolean {
    const half = (this.width / 2) * 0.96;
    return [-half, half].every((f) =>
      l.strips.inside(p.x - p.ny * f - p.nx * SLACK_MM, p.y + p.nx * f - p.ny * SLACK_MM),
    );
  }

  /** A tab at a point of an edge, or why there can be none; "" where there is nothing to hold to. */
  tabAt(l: Laid, p: EdgePoint, slack = 0.06): Tab | string {
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
    const body = bodyOf({ near: l, far: other, frame: this.frame }, p, reach.mm, this.width, gapMm);
    // an edge that runs away from the tab, or so near to the next board that a hole would reach into it
    if (!body || this.meetsThird(l, p, reach, body.intoMm)) return "";
    const { at } = body;
    return {
      xMm: round((p.x + fx) / 2),
      yMm: round((p.y + fy) / 2),
      widthMm: this.width,
      between: [l.place.copy, reach.to],
      holes: at.length,
      acrossDeg: Math.round(((Math.atan2(p.ny, p.nx) * 180) / Math.PI) * 1e6) / 1e6,
      gapMm: Math.round(reach.mm * 1e6) / 1e6,
      at,
      intoMm: body.intoMm,
    };
  }

  /** Whether anything but the two that a tab holds lies in it, or beside it closer than a cutter goes. */
  private meetsThird(
    l: Laid,
    p: EdgePoint,
    reach: { readonly mm: number; readonly to: number },
    [near, far]: readonly [number, number],
  ): boolean {
    const half = this.width / 2 + this.ground.gapMm * BESIDE;
    const n = Math.ceil((2 * half) / 0.5);
    const m = Math.ceil((near + reach.mm + far) / 0.25);
    for (let i = 0; i <= n; i++) {
      const v = -half + (2 * half * i) / n;
      for (let k = 0; k <= m; k++) {
        const u = -near + ((near + reach.mm + far) * k) / m;
        const at = this.at(p.x + p.nx * u - p.ny * v, p.y + p.ny * u + p.nx * v, l);
        if (at === "nothing") continue;
        if ((at === "frame" ? 0 : at.copy) !== reach.to) return true;
      }
    }
    return false;
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
}

const round = (v: number) => Math.round(v * 1e4) / 1e4;
