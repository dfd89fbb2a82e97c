import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { rect, ringed, solved, spec } from "../designs.fixture.ts";
import { apart, laidOut } from "../shape/laid.ts";
import type { PanelDesign } from "../spec.ts";
import { Interlock, MOST_INTERLOCKED } from "./interlock.ts";
import { severalFields } from "./several.ts";

const ell = ringed("L", [0, 0, 80, 0, 80, 25, 40, 25, 40, 50, 0, 50]);
const tee = ringed("T", [0, 30, 20, 30, 20, 0, 40, 0, 40, 30, 60, 30, 60, 45, 0, 45]);
const wedge = ringed("wedge", [5, 5, 45, 5, 5, 35]);
const ALL = [0, 90, 180, 270];

/** The least gap between any two boards of a field, mm, and its size. */
function fieldOf(
  designs: readonly PanelDesign[],
  counts: readonly number[],
  room: { widthMm: number; heightMm: number },
  gap = 2,
) {
  const lock = new Interlock(
    designs,
    designs.map(() => ALL),
    gap,
  );
  const field = lock.field(counts, room);
  if (!field) return undefined;
  const places = field.slots.map((s, i) => {
    const [l] = laidOut(designs, [{ board: s.board, copy: i + 1, xMm: 0, yMm: 0, turnDeg: s.turnDeg }]);
    return {
      board: s.board,
      copy: i + 1,
      xMm: s.x - l!.box[0],
      yMm: s.y - l!.box[1],
      turnDeg: s.turnDeg,
    };
  });
  const laid = laidOut(designs, places);
  let least = Number.POSITIVE_INFINITY;
  laid.forEach((a, i) => {
    for (const b of laid.slice(i + 1)) least = Math.min(least, apart(a, b, 4 * gap).mm);
  });
  const within = laid.every(
    (l) =>
      l.box[0] >= -1e-6 &&
      l.box[1] >= -1e-6 &&
      l.box[2] <= field.widthMm + 1e-6 &&
      l.box[3] <= field.heightMm + 1e-6,
  );
  return { field, least, within };
}

test("a board lies in the other's corner, the gap between them and no more", () => {
  // 38 × 23 would just go into the notch of 40 × 25 with 2 mm to both edges; outlines are taken a hundredth larger
  const { field, least, within } = fieldOf([ell, rect(37.96, 22.96)], [1, 1], { widthMm: 80, heightMm: 60 })!;
  expect([field.widthMm, field.heightMm]).toEqual([80, 50]);
  expect(within).toBe(true);
  expect(least).toBeGreaterThanOrEqual(2 - 1e-6);
  expect(least).toBeLessThan(2.05);
  // a hair larger it does not
  const more = fieldOf([ell, rect(38.02, 23)], [1, 1], { widthMm: 80, heightMm: 100 })!;
  expect(more.field.heightMm).toBeGreaterThan(50);
});

test("whatever is asked for, boards keep their gap, lie within the field, and each is there as often as asked", () => {
  const designs = [ell, tee, wedge];
  const n = fc.integer({ min: 0, max: 3 });
  fc.assert(
    fc.property(
      fc.tuple(n, n, n).filter((c) => c.some((k) => k > 0)),
      fc.integer({ min: 90, max: 260 }),
      fc.integer({ min: 1, max: 6 }),
      (counts, widthMm, gap) => {
        const made = fieldOf(designs, counts, { widthMm, heightMm: 1000 }, gap)!;
        expect(counts.map((_, b) => made.field.slots.filter((s) => s.board === b).length)).toEqual(counts);
        expect(made.within).toBe(true);
        expect(made.field.widthMm).toBeLessThanOrEqual(widthMm + 0.1);
        expect(made.least).toBeGreaterThanOrEqual(gap - 1e-6);
      },
    ),
    { numRuns: 25 },
  );
});

test("each lies as low as it goes, then as far left, in whichever turn", () => {
  // 30 × 10 lies down beside the one before; upright it would stand higher
  const { field } = fieldOf([rect(30, 10)], [3], { widthMm: 64, heightMm: 100 })!;
  const at = field.slots.map((s) => [s.turnDeg % 180, s.x, s.y]);
  expect(at.map(([t]) => t)).toEqual([0, 0, 0]);
  expect(at[0]!.slice(1)).toEqual([0, 0]);
  expect(at[1]![2]).toBe(0);
  expect(at[2]![1]).toBe(0);
  expect(at[2]![2]).toBeCloseTo(12.02, 1);
  // half a millimetre lower is lower
  expect(fieldOf([rect(29.5, 30)], [1], { widthMm: 64, heightMm: 100 })!.field.heightMm).toBe(29.5);
  // where the room is low it is laid down, where it is narrow it stands
  expect(fieldOf([rect(30, 10)], [1], { widthMm: 29, heightMm: 100 })!.field.slots[0]!.turnDeg % 180).toBe(
    90,
  );
});

test("one of several may fill what is left, by boxes", () => {
  const l = solved([ell, tee], spec({ counts: [1, "fill"], turns: [ALL, ALL], separation: "tabs" }));
  expect(l.counts[0]).toBe(1);
  expect(l.counts[1]).toBeGreaterThan(3);
});

test("what does not go in is not laid, nor more boards than are laid by their outlines", () => {
  expect(fieldOf([ell], [1], { widthMm: 49, heightMm: 79 })).toBeUndefined();
  expect(fieldOf([ell], [1], { widthMm: 50, heightMm: 80 })!.field.slots[0]!.turnDeg % 180).toBe(90);
  expect(fieldOf([ell, tee], [3, 3], { widthMm: 120, heightMm: 100 })).toBeUndefined();
  const lock = new Interlock([rect(5, 5)], [[0]], 2);
  const wide = { widthMm: 400, heightMm: 400 };
  expect(lock.field([MOST_INTERLOCKED], wide)).toBeDefined();
  expect(lock.field([MOST_INTERLOCKED + 1], wide)).toBeUndefined();
});

test("a sheet of several irregular designs is smaller than one of their boxes, every board held", () => {
  const s = spec({ counts: [2, 2], turns: [ALL, ALL], separation: "tabs" });
  const l = solved([ell, tee], s);
  const room = { widthMm: 250 - 18, heightMm: 200 - 18 };
  const boxes = severalFields([ell, tee], room, [2, 2], [ALL, ALL], 2)[0]!;
  expect(l.counts).toEqual([2, 2]);
  expect(l.widthMm * l.heightMm).toBeLessThan(0.9 * (boxes.widthMm + 18) * (boxes.heightMm + 18));
  for (const p of l.places) expect(l.tabs.some((t) => t.between.includes(p.copy))).toBe(true);
});

test("boards of one design that no lattice brings on a sheet are laid one by one", () => {
  // an L of 50 × 30 with arms of 15 and 10: pairs head to tail make six on 88 × 126
  const l = ringed("L", [0, 0, 50, 0, 50, 10, 15, 10, 15, 30, 0, 30]);
  const on = (counts: number | "fill", w = 88, h = 126) =>
    solved([l], spec({ counts: [counts], rails: [], maxWidthMm: w, maxHeightMm: h, separation: "tabs" }));
  expect(on(8).counts).toEqual([8]);
  expect(on("fill").counts[0]).toBeGreaterThanOrEqual(8);
  // and on the same sheet the other way round
  expect(on(8, 126, 88).counts).toEqual([8]);
});
