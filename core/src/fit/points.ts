import type { Round } from "./pattern.ts";

type Spot = readonly [number, number];

/** A post as it was given; its diameter is in the same unit only where its own row says it. */
export interface Post extends Round {
  readonly isOwn?: true;
}

/** How posts as they were given lie against the holes of a board. */
export interface PostsMatch {
  /** For each hole the post that belongs to it, in millimetres and the right way round. */
  readonly posts: readonly Round[];
  /** Farthest a post is from its hole, with the two patterns laid on each other by their middles, mm. */
  readonly offMm: number;
  /** What a number of the posts is, where it is not a millimetre: mm each. */
  readonly unitMm: number;
  /** They lie as seen from the other side. */
  readonly isMirrored: boolean;
}

/** Units posts may be given in by mistake: inches, mils, centimetres, micrometres. */
const UNITS_MM = [1, 25.4, 0.0254, 10, 0.001];
/** A pattern is another size where it differs by more than this share. */
const SAME_SIZE = 0.05;

/**
 * Which post belongs to which hole, whatever the posts' drawing is drawn about: by four turns, plain or mirrored, and in
 * the unit in which the two patterns have one size. Whether to believe another unit or a mirroring is the person's to say.
 *
 * O(n²) a turn. @param posts as many as holes
 * @returns undefined where the numbers differ, or nothing lies nearer than half the pattern
 */
export function matchPosts(holes: readonly Spot[], posts: readonly Post[]): PostsMatch | undefined {
  if (holes.length === 0 || holes.length !== posts.length) return undefined;
  const size = (list: readonly Spot[]) => {
    const [cx, cy] = middle(list);
    return Math.sqrt(list.reduce((s, [x, y]) => s + (x - cx) ** 2 + (y - cy) ** 2, 0) / list.length);
  };
  const places = posts.map((p): Spot => [p.x, p.y]);
  const [a, b] = [size(holes), size(places)];
  const unitMm = b === 0 || a === 0 ? 1 : (UNITS_MM.find((u) => Math.abs((b * u) / a - 1) <= SAME_SIZE) ?? 1);
  let best: PostsMatch | undefined;
  for (const isMirrored of [false, true])
    for (const turn of [0, 1, 2, 3]) {
      const laid = places.map((p) => turned(p, turn, isMirrored, unitMm));
      const found = pair(holes, laid);
      // plain is believed before mirrored, and as given before turned
      if (!found || (best && found.offMm > best.offMm - 1e-6)) continue;
      best = {
        posts: found.order.map((j) => ({
          x: round((isMirrored ? -1 : 1) * posts[j]!.x * unitMm),
          y: round(posts[j]!.y * unitMm),
          diameterMm: round(posts[j]!.diameterMm * (posts[j]!.isOwn ? unitMm : 1)),
        })),
        offMm: round(found.offMm),
        unitMm,
        isMirrored,
      };
    }
  return best && best.offMm <= Math.max(1, a / 2) ? best : undefined;
}

const round = (v: number) => Math.round(v * 1e6) / 1e6 || 0;
const middle = (list: readonly Spot[]): Spot => [
  list.reduce((s, p) => s + p[0], 0) / list.length,
  list.reduce((s, p) => s + p[1], 0) / list.length,
];

function turned([x0, y0]: Spot, quarters: number, isMirrored: boolean, factor: number): Spot {
  const [x, y] = [(isMirrored ? -x0 : x0) * factor, y0 * factor];
  return [
    [x, y],
    [-y, x],
    [-x, -y],
    [y, -x],
  ][quarters] as unknown as Spot;
}

/** Each hole with the nearest place not taken yet, nearest pairs first, both about their middles. */
function pair(
  holes: readonly Spot[],
  places: readonly Spot[],
): { readonly order: readonly number[]; readonly offMm: number } | undefined {
  const [[hx, hy], [px, py]] = [middle(holes), middle(places)];
  const pairs = holes.flatMap(([x, y], i) =>
    places.map(([u, v], j) => [Math.hypot(x - hx - u + px, y - hy - v + py), i, j] as const),
  );
  pairs.sort((p, q) => p[0] - q[0]);
  const order = new Array<number>(holes.length).fill(-1);
  const taken = new Set<number>();
  let offMm = 0;
  for (const [d, i, j] of pairs) {
    if (order[i] !== -1 || taken.has(j)) continue;
    order[i] = j;
    taken.add(j);
    offMm = Math.max(offMm, d);
  }
  return { order, offMm };
}

/** Rows of "x y" or "x y diameter", as pasted; what is no such row is said with its number. @param diameterMm of rows without one */
export function readPosts(
  text: string,
  diameterMm: number | undefined,
): { readonly posts: readonly Post[]; readonly wrong: readonly string[] } {
  const posts: Post[] = [];
  const wrong: string[] = [];
  text.split(/\r\n|\r|\n/).forEach((line, i) => {
    if (line.trim() === "") return;
    const cells = cellsOf(line);
    const [x, y, d = diameterMm] = cells;
    // a heading holds no number at all
    if (i === 0 && cells.every(Number.isNaN)) return;
    if (cells.length < 2 || cells.length > 3 || cells.some(Number.isNaN))
      wrong.push(`Row ${i + 1}, “${line.trim().slice(0, 40)}”, is no x and y.`);
    else if (d === undefined) wrong.push(`Row ${i + 1} has no diameter.`);
    else if (!(d > 0)) wrong.push(`Row ${i + 1} has a diameter of ${d}.`);
    else posts.push({ x: x!, y: y!, diameterMm: d, ...(cells.length === 3 ? { isOwn: true } : {}) });
  });
  return { posts, wrong };
}

/** Cells of a row: by tabs, semicolons or blanks; by commas where these part them; else a comma is a decimal mark. */
function cellsOf(line: string): number[] {
  const trimmed = line
    .trim()
    .replace(/[−–]/g, "-")
    .replace(/\s*mm\b/gi, "");
  const isParted = /[\t; ]/.test(trimmed.replace(/,\s+/g, ","));
  const cells = isParted ? trimmed.split(/[\t; ]+/) : trimmed.split(/,\s*/);
  return cells
    .map((c) => c.replace(/,$/, ""))
    .filter((c) => c !== "")
    .map((c) => {
      const plain = isParted ? c.replace(",", ".") : c;
      return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : Number.NaN;
    });
}

/** What is odd in readings of one thing: one far from the others, as a slipped decimal mark makes it; nothing where all are near. */
export function oddReading(readings: readonly number[]): number | undefined {
  const sorted = [...readings].sort((a, b) => a - b);
  const median = sorted[Math.floor(sorted.length / 2)]!;
  return readings.find((r) => r <= 0 || r > 1.5 * median || r < median / 1.5);
}
