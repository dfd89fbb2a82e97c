import type { RuleKey } from "./step.ts";

/** One has to come before the other, by a rule. */
export interface Edge {
  readonly from: number;
  readonly to: number;
  readonly rule: RuleKey;
}

/** Edges by where they start. */
export function edgesFrom(n: number, edges: readonly Edge[]): Edge[][] {
  const out: Edge[][] = Array.from({ length: n }, () => []);
  for (const e of edges) out[e.from]!.push(e);
  return out;
}

/**
 * A ring through the fewest places that count, and of those one with the fewest edges; none where there is no ring.
 *
 * What cannot be part of a ring is peeled off first, so that a list without one costs O(n + e); else the least way around
 * from every place that is left, O(n · m²) for m of them.
 *
 * @param counts how much a place counts: 1 for a part, 0 for what is there anyway
 */
export function leastRing(
  n: number,
  edges: readonly Edge[],
  counts: (v: number) => number,
): Edge[] | undefined {
  const out = edgesFrom(n, edges);
  const inside = insideRings(n, out);
  const left = inside.flatMap((is, v) => (is ? [v] : []));
  let best: { readonly ring: Edge[]; readonly cost: number } | undefined;
  for (const start of left) {
    const found = ringThrough(start, best?.cost ?? Number.POSITIVE_INFINITY, out, left, counts);
    if (found) best = found;
  }
  return best?.ring;
}

/** An edge weighs next to nothing beside a place that counts. */
const EDGE = 1e-4;

/** The least ring through a place, if it costs less than `less`: by the least ways from it to each other place. */
function ringThrough(
  start: number,
  less: number,
  out: readonly Edge[][],
  left: readonly number[],
  counts: (v: number) => number,
): { ring: Edge[]; cost: number } | undefined {
  const open = new Set(left);
  const cost = new Map([[start, counts(start)]]);
  const via = new Map<number, Edge>();
  let best: { ring: Edge[]; cost: number } | undefined;
  for (;;) {
    let at: number | undefined;
    for (const v of open) if (cost.has(v) && (at === undefined || cost.get(v)! < cost.get(at)!)) at = v;
    if (at === undefined || cost.get(at)! >= (best?.cost ?? less)) return best;
    open.delete(at);
    for (const e of out[at]!) {
      if (e.to === start) {
        const all = cost.get(at)! + EDGE;
        if (all < (best?.cost ?? less)) best = { ring: [...pathTo(at, start, via), e], cost: all };
      } else if (open.has(e.to)) {
        const next = cost.get(at)! + counts(e.to) + EDGE;
        if (next < (cost.get(e.to) ?? Number.POSITIVE_INFINITY)) {
          cost.set(e.to, next);
          via.set(e.to, e);
        }
      }
    }
  }
}

function pathTo(v: number, start: number, via: ReadonlyMap<number, Edge>): Edge[] {
  const out: Edge[] = [];
  for (let at = v; at !== start; at = via.get(at)!.from) out.unshift(via.get(at)!);
  return out;
}

/** What is left when everything without an edge in, and everything without an edge out, is taken away again and again. */
function insideRings(n: number, out: readonly Edge[][]): boolean[] {
  const back: number[][] = Array.from({ length: n }, () => []);
  for (const list of out) for (const e of list) back[e.to]!.push(e.from);
  const inside = Array.from({ length: n }, () => true);
  const peel = (degree: number[], neighbours: (v: number) => readonly number[]) => {
    const queue = degree.flatMap((d, v) => (d === 0 && inside[v] ? [v] : []));
    for (let v = queue.pop(); v !== undefined; v = queue.pop()) {
      inside[v] = false;
      for (const w of neighbours(v)) if (inside[w] && --degree[w]! === 0) queue.push(w);
    }
  };
  peel(
    back.map((b) => b.length),
    (v) => out[v]!.map((e) => e.to),
  );
  peel(
    out.map((list) => list.filter((e) => inside[e.to]).length),
    (v) => back[v]!,
  );
  return inside;
}

/** Whether one is reached from the other. */
export function reaches(from: number, to: number, out: readonly Edge[][]): boolean {
  return pathBetween(from, to, out) !== undefined;
}

/** A shortest way from one to the other along the edges; undefined where there is none. */
export function pathBetween(from: number, to: number, out: readonly Edge[][]): Edge[] | undefined {
  if (from === to) return [];
  const via = new Map<number, Edge>();
  let layer = [from];
  while (layer.length > 0) {
    const next: number[] = [];
    for (const v of layer)
      for (const e of out[v]!) {
        if (e.to === from || via.has(e.to)) continue;
        via.set(e.to, e);
        if (e.to === to) return pathTo(to, from, via);
        next.push(e.to);
      }
    layer = next;
  }
  return undefined;
}
