import type { Bom } from "../../bom/bom.ts";
import { lettersOf } from "../../bom/refs.ts";
import type { Finding } from "../../findings.ts";
import type { LayerImage } from "../../gerber/image.ts";
import { solidCovers } from "../../gerber/solids.ts";
import type { LayerSolids } from "../copper/copper.ts";
import { ownTurns, type Pattern } from "../copper/pattern.ts";
import type { PartPads } from "./part-pads.ts";

/** Letters of parts that work one way round only. */
const ONE_WAY = new Set(["D", "LED", "U", "IC", "Q", "BT"]);
/** Words that say a capacitor has a plus. */
const POLAR = /electroly|tantal|polari[sz]ed|polymer|\belko\b|\belco\b/i;
/** Ink this far around the pins belongs to the part, mm. */
const AROUND_MM = 0.9;
/** Step along the ink, and how much of it must have no counterpart to be a mark, mm. */
const STEP_MM = 0.1;
const MARK_MM = 0.3;

/** A pad's stamp: its template and sides, whichever way it lies. */
export function shapeOf(image: LayerImage, object: number): string {
  const a = image.apertures[image.aperture[object] ?? -1];
  if (!a) return "";
  const [w, h] = [a.box[2] - a.box[0], a.box[3] - a.box[1]].sort((p, q) => p - q) as [number, number];
  const corners = a.areas.reduce((n, area) => n + area[0]!.length / 2, 0);
  return `${a.capsules.length} ${corners} ${w.toFixed(2)} ${h.toFixed(2)}`;
}

/**
 * Lists parts that work one way round only and whose pads could be taken either way round, with nothing on silkscreen or
 * copper near them that tells which: no ink without a counterpart under a turn of the part, no pad of another shape.
 * Names of parts, two characters and more in a row, are no marks.
 *
 * @param legends silkscreen by side; undefined where it is not known, absent where there is none
 */
export function sayUnmarked(
  patterns: readonly Pattern[],
  byRef: ReadonlyMap<string, PartPads>,
  legends: ReadonlyMap<"top" | "bottom", LayerSolids | undefined>,
  bom: Bom | undefined,
  findings: Finding[],
): void {
  const lines = new Map((bom?.lines ?? []).flatMap((l) => l.refs.map((r) => [r, l] as const)));
  const texts = new Map([...legends].map(([side, l]) => [side, l ? textPieces(l) : new Set<number>()]));
  const bare: Pattern[] = [];
  for (const p of patterns) {
    const line = lines.get(p.ref);
    if (
      line?.dnp ||
      !isOneWay(p, `${line?.valueText ?? ""} ${line?.package ?? ""} ${line?.description ?? ""}`)
    )
      continue;
    if (legends.has(p.side) && !legends.get(p.side)) continue;
    const turns = ownTurns(p);
    const legend = legends.get(p.side);
    const shapes = new Map(byRef.get(p.ref)!.places.map((q) => [q.pin, q.shape]));
    const isTold = (degrees: number) =>
      hasOddPad(p, degrees, shapes) || (legend && hasOddInk(p, degrees, legend, texts.get(p.side)!));
    if (turns.some((degrees) => !isTold(degrees))) bare.push(p);
  }
  if (bare.length === 0) return;
  const refs = bare.map((p) => p.ref).sort((a, b) => a.localeCompare(b, "en", { numeric: true }));
  const first = bare.find((p) => p.ref === refs[0])!;
  findings.push({
    tag: "direction-unmarked",
    level: "remark",
    at: { layer: first.side, x: first.x, y: first.y },
    about: refs,
    text: `Nothing on the silkscreen or the copper tells which way round ${refs.length > 1 ? "these parts sit" : "this part sits"}: ${refs.slice(0, 12).join(", ")}${refs.length > 12 ? ` and ${refs.length - 12} more` : ""}.`,
    do: "Mark pin 1 or the cathode on the next revision; for this one, who fits them needs the assembly sheet.",
  });
}

const isOneWay = (p: Pattern, words: string): boolean => {
  const letters = lettersOf(p.ref);
  if (letters === "C") return POLAR.test(words);
  return ONE_WAY.has(letters) || p.pins.some((pin) => /^([+-]|K|A)$/i.test(pin));
};

/** Cosine and sine of a turn as it looks in the board's coordinates, where parts below turn the other way. */
const turned = (p: Pattern, degrees: number) => {
  const a = ((p.side === "bottom" ? -degrees : degrees) * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  return (x: number, y: number) =>
    [p.x + (x - p.x) * c - (y - p.y) * s, p.y + (x - p.x) * s + (y - p.y) * c] as const;
};

/** True where a pad comes to lie on one of another shape. */
function hasOddPad(p: Pattern, degrees: number, shapes: ReadonlyMap<string, string>): boolean {
  const sign = p.side === "bottom" ? -1 : 1;
  const at = p.at.map(([x, y]) => [p.x + sign * x, p.y + y] as const);
  const to = turned(p, degrees);
  return at.some(([x, y], i) => {
    const [u, v] = to(x, y);
    const k = at.findIndex(([a, b]) => Math.hypot(a - u, b - v) < 0.1);
    return k >= 0 && shapes.get(p.pins[k]!) !== shapes.get(p.pins[i]!);
  });
}

const RIMS = [
  [0, 0],
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;

/** True where ink beside the part has none where a turn of the part would bring it. */
function hasOddInk(p: Pattern, degrees: number, legend: LayerSolids, texts: ReadonlySet<number>): boolean {
  const [w, h] = [0, 1].map((k) => Math.max(...p.at.map((q) => Math.abs(q[k]!))) + AROUND_MM) as [
    number,
    number,
  ];
  const to = turned(p, degrees);
  const s = legend.solids;
  const isInk = (x: number, y: number) => {
    let found = false;
    legend.find(x, y, 0.05, (k) => {
      found = !texts.has(k) && (solidCovers(s, k, x, y) || nearTo(s.box, k, x, y));
      return found;
    });
    return found;
  };
  let odd = 0;
  legend.find(p.x, p.y, Math.max(w, h), (k) => {
    if (texts.has(k)) return odd >= MARK_MM;
    const rim = Math.max(0, s.radius[k]! - 0.05);
    for (let e = s.firstEdge[k]!; e < s.firstEdge[k + 1]! && odd < MARK_MM; e++) {
      const [x1, y1, x2, y2] = s.edges.subarray(e * 4, e * 4 + 4) as unknown as [
        number,
        number,
        number,
        number,
      ];
      const length = Math.hypot(x2 - x1, y2 - y1);
      const n = Math.max(1, Math.round(length / STEP_MM));
      for (let i = 0; i <= n; i++) {
        const [x, y] = [x1 + ((x2 - x1) * i) / n, y1 + ((y2 - y1) * i) / n];
        if (Math.abs(x - p.x) > w || Math.abs(y - p.y) > h) continue;
        // the middle of the ink and its rims: a dot on a line is wider than the line it would come to lie on
        const isOdd = RIMS.some(([a, b]) => !isInk(...to(x + a * rim, y + b * rim)));
        // a dot is a mark however small
        if (isOdd) odd += length === 0 ? MARK_MM : STEP_MM;
      }
    }
    return odd >= MARK_MM;
  });
  return odd >= MARK_MM;
}

/** Thin ink lies under a point that rounding moved beside it. */
const nearTo = (box: Float64Array, k: number, x: number, y: number) => {
  const o = k * 4;
  const isThin = Math.min(box[o + 2]! - box[o]!, box[o + 3]! - box[o + 1]!) < 0.3;
  return (
    isThin && x > box[o]! - 0.02 && x < box[o + 2]! + 0.02 && y > box[o + 1]! - 0.02 && y < box[o + 3]! + 0.02
  );
};

/** Pieces of words: characters of one height, two and more in a row. */
function textPieces(legend: LayerSolids): Set<number> {
  const { solids: s, islands } = legend;
  const boxes = new Map<number, { box: [number, number, number, number]; pieces: number[] }>();
  for (let k = 0; k < s.count; k++) {
    const g = islands.groups.find(k);
    const o = k * 4;
    const b = boxes.get(g);
    if (!b) boxes.set(g, { box: [s.box[o]!, s.box[o + 1]!, s.box[o + 2]!, s.box[o + 3]!], pieces: [k] });
    else {
      b.box[0] = Math.min(b.box[0], s.box[o]!);
      b.box[1] = Math.min(b.box[1], s.box[o + 1]!);
      b.box[2] = Math.max(b.box[2], s.box[o + 2]!);
      b.box[3] = Math.max(b.box[3], s.box[o + 3]!);
      b.pieces.push(k);
    }
  }
  const glyphs = [...boxes.values()].filter(({ box: [x0, y0, x1, y1] }) => {
    const [short, long] = [x1 - x0, y1 - y0].sort((a, b) => a - b) as [number, number];
    return long >= 0.4 && long <= 3 && short > 0.05 * long;
  });
  const out = new Set<number>();
  const by = (axis: 0 | 1) => {
    const sorted = [...glyphs].sort((a, b) => a.box[axis] - b.box[axis]);
    const across = axis === 0 ? 1 : 0;
    sorted.forEach((a, i) => {
      const high = a.box[across + 2]! - a.box[across]!;
      for (let j = i + 1; j < sorted.length; j++) {
        const b = sorted[j]!;
        const gap = b.box[axis]! - a.box[axis + 2]!;
        if (gap > 0.6 * high) break;
        const isRow =
          gap > -0.1 &&
          Math.abs(a.box[across]! - b.box[across]!) < 0.15 * high &&
          Math.abs(a.box[across + 2]! - b.box[across + 2]!) < 0.15 * high &&
          a.box[axis + 2]! - a.box[axis]! < 1.2 * high;
        if (isRow) for (const k of [...a.pieces, ...b.pieces]) out.add(k);
      }
    });
  };
  by(0);
  by(1);
  return out;
}
