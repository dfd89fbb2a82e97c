import type { PanelDesign, PanelPlace, PanelSpec, SheetSide } from "../spec.ts";
import { clean, type Field, turnedBox } from "./grid.ts";

/** A field on a sheet: how wide the rails are, and where the field begins. */
export interface Framed {
  readonly field: Field;
  readonly rails: Readonly<Record<SheetSide, number>>;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly x0: number;
  readonly y0: number;
}

/** Rails about a field, as wide as asked, or wider where the sheet has a least size. */
export function framed(spec: PanelSpec, field: Field, sides: readonly SheetSide[]): Framed {
  const has = (s: SheetSide) => sides.includes(s);
  const [gx, gy] = [field.across === "tabs" ? spec.gapMm : 0, field.along === "tabs" ? spec.gapMm : 0];
  const size = (lo: SheetSide, hi: SheetSide, inner: number, gap: number, least: number) => {
    const n = Number(has(lo)) + Number(has(hi));
    const whole = inner + n * (spec.railMm + gap);
    const more = n > 0 ? Math.max(0, least - whole) / n : 0;
    const rail = (s: SheetSide) => (has(s) ? clean(spec.railMm + more) : 0);
    return {
      lo: rail(lo),
      hi: rail(hi),
      whole: clean(whole + n * more),
      from: clean(has(lo) ? rail(lo) + gap : 0),
    };
  };
  const x = size("left", "right", field.widthMm, gx, spec.minWidthMm);
  const y = size("bottom", "top", field.heightMm, gy, spec.minHeightMm);
  return {
    field,
    rails: { left: x.lo, right: x.hi, bottom: y.lo, top: y.hi },
    widthMm: x.whole,
    heightMm: y.whole,
    x0: x.from,
    y0: y.from,
  };
}

/** Boards of a field where they lie on the sheet. */
export function placesOf(designs: readonly PanelDesign[], f: Framed): PanelPlace[] {
  return f.field.slots.map((s, i) => {
    const [bx, by] = turnedBox(designs[s.board]!, s.turnDeg);
    return {
      board: s.board,
      copy: i + 1,
      xMm: clean(f.x0 + s.x - bx),
      yMm: clean(f.y0 + s.y - by),
      turnDeg: ((s.turnDeg % 360) + 360) % 360,
    };
  });
}
