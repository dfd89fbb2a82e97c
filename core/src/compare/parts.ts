import type { Measure } from "../board/measure-document.ts";

/** What became of a part's pads from one board to another. */
export interface PartChange {
  readonly ref: string;
  readonly kind: "added" | "gone" | "moved" | "turned" | "other side" | "other pads";
  /** How far its middle moved, mm: along x, along y. */
  readonly by: readonly [number, number];
  /** Counter-clockwise, seen from the top. */
  readonly turnDeg: number;
  /** Its middle on this board, or where it was on the other, as that lies on this one. */
  readonly at: { readonly layer: string; readonly x: number; readonly y: number };
}

interface Pads {
  readonly layer: string;
  /** Pin → middle of its pads. */
  readonly pins: ReadonlyMap<string, readonly [number, number]>;
  readonly x: number;
  readonly y: number;
}

/** Places that differ by less are drawing noise, mm; turns by less, degrees. */
const SAME_MM = 0.01;
const SAME_DEG = 0.05;

/**
 * Parts whose pads came, went, moved, turned, changed sides or are other pads, by the pins that the files name.
 *
 * The least-squares move of a part's pins (shift, then turn about its middle); where a pin is off it by more than 0.01 mm,
 * or a pin is not in both, they are other pads. Of boards whose files name no pins nothing can be told, and nothing is.
 *
 * @param shift added to a place of the other board, it lies where it is on this one, mm
 */
export function comparePartPads(
  now: Measure,
  was: Measure,
  shift: readonly [number, number] = [0, 0],
): PartChange[] {
  const [a, b] = [padsOf(now, [0, 0]), padsOf(was, shift)];
  if (a.size === 0 || b.size === 0) return [];
  const out: PartChange[] = [];
  for (const ref of new Set([...a.keys(), ...b.keys()])) {
    const [p, q] = [a.get(ref), b.get(ref)];
    const change = p && q ? changeOf(p, q) : { kind: p ? ("added" as const) : ("gone" as const), turnDeg: 0 };
    if (!change) continue;
    const on = (p ?? q)!;
    out.push({
      ref,
      ...change,
      by: p && q ? [round(p.x - q.x), round(p.y - q.y)] : [0, 0],
      at: { layer: on.layer, x: round(on.x), y: round(on.y) },
    });
  }
  return out;
}

/** How far a part's pad may lie from a place and still be at it, mm. */
const AT_MM = 0.3;

/** Parts whose pads lie at a place of a board, by the pins that the files name, in the order of the files. */
export function partsAt(
  m: Measure,
  {
    x,
    y,
    widthMm,
    heightMm,
  }: { readonly x: number; readonly y: number; readonly widthMm: number; readonly heightMm: number },
): string[] {
  const found = new Set<string>();
  for (const n of m.nets?.islands ?? [])
    for (const p of n.pads) {
      const cut = p.pin?.lastIndexOf(".") ?? -1;
      if (cut < 1) continue;
      if (Math.abs(p.x - x) <= widthMm / 2 + AT_MM && Math.abs(p.y - y) <= heightMm / 2 + AT_MM)
        found.add(p.pin!.slice(0, cut));
    }
  return [...found];
}

const round = (v: number) => Math.round(v * 1000) / 1000 || 0;

function padsOf(m: Measure, [dx, dy]: readonly [number, number]): Map<string, Pads> {
  const found = new Map<string, { layer: string; pins: Map<string, number[]> }>();
  for (const n of m.nets?.islands ?? [])
    for (const p of n.pads) {
      const cut = p.pin?.lastIndexOf(".") ?? -1;
      if (cut < 1) continue;
      const [ref, pin] = [p.pin!.slice(0, cut), p.pin!.slice(cut + 1)];
      const part = found.get(ref) ?? { layer: p.layer, pins: new Map() };
      found.set(ref, part);
      // what is drilled has pads on both sides: it stands on the top then
      if (p.layer === "top") part.layer = "top";
      const at = part.pins.get(pin) ?? [0, 0, 0];
      part.pins.set(pin, [at[0]! + p.x + dx, at[1]! + p.y + dy, at[2]! + 1]);
    }
  return new Map(
    [...found].map(([ref, { layer, pins }]) => {
      const middles = new Map([...pins].map(([k, [x, y, n]]) => [k, [x! / n!, y! / n!] as const]));
      const all = [...middles.values()];
      const mean = (k: 0 | 1) => all.reduce((s, v) => s + v[k], 0) / all.length;
      return [ref, { layer, pins: middles, x: mean(0), y: mean(1) }];
    }),
  );
}

function changeOf(p: Pads, q: Pads): Pick<PartChange, "kind" | "turnDeg"> | undefined {
  if (p.pins.size !== q.pins.size || [...p.pins.keys()].some((k) => !q.pins.has(k)))
    return { kind: "other pads", turnDeg: 0 };
  if (p.layer !== q.layer) return { kind: "other side", turnDeg: 0 };
  let [dot, cross] = [0, 0];
  for (const [k, [x, y]] of p.pins) {
    const [u, v] = q.pins.get(k)!;
    const [ax, ay, bx, by] = [u - q.x, v - q.y, x - p.x, y - p.y];
    dot += ax * bx + ay * by;
    cross += ax * by - ay * bx;
  }
  const turn = p.pins.size > 1 ? Math.atan2(cross, dot) : 0;
  const [s, c] = [Math.sin(turn), Math.cos(turn)];
  for (const [k, [x, y]] of p.pins) {
    const [u, v] = q.pins.get(k)!;
    const [rx, ry] = [c * (u - q.x) - s * (v - q.y), s * (u - q.x) + c * (v - q.y)];
    if (Math.hypot(x - p.x - rx, y - p.y - ry) > SAME_MM) return { kind: "other pads", turnDeg: 0 };
  }
  const turnDeg = Math.round((turn * 180_000) / Math.PI) / 1000;
  if (Math.abs(turnDeg) > SAME_DEG) return { kind: "turned", turnDeg };
  return Math.hypot(p.x - q.x, p.y - q.y) > SAME_MM ? { kind: "moved", turnDeg: 0 } : undefined;
}
