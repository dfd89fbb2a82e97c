import type { Finding } from "../../findings.ts";
import { type Box, posed, posedBox } from "../../geometry/turn.ts";
import type { laidOut } from "../shape/laid.ts";
import type { PanelRefusal, Score, SheetParts } from "../spec.ts";
import { clean } from "./grid.ts";

/** Thickness that can be scored, mm (domain.md 6.2). */
export const SCORED_MM = [0.8, 2.4] as const;

/** Copper keeps this far from a score's middle, mm, by thickness (domain.md 6.2, typical). */
export const scoreToCopperMm = (thicknessMm: number): number =>
  thicknessMm <= 1 ? 0.4 : thicknessMm < 2 ? 0.45 : 0.6;
const HOLE_MM = 0.5;

/** What is left of the board between the two cuts of a score, and how wide they are at the surface. */
export interface ScoreDepth {
  readonly webMm: number;
  readonly depthMm: number;
  readonly openingMm: number;
}

/**
 * Depth d = (t − web)/2, opening 2·d·tan(θ/2); the usual web by thickness (domain.md 6.2).
 * @example scoreDepth(1.6) // web 0.4, depth 0.6, opening 0.322
 */
export function scoreDepth(thicknessMm: number, angleDeg = 30): ScoreDepth {
  const webMm = thicknessMm < 1 ? 0.3 : thicknessMm < 1.6 ? 0.35 : thicknessMm < 2 ? 0.4 : 0.5;
  const depthMm = (thicknessMm - webMm) / 2;
  return { webMm, depthMm, openingMm: 2 * depthMm * Math.tan((angleDeg * Math.PI) / 360) };
}

/** Lines from edge to edge of the sheet wherever a row or a column begins or ends inside it. */
export function scoreLines(cells: readonly Box[], s: SheetParts): Score[] {
  const out: Score[] = [];
  const inner = (values: readonly number[], whole: number) =>
    [...new Set(values.map(clean))].filter((v) => v > 1e-6 && v < whole - 1e-6).sort((a, b) => a - b);
  if (s.along === "score")
    for (const y of inner(
      cells.flatMap((c) => [c[1], c[3]]),
      s.heightMm,
    ))
      out.push({ x1: 0, y1: y, x2: s.widthMm, y2: y });
  if (s.across === "score")
    for (const x of inner(
      cells.flatMap((c) => [c[0], c[2]]),
      s.widthMm,
    ))
      out.push({ x1: x, y1: 0, x2: x, y2: s.heightMm });
  return out;
}

/**
 * Scores against what they may not meet. What cannot be scored at all is refused with what would mend it; what is only
 * nearer than usual is said.
 */
export function checkScores(
  laid: ReturnType<typeof laidOut>,
  scores: readonly Score[],
  thicknessMm: number,
  findings: Finding[],
): PanelRefusal | undefined {
  if (thicknessMm < SCORED_MM[0] || thicknessMm > SCORED_MM[1])
    return {
      tag: "score-thickness",
      reason: `A board of ${thicknessMm} mm cannot be scored; ${SCORED_MM[0]} to ${SCORED_MM[1]} mm can.`,
      nearest: [],
      do: "Part the boards by tabs.",
    };
  saySize(scores, findings);
  const said = new Set<string>();
  for (const k of scores) {
    const isUpright = k.x1 === k.x2;
    const at = isUpright ? k.x1 : k.y1;
    for (const l of laid) {
      const [lo, hi] = isUpright ? [l.box[0], l.box[2]] : [l.box[1], l.box[3]];
      if (at > lo + 1e-3 && at < hi - 1e-3)
        return {
          tag: "score-through-board",
          reason: `A score from edge to edge would run through copy ${l.place.copy}.`,
          at: { x: isUpright ? at : l.box[0], y: isUpright ? l.box[1] : at },
          nearest: [],
          do: "Put the boards into straight rows and columns, or part them by tabs.",
        };
      if (at < lo - 6 || at > hi + 6) continue;
      for (const ban of l.design.bans) {
        if (ban.scoreMm === undefined) continue;
        const b = posedBox(l.place, ban.box);
        const [p, q, u, v] = isUpright ? [b[0], b[2], b[1], b[3]] : [b[1], b[3], b[0], b[2]];
        // a ceramic chip that lies across the line bends the more
        const keep = ban.scoreMm >= 3 && q - p > v - u ? Math.max(5, ban.scoreMm) : ban.scoreMm;
        const gap = Math.max(p - at, at - q, 0);
        if (ban.isHard ? gap > 1e-6 || !isOwnEdge(at, lo, hi) : gap >= keep - 1e-6) continue;
        const [x, y] = isUpright ? [at, (u + v) / 2] : [(u + v) / 2, at];
        if (ban.isHard)
          return {
            tag: "score-refused",
            reason: `The score at ${isUpright ? "x" : "y"} ${at.toFixed(1)} mm cannot be made: ${ban.why} (${l.design.name}, copy ${l.place.copy}).`,
            at: { x, y },
            nearest: [],
            do: "Part the boards by tabs there.",
          };
        const key = `${l.design.name} ${ban.why}`;
        if (said.has(key)) continue;
        said.add(key);
        findings.push({
          tag: "score-near-part",
          level: "warning",
          at: { x: clean(x), y: clean(y) },
          text: `The score passes ${gap.toFixed(1)} mm from a part, less than ${keep} mm: ${ban.why} (${l.design.name}).`,
          do: "Part the boards by tabs there, or turn them.",
        });
      }
    }
  }
  sayEdges(laid, thicknessMm, findings);
  return undefined;
}

/** Machines that score take sheets from this size on, mm (domain.md 6.4, typical). */
const LEAST_SHEET_MM = 70;

/** Scores that are shorter than a machine takes. */
function saySize(scores: readonly Score[], findings: Finding[]): void {
  const shortest = Math.min(...scores.map((k) => Math.max(Math.abs(k.x2 - k.x1), Math.abs(k.y2 - k.y1))));
  if (shortest < LEAST_SHEET_MM)
    findings.push({
      tag: "score-sheet-small",
      level: "remark",
      text: `The sheet is ${Number(shortest.toFixed(1))} mm along a score; machines that score take sheets from about ${LEAST_SHEET_MM} mm a side.`,
      do: "Ask the house, or put more boards on it.",
    });
}

const isOwnEdge = (at: number, lo: number, hi: number) => Math.abs(at - lo) < 6 || Math.abs(at - hi) < 6;

/** Copper and holes nearer to the edge than a score bears. */
function sayEdges(laid: ReturnType<typeof laidOut>, thicknessMm: number, findings: Finding[]): void {
  const said = new Set<unknown>();
  for (const { design, place } of laid) {
    if (said.has(design)) continue;
    said.add(design);
    const keep = scoreToCopperMm(thicknessMm);
    const { copperToEdge: c, holeToEdge: h } = design;
    const where = (p: { x: number; y: number }) => {
      const [x, y] = posed(place, p.x, p.y);
      return { x: clean(x), y: clean(y) };
    };
    if (c && c.mm < keep - 1e-9)
      findings.push({
        tag: "score-near-copper",
        level: "warning",
        at: where(c),
        text: `Copper of ${design.name} lies ${Number(c.mm.toFixed(3))} mm from its edge; a score wants ${keep} mm.`,
        do: "Part the boards by tabs, or draw the copper back.",
      });
    if (h && h.mm < HOLE_MM)
      findings.push({
        tag: "score-near-hole",
        level: "warning",
        at: where(h),
        text: `A hole of ${design.name} lies ${Number(h.mm.toFixed(3))} mm from its edge; a score wants ${HOLE_MM} mm.`,
      });
  }
}
