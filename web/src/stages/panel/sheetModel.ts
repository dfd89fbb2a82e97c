import type { PanelChoice, PanelDesign, SheetSide } from "@kobbin/core";

/** Steps boards and rails move by, mm. */
export const STEP_MM = 0.5;
const round = (v: number) => Math.round(v * 1000) / 1000;

/** A sheet with one board moved. */
export const withMoved = (c: PanelChoice, index: number, dx: number, dy: number): PanelChoice => ({
  ...c,
  places: c.places.map((p, i) =>
    i === index ? { ...p, xMm: round(p.xMm + dx), yMm: round(p.yMm + dy) } : p,
  ),
});

/** A sheet with one board turned by a quarter about the middle of its box. */
export function withTurned(c: PanelChoice, index: number, design: PanelDesign): PanelChoice {
  const p = c.places[index]!;
  const turnDeg = (p.turnDeg + 90) % 360;
  const [bx, by] = [(design.box[0] + design.box[2]) / 2, (design.box[1] + design.box[3]) / 2];
  const at = (t: number): readonly [number, number] => {
    const a = (t * Math.PI) / 180;
    const [s, k] = [Math.round(Math.sin(a) * 1e9) / 1e9, Math.round(Math.cos(a) * 1e9) / 1e9];
    return [bx * k - by * s, bx * s + by * k];
  };
  const [x0, y0] = at(p.turnDeg);
  const [x1, y1] = at(turnDeg);
  return {
    ...c,
    places: c.places.map((q, i) =>
      i === index ? { ...q, turnDeg, xMm: round(q.xMm + x0 - x1), yMm: round(q.yMm + y0 - y1) } : q,
    ),
  };
}

/** A sheet whose rail is wider or narrower: the sheet grows with it, and the boards stay beside the other rail. */
export function withRail(c: PanelChoice, side: SheetSide, widthMm: number): PanelChoice {
  const was = c.rails[side];
  const more = round(Math.max(3, Math.min(60, widthMm)) - was);
  if (was === 0 || more === 0) return c;
  const isAcross = side === "left" || side === "right";
  return {
    ...c,
    widthMm: round(c.widthMm + (isAcross ? more : 0)),
    heightMm: round(c.heightMm + (isAcross ? 0 : more)),
    rails: { ...c.rails, [side]: round(was + more) },
    places: c.places.map((p) => ({
      ...p,
      xMm: round(p.xMm + (side === "left" ? more : 0)),
      yMm: round(p.yMm + (side === "bottom" ? more : 0)),
    })),
  };
}
