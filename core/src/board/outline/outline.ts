import type { Finding } from "../../findings.ts";
import { insideRings, signedArea } from "../../geometry/polygon.ts";
import { orGivenUp, Work } from "../../geometry/work.ts";
import { KIND, type LayerImage } from "../../gerber/image.ts";
import {
  boxOf,
  exactArea,
  exactBox,
  findCrossing,
  flatten,
  type InnerRadius,
  inBox,
  innerRadius,
  reversed,
} from "./outline-loops.ts";
import { type Chained, chain, collectPieces, lengthOf, type Piece } from "./outline-pieces.ts";

/** A closed loop of the profile. */
export interface Loop {
  /** Flattened ring in mm, counter-clockwise. */
  readonly ring: readonly number[];
  /** Exact, arcs as arcs. */
  readonly areaMm2: number;
  readonly perimeterMm: number;
  readonly box: readonly [number, number, number, number];
  /** 0 board, 1 cut-out, 2 board inside a cut-out. */
  readonly depth: number;
  /** Least radius at which the edge turns toward the material of a cutter; 0 for a sharp corner; undefined if none. */
  readonly inner?: InnerRadius;
}

/** The board's outline as measured. */
export interface Outline {
  readonly isClosed: boolean;
  readonly loops: readonly Loop[];
  readonly largestGapMm: number;
  readonly findings: readonly Finding[];
  readonly widthMm?: number;
  readonly heightMm?: number;
  readonly areaMm2?: number;
  readonly perimeterMm?: number;
  readonly cutouts: number;
  readonly minInnerRadiusMm?: number;
  readonly minInnerRadiusAt?: { readonly x: number; readonly y: number };
  readonly box?: readonly [number, number, number, number];
}

/** Joining distances tried in turn, with the level at which each is reported. */
const STEPS = [
  { mm: 0.01, level: undefined },
  { mm: 0.05, level: "remark" },
  { mm: 0.25, level: "warning" },
] as const;

/**
 * Chains the centre lines of a profile layer into loops and measures them.
 *
 * Steps: pieces shorter than 0.5 µm and duplicates go; ends within 0.01 mm are joined silently, to 0.05 mm with a
 * remark, to 0.25 mm with a caution; beyond that the outline is open and no size is claimed. Area with arcs:
 * ½ Σ(xᵢyᵢ₊₁ − xᵢ₊₁yᵢ) + Σ ± ½ r²(θ − sin θ) (domain.md 2.3).
 *
 * @param file name for the findings
 */
export function chainOutline(image: LayerImage, file: string): Outline {
  const known = outlines.get(image);
  if (known?.file === file) return known.outline;
  const outline = bounded(image, file);
  outlines.set(image, { file, outline });
  return outline;
}

/** Steps the lines of an outline may take; one of 20,000 pieces takes as many. */
const MOST_STEPS = 300_000_000;

/** Asked for the same layer while a board is read, measured and drawn; forgotten with the layer. */
const outlines = new WeakMap<LayerImage, { readonly file: string; readonly outline: Outline }>();

function bounded(image: LayerImage, file: string): Outline {
  const work = new Work(MOST_STEPS);
  return orGivenUp(
    () => chained(image, file, work),
    ({ far }): Outline => ({
      isClosed: false,
      loops: [],
      largestGapMm: 0,
      cutouts: 0,
      findings: [
        {
          tag: "budget-reached",
          level: "error",
          file,
          text: `The profile layer draws ${image.n} objects that lie over each other more than an outline can; it was given up${far}, and the board's size is not known.`,
          do: "Export the outline alone, each line once.",
        },
      ],
    }),
  );
}

function chained(image: LayerImage, file: string, work: Work): Outline {
  const pieces = collectPieces(image, work);
  if (pieces.length === 0)
    return {
      isClosed: false,
      loops: [],
      largestGapMm: 0,
      cutouts: 0,
      findings: [
        {
          tag: "outline-missing",
          level: "error",
          file,
          text: "The profile layer draws nothing.",
          do: "Export the board's outline into its own layer and drop it here.",
        },
      ],
    };
  let best: Chained | undefined;
  for (const step of STEPS) {
    best = chain(pieces, step.mm, work);
    if (best.open.length === 0) return withPen(image, file, measured(best, step, file, [], work));
  }
  // closed loops that hold everything else make the rest strays, not an open outline
  const strays = best!.open;
  const outer = best!.loops
    .map((l) => boxOf(l))
    .find((b) => strays.every((s) => s.every((p) => inBox(b, p))));
  if (outer) return withPen(image, file, measured(best!, STEPS[2], file, strays, work));
  const gap = best!.gaps[0];
  return {
    isClosed: false,
    loops: [],
    largestGapMm: gap?.mm ?? 0,
    cutouts: 0,
    findings: [
      {
        tag: "outline-open",
        level: "error",
        file,
        ...(gap ? { at: { layer: "profile", x: gap.x, y: gap.y } } : {}),
        text: gap
          ? `The outline does not close: at ${gap.x.toFixed(2)}, ${gap.y.toFixed(2)} mm the next end is ${gap.mm.toFixed(2)} mm away.`
          : "The outline does not close.",
        do: "Join the ends in your layout program and export the outline again.",
      },
    ],
  };
}

/** The closed loops of a profile layer as rings, joined at the greatest distance ends are; and whether all of it closes. */
export function profileRings(
  image: LayerImage,
  work: Work,
): { readonly loops: readonly (readonly number[])[]; readonly isClosed: boolean } {
  const pieces = collectPieces(image, work);
  let best: Chained | undefined;
  for (const step of STEPS) {
    best = chain(pieces, step.mm, work);
    if (best.open.length === 0) break;
  }
  return { loops: best?.loops.map((l) => flatten(l)) ?? [], isClosed: best?.open.length === 0 };
}

const withPen = (image: LayerImage, file: string, outline: Outline): Outline =>
  outline.box
    ? { ...outline, findings: [...outline.findings, ...sayWide(image, file, outline.box)] }
    : outline;

/** A pen this wide, mm, may draw the way of a cutter, or an edge by its inside or outside. */
const WIDE_PEN_MM = 0.8;

/** Says that an outline is drawn with a wide pen: which edge of it is meant nobody can tell, and its middle was taken. */
function sayWide(image: LayerImage, file: string, box: readonly [number, number, number, number]): Finding[] {
  let widest = 0;
  let thinnest = Number.POSITIVE_INFINITY;
  for (let i = 0; i < image.n; i++) {
    const kind = image.kind[i]!;
    if (kind === KIND.flash || kind === KIND.region || image.dark[i] !== 1) continue;
    const mm = image.apertures[image.aperture[i]!]?.circleMm ?? 0;
    widest = Math.max(widest, mm);
    thinnest = Math.min(thinnest, mm);
  }
  if (thinnest < WIDE_PEN_MM || widest === 0) return [];
  const [w, h] = [box[2] - box[0], box[3] - box[1]];
  const size = (by: number) => `${(w + by).toFixed(2)} × ${(h + by).toFixed(2)}`;
  return [
    {
      tag: "outline-wide",
      level: "warning",
      file,
      text: `The outline is drawn ${widest.toFixed(2)} mm wide, as the way of a cutter would be. Its middle was taken, ${size(0)} mm; its inner edge is ${size(-widest)}, its outer ${size(widest)}.`,
      do: "Look which of them the board is to have, and export the outline with a thin line.",
    },
  ];
}

// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one answer, key by key, of what the chains enclose
function measured(
  found: Chained,
  step: (typeof STEPS)[number],
  file: string,
  strays: readonly (readonly Piece[])[],
  work: Work,
): Outline {
  const findings: Finding[] = [];
  const gap = found.joined;
  if (step.level && gap.mm > 0.01)
    findings.push({
      tag: "outline-gap",
      level: gap.mm > 0.05 ? "warning" : "remark",
      file,
      at: { layer: "profile", x: gap.x, y: gap.y },
      text: `Ends of the outline ${gap.mm.toFixed(3)} mm apart were joined.`,
      do: "Check the place on the picture.",
    });
  // what goes round something is a cut-out that does not close: it would be missing on the board
  const isRound = (s: readonly Piece[]) => {
    const length = s.reduce((n, p) => n + lengthOf(p), 0);
    const apart = Math.hypot(s.at(-1)!.x2 - s[0]!.x1, s.at(-1)!.y2 - s[0]!.y1);
    return s.length > 1 && length > 1 && apart < 0.5 * length;
  };
  for (const s of [...strays].sort((a, b) => Number(isRound(b)) - Number(isRound(a))).slice(0, 5)) {
    const at = `${s[0]!.x1.toFixed(2)}, ${s[0]!.y1.toFixed(2)} mm`;
    findings.push({
      tag: "outline-stray",
      level: isRound(s) ? "error" : "warning",
      file,
      at: { layer: "profile", x: s[0]!.x1, y: s[0]!.y1 },
      text: isRound(s)
        ? `A cut-out does not close (near ${at}): it is not in the figures, and may be missing on the board.`
        : `A line in the profile layer belongs to no closed loop (near ${at}).`,
      do: isRound(s)
        ? "Join its ends in your layout program and export the outline again."
        : "Take it out of the outline layer, or say in the notes what it means.",
    });
  }
  const rings = found.loops.map((l) => flatten(l));
  const corners = rings.reduce((n, r) => n + r.length, 0);
  const loops: Loop[] = found.loops
    .map((loop, k) => {
      const ring = rings[k]!;
      work.at(k, rings.length);
      work.spend(corners);
      const isCcw = signedArea(ring) >= 0;
      const depth = rings.filter((r, m) => m !== k && insideRings([r], ring[0]!, ring[1]!)).length;
      const inner = innerRadius(loop, isCcw, depth % 2 === 1);
      return {
        ring: isCcw ? ring : reversed(ring),
        areaMm2: Math.abs(exactArea(loop)),
        perimeterMm: loop.reduce((sum, p) => sum + lengthOf(p), 0),
        depth,
        box: exactBox(loop),
        ...(inner === undefined ? {} : { inner }),
      };
    })
    .sort((a, b) => b.areaMm2 - a.areaMm2);
  const outer = loops.filter((l) => l.depth === 0);
  if (outer.length > 1)
    findings.push({
      tag: "outline-several",
      level: "warning",
      file,
      text: `The profile holds ${outer.length} separate outlines; the largest is taken as the board.`,
      do: "If this is a panel of several boards, hand over one board.",
    });
  const board = outer[0];
  if (!board) return { isClosed: false, loops, largestGapMm: found.joined.mm, cutouts: 0, findings };
  const crossing = findCrossing(board.ring, work);
  if (crossing)
    findings.push({
      tag: "outline-self-crossing",
      level: "error",
      file,
      at: { layer: "profile", x: crossing[0], y: crossing[1] },
      text: `The outline crosses itself at ${crossing[0].toFixed(2)}, ${crossing[1].toFixed(2)} mm.`,
      do: "Redraw the outline there.",
    });
  const cutouts = loops.filter((l) => l.depth === 1 && insideRings([board.ring], l.ring[0]!, l.ring[1]!));
  const box = board.box;
  const [tightest] = [board, ...cutouts].flatMap((l) => l.inner ?? []).sort((a, b) => a.mm - b.mm);
  return {
    isClosed: true,
    loops,
    largestGapMm: found.joined.mm,
    cutouts: cutouts.length,
    findings,
    box,
    widthMm: clean(box[2] - box[0]),
    heightMm: clean(box[3] - box[1]),
    areaMm2: clean(board.areaMm2 - cutouts.reduce((s, l) => s + l.areaMm2, 0)),
    perimeterMm: clean(board.perimeterMm),
    ...(tightest
      ? {
          minInnerRadiusMm: clean(tightest.mm),
          minInnerRadiusAt: { x: clean(tightest.x), y: clean(tightest.y) },
        }
      : {}),
  };
}

/** Removes the dust of binary arithmetic below a nanometre. */
const clean = (v: number) => Math.round(v * 1e6) / 1e6;
