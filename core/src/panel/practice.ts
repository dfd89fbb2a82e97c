import type { Measure } from "../board/measure-document.ts";
import { pinsOn, refOf } from "../board/pins.ts";
import type { Box } from "../geometry/turn.ts";

/** The pads of one part, to be tried on in the waste: about their own middle. */
export interface PracticePads {
  readonly ref: string;
  readonly pitchMm: number;
  readonly pads: readonly Box[];
}

/** An opening belongs to the pad it lies over where their middles are as near as this, mm. */
const OVER_MM = 0.35;
/** From so many pads on a part is soldered in rows; parts of fewer are tried on only where there is no such part. */
const ROW = 3;
/** Directions along an axis, and neighbours, within this, mm. */
const ALONG_MM = 0.02;
/** A part with more pads than this is not drawn into the waste. */
const MOST_PADS = 300;

interface Opening {
  readonly x: number;
  readonly y: number;
  readonly lesser: number;
  readonly greater: number;
}

/**
 * The pads of the part whose neighbouring pads stand nearest together (of parts in rows, else of any): where soldering is
 * hardest. Sizes are those of its paste openings; of an oblong one the longer side lies across the row.
 *
 * @returns nothing where the files do not tell which pads are whose, or that part lies askew
 */
export function hardestPads(m: Measure): PracticePads | undefined {
  const parts = new Map<string, Opening[]>();
  for (const side of ["top", "bottom"] as const) {
    const openings = openingsOf(m, side);
    for (const p of pinsOn(m, side)) {
      const over = openings.find((o) => Math.hypot(o.x - p.x, o.y - p.y) < OVER_MM);
      if (!over) continue;
      const ref = refOf(p.pin);
      const own = parts.get(ref) ?? [];
      if (!own.includes(over)) own.push(over);
      parts.set(ref, own);
    }
  }
  const found = [...parts]
    .filter(([, o]) => o.length > 1 && o.length <= MOST_PADS)
    .map(([ref, o]) => ({ ref, openings: o, pitch: pitchOf(o) }));
  const rows = found.filter((p) => p.openings.length >= ROW);
  const hardest = (rows.length > 0 ? rows : found).sort(
    (a, b) => a.pitch - b.pitch || a.ref.localeCompare(b.ref),
  )[0];
  return hardest && asPads(hardest.ref, hardest.openings, hardest.pitch);
}

function openingsOf(m: Measure, side: "top" | "bottom"): Opening[] {
  const flat = m.stencil?.[side]?.openings ?? [];
  const out: Opening[] = [];
  for (let i = 0; i + 3 < flat.length; i += 4)
    out.push({ x: flat[i]!, y: flat[i + 1]!, lesser: flat[i + 2]!, greater: flat[i + 3]! });
  return out;
}

const away = (a: Opening, b: Opening) => Math.hypot(a.x - b.x, a.y - b.y);

const nearestOf = (o: Opening, all: readonly Opening[]): Opening =>
  all.reduce((n, k) => (k !== o && (n === o || away(o, k) < away(o, n)) ? k : n), o);

const pitchOf = (all: readonly Opening[]): number => Math.min(...all.map((o) => away(o, nearestOf(o, all))));

function asPads(ref: string, all: readonly Opening[], pitch: number): PracticePads | undefined {
  const [cx, cy] = [
    (Math.min(...all.map((o) => o.x)) + Math.max(...all.map((o) => o.x))) / 2,
    (Math.min(...all.map((o) => o.y)) + Math.max(...all.map((o) => o.y))) / 2,
  ];
  const rows = all.map((o) => rowOf(o, all));
  const upright = rows.filter((r) => r === "upright").length;
  const lying = rows.filter((r) => r === "lying").length;
  const isOblong = (o: Opening) => o.greater - o.lesser >= ALONG_MM;
  if (upright + lying === 0 && all.some(isOblong)) return undefined;
  const pads = all.map((o, i): Box => {
    // a pad alone in its row lies as the others do
    const row = rows[i] ?? (upright >= lying ? "upright" : "lying");
    const [w, h] = row === "upright" ? [o.greater, o.lesser] : [o.lesser, o.greater];
    return [o.x - cx - w / 2, o.y - cy - h / 2, o.x - cx + w / 2, o.y - cy + h / 2];
  });
  return { ref, pitchMm: Math.round(pitch * 1000) / 1000, pads };
}

/** Whether a pad's row goes up or lies, by its nearest neighbour along an axis; nothing where it has none. */
function rowOf(o: Opening, all: readonly Opening[]): "upright" | "lying" | undefined {
  const aligned = all.filter(
    (k) => k !== o && (Math.abs(k.x - o.x) <= ALONG_MM || Math.abs(k.y - o.y) <= ALONG_MM),
  );
  if (aligned.length === 0) return undefined;
  const near = nearestOf(o, [o, ...aligned]);
  return Math.abs(near.x - o.x) <= ALONG_MM ? "upright" : "lying";
}
