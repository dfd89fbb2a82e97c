import type { Body } from "./body.ts";

/** A made-up body on top, of a length and a width of its own, standing where it is said to. */
export const body = (
  ref: string,
  x: number,
  y: number,
  l: number,
  w: number,
  more: Partial<Body> = {},
): Body => ({
  ref,
  side: "top",
  x,
  y,
  turnDeg: 0,
  lengthMm: l,
  widthMm: w,
  sizeFrom: "package",
  lies: "row",
  tolMm: 0.1,
  heightTolMm: 0,
  ...more,
});
/** A board of 50 by 40. */
export const RING = [0, 0, 50, 0, 50, 40, 0, 40];
