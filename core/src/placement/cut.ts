import type { Cells } from "../table/columns.ts";
import type { PlacementHead } from "./head.ts";
import { readNumber } from "./number.ts";
import { type Side, sidesOf } from "./side.ts";

/** Share of the rows with too many cells that must be made whole in one way and no other. */
const MOST = 0.95;
const WHOLE = /^[+\-−]?\d{1,6}$/;
const BEHIND = /^\d{1,6}$/;
const REFERENCE = /^[a-z_]{1,6}\d{1,5}[a-z]?$/i;

/** A table whose decimal commas part columns as well, made whole. */
export interface Mended {
  readonly rows: Cells;
  /** How many of its rows were. */
  readonly mended: number;
}

/**
 * Puts numbers together again that a decimal comma cut in two, in a list parted by commas: rows have more cells than
 * headings, and with commas in both coordinates, or in the rotation too, they are what the headings say, every one that
 * is as long: digits on both sides of each cut, a reference, a rotation and a side where they belong; where nothing
 * stands behind the coordinates, as many digits behind each comma in every row.
 *
 * @param head by its words alone, since what stands below has moved
 * @returns nothing where no row is so, or where some cannot be made whole
 */
export function mendCut(rows: Cells, head: PlacementHead): Mended | undefined {
  if (head.row < 0 || head.isPair) return undefined;
  const width = lengthOf(head.texts);
  const { x, y, ref, rotation, side } = head.at;
  // both coordinates are written alike; what stands behind them says whether the cuts are where they seem
  const cuts: readonly (readonly number[])[] = [
    [x!, y!],
    ...(rotation === undefined ? [] : [[x!, y!, rotation]]),
  ];
  const isHeld = [ref, rotation, side].some((i) => i !== undefined && i > Math.max(x!, y!));
  const out = [...rows];
  /** Rows by how many cells they have too many. */
  const long = new Map<number, number[]>();
  for (let r = head.row + 1; r < rows.length; r++) {
    const extra = lengthOf(rows[r]!) - width;
    if (extra > 0) long.set(extra, [...(long.get(extra) ?? []), r]);
  }
  let mended = 0;
  let all = 0;
  for (const [extra, at] of long) {
    all += at.length;
    const cut = cuts.find((c) => c.length === extra);
    if (cut === undefined) continue;
    const made = at.map((r) => joined(rows[r]!, cut));
    const whole = made.filter((m) => m !== undefined);
    const sides = side === undefined ? undefined : sidesOf(whole.map((m) => m.row[side] ?? ""));
    if (whole.length < at.length || !whole.every((m) => isPlace(m.row, head, sides))) continue;
    if (!isHeld && !isEven(whole.map((m) => m.behind))) continue;
    for (const [i, r] of at.entries()) out[r] = whole[i]!.row;
    mended += at.length;
  }
  return mended > 0 && mended >= MOST * all ? { rows: out, mended } : undefined;
}

/** Whether each cut has as many digits behind it in every row, as a program writes them. */
const isEven = (behind: readonly (readonly number[])[]): boolean =>
  behind.length > 2 && behind.every((b) => b.every((n, k) => n === behind[0]![k]));

/** Cells of a row without the empty ones at its end. */
const lengthOf = (row: readonly string[]): number => row.findLastIndex((t) => t.trim() !== "") + 1;

/** A row with the cells of some columns put together with the one behind each; nothing where those are no halves of a number. */
function joined(
  all: readonly string[],
  cut: readonly number[],
): { readonly row: readonly string[]; readonly behind: readonly number[] } | undefined {
  const cells = all.slice(0, lengthOf(all));
  const row: string[] = [];
  const behind: number[] = [];
  for (let i = 0; i < cells.length; i++) {
    const text = cells[i]!.trim();
    if (!cut.includes(row.length)) row.push(cells[i]!);
    else {
      const digits = (cells[++i] ?? "").trim();
      if (!WHOLE.test(text) || !BEHIND.test(digits)) return undefined;
      row.push(`${text}.${digits}`);
      behind.push(digits.length);
    }
  }
  return { row, behind };
}

/** Whether a row holds what its headings say, as far as that can be seen of one row. */
function isPlace(
  row: readonly string[],
  { at }: PlacementHead,
  sides: ((text: string) => Side | undefined) | undefined,
): boolean {
  const text = (i: number | undefined) => (i === undefined ? "" : (row[i] ?? "").trim());
  if (!REFERENCE.test(text(at.ref)) || !readNumber(text(at.x)) || !readNumber(text(at.y))) return false;
  const turn = text(at.rotation);
  const turned = turn === "" ? 0 : readNumber(turn)?.n;
  if (turned === undefined || Math.abs(turned) > 360) return false;
  const side = text(at.side);
  return side === "" || sides?.(side) !== undefined;
}
