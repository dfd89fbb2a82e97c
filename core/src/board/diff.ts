import { clipAreas, shrinkAreas } from "../geometry/clip.ts";
import { orGivenUp } from "../geometry/work.ts";
import { ringsOfSolid, type Solids, solidsOf } from "../gerber/solids.ts";
import type { BoardFile, BoardSet } from "./board-file.ts";
import { analyseLayer } from "./copper.ts";
import type { BoardDiff, DiffPlace } from "./measure-document.ts";
import { layerName } from "./measure-keys.ts";
import { chainOutline } from "./outline.ts";
import { type Box, ringBox } from "./outline-loops.ts";
import { openingsOf, type PasteOpening } from "./paste.ts";

/** Differences narrower than this are drawing noise, mm. */
const NOISE_MM = 0.005;

/**
 * This board against another, layer by layer: a layer is changed where the symmetric difference of its painted areas is
 * wider than 5 µm. Boards drawn about another origin are laid on each other by the lower left corner of equal outlines.
 * A stencil can be used again where every opening has one of its size at its place (domain.md 2.11), with none too many.
 */
export function diffBoards(now: BoardSet, other: BoardSet): BoardDiff {
  const [a, b] = [byKey(now), byKey(other)];
  const shift = originShift(now, other);
  const changed: string[] = [];
  const unchanged: string[] = [];
  const places: Record<string, readonly DiffPlace[]> = {};
  for (const key of [...new Set([...a.keys(), ...b.keys()])].sort()) {
    const [f, g] = [a.get(key), b.get(key)];
    const isSame =
      f && g && sureThat(() => (f.drill && g.drill ? sameDrills(f, g, shift) : sameLayer(f, g, shift)));
    (isSame ? unchanged : changed).push(key);
    if (isSame || !f || !g) continue;
    const where = orGivenUp(
      () =>
        f.drill && g.drill
          ? movedDrills(f, g, shift)
          : differences(solidsOf(f.layer!), solidsOf(g.layer!), shift),
      () => [],
    );
    if (where.length > 0) places[key] = where;
  }
  const stencilReusable: Record<string, boolean> = {};
  for (const side of ["top", "bottom"]) {
    const [f, g] = [a.get(`paste-${side}`), b.get(`paste-${side}`)];
    if (f?.layer && f.layer.n > 0)
      stencilReusable[side] =
        g?.layer !== undefined && sureThat(() => sameOpenings(openings(f), openings(g), shift));
  }
  return { changed, unchanged, stencilReusable, places };
}

/** What is too much to be compared is not called the same. */
const sureThat = (compare: () => boolean) => orGivenUp(compare, () => false);

const openings = (f: BoardFile) => openingsOf(analyseLayer(f.layer!, "paste"));

/** Files by what they are on the board: "copper-top", "copper-inner-1", "mask-bottom", "profile", "drill-plated". */
function byKey(set: BoardSet): Map<string, BoardFile> {
  const out = new Map<string, BoardFile>();
  for (const f of set.files) {
    let key: string | undefined;
    if (f.role === "profile" && f.layer) key = "profile";
    else if (f.role === "drill" && f.drill)
      key = f.plated === true ? "drill-plated" : f.plated === false ? "drill-unplated" : "drill";
    else if (f.layer && ["copper", "mask", "legend", "paste"].includes(f.role))
      key = `${f.role}-${layerName(f).replace(" ", "-")}`;
    if (key && !out.has(key)) out.set(key, f);
  }
  return out;
}

type Shift = readonly [number, number];

function originShift(now: BoardSet, other: BoardSet): Shift {
  const box = (s: BoardSet) => {
    const f = s.files.find((x) => x.role === "profile" && x.layer);
    return f?.layer ? chainOutline(f.layer, f.path).box : undefined;
  };
  const [p, q] = [box(now), box(other)];
  if (!p || !q) return [0, 0];
  const isEqual =
    Math.abs(p[2] - p[0] - q[2] + q[0]) < NOISE_MM && Math.abs(p[3] - p[1] - q[3] + q[1]) < NOISE_MM;
  return isEqual ? [p[0] - q[0], p[1] - q[1]] : [0, 0];
}

function rings(s: Solids, [dx, dy]: Shift): number[][] {
  const out: number[][] = [];
  for (let k = 0; k < s.count; k++)
    for (const ring of ringsOfSolid(s, k)) out.push(ring.map((v, i) => v + (i % 2 === 0 ? dx : dy)));
  return out;
}

/** One word per piece, so that equal layers are told apart from others without any geometry. */
function words(s: Solids, [dx, dy]: Shift): Set<string> {
  const out = new Set<string>();
  const r = (v: number) => Math.round(v * 1000);
  for (let k = 0; k < s.count; k++) {
    const parts: number[] = [r(s.radius[k]!)];
    for (let i = s.firstEdge[k]! * 4; i < s.firstEdge[k + 1]! * 4; i += 2)
      parts.push(r(s.edges[i]! + dx), r(s.edges[i + 1]! + dy));
    out.add(parts.join(" "));
  }
  return out;
}

function sameLayer(f: BoardFile, g: BoardFile, shift: Shift): boolean {
  const [s, t] = [solidsOf(f.layer!), solidsOf(g.layer!)];
  if (s.count === 0 || t.count === 0) return s.count === t.count;
  const [u, v] = [words(s, [0, 0]), words(t, shift)];
  if (u.size === v.size && [...u].every((w) => v.has(w))) return true;
  return differences(s, t, shift).length === 0;
}

/** Places where the painted areas of two layers differ by more than noise, those that touch as one. */
function differences(s: Solids, t: Solids, shift: Shift): DiffPlace[] {
  const left = shrinkAreas(clipAreas("xor", rings(s, [0, 0]), rings(t, shift)), NOISE_MM / 2);
  return together(left.map(([ring]) => ringBox(ring!)));
}

/** Holes and slots that only one of the two has. */
function movedDrills(f: BoardFile, g: BoardFile, [dx, dy]: Shift): DiffPlace[] {
  const list = (x: BoardFile, sx: number, sy: number) =>
    [
      ...x.drill!.hits.map((h) => [h.x + sx, h.y + sy, h.x + sx, h.y + sy, h.diameterMm] as const),
      ...x.drill!.routs.map((r) => {
        const [p, q] = [r.points[0]!, r.points.at(-1)!];
        return [p[0] + sx, p[1] + sy, q[0] + sx, q[1] + sy, r.widthMm] as const;
      }),
    ].map((v) => ({ key: v.map((n) => Math.round(n / (2 * NOISE_MM))).join(" "), v }));
  const [a, b] = [list(f, 0, 0), list(g, dx, dy)];
  const [inA, inB] = [new Set(a.map((x) => x.key)), new Set(b.map((x) => x.key))];
  const odd = [...a.filter((x) => !inB.has(x.key)), ...b.filter((x) => !inA.has(x.key))];
  return together(
    odd.map(({ v: [x1, y1, x2, y2, d] }) => [
      Math.min(x1, x2) - d / 2,
      Math.min(y1, y2) - d / 2,
      Math.max(x1, x2) + d / 2,
      Math.max(y1, y2) + d / 2,
    ]),
  );
}

/** Places kept of each layer, and how near two of them are one to a person, mm. */
const MOST_DIFFERENCES = 20;
const ONE_PLACE_MM = 0.5;

const micrometres = (v: number) => Math.round(v * 1000) / 1000;

/** Boxes that are looked at: of more differences than these nobody asks for the places. */
const MOST_BOXES = 2000;

/** Boxes near each other as one place, the largest first. */
function together(boxes: readonly Box[]): DiffPlace[] {
  const size = (b: Box) => Math.max(b[2] - b[0], b[3] - b[1]);
  const joined: [number, number, number, number][] = [];
  for (const b of [...boxes].sort((p, q) => size(q) - size(p)).slice(0, MOST_BOXES)) {
    const own = joined.find(
      (o) =>
        b[0] <= o[2] + ONE_PLACE_MM &&
        b[2] >= o[0] - ONE_PLACE_MM &&
        b[1] <= o[3] + ONE_PLACE_MM &&
        b[3] >= o[1] - ONE_PLACE_MM,
    );
    if (!own) joined.push([...b]);
    else {
      own[0] = Math.min(own[0], b[0]);
      own[1] = Math.min(own[1], b[1]);
      own[2] = Math.max(own[2], b[2]);
      own[3] = Math.max(own[3], b[3]);
    }
  }
  return joined
    .map(([x0, y0, x1, y1]) => ({
      x: micrometres((x0 + x1) / 2),
      y: micrometres((y0 + y1) / 2),
      widthMm: micrometres(x1 - x0),
      heightMm: micrometres(y1 - y0),
    }))
    .sort((p, q) => Math.max(q.widthMm, q.heightMm) - Math.max(p.widthMm, p.heightMm))
    .slice(0, MOST_DIFFERENCES);
}

function sameDrills(f: BoardFile, g: BoardFile, [dx, dy]: Shift): boolean {
  const list = (x: BoardFile, sx: number, sy: number) =>
    [
      ...x.drill!.hits.map((h) => [h.x + sx, h.y + sy, h.x + sx, h.y + sy, h.diameterMm]),
      ...x.drill!.routs.map((r) => {
        const ends = [r.points[0]!, r.points.at(-1)!].sort((p, q) => p[0] - q[0] || p[1] - q[1]);
        return [ends[0]![0] + sx, ends[0]![1] + sy, ends[1]![0] + sx, ends[1]![1] + sy, r.widthMm];
      }),
    ].sort((p, q) => p[0]! - q[0]! || p[1]! - q[1]! || p[4]! - q[4]!);
  const [a, b] = [list(f, 0, 0), list(g, dx, dy)];
  if (a.length !== b.length) return false;
  // neighbours in X may sort either way within the noise: each is looked up near its place
  const used = new Uint8Array(b.length);
  return a.every((p, i) => {
    for (let j = Math.max(0, i - 8); j < Math.min(b.length, i + 9); j++)
      if (!used[j] && p.every((v, k) => Math.abs(v - b[j]![k]!) <= NOISE_MM)) {
        used[j] = 1;
        return true;
      }
    return false;
  });
}

function sameOpenings(now: readonly PasteOpening[], old: readonly PasteOpening[], [dx, dy]: Shift): boolean {
  if (now.length !== old.length) return false;
  const near = (a: number, b: number) => Math.abs(a - b) <= Math.max(0.05 * b, 0.025);
  const cells = new Map<string, PasteOpening[]>();
  for (const o of old) {
    const key = `${Math.round(o.x + dx)} ${Math.round(o.y + dy)}`;
    const list = cells.get(key);
    if (list) list.push(o);
    else cells.set(key, [o]);
  }
  return now.every((n) => {
    for (let a = -1; a <= 1; a++)
      for (let b = -1; b <= 1; b++)
        for (const o of cells.get(`${Math.round(n.x) + a} ${Math.round(n.y) + b}`) ?? [])
          if (
            Math.hypot(o.x + dx - n.x, o.y + dy - n.y) <= 0.05 &&
            near(n.widthMm, o.widthMm) &&
            near(n.lengthMm, o.lengthMm)
          )
            return true;
    return false;
  });
}
