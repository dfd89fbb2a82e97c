import type { Body } from "./body.ts";

/** A part of the board's face, and what stands tallest in it. */
export interface Zone {
  readonly column: number;
  readonly row: number;
  /** Left out where no height is known there. */
  readonly tallest?: Body;
  /** Parts there whose height is not known: what is tallest is at least that. */
  readonly withoutHeight: readonly string[];
}

/**
 * The tallest body of each field of a side, columns from the left, rows from the top. A body counts where its middle is.
 * @param extent of the board: x0, y0, x1, y1
 */
export function zonesOf(
  bodies: readonly Body[],
  extent: readonly [number, number, number, number],
  side: Body["side"],
  columns = 3,
  rows = 2,
): Zone[] {
  const [x0, y0, x1, y1] = extent;
  const field = (v: number, from: number, until: number, n: number) =>
    Math.max(0, Math.min(n - 1, Math.floor(((v - from) / (until - from || 1)) * n)));
  const on = bodies.filter((b) => b.side === side);
  return Array.from({ length: columns * rows }, (_, i) => {
    const [column, row] = [i % columns, Math.floor(i / columns)];
    const here = on.filter(
      (b) => field(b.x, x0, x1, columns) === column && rows - 1 - field(b.y, y0, y1, rows) === row,
    );
    const known = here.filter((b) => b.heightMm !== undefined);
    const tallest = known.reduce<Body | undefined>(
      (best, b) => (best && best.heightMm! >= b.heightMm! ? best : b),
      undefined,
    );
    return {
      column,
      row,
      ...(tallest ? { tallest } : {}),
      withoutHeight: here.filter((b) => b.heightMm === undefined).map((b) => b.ref),
    };
  });
}
