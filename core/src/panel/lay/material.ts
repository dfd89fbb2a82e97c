import { circleRing } from "../../geometry/arc.ts";
import { type Area, clipAreas, offsetRings } from "../../geometry/clip.ts";
import { insideRings, signedArea } from "../../geometry/polygon.ts";
import { Strips } from "../../geometry/strips.ts";
import { boxAround, posedRing, turnOf } from "../../geometry/turn.ts";
import { SLACK_MM, tabRing } from "../hold/tab-body.ts";
import type { PanelDesign, PanelLayout, SheetSide, Tab } from "../spec.ts";
import type { Field } from "./grid.ts";

/** How far the frame's round corners may lie off their circles, mm. */
const FRAME_ARC_MM = 0.01;
/** Smaller scraps than this are dust of the clipping, mm². */
const DUST_MM2 = 1e-4;
/** Narrower than this between its rounded ends, a tab keeps square ones. */
const LEAST_NECK_MM = 1;
/** A cutter is taken this much narrower than the gap, so that it goes in. */
const PLAY_MM = 0.01;

const rect = (x0: number, y0: number, x1: number, y1: number) => [x0, y0, x1, y0, x1, y1, x0, y1];

/**
 * What of the sheet stays frame. Held by tabs, a gap follows each board's outline; where a direction is scored, all of a
 * cell that is not board goes. What is neither board nor joined to a rail or the sheet's own edge would be loose: it is
 * milled away.
 *
 * @param rings outlines as they lie
 * @param cells boxes of the boards
 */
export function frameOf(
  sheet: readonly [number, number],
  rails: Readonly<Record<SheetSide, number>>,
  rings: readonly (readonly number[])[],
  cells: readonly (readonly [number, number, number, number])[],
  field: Pick<Field, "across" | "along">,
  gap: number,
): Area[] {
  const [gx, gy] = [field.across === "tabs" ? gap : 0, field.along === "tabs" ? gap : 0];
  const reach: readonly ArrayLike<number>[] =
    gx > 0 && gy > 0
      ? offsetRings(rings, gap, "round", undefined, FRAME_ARC_MM)
      : cells.map(([x0, y0, x1, y1]) => rect(x0 - gx, y0 - gy, x1 + gx, y1 + gy));
  return clipAreas("difference", [rect(0, 0, ...sheet)], reach).filter(
    (a) => Math.abs(signedArea(a[0]!)) > DUST_MM2 && touchesRail(a, sheet, rails),
  );
}

/** Whether an area holds a piece of a rail, or lies in a place of the sheet that was left free. */
function touchesRail(
  area: Area,
  [w, h]: readonly [number, number],
  rails: Readonly<Record<SheetSide, number>>,
): boolean {
  const [x0, y0, x1, y1] = boxAround([area[0]!]);
  const e = 1e-6;
  return (
    (rails.left > 0 && x0 < e) ||
    (rails.right > 0 && x1 > w - e) ||
    (rails.bottom > 0 && y0 < e) ||
    (rails.top > 0 && y1 > h - e)
  );
}

/**
 * What stays of the sheet: frame, boards, and the tabs that bridge the gaps; the boards' own cut-outs gone.
 *
 * A tab is as wide as stated along the edge it breaks at; the gap's ends are rounded into it by the cutter.
 */
export function materialOf(
  frame: readonly Area[],
  rings: readonly (readonly number[])[],
  tabs: readonly Tab[],
  cutouts: readonly (readonly number[])[],
): Area[] {
  const standing = clipAreas(
    "union",
    [...frame.flat(), ...rings, ...tabs.map((t) => tabRing(t, t.widthMm))],
    [],
  );
  const ends = tabs
    .filter((t) => t.widthMm - t.gapMm >= LEAST_NECK_MM)
    .flatMap((t) => {
      const [c, s] = turnOf(t.acrossDeg);
      const h = t.widthMm / 2;
      const r = t.gapMm / 2 - PLAY_MM;
      return [-h, h].map((v) => circleRing(t.xMm - v * s, t.yMm + v * c, r));
    });
  const rounded = ends.length > 0 ? clipAreas("difference", ends, rings).flat() : [];
  return clipAreas("difference", standing.flat(), [...rounded, ...cutouts]).filter(
    (a) => Math.abs(signedArea(a[0]!)) > DUST_MM2,
  );
}

/** What stays of a sheet that was laid out. */
export const sheetMaterial = (designs: readonly PanelDesign[], l: PanelLayout): Area[] =>
  materialOf(
    l.frame.map((a) => a.map((r) => [...r])),
    l.places.map((p) => posedRing(p, designs[p.board]!.outline)),
    l.tabs,
    [
      ...l.places.flatMap((p) => designs[p.board]!.cutouts.map((c) => posedRing(p, c))),
      ...l.waste.flatMap((w) => w.slots.map((b) => rect(...b))),
    ],
  );

/** A piece that is left when everything is cut. */
export interface Piece {
  /** Copies in it; a frame has none. */
  readonly copies: readonly number[];
  readonly areaMm2: number;
}

/** A break runs so far outside of the edge it follows, and is so wide, mm. */
const BREAK_MM = [0.001, 0.15] as const;
const STEP_MM = 0.2;

/** The break of a tab along the edge of the board it begins at: a band that follows the edge, however that runs. */
function breakOf(t: Tab, board: Strips): number[] {
  const [c, s] = turnOf(t.acrossDeg);
  const reach = t.gapMm / 2 + SLACK_MM + 0.5;
  const half = t.widthMm / 2 + t.gapMm;
  const near: number[] = [];
  const far: number[] = [];
  let last = -t.gapMm / 2;
  const n = Math.ceil((2 * half) / STEP_MM);
  for (let i = 0; i <= n; i++) {
    const v = -half + (2 * half * i) / n;
    const [x, y] = [t.xMm - v * s, t.yMm + v * c];
    const k = board.firstCrossing(x, y, x - c * reach, y - s * reach);
    if (k !== undefined) last = -k * reach;
    for (const [list, out] of [
      [near, last + BREAK_MM[0]],
      [far, last + BREAK_MM[1]],
    ] as const)
      list.push(x + c * out, y + s * out);
  }
  const back: number[] = [];
  for (let i = far.length - 2; i >= 0; i -= 2) back.push(far[i]!, far[i + 1]!);
  return [...near, ...back];
}

/**
 * The pieces after breaking every tab along its boards' edges and every score: n boards and the frame, if the sheet is
 * right.
 *
 * @param rings edges of the boards as they lie, one a place
 * @param inside a point of each copy that is board
 */
export function piecesAfterCutting(
  layout: Pick<PanelLayout, "tabs" | "scores" | "places">,
  material: readonly (readonly (readonly number[])[])[],
  rings: readonly (readonly number[])[],
  inside: readonly (readonly [number, number])[],
): Piece[] {
  const cuts: number[][] = [];
  const strips = new Map<number, Strips>();
  for (const t of layout.tabs) {
    // once: what is left of a tab between two boards stays with the other one
    const i = layout.places.findIndex((p) => p.copy === t.between[0]);
    let board = strips.get(i);
    if (!board) {
      board = new Strips([rings[i]!]);
      strips.set(i, board);
    }
    cuts.push(breakOf(t, board));
  }
  for (const k of layout.scores)
    cuts.push(
      k.x1 === k.x2
        ? rect(k.x1 - 0.005, Math.min(k.y1, k.y2), k.x1 + 0.005, Math.max(k.y1, k.y2))
        : rect(Math.min(k.x1, k.x2), k.y1 - 0.005, Math.max(k.x1, k.x2), k.y1 + 0.005),
    );
  const pieces = clipAreas("difference", material.flat(), cuts);
  return pieces
    .map((a) => ({
      copies: layout.places.flatMap((p, i) => (insideRings(a, ...inside[i]!) ? [p.copy] : [])),
      areaMm2: Math.abs(a.reduce((n, r) => n + signedArea(r), 0)),
    }))
    .filter((p) => p.areaMm2 > 0.02);
}
