import { isIn } from "../copper/coats.ts";
import type { LayerSolids } from "../copper/copper.ts";
import type { Pad } from "../copper/nets.ts";
import type { EdgeContacts } from "../measure-document.ts";
import type { Outline } from "../outline/outline.ts";
import { r6 } from "../worst.ts";
import { type Candidate, contactDetails } from "./contact-details.ts";

/**
 * Finger contacts: at least four pads of equal size, at least twice as long as wide, square to a straight edge, their
 * outer ends at most 3 mm from it, without hole or paste, at a constant pitch of which one place may be free (heuristic
 * of domain.md 2.5). Edges along the axes only: card edges are.
 */
export function findEdgeContacts(
  layer: LayerSolids,
  pads: readonly Pad[],
  outline: Outline,
  hasPaste: (x: number, y: number) => boolean,
  mask?: LayerSolids,
): EdgeContacts | undefined {
  const box = outline.box;
  if (!box) return undefined;
  const { solids: s } = layer;
  const rows = new Map<string, Candidate[]>();
  const alongEdge = new Map<string, Candidate[]>();
  for (const e of straightEdges(outline)) {
    for (const p of pads) {
      if (p.body >= 0) continue;
      const o = p.piece * 4;
      const [x0, y0, x1, y1] = [s.box[o]!, s.box[o + 1]!, s.box[o + 2]!, s.box[o + 3]!];
      const [width, length] = e.isVertical ? [y1 - y0, x1 - x0] : [x1 - x0, y1 - y0];
      if (length < 2 * width) continue;
      const along = e.isVertical ? p.y : p.x;
      if (along < e.from || along > e.until) continue;
      const setback = setbackFrom(e, x0, y0, x1, y1);
      if (setback > 3 || setback < -0.5 || hasPaste(p.x, p.y)) continue;
      const key = `${e.side} ${Math.round(e.at * 100)} ${Math.round(width * 50)} ${Math.round(length * 20)} ${Math.round(setback * 20)}`;
      const list = rows.get(key);
      const c = { x: p.x, y: p.y, along, width, length, setback };
      const edge = `${e.side} ${Math.round(e.at * 100)}`;
      const beside = alongEdge.get(edge);
      if (beside) beside.push(c);
      else alongEdge.set(edge, [c]);
      if (list) list.push(c);
      else rows.set(key, [c]);
    }
  }
  let best: EdgeContacts | undefined;
  for (const [key, list] of rows) {
    if (list.length < 4) continue;
    list.sort((a, b) => a.along - b.along);
    const steps = list.slice(1).map((c, i) => c.along - list[i]!.along);
    const pitch = [...steps].sort((a, b) => a - b)[Math.floor((steps.length - 1) / 2)]!;
    const odd = steps.filter((d) => Math.abs(d - pitch) > 0.05);
    if (pitch < list[0]!.width || odd.length > 1 || odd.some((d) => Math.abs(d - 2 * pitch) > 0.05)) continue;
    if (best && best.count >= list.length) continue;
    const middle = list[list.length >> 1]!;
    const [edge, edgeAt] = key.split(" ") as [EdgeContacts["edge"], string];
    const isVertical = edge === "left" || edge === "right";
    const tabMm = widthAt(outline, list, isVertical);
    best = {
      count: list.length,
      pitchMm: r6(pitch),
      widthMm: r6(list[0]!.width),
      lengthMm: r6(list[0]!.length),
      setbackMm: r6(Math.min(...list.map((c) => c.setback))),
      edge,
      ...(tabMm === undefined ? {} : { tabMm: r6(tabMm) }),
      at: { x: r6(middle.x), y: r6(middle.y) },
      ...contactDetails({
        row: list,
        along: alongEdge.get(`${edge} ${edgeAt}`)!,
        pitch,
        isVertical,
        outward: edge === "right" || edge === "top" ? 1 : -1,
        isOpen: mask && ((x, y) => isIn(mask, x, y)),
        isCopper: (x, y) => isIn(layer, x, y),
      }),
    };
  }
  return best;
}

/**
 * Width of the board along an edge, across a row of contacts: between the nearest crossings of its outer loop beside the
 * first and the last. A key between contacts is no end of it.
 */
function widthAt(outline: Outline, row: readonly Candidate[], isVertical: boolean): number | undefined {
  const [first, last] = [row[0]!, row.at(-1)!];
  const ring = outline.loops.find((l) => l.depth === 0)?.ring ?? [];
  const [across, along] = isVertical ? [0, 1] : [1, 0];
  const level = isVertical ? first.x : first.y;
  let [low, high] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [a, b] = [ring[j + across]!, ring[i + across]!];
    if (a > level === b > level) continue;
    const v = ring[j + along]! + ((level - a) / (b - a)) * (ring[i + along]! - ring[j + along]!);
    if (v <= first.along && v > low) low = v;
    if (v >= last.along && v < high) high = v;
  }
  return Number.isFinite(low) && Number.isFinite(high) ? high - low : undefined;
}

/** From a pad's outer end to the edge it stands at, mm. */
function setbackFrom(e: Edge, x0: number, y0: number, x1: number, y1: number): number {
  if (e.side === "left") return x0 - e.at;
  if (e.side === "right") return e.at - x1;
  return e.side === "bottom" ? y0 - e.at : e.at - y1;
}

interface Edge {
  readonly side: "left" | "right" | "top" | "bottom";
  readonly at: number;
  readonly from: number;
  readonly until: number;
  readonly isVertical: boolean;
}

function straightEdges(outline: Outline): Edge[] {
  const ring = outline.loops.find((l) => l.depth === 0)?.ring ?? [];
  const out: Edge[] = [];
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
    if (Math.hypot(bx - ax, by - ay) < 3) continue;
    // counter-clockwise: the board lies at the left of the direction walked
    if (Math.abs(bx - ax) < 1e-6)
      out.push({
        side: by > ay ? "right" : "left",
        at: ax,
        from: Math.min(ay, by),
        until: Math.max(ay, by),
        isVertical: true,
      });
    else if (Math.abs(by - ay) < 1e-6)
      out.push({
        side: bx > ax ? "bottom" : "top",
        at: ay,
        from: Math.min(ax, bx),
        until: Math.max(ax, bx),
        isVertical: false,
      });
  }
  return out;
}
