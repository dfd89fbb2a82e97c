import { tolerancesOf } from "../../fab/tolerances.ts";
import { cornerOf, featureAt, holesOf, pinHolesOf, slotsOf } from "../../fit/features.ts";
import { type FitRow, mmWords as mm } from "../../fit/row.ts";
import { boardFor, type RunBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";

/** A size of a board that is measured when it comes: what it should be, whose limit it is, where to put the calliper. */
export interface MeasurePoint {
  /** Stands in the record. */
  readonly key: string;
  readonly what: string;
  readonly how: string;
  readonly mm: number;
  /** The order allows this much more or less. */
  readonly tolMm: number;
  readonly whose: string;
  /** Where it is, as in the files: a length from one place to another, or a place. */
  readonly from?: readonly [number, number];
  readonly to?: readonly [number, number];
  /** Rows of the fit sheet that hang on it. */
  readonly fits: readonly string[];
}

/** Holes that are measured where no fit asks for one: the largest plated and unplated ones, so many of them (domain.md 9.3). */
const HOLES = 3;
const SLOTS = 2;

/**
 * What is measured of a board that came: only what matters here (N092). Thickness and both sides; every slot and hole the
 * fit sheet asks for, else the widest few; each with what the house holds of it.
 *
 * @param options thickness in words as it was ordered, as "1.6 mm"
 */
export function measurePoints(
  doc: Pick<RunDocument, "boards" | "house" | "fits">,
  board: RunBoard,
  thickness: string | undefined,
): MeasurePoint[] {
  const { values: t, isStated } = tolerancesOf(doc.house?.tolerances);
  const whose = (tol: string) =>
    isStated
      ? `${doc.house?.name ?? "the house"} holds ± ${tol}`
      : `usual: ± ${tol}, the house does not state it`;
  const m = board.measure;
  const rows = (doc.fits ?? []).filter((row) => boardFor(doc, row) === board);
  const of = (is: (row: FitRow) => boolean) => rows.filter(is).map((row) => row.id);
  const thickMm = Number.parseFloat(thickness ?? "");
  const out: MeasurePoint[] = [];
  if (Number.isFinite(thickMm)) {
    const tol = Math.round(thickMm * t.thicknessShare * 1e4) / 1e4;
    out.push({
      key: "thickness",
      what: "thickness",
      how: "over bare laminate, away from solder and ink",
      mm: thickMm,
      tolMm: tol,
      whose: whose(`${mm(tol)} mm`),
      fits: of(({ spec }) => spec.kind === "edge" || spec.kind === "stack"),
    });
  }
  const box = m.extentMm;
  if (box && m.outline?.widthMm !== undefined && m.outline.heightMm !== undefined) {
    const [x0, y0, x1, y1] = box;
    const middle = [(x0 + x1) / 2, (y0 + y1) / 2] as const;
    const side = (
      key: "width" | "height",
      size: number,
      from: readonly [number, number],
      to: readonly [number, number],
    ) =>
      out.push({
        key,
        what: key,
        how: "across the edges",
        mm: size,
        tolMm: t.outlineMm,
        whose: whose(`${mm(t.outlineMm)} mm`),
        from,
        to,
        fits: of(({ spec }) => spec.kind === "outline" && spec.across === key),
      });
    side("width", m.outline.widthMm, [x0, middle[1]], [x1, middle[1]]);
    side("height", m.outline.heightMm, [middle[0], y0], [middle[0], y1]);
  }
  return [...out, ...slotPoints(board, rows, t.slotMm, whose), ...holePoints(board, rows, t, whose)];
}

type Whose = (tol: string) => string;

function slotPoints(
  { measure: m }: RunBoard,
  rows: readonly FitRow[],
  tolMm: number,
  whose: Whose,
): MeasurePoint[] {
  const asked = rows.flatMap((row) => {
    const slot = row.spec.kind === "slot" ? featureAt(m, slotsOf(m), row.spec.at) : undefined;
    return slot ? [{ slot, row: row.id }] : [];
  });
  const list =
    asked.length > 0
      ? [...new Set(asked.map((a) => a.slot))]
      : [...slotsOf(m)].sort((a, b) => b.lengthMm - a.lengthMm).slice(0, SLOTS);
  return list.map((s) => ({
    key: `slot ${spotOf(m, s)}`,
    what: `slot, ${mm(s.lengthMm)} mm long`,
    how: "its width, inside jaws at three places",
    mm: s.widthMm,
    tolMm,
    whose: whose(`${mm(tolMm)} mm`),
    from: [s.x, s.y],
    fits: asked.filter((a) => a.slot === s).map((a) => a.row),
  }));
}

function holePoints(
  { measure: m }: RunBoard,
  rows: readonly FitRow[],
  t: { readonly platedHoleMm: number; readonly holeMm: number },
  whose: Whose,
): MeasurePoint[] {
  const asked = rows.flatMap((row) => {
    const places =
      row.spec.kind === "pattern" ? row.spec.holes : row.spec.kind === "pin" ? [row.spec.at] : [];
    const list = row.spec.kind === "pin" ? pinHolesOf(m) : holesOf(m);
    return places.flatMap((at) => {
      const hole = featureAt(m, list, at);
      return hole ? [{ hole, row: row.id }] : [];
    });
  });
  const same = (a: { x: number; y: number }, b: { x: number; y: number }) => a.x === b.x && a.y === b.y;
  const holes = asked.map((a) => a.hole).filter((h, i, all) => all.findIndex((o) => same(o, h)) === i);
  const more = largest(holesOf(m)).filter((h) => !holes.some((o) => same(o, h)));
  return [...holes, ...more.slice(0, Math.max(0, HOLES - holes.length))].map((h) => {
    const tolMm = h.plated ? t.platedHoleMm : t.holeMm;
    return {
      key: `hole ${spotOf(m, h)}`,
      what: `${h.plated ? "plated" : "unplated"} hole`,
      how: "inside jaws or a pin that just goes in",
      mm: h.diameterMm,
      tolMm,
      whose: whose(`${mm(tolMm)} mm`),
      from: [h.x, h.y] as const,
      fits: [...new Set(asked.filter((a) => same(a.hole, h)).map((a) => a.row))],
    };
  });
}

/** One hole of each size, the largest first. */
function largest<T extends { readonly diameterMm: number; readonly plated: boolean }>(
  holes: readonly T[],
): T[] {
  const first = new Map<string, T>();
  for (const h of holes) {
    const key = `${h.diameterMm} ${h.plated}`;
    if (!first.has(key)) first.set(key, h);
  }
  return [...first.values()].sort((a, b) => b.diameterMm - a.diameterMm);
}

/** A place from the board's corner, as it stands in a key: to a hundredth, so that another origin is no other place. */
export function spotOf(m: RunBoard["measure"], { x, y }: { readonly x: number; readonly y: number }): string {
  const [x0, y0] = cornerOf(m);
  const at = (v: number) => (Math.round(v * 100) / 100).toFixed(2);
  return `${at(x - x0)} ${at(y - y0)}`;
}
