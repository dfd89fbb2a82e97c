import { KIND, type LayerImage } from "../../gerber/image.ts";

/** How a set of points must be moved to fall onto another; `share` of them then do. */
export interface Registration {
  readonly share: number;
  readonly dxMm: number;
  readonly dyMm: number;
  /** X runs the other way: x becomes −x before the move. */
  readonly isMirrored: boolean;
}

type Points = readonly (readonly [number, number])[];

/** Share of `points` that have one of `onto` within 0.05 mm. */
export function shareOnto(points: Points, onto: Points): number {
  if (points.length === 0) return 1;
  const near = nearness(onto);
  return points.filter(([x, y]) => near(x, y)).length / points.length;
}

const STEP = 0.05;

function nearness(onto: Points): (x: number, y: number) => boolean {
  const cells = new Map<string, [number, number][]>();
  for (const [x, y] of onto) {
    const key = `${Math.floor(x / STEP)} ${Math.floor(y / STEP)}`;
    const list = cells.get(key);
    if (list) list.push([x, y]);
    else cells.set(key, [[x, y]]);
  }
  return (x, y) => {
    const [cx, cy] = [Math.floor(x / STEP), Math.floor(y / STEP)];
    for (let a = cx - 1; a <= cx + 1; a++)
      for (let b = cy - 1; b <= cy + 1; b++)
        for (const [u, v] of cells.get(`${a} ${b}`) ?? []) if (Math.hypot(u - x, v - y) <= STEP) return true;
    return false;
  };
}

/**
 * The one shift, plain or mirrored, that brings most points onto others: votes of all pairs of a sample in steps of
 * 0.05 mm, the winner refined by the mean of its pairs and tried on all points.
 *
 * @returns undefined when fewer than four points or fewer than 80 % fall into place
 */
export function register(points: Points, onto: Points): Registration | undefined {
  if (points.length < 4 || onto.length < 4) return undefined;
  const sample = spread(points, 60);
  const target = spread(onto, 1500);
  const near = nearness(onto);
  let best: Registration | undefined;
  for (const isMirrored of [false, true]) {
    const votes = new Map<string, { n: number; dx: number; dy: number }>();
    let top: { n: number; dx: number; dy: number } | undefined;
    for (const [x0, y] of sample) {
      const x = isMirrored ? -x0 : x0;
      for (const [u, v] of target) {
        const key = `${Math.round((u - x) / STEP)} ${Math.round((v - y) / STEP)}`;
        const vote = votes.get(key) ?? { n: 0, dx: 0, dy: 0 };
        vote.n++;
        vote.dx += u - x;
        vote.dy += v - y;
        votes.set(key, vote);
        if (!top || vote.n > top.n) top = vote;
      }
    }
    if (!top) continue;
    const [dxMm, dyMm] = [top.dx / top.n, top.dy / top.n];
    const share =
      points.filter(([x, y]) => near((isMirrored ? -x : x) + dxMm, y + dyMm)).length / points.length;
    if (!best || share > best.share) best = { share, dxMm, dyMm, isMirrored };
  }
  return best && best.share >= 0.8 ? best : undefined;
}

const spread = (points: Points, most: number): Points => {
  const step = Math.max(1, Math.ceil(points.length / most));
  return points.filter((_, i) => i % step === 0);
};

/** Middles of the flashes of a layer. */
export function flashesOf(image: LayerImage): [number, number][] {
  const out: [number, number][] = [];
  for (let i = 0; i < image.n; i++)
    if (image.kind[i] === KIND.flash && image.dark[i] !== 0)
      out.push([image.geo[i * 6]!, image.geo[i * 6 + 1]!]);
  return out;
}
