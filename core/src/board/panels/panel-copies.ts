import { clipAreas } from "../../geometry/clip.ts";
import { insideRings, signedArea } from "../../geometry/polygon.ts";
import { boxAround } from "../../geometry/turn.ts";
import { orGivenUp, Work } from "../../geometry/work.ts";
import { KIND } from "../../gerber/image.ts";
import { addTo } from "../../grouped.ts";
import type { BoardFile } from "../board-file.ts";
import type { Outline } from "../outline/outline.ts";
import { reversed } from "../outline/outline-loops.ts";

/** Unplated holes up to this width may be perforations; they stand at most this far apart, mm (domain.md 6.2). */
export const PERFORATION_MM = 0.85;
const APART_MM = 1.3;
/** A row breaks on beyond its last holes as far as this, mm. */
const BEYOND_MM = 2;
/** Rows stand on the edge or half a hole inside: as far to either side of them everything is cut, mm. */
const HALF_MM = 0.5;
/** A score runs over at least this share of the sheet. */
const ACROSS = 0.5;
/** Boards are equal within this share of their area. */
const EQUAL = 0.01;
/** A board has at least this share of the strokes an area of the one that has most; a rail holds marks, and no tracks. */
const LEAST_COPPER = 0.2;

/**
 * Boards a sheet falls into when its perforations are broken and its scores cut: how a panel is told, whoever made it.
 *
 * @returns the areas of the boards, counter-clockwise with their holes clockwise; nothing where there is no perforation and
 *   no score, or they part nothing
 */
export function boardsOfPanel(
  files: readonly BoardFile[],
  outline: Outline | undefined,
): readonly (readonly (readonly number[])[])[] | undefined {
  if (!outline?.isClosed || !outline.box) return undefined;
  const cuts = [...scoreCuts(files, outline.box), ...perforationCuts(files)];
  if (cuts.length === 0) return undefined;
  return orGivenUp(
    () => {
      const rings = outline.loops.map((l) => (l.depth % 2 === 0 ? l.ring : reversed(l.ring)));
      const pieces = clipAreas("difference", rings, cuts, new Work(400_000_000)).map((area) => ({
        area,
        mm2: Math.abs(area.reduce((n, r) => n + signedArea(r), 0)),
        box: boxAround([area[0]!]),
        objects: 0,
      }));
      const points = copperPoints(files);
      for (const [x, y] of points) {
        const p = pieces.find(
          ({ area, box: b }) => x >= b[0] && x <= b[2] && y >= b[1] && y <= b[3] && insideRings(area, x, y),
        );
        if (p) p.objects++;
      }
      const dense = (p: (typeof pieces)[number]) => (p.mm2 > 4 ? p.objects / p.mm2 : 0);
      const most = Math.max(0, ...pieces.map(dense));
      const boards = pieces.filter((p) => p.objects > 0 && dense(p) >= LEAST_COPPER * most);
      // at least two of a kind make a panel
      const isPair = boards.some((a, i) =>
        boards.some((b, k) => k > i && Math.abs(a.mm2 - b.mm2) < EQUAL * a.mm2),
      );
      return isPair ? boards.map((p) => p.area) : undefined;
    },
    () => undefined,
  );
}

/** A strip along a line, so wide that nothing stays joined across it. */
function stripAlong(x1: number, y1: number, x2: number, y2: number, beyond: number, half: number): number[] {
  const d = Math.hypot(x2 - x1, y2 - y1) || 1;
  const [u, v] = [(x2 - x1) / d, (y2 - y1) / d];
  const [ax, ay, bx, by] = [x1 - u * beyond, y1 - v * beyond, x2 + u * beyond, y2 + v * beyond];
  const [p, q] = [-v * half, u * half];
  return [ax + p, ay + q, ax - p, ay - q, bx - p, by - q, bx + p, by + q];
}

function scoreCuts(files: readonly BoardFile[], box: readonly number[]): number[][] {
  const out: number[][] = [];
  const [w, h] = [box[2]! - box[0]!, box[3]! - box[1]!];
  for (const f of files) {
    if (f.role !== "score" || !f.layer) continue;
    for (let i = 0; i < f.layer.n && out.length < 400; i++) {
      if (f.layer.kind[i] !== KIND.line) continue;
      const [x1, y1, x2, y2] = f.layer.geo.subarray(i * 6, i * 6 + 4) as unknown as [
        number,
        number,
        number,
        number,
      ];
      if (Math.abs(x2 - x1) > ACROSS * w || Math.abs(y2 - y1) > ACROSS * h)
        out.push(stripAlong(x1, y1, x2, y2, 0.5, 0.005));
    }
  }
  return out;
}

/** Rows of small unplated holes, each as a strip over its tab. */
function perforationCuts(files: readonly BoardFile[]): number[][] {
  const holes = files
    .flatMap((f) =>
      f.role === "drill" ? (f.drill?.hits ?? []).map((h) => ({ ...h, told: h.plated ?? f.plated })) : [],
    )
    .filter((h) => h.diameterMm <= PERFORATION_MM && h.told === false)
    .sort((a, b) => a.x - b.x);
  if (holes.length > 40_000) return [];
  const next = new Map<number, number[]>();
  for (let i = 0; i < holes.length; i++)
    for (let k = i + 1; k < holes.length && holes[k]!.x - holes[i]!.x <= APART_MM; k++)
      if (Math.hypot(holes[k]!.x - holes[i]!.x, holes[k]!.y - holes[i]!.y) <= APART_MM) {
        addTo(next, i, k);
        addTo(next, k, i);
      }
  const out: number[][] = [];
  const seen = new Set<number>();
  holes.forEach((_, first) => {
    if (seen.has(first)) return;
    const row: number[] = [];
    const todo = [first];
    for (let i = todo.pop(); i !== undefined; i = todo.pop()) {
      if (seen.has(i)) continue;
      seen.add(i);
      row.push(i);
      todo.push(...(next.get(i) ?? []));
    }
    if (row.length < 3) return;
    // the two that lie farthest apart are its ends
    const at = row.map((i) => holes[i]!);
    const a = farthest(at[0]!, at);
    const b = farthest(a, at);
    out.push(stripAlong(a.x, a.y, b.x, b.y, BEYOND_MM, HALF_MM));
  });
  return out;
}

const farthest = <P extends { x: number; y: number }>(from: P, list: readonly P[]): P =>
  list.reduce((p, q) =>
    Math.hypot(q.x - from.x, q.y - from.y) > Math.hypot(p.x - from.x, p.y - from.y) ? q : p,
  );

/** Where copper is drawn, of the layer that holds most: where strokes and areas begin, or flashes where there are none. */
function copperPoints(files: readonly BoardFile[]): (readonly [number, number])[] {
  const layers = files.flatMap((f) => (f.role === "copper" && f.layer ? [f.layer] : []));
  const image = layers.reduce<(typeof layers)[number] | undefined>(
    (a, l) => (!a || l.n > a.n ? l : a),
    undefined,
  );
  if (!image) return [];
  const step = Math.max(1, Math.floor(image.n / 8000));
  const hasStrokes = image.kind.some((k) => k !== KIND.flash);
  const out: (readonly [number, number])[] = [];
  for (let i = 0; i < image.n; i += step) {
    if (hasStrokes && image.kind[i] === KIND.flash) continue;
    const o = i * 6;
    const p = image.geo[o]! * 2;
    out.push(
      image.kind[i] === KIND.region
        ? [image.points[p]!, image.points[p + 1]!]
        : [image.geo[o]!, image.geo[o + 1]!],
    );
  }
  return out;
}
