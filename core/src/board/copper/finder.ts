import type { Solids } from "../../gerber/solids.ts";

/** Calls `visit` with every piece whose box comes within `reach` of the point, each once; stops when it returns true. */
export type Finder = (
  x: number,
  y: number,
  reach: number,
  visit: (piece: number) => boolean | undefined,
) => void;

const MAX_CELLS = 1_000_000;

/** A finder over the boxes of pieces: a grid in typed arrays, pieces larger than many cells in a list of their own. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one algorithm: the grid is built and asked in the same arrays
export function finderOf(s: Solids): Finder {
  const { count, box } = s;
  let x0 = Number.POSITIVE_INFINITY;
  let y0 = x0;
  let x1 = -x0;
  let y1 = -x0;
  for (let o = 0; o < count * 4; o += 4) {
    if (box[o]! < x0) x0 = box[o]!;
    if (box[o + 1]! < y0) y0 = box[o + 1]!;
    if (box[o + 2]! > x1) x1 = box[o + 2]!;
    if (box[o + 3]! > y1) y1 = box[o + 3]!;
  }
  if (count === 0) return () => undefined;
  const area = Math.max(1e-6, (x1 - x0) * (y1 - y0));
  const cell = Math.max(
    0.25,
    Math.sqrt((2 * area) / count),
    Math.sqrt(area / MAX_CELLS),
    Math.max(x1 - x0, y1 - y0) / 20_000,
  );
  const inverse = 1 / cell;
  const columns = Math.floor((x1 - x0) * inverse) + 1;
  const rows = Math.floor((y1 - y0) * inverse) + 1;
  const column = (x: number) => clamp(((x - x0) * inverse) | 0, columns - 1);
  const row = (y: number) => clamp(((y - y0) * inverse) | 0, rows - 1);
  const start = new Int32Array(columns * rows + 1);
  const large: number[] = [];
  const isLarge = new Uint8Array(count);
  // columns and rows of each box, asked often
  const span = new Int32Array(count * 4);
  for (let k = 0, o = 0; k < count; k++, o += 4) {
    const c0 = column(box[o]!);
    const r0 = row(box[o + 1]!);
    const c1 = column(box[o + 2]!);
    const r1 = row(box[o + 3]!);
    span[o] = c0;
    span[o + 1] = r0;
    span[o + 2] = c1;
    span[o + 3] = r1;
    if ((c1 - c0 + 1) * (r1 - r0 + 1) > 64) {
      isLarge[k] = 1;
      large.push(k);
      continue;
    }
    for (let r = r0; r <= r1; r++) for (let c = c0; c <= c1; c++) start[r * columns + c + 1]!++;
  }
  for (let c = 0; c < columns * rows; c++) start[c + 1]! += start[c]!;
  const item = new Int32Array(start[columns * rows]!);
  const next = start.slice();
  for (let k = 0, o = 0; k < count; k++, o += 4) {
    if (isLarge[k]) continue;
    const c1 = span[o + 2]!;
    const r1 = span[o + 3]!;
    for (let r = span[o + 1]!; r <= r1; r++)
      for (let c = span[o]!; c <= c1; c++) item[next[r * columns + c]!++] = k;
  }
  return (x, y, reach, visit) => {
    const left = x - reach;
    const right = x + reach;
    const low = y - reach;
    const high = y + reach;
    s.work.spend(1 + large.length);
    for (const k of large) {
      const o = k * 4;
      const meets = box[o]! <= right && box[o + 2]! >= left && box[o + 1]! <= high && box[o + 3]! >= low;
      if (meets && visit(k) === true) return;
    }
    const c0 = column(left);
    const r0 = row(low);
    const c1 = column(right);
    const r1 = row(high);
    for (let r = r0; r <= r1; r++)
      for (let c = c0; c <= c1; c++) {
        const cell = r * columns + c;
        s.work.spend(start[cell + 1]! - start[cell]!);
        for (let m = start[cell]!, end = start[cell + 1]!; m < end; m++) {
          const k = item[m]!;
          const o = k * 4;
          if (box[o]! > right || box[o + 2]! < left || box[o + 1]! > high || box[o + 3]! < low) continue;
          // a piece in several of the cells asked is visited in the first of them
          if ((span[o]! > c0 ? span[o]! : c0) !== c || (span[o + 1]! > r0 ? span[o + 1]! : r0) !== r)
            continue;
          if (visit(k) === true) return;
        }
      }
  };
}

const clamp = (v: number, max: number) => (v < 0 ? 0 : v > max ? max : v);
