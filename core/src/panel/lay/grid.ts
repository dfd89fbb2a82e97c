import { type Box, boxAround, posedBox, posedRing } from "../../geometry/turn.ts";
import type { PanelDesign, Parting } from "../spec.ts";

/** A board in a field: its turn, and where its box begins. */
export interface Slot {
  readonly board: number;
  readonly turnDeg: number;
  readonly x: number;
  readonly y: number;
}

/** Boards laid out, without rails: the lower left corner is at 0/0. */
export interface Field {
  readonly slots: readonly Slot[];
  readonly widthMm: number;
  readonly heightMm: number;
  /** Between columns, and between rows. */
  readonly across: Parting;
  readonly along: Parting;
  readonly how: string;
}

/** Box of a design turned about 0/0; exact for quarter turns. */
export const turnedBox = (d: PanelDesign, turnDeg: number): Box =>
  turnDeg % 90 === 0
    ? posedBox({ xMm: 0, yMm: 0, turnDeg }, d.box)
    : boxAround([posedRing({ xMm: 0, yMm: 0, turnDeg }, d.outline)]);

/** Width and height of a design after a turn. */
export function turnedSize(d: PanelDesign, turnDeg: number): readonly [w: number, h: number] {
  const [x0, y0, x1, y1] = turnedBox(d, turnDeg);
  return [clean(x1 - x0), clean(y1 - y0)];
}

/** Without the dust of binary arithmetic. */
export const clean = (v: number): number => Math.round(v * 1e6) / 1e6;

/** A field turned by a quarter, counter-clockwise, boards with it. @param designs by the number slots name them by, or the one there is */
export function onItsSide(f: Field, designs: readonly PanelDesign[]): Field {
  return {
    ...f,
    slots: f.slots.map((s) => {
      const [, h] = turnedSize(designs[s.board] ?? designs[0]!, s.turnDeg);
      return { ...s, turnDeg: (s.turnDeg + 90) % 360, x: clean(f.heightMm - s.y - h), y: s.x };
    }),
    widthMm: f.heightMm,
    heightMm: f.widthMm,
    across: f.along,
    along: f.across,
  };
}

/** Room for boards: the sheet's limits without its rails. */
export interface Room {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Most copies of anything on one sheet. */
export const MOST_COPIES = 400;

/**
 * Every grid of one design in a room: both ways round, each number of columns and rows (domain.md 6.4).
 *
 * W = nx·w + (nx − 1)·gx, H likewise. With a count, the grids come whose last row is not empty.
 *
 * @param gap at a parting by tabs, mm; a score takes none
 * @param turns of the first and, where it faces outward, of the other row
 */
export function gridFields(
  d: PanelDesign,
  board: number,
  room: Room,
  count: number | "fill",
  turns: readonly number[],
  partings: readonly (readonly [Parting, Parting])[],
  gap: number,
): Field[] {
  const out: Field[] = [];
  for (const turnDeg of turns) {
    const [w, h] = turnedSize(d, turnDeg);
    for (const [across, along] of partings) {
      const [gx, gy] = [across === "tabs" ? gap : 0, along === "tabs" ? gap : 0];
      const most = (size: number, g: number, limit: number) =>
        Math.min(MOST_COPIES, Math.floor((limit + g + 1e-6) / (size + g)));
      const [cols, rows] = [most(w, gx, room.widthMm), most(h, gy, room.heightMm)];
      for (let nx = 1; nx <= cols; nx++)
        for (let ny = 1; ny <= rows; ny++) {
          const n = nx * ny;
          const wanted = count === "fill" ? n : count;
          if (n > MOST_COPIES || wanted > n || n - wanted >= nx || (ny === 1 && wanted < n)) continue;
          if (count === "fill" && (nx < cols || ny < rows)) continue;
          out.push({
            slots: Array.from({ length: wanted }, (_, k) => ({
              board,
              turnDeg,
              x: clean((k % nx) * (w + gx)),
              y: clean(Math.floor(k / nx) * (h + gy)),
            })),
            widthMm: clean(nx * w + (nx - 1) * gx),
            heightMm: clean(ny * h + (ny - 1) * gy),
            across,
            along,
            how: `${nx} × ${ny}`,
          });
        }
    }
  }
  return out;
}

/**
 * Rows of boards one way round under rows of boards turned by a quarter, held by tabs: fills what a plain grid leaves.
 */
export function mixedFields(
  d: PanelDesign,
  board: number,
  room: Room,
  count: number | "fill",
  turns: readonly number[],
  gap: number,
): Field[] {
  const upright = turns.find((t) => t % 180 === 0);
  const lying = turns.find((t) => t % 180 === 90);
  if (upright === undefined || lying === undefined) return [];
  const out: Field[] = [];
  const [a, b] = [turnedSize(d, upright), turnedSize(d, lying)];
  const goInto = (size: number, limit: number) =>
    Math.max(0, Math.floor((limit + gap + 1e-6) / (size + gap)));
  const stack = (isTransposed: boolean) => {
    const [W, H] = isTransposed ? [room.heightMm, room.widthMm] : [room.widthMm, room.heightMm];
    const dims = (s: readonly [number, number]) => (isTransposed ? ([s[1], s[0]] as const) : s);
    const [p, q] = [dims(a), dims(b)];
    const [np, nq] = [goInto(p[0], W), goInto(q[0], W)];
    if (np === 0 || nq === 0 || np === nq) return;
    for (let rows = 1; rows <= goInto(p[1], H); rows++) {
      const used = rows * (p[1] + gap);
      const rest = goInto(q[1], H - used);
      if (rest === 0) continue;
      const all: { turnDeg: number; u: number; v: number; s: readonly [number, number] }[] = [];
      for (let r = 0; r < rows; r++)
        for (let c = 0; c < np; c++)
          all.push({ turnDeg: upright, u: c * (p[0] + gap), v: r * (p[1] + gap), s: p });
      for (let r = 0; r < rest; r++)
        for (let c = 0; c < nq; c++)
          all.push({ turnDeg: lying, u: c * (q[0] + gap), v: used + r * (q[1] + gap), s: q });
      if (all.length > MOST_COPIES || (count !== "fill" && all.length < count)) continue;
      const taken = count === "fill" ? all : all.slice(0, count);
      if (!taken.some((t) => t.turnDeg === lying)) continue;
      const [uMax, vMax] = [
        Math.max(...taken.map((t) => t.u + t.s[0])),
        Math.max(...taken.map((t) => t.v + t.s[1])),
      ];
      out.push({
        slots: taken.map((t) => ({
          board,
          turnDeg: t.turnDeg,
          x: clean(isTransposed ? t.v : t.u),
          y: clean(isTransposed ? t.u : t.v),
        })),
        widthMm: clean(isTransposed ? vMax : uMax),
        heightMm: clean(isTransposed ? uMax : vMax),
        across: "tabs",
        along: "tabs",
        how: "turned rows",
      });
    }
  };
  stack(false);
  stack(true);
  return out;
}

/**
 * Contacts that are bevelled face outward: one row, or two back to back, the other one turned by half a turn. No rail can
 * lie on those sides.
 */
export function outwardFields(
  d: PanelDesign,
  board: number,
  room: Room,
  count: number | "fill",
  turns: readonly number[],
  parting: Parting,
  gap: number,
): Field[] {
  const [edge] = d.outward;
  if (!edge || d.outward.length > 1) return [];
  const out: Field[] = [];
  for (const turnDeg of turns) {
    const facing = turnedSide(edge, turnDeg);
    if (facing !== "bottom" && facing !== "left") continue;
    const other = (turnDeg + 180) % 360;
    const isRow = facing === "bottom";
    const [w, h] = turnedSize(d, turnDeg);
    const [size, limit] = isRow ? [w, room.widthMm] : [h, room.heightMm];
    const [depth, deep] = isRow ? [h, room.heightMm] : [w, room.widthMm];
    const g = parting === "tabs" ? gap : 0;
    const most = Math.floor((limit + g + 1e-6) / (size + g));
    for (const rows of turns.includes(other) ? [1, 2] : [1]) {
      if (rows * depth + (rows - 1) * g > deep + 1e-6) continue;
      for (let n = 1; n <= most; n++) {
        if (count === "fill" ? n < most : n * rows < count || n * rows - count >= rows) continue;
        const wanted = count === "fill" ? n * rows : count;
        out.push({
          slots: Array.from({ length: wanted }, (_, k) => {
            const [i, r] = [k % n, Math.floor(k / n)];
            const [u, v] = [clean(i * (size + g)), clean(r * (depth + g))];
            return { board, turnDeg: r === 0 ? turnDeg : other, x: isRow ? u : v, y: isRow ? v : u };
          }),
          widthMm: clean(isRow ? n * size + (n - 1) * g : rows * depth + (rows - 1) * g),
          heightMm: clean(isRow ? rows * depth + (rows - 1) * g : n * size + (n - 1) * g),
          across: parting,
          along: parting,
          how: rows === 2 ? `${n} × 2, contacts outward` : `${n} in a row, contacts outward`,
        });
      }
    }
  }
  return out;
}

const ROUND = ["bottom", "right", "top", "left"] as const;

/** Where a side of the board looks after a quarter turn. */
export function turnedSide(side: (typeof ROUND)[number], turnDeg: number): (typeof ROUND)[number] {
  const quarters = (((Math.round(turnDeg / 90) % 4) + 4) % 4) as number;
  return ROUND[(ROUND.indexOf(side) + quarters) % 4]!;
}
