import {
  Clipper64,
  ClipType,
  EndType,
  FillRule,
  inflatePaths,
  JoinType,
  type Path64,
  type Paths64,
  type PolyPath64,
  PolyTree64,
  simplifyPaths,
} from "clipper2-ts";
import type { Design, Edge, Pad, Track } from "./design.ts";

const S = 1e6;
const point = (x: number, y: number) => ({ x: Math.round(x * S), y: Math.round(y * S) });
const grow = (paths: Paths64, mm: number, end: EndType = EndType.Polygon) =>
  inflatePaths(paths, mm * S, JoinType.Round, end, 2, 10_000);

/** Ring of edges, arcs in steps of about 5°. */
export function ringOf(edges: readonly Edge[]): Path64 {
  const ring: Path64 = [];
  for (const e of edges) {
    if (e.arc) {
      const { cx, cy, ccw } = e.arc;
      const r = Math.hypot(e.x1 - cx, e.y1 - cy);
      const a = Math.atan2(e.y1 - cy, e.x1 - cx);
      let sweep = Math.atan2(e.y2 - cy, e.x2 - cx) - a;
      if (ccw && sweep <= 1e-9) sweep += 2 * Math.PI;
      if (!ccw && sweep >= -1e-9) sweep -= 2 * Math.PI;
      const n = Math.max(2, Math.ceil(Math.abs(sweep) / 0.09));
      for (let k = 1; k < n; k++)
        ring.push(point(cx + r * Math.cos(a + (sweep * k) / n), cy + r * Math.sin(a + (sweep * k) / n)));
    }
    ring.push(point(e.x2, e.y2));
  }
  return ring;
}

const padPath = (p: Pad): Path64 => {
  if (p.shape === "circle") {
    const out: Path64 = [];
    for (let k = 0; k < 48; k++)
      out.push(
        point(p.x + (p.w / 2) * Math.cos((k * Math.PI) / 24), p.y + (p.w / 2) * Math.sin((k * Math.PI) / 24)),
      );
    return out;
  }
  const [hw, hh] = [p.w / 2, p.h / 2];
  return [
    point(p.x - hw, p.y - hh),
    point(p.x + hw, p.y - hh),
    point(p.x + hw, p.y + hh),
    point(p.x - hw, p.y + hh),
  ];
};

/** A fill for one net: the board inset, foreign copper kept away, necks under 0.3 mm and orphans dropped. */
export function fill(
  board: readonly Edge[],
  cutouts: readonly (readonly Edge[])[],
  layer: "top" | "bottom",
  net: string,
  pads: readonly Pad[],
  tracks: readonly Track[],
  keepouts: readonly {
    readonly x1: number;
    readonly y1: number;
    readonly x2: number;
    readonly y2: number;
    readonly r: number;
  }[],
  clearance: number,
): Design["fills"] {
  const isHere = (p: Pad) => p.side === "through" || p.side === layer;
  const line = (t: { x1: number; y1: number; x2: number; y2: number }): Path64 => [
    point(t.x1, t.y1),
    point(t.x2 + (t.x1 === t.x2 && t.y1 === t.y2 ? 1e-6 : 0), t.y2),
  ];
  const foreign: Paths64 = [
    ...pads.filter((p) => isHere(p) && p.net !== net).flatMap((p) => grow([padPath(p)], clearance)),
    ...tracks
      .filter((t) => t.layer === layer && t.net !== net)
      .flatMap((t) => grow([line(t)], t.width / 2 + clearance, EndType.Round)),
    ...keepouts.flatMap((k) => grow([line(k)], k.r, EndType.Round)),
    ...cutouts.flatMap((c) => grow([ringOf(c)], 0.5)),
  ];
  const base = grow([ringOf(board)], -0.5);
  const clipper = new Clipper64();
  clipper.addSubject(base);
  clipper.addClip(foreign);
  const raw: Paths64 = [];
  clipper.execute(ClipType.Difference, FillRule.NonZero, raw);
  // points that move the edge by less than 4 µm are left out, as layout programs do
  const opened = simplifyPaths(grow(grow(raw, -0.15), 0.149), 0.004 * S);
  const own = [
    ...pads.filter((p) => isHere(p) && p.net === net).map((p) => [p.x, p.y] as const),
    ...tracks.filter((t) => t.layer === layer && t.net === net).map((t) => [t.x1, t.y1] as const),
  ];
  const tree = new PolyTree64();
  const union = new Clipper64();
  union.addSubject(opened);
  union.execute(ClipType.Union, FillRule.NonZero, tree);
  const out: { layer: "top" | "bottom"; net: string; outer: number[]; holes: number[][] }[] = [];
  const flat = (path: Path64) => path.flatMap((p) => [p.x / S, p.y / S]);
  const visit = (node: PolyPath64) => {
    for (let i = 0; i < node.count; i++) {
      const area = node.child(i);
      const outer = flat(area.poly!);
      const holes: number[][] = [];
      for (let k = 0; k < area.count; k++) {
        holes.push(flat(area.child(k).poly!));
        visit(area.child(k));
      }
      if (own.some(([x, y]) => inside(outer, x, y) && !holes.some((h) => inside(h, x, y))))
        out.push({ layer, net, outer, holes });
    }
  };
  visit(tree);
  return out;
}

function inside(ring: readonly number[], x: number, y: number): boolean {
  let is = false;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    if (
      ring[i + 1]! > y !== ring[j + 1]! > y &&
      x < ((ring[j]! - ring[i]!) * (y - ring[i + 1]!)) / (ring[j + 1]! - ring[i + 1]!) + ring[i]!
    )
      is = !is;
  return is;
}
