import type { Finding } from "../../findings.ts";
import { KIND } from "../../gerber/image.ts";
import type { BoardFile } from "../board-file.ts";
import { words } from "./guess.ts";

type Point = readonly [number, number];
type Box = readonly [number, number, number, number];

/** Scales a file may be off by: units taken for each other, and zeros counted wrongly. */
const SCALES = [25.4, 1 / 25.4, 10, 0.1, 2.54, 1 / 2.54, 100, 0.01, 1000, 0.001, 2, 0.5] as const;
/** Points of a file that are tried: enough to tell one scale from another. */
const MOST_POINTS = 3000;
/** Below this share a file does not lie on the others; above the other it does. */
const OFF = 0.3;
const ON = 0.8;

interface Drawn {
  readonly file: BoardFile;
  points: readonly Point[];
}

/**
 * Files drawn at another scale than the others: each copper, mask, paste and drill file is held against all others by the
 * middles of its pads, openings and holes. One that lies on none of them and does when every length is taken so many
 * times as large is told with both shares, and the file that is told is the odd one, not its neighbour: the one that lies
 * on the fewest of the others, and of two alike the one that leaves the outline or fills least of it. The outline itself
 * is held against what is inside it.
 *
 * @param box of the closed outline
 */
export function sayScales(files: readonly BoardFile[], box: Box | undefined, findings: Finding[]): void {
  const drawn: Drawn[] = files.flatMap((file) => {
    const points = pointsOf(file);
    return points.length >= 4 ? [{ file, points }] : [];
  });
  if (drawn.length === 0) return;
  let index = indexOf(drawn);
  // one after the other: what is put right helps to judge the rest
  for (let turn = 0; turn < drawn.length; turn++) {
    const found = oddest(drawn, index, box);
    if (!found) break;
    const { one, k, now, then } = found;
    findings.push(
      told(
        one.file,
        k,
        `as it stands ${percent(now)} of ${itsOf(one.file)} where the other files have theirs, ${saysScale(k)} ${percent(then)}`,
      ),
    );
    one.points = one.points.map(([x, y]) => [x * k, y * k]);
    index = indexOf(drawn);
  }
  const profile = files.find((f) => f.role === "profile" && f.layer);
  // what lies somewhere else itself says nothing of the outline
  const agreed = drawn.filter((d) => shareOf(d.points, d, index) >= OFF);
  if (profile && box) sayOutline(profile, box, boxOf(agreed.flatMap((d) => d.points)), findings);
}

/** How near two points are to be one place, mm. */
const STEP = 0.05;
const cellOf = (x: number, y: number) =>
  (Math.floor(x / STEP) + 4194304) * 8388608 + Math.floor(y / STEP) + 4194304;

/** All points by the cell they lie in, each with whose it is. */
type Index = ReadonlyMap<number, readonly { readonly x: number; readonly y: number; readonly of: Drawn }[]>;

function indexOf(drawn: readonly Drawn[]): Index {
  const cells = new Map<number, { x: number; y: number; of: Drawn }[]>();
  for (const of of drawn)
    for (const [x, y] of of.points) {
      const key = cellOf(x, y);
      const list = cells.get(key);
      if (list) list.push({ x, y, of });
      else cells.set(key, [{ x, y, of }]);
    }
  return cells;
}

/** Share of points on which some file but their own has one. */
function shareOf(points: readonly Point[], own: Drawn, index: Index): number {
  let on = 0;
  for (const [x, y] of points) {
    let isOn = false;
    for (let a = -1; a <= 1 && !isOn; a++)
      for (let b = -1; b <= 1 && !isOn; b++)
        for (const p of index.get(cellOf(x + a * STEP, y + b * STEP)) ?? [])
          if (p.of !== own && Math.hypot(p.x - x, p.y - y) <= STEP) {
            isOn = true;
            break;
          }
    if (isOn) on++;
  }
  return points.length === 0 ? 1 : on / points.length;
}

function oddest(drawn: readonly Drawn[], index: Index, box: Box | undefined) {
  if (drawn.length < 2) return undefined;
  const inside = (points: readonly Point[]) =>
    box === undefined ? 1 : points.filter((p) => isIn(box, p, 1)).length / points.length;
  const ranked = drawn
    .map((one) => ({ one, now: shareOf(one.points, one, index) }))
    .filter((r) => r.now < OFF)
    .sort(
      (a, b) =>
        a.now - b.now ||
        inside(a.one.points) - inside(b.one.points) ||
        sizeOf(a.one.points) - sizeOf(b.one.points),
    );
  for (const { one, now } of ranked)
    for (const k of SCALES) {
      const points = one.points.map(([x, y]): Point => [x * k, y * k]);
      const then = shareOf(points, one, index);
      // what falls together on one place says nothing
      if (then >= ON && sizeOf(points) > 1) return { one, k, now, then };
    }
  return undefined;
}

/** An outline that what is on the board leaves, or fills next to nothing of, and would fit at another scale. */
function sayOutline(file: BoardFile, box: Box, content: Box | undefined, findings: Finding[]): void {
  if (!content) return;
  const fills = (b: Box) =>
    ((content[2] - content[0]) * (content[3] - content[1])) / Math.max(1e-9, (b[2] - b[0]) * (b[3] - b[1]));
  const holds = (b: Box) => isIn(b, [content[0], content[1]], 1) && isIn(b, [content[2], content[3]], 1);
  const isTooLarge = holds(box) && fills(box) < 0.02;
  if (holds(box) && !isTooLarge) return;
  const scaled = (k: number): Box => [box[0] * k, box[1] * k, box[2] * k, box[3] * k];
  const k = SCALES.find((s) => holds(scaled(s)) && fills(scaled(s)) > 0.1);
  if (k === undefined) return;
  findings.push(
    told(
      file,
      k,
      holds(box)
        ? `pads and holes fill ${percent(fills(box))} of it, ${saysScale(k)} ${percent(fills(scaled(k)))}`
        : `pads and holes lie outside of it, ${saysScale(k)} all of them inside`,
    ),
  );
}

const told = (file: BoardFile, k: number, why: string): Finding => ({
  tag: "layer-scale",
  level: "error",
  file: file.path,
  text: `${file.path} (${words(file)}) is drawn ${times(k > 1 ? k : 1 / k)} too ${k > 1 ? "small" : "large"}: ${why}.`,
  do: `Export it again${k === 25.4 || k === 1 / 25.4 ? " in the unit it states" : ""}, and drop all files.`,
});

const times = (k: number) => (k === 2 ? "twice" : `${Number(k.toPrecision(4))} times`);
const saysScale = (k: number) =>
  k > 1
    ? `taken ${times(k)} as large`
    : `taken at ${k === 0.5 ? "half" : `1/${Number((1 / k).toPrecision(4))}`} of that`;
const percent = (v: number) => `${Math.round(v * 100)} %`;
const itsOf = (f: BoardFile) =>
  f.role === "drill" ? "its holes lie" : f.role === "copper" ? "its pads lie" : "its openings lie";
const isIn = (b: Box, [x, y]: Point, room: number) =>
  x >= b[0] - room && x <= b[2] + room && y >= b[1] - room && y <= b[3] + room;

function boxOf(points: readonly Point[]): Box | undefined {
  if (points.length === 0) return undefined;
  let [x0, y0, x1, y1] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, -Infinity, -Infinity];
  for (const [x, y] of points) {
    x0 = Math.min(x0, x);
    y0 = Math.min(y0, y);
    x1 = Math.max(x1, x);
    y1 = Math.max(y1, y);
  }
  return [x0, y0, x1, y1];
}
function sizeOf(points: readonly Point[]): number {
  const b = boxOf(points);
  return b ? Math.max(b[2] - b[0], b[3] - b[1]) : 0;
}

/** Middles of what a file flashes or drills, by which it is held against others. */
function pointsOf(f: BoardFile): Point[] {
  const out: Point[] = [];
  if (f.role === "drill" && f.drill && f.drill.plated !== false)
    for (const h of f.drill.hits) if (h.plated !== false && out.length < MOST_POINTS) out.push([h.x, h.y]);
  if (f.layer && (f.role === "copper" || f.role === "mask" || f.role === "paste"))
    for (let i = 0; i < f.layer.n && out.length < MOST_POINTS; i++)
      if (f.layer.kind[i] === KIND.flash && f.layer.dark[i] !== 0)
        out.push([f.layer.geo[i * 6]!, f.layer.geo[i * 6 + 1]!]);
  return out;
}
