import type { Finding } from "../../findings.ts";
import { insideRings } from "../../geometry/polygon.ts";
import { orGivenUp, Work } from "../../geometry/work.ts";
import { ImageBuilder, KIND, type LayerImage } from "../../gerber/image.ts";
import type { BoardFile } from "../board-file.ts";
import { profileRings } from "./outline.ts";
import { ringBox } from "./outline-loops.ts";

type Point = readonly [number, number];
type Box = readonly [number, number, number, number];

/** Points of copper and holes that are tried. */
const MOST_POINTS = 800;
/** A board with its drawing's frame has fewer lines. */
const MOST_OBJECTS = 5000;
const MOST_STEPS = 100_000_000;

/**
 * A profile layer that draws more than the board, without it: a frame and title block round it, dimensions and remarks
 * beside it. The board is the smallest closed loop that holds all pads and holes; what lies outside of it is left aside,
 * with a caution that tells both sizes. A profile whose outermost loop is that one, and which closes, stays as it is.
 */
export function withoutFrames(files: readonly BoardFile[], findings: Finding[]): BoardFile[] {
  const content = contentOf(files);
  if (content.length < 4) return [...files];
  return files.map((f) => {
    if (f.role !== "profile" || !f.layer || f.layer.n > MOST_OBJECTS) return f;
    const { layer } = f;
    const work = new Work(MOST_STEPS);
    const rings = orGivenUp(
      () => profileRings(layer, work),
      () => undefined,
    );
    if (!rings || rings.loops.length === 0) return f;
    const held = rings.loops
      .filter((r) => content.every(([x, y]) => insideRings([r], x, y)))
      .map((ring) => ({ box: ringBox(ring) }))
      .sort((a, b) => areaOf(a.box) - areaOf(b.box));
    const board = held[0]?.box;
    if (!board) return f;
    const all = boxOfImage(layer);
    // nothing lies beyond it
    if (!all || isWithin(all, board)) return f;
    findings.push({
      tag: "outline-frame",
      level: "warning",
      file: f.path,
      at: { layer: "profile", x: board[0], y: board[1] },
      text: `The profile layer draws ${size(all)} in all; the smallest closed line round all pads and holes, ${size(board)}, was taken as the board, and what lies outside of it as a drawing's frame and dimensions.`,
      do: "Check the board's size on the picture, or export the outline alone.",
    });
    return { ...f, layer: onlyWithin(layer, board) };
  });
}

const size = (b: Box) => `${(b[2] - b[0]).toFixed(2)} × ${(b[3] - b[1]).toFixed(2)} mm`;
const areaOf = (b: Box) => (b[2] - b[0]) * (b[3] - b[1]);
const TOUCH = 0.005;
const isWithin = (a: Box, b: Box) =>
  a[0] >= b[0] - TOUCH && a[1] >= b[1] - TOUCH && a[2] <= b[2] + TOUCH && a[3] <= b[3] + TOUCH;

/** Middles of pads and holes. */
function contentOf(files: readonly BoardFile[]): Point[] {
  const out: Point[] = [];
  for (const f of files) {
    if (f.role === "drill" && f.drill) for (const h of f.drill.hits) out.push([h.x, h.y]);
    if (f.role === "copper" && f.layer)
      for (let i = 0; i < f.layer.n; i++)
        if (f.layer.kind[i] === KIND.flash) out.push([f.layer.geo[i * 6]!, f.layer.geo[i * 6 + 1]!]);
  }
  const step = Math.max(1, Math.ceil(out.length / MOST_POINTS));
  return out.filter((_, i) => i % step === 0);
}

/** Box of the middle lines and corners of one object. */
function boxOfObject(image: LayerImage, i: number): Box {
  const g = image.geo;
  const o = i * 6;
  if (image.kind[i] === KIND.region) return ringBox([...image.points.subarray(g[o]! * 2, g[o + 1]! * 2)]);
  if (image.kind[i] === KIND.flash) {
    const a = image.apertures[image.aperture[i]!]!.box;
    return [g[o]! + a[0], g[o + 1]! + a[1], g[o]! + a[2], g[o + 1]! + a[3]];
  }
  return ringBox([g[o]!, g[o + 1]!, g[o + 2]!, g[o + 3]!]);
}

function boxOfImage(image: LayerImage): Box | undefined {
  if (image.n === 0) return undefined;
  const boxes = Array.from({ length: image.n }, (_, i) => boxOfObject(image, i));
  return boxes.reduce(([a, b, c, d], [e, f, g, h]) => [
    Math.min(a, e),
    Math.min(b, f),
    Math.max(c, g),
    Math.max(d, h),
  ]);
}

/** The objects of a layer that lie within a box. */
function onlyWithin(image: LayerImage, box: Box): LayerImage {
  const b = new ImageBuilder(image.n);
  for (let i = 0; i < image.n; i++) if (isWithin(boxOfObject(image, i), box)) b.copy(image, i);
  return { ...image, ...b.columns() };
}
