import type { PanelDesign } from "../spec.ts";
import { clean, type Field, MOST_COPIES, type Room, type Slot, turnedSize } from "./grid.ts";

/** Widths of the sheet that are tried. */
const MOST_WIDTHS = 40;

interface Piece {
  readonly board: number;
  readonly sizes: readonly { readonly turnDeg: number; readonly w: number; readonly h: number }[];
}

/**
 * Fields of several designs by their boxes: the largest first, each at the lowest place of the skyline where it goes in
 * the turn that leaves it lowest (bottom-left heuristic, Chazelle 1983). The smallest sheet of the widths tried.
 *
 * @param counts one of them may be "fill": as many of that design as still go on the sheet
 */
export function severalFields(
  designs: readonly PanelDesign[],
  room: Room,
  counts: readonly (number | "fill")[],
  turns: readonly (readonly number[])[],
  gap: number,
): Field[] {
  const piece = (board: number): Piece => ({
    board,
    sizes: [...new Set(turns[board]!.map((t) => ((t % 360) + 360) % 360))].map((turnDeg) => {
      const [w, h] = turnedSize(designs[board]!, turnDeg);
      return { turnDeg, w, h };
    }),
  });
  const kinds = designs.map((_, i) => piece(i));
  const fixed = counts
    .flatMap((c, i) => Array.from({ length: c === "fill" ? 1 : c }, () => kinds[i]!))
    .sort((a, b) => greatest(b) - greatest(a) || a.board - b.board);
  const filler = counts.indexOf("fill");
  if (fixed.length > MOST_COPIES) return [];
  const fields: Field[] = [];
  for (const width of widths(fixed, room, gap)) {
    const slots = laid(fixed, width, room.heightMm, gap);
    if (!slots) continue;
    if (filler >= 0 && Math.abs(width - room.widthMm) > 1e-6) continue;
    let all = slots;
    let pieces = fixed;
    while (filler >= 0 && all.length < MOST_COPIES) {
      const next = [...pieces, kinds[filler]!].sort((a, b) => greatest(b) - greatest(a) || a.board - b.board);
      const found = laid(next, width, room.heightMm, gap);
      if (!found) break;
      all = found;
      pieces = next;
    }
    fields.push(asField(all, kinds));
  }
  return fields
    .sort((a, b) => b.slots.length - a.slots.length || a.widthMm * a.heightMm - b.widthMm * b.heightMm)
    .slice(0, 3);
}

const greatest = (p: Piece) => Math.max(...p.sizes.map((s) => Math.max(s.w, s.h) + s.w * s.h * 1e-4));

function widths(pieces: readonly Piece[], room: Room, gap: number): number[] {
  const least = Math.max(0, ...pieces.map((p) => Math.min(...p.sizes.map((s) => s.w))));
  const all = new Set<number>([room.widthMm]);
  const first = pieces.map((p) => p.sizes.map((s) => s.w));
  for (const a of new Set(first.flat()))
    for (let n = 1; n * (a + gap) - gap <= room.widthMm; n++) {
      all.add(clean(n * (a + gap) - gap));
      for (const b of new Set(first.flat())) {
        const both = clean(n * (a + gap) + b);
        if (both <= room.widthMm) all.add(both);
      }
    }
  const list = [...all].filter((w) => w >= least - 1e-6).sort((a, b) => a - b);
  const step = Math.max(1, Math.ceil(list.length / MOST_WIDTHS));
  return list.filter((w, i) => i % step === 0 || w === room.widthMm);
}

/** All pieces by a skyline of steps [from, until, height]; undefined where they do not go in. */
function laid(pieces: readonly Piece[], width: number, height: number, gap: number): Slot[] | undefined {
  let sky: { x: number; w: number; y: number }[] = [{ x: 0, w: width + gap, y: 0 }];
  const slots: Slot[] = [];
  for (const p of pieces) {
    let best: { x: number; y: number; w: number; h: number; turnDeg: number } | undefined;
    for (const s of p.sizes)
      for (let i = 0; i < sky.length; i++) {
        const x = sky[i]!.x;
        if (x + s.w > width + 1e-6) break;
        let y = 0;
        let left = s.w + gap;
        for (let k = i; k < sky.length && left > 1e-9; left -= sky[k]!.w, k++) y = Math.max(y, sky[k]!.y);
        if (y + s.h > height + 1e-6) continue;
        if (
          !best ||
          y + s.h < best.y + best.h - 1e-9 ||
          (y + s.h < best.y + best.h + 1e-9 && x < best.x - 1e-9)
        )
          best = { x, y, w: s.w, h: s.h, turnDeg: s.turnDeg };
      }
    if (!best) return undefined;
    slots.push({ board: p.board, turnDeg: best.turnDeg, x: clean(best.x), y: clean(best.y) });
    sky = raised(sky, best.x, best.w + gap, best.y + best.h + gap);
  }
  return slots;
}

function raised(sky: readonly { x: number; w: number; y: number }[], x: number, w: number, y: number) {
  const out: { x: number; w: number; y: number }[] = [];
  for (const s of sky) {
    const [a, b] = [s.x, s.x + s.w];
    if (a < x) out.push({ x: a, w: Math.min(b, x) - a, y: s.y });
    if (b > x + w) out.push({ x: Math.max(a, x + w), w: b - Math.max(a, x + w), y: s.y });
  }
  out.push({ x, w, y });
  return out.filter((s) => s.w > 1e-9).sort((a, b) => a.x - b.x);
}

function asField(slots: readonly Slot[], kinds: readonly Piece[]): Field {
  let [w, h] = [0, 0];
  for (const s of slots) {
    const size = kinds[s.board]!.sizes.find((z) => z.turnDeg === s.turnDeg)!;
    w = Math.max(w, s.x + size.w);
    h = Math.max(h, s.y + size.h);
  }
  return {
    slots,
    widthMm: clean(w),
    heightMm: clean(h),
    across: "tabs",
    along: "tabs",
    how: "several designs",
  };
}

/** What one layout of several designs makes of a demand (domain.md 6.5). */
export interface MixedRun {
  readonly sheets: number;
  readonly made: readonly number[];
  readonly over: readonly number[];
}

/**
 * Sheets of one layout for a demand: P = maxᵢ ⌈Dᵢ/kᵢ⌉, overrun oᵢ = P·kᵢ − Dᵢ (EX 6.6).
 * @example mixedRun([30, 12, 5], [4, 2, 1]) // 8 sheets, over [2, 4, 3]
 */
export function mixedRun(demand: readonly number[], onSheet: readonly number[]): MixedRun {
  const sheets = Math.max(
    0,
    ...demand.map((d, i) =>
      d <= 0 ? 0 : onSheet[i]! > 0 ? Math.ceil(d / onSheet[i]!) : Number.POSITIVE_INFINITY,
    ),
  );
  const made = onSheet.map((k) => (k > 0 ? k * sheets : 0));
  return { sheets, made, over: made.map((m, i) => m - demand[i]!) };
}

/** A layout that may be ordered: what a sheet holds, and what so many sheets of it cost, each the same or by the number. */
export interface CoverLayout {
  readonly counts: readonly number[];
  readonly cost: number | ((sheets: number) => number);
}

/**
 * The cheapest numbers of sheets of several layouts that cover a demand: min Σ cⱼ(Pⱼ), Σ kᵢⱼPⱼ ≥ Dᵢ, whole numbers
 * (domain.md 6.5). Costs may begin with a set-up and fall with the number, as a house's do; more sheets than would do are
 * never looked at.
 * Depth-first over the layouts, bounded below by what the open design with the dearest share costs at its best layout and
 * number; proven when it ends.
 *
 * @returns undefined where a design is on no layout, or the search takes more than `most` steps
 * @example EX 6.7: Z(4,2,1) 10.00, X(6,0,0) 8.50, Y(2,3,2) 9.50 for (30,12,5) → [6, 1, 0], 68.50
 */
export function coverDemand(
  demand: readonly number[],
  layouts: readonly CoverLayout[],
  most = 2_000_000,
):
  | { readonly sheets: readonly number[]; readonly cost: number; readonly made: readonly number[] }
  | undefined {
  const costs = layouts.map(({ counts, cost }) => {
    const top = topOf(counts, demand);
    return Array.from({ length: top + 1 }, (_, n) =>
      n === 0 ? 0 : typeof cost === "number" ? n * cost : cost(n),
    );
  });
  // what one board of a design costs at least, wherever it lies
  const leastASheet = costs.map((list) =>
    list.reduce((least, c, n) => (n > 0 ? Math.min(least, c / n) : least), Number.POSITIVE_INFINITY),
  );
  const each = demand.map((_, i) =>
    Math.min(
      ...layouts.map((l, j) =>
        l.counts[i]! > 0 ? leastASheet[j]! / l.counts[i]! : Number.POSITIVE_INFINITY,
      ),
    ),
  );
  if (demand.some((d, i) => d > 0 && !Number.isFinite(each[i]!))) return undefined;
  let best: { sheets: number[]; cost: number } | undefined;
  let steps = 0;
  const sheets = layouts.map(() => 0);
  const bound = (left: readonly number[]) => Math.max(0, ...left.map((d, i) => (d > 0 ? d * each[i]! : 0)));
  const go = (j: number, left: readonly number[], cost: number): void => {
    if (++steps > most) return;
    if (cost + bound(left) >= (best?.cost ?? Number.POSITIVE_INFINITY) - 1e-9) return;
    if (left.every((d) => d <= 0)) {
      best = { sheets: [...sheets], cost };
      return;
    }
    if (j === layouts.length) return;
    const { counts } = layouts[j]!;
    for (let n = topOf(counts, left); n >= 0; n--) {
      sheets[j] = n;
      go(
        j + 1,
        left.map((d, i) => d - n * counts[i]!),
        cost + costs[j]![n]!,
      );
    }
    sheets[j] = 0;
  };
  go(0, demand, 0);
  if (!best || steps > most) return undefined;
  const found = best;
  return {
    sheets: found.sheets,
    cost: Math.round(found.cost * 1e6) / 1e6,
    made: demand.map((_, i) => layouts.reduce((n, l, j) => n + l.counts[i]! * found.sheets[j]!, 0)),
  };
}

/** Sheets of a layout beyond which no more of it is of any use. */
const topOf = (counts: readonly number[], left: readonly number[]): number =>
  Math.max(0, ...left.map((d, i) => (counts[i]! > 0 && d > 0 ? Math.ceil(d / counts[i]!) : 0)));
