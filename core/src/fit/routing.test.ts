import { expect, test } from "@jest/globals";
import { emptyMeasure } from "../board/measure/measure-keys.ts";
import type { Measure } from "../board/measure-document.ts";
import { routingOf } from "./routing.ts";

const board = (rings: number[][], more: Partial<Measure> = {}): Measure =>
  ({ ...emptyMeasure([]), findings: [], outline: { cutouts: 0, closed: true, rings }, ...more }) as Measure;
// 40 × 30 with a notch of 6 × 6 at the upper right: one inner corner
const L = [0, 0, 40, 0, 40, 24, 34, 24, 34, 30, 0, 30];

test("a sharp inner corner keeps (1 − π/4) · r² of the cutter: 0.2146 mm² at 2 mm, 0.0343 at 0.8", () => {
  const two = routingOf(board([L]), 2)!;
  expect(two.left).toHaveLength(1);
  expect(two.left[0]!.areaMm2).toBeCloseTo(0.2146, 2);
  expect([two.left[0]!.x, two.left[0]!.y].map((v) => Math.round(v))).toEqual([34, 24]);
  expect(routingOf(board([L]), 0.8)!.left[0]!.areaMm2).toBeCloseTo(0.0343, 2);
  expect(two.thin).toEqual([]);
  // a rectangle has no inner corner, whichever way round it is drawn
  for (const ring of [
    [0, 0, 40, 0, 40, 30, 0, 30],
    [0, 30, 40, 30, 40, 0, 0, 0],
  ])
    expect(routingOf(board([ring]), 2)!.left).toEqual([]);
});

test("a slit narrower than the cutter stays standing whole, and a cut-out has four inner corners", () => {
  // 1.5 mm wide, 10 deep, from the upper edge
  const slit = [0, 0, 40, 0, 40, 30, 21.5, 30, 21.5, 20, 20, 20, 20, 30, 0, 30];
  const [left] = routingOf(board([slit]), 2)!.left;
  expect(left!.areaMm2).toBeGreaterThan(14);
  expect(routingOf(board([slit]), 1)!.left.map((p) => p.areaMm2)).toEqual([
    expect.closeTo(0.0537, 2),
    expect.closeTo(0.0537, 2),
  ]);
  const hole = [10, 10, 20, 10, 20, 20, 10, 20];
  expect(routingOf(board([[0, 0, 40, 0, 40, 30, 0, 30], hole]), 2)!.left).toHaveLength(4);
});

test("a neck narrower than 2 mm is thin; corners are not", () => {
  // two halves joined by a bar of 1.5 × 4
  const bar = [0, 0, 10, 0, 10, 5, 14, 5, 14, 0, 24, 0, 24, 12, 14, 12, 14, 6.5, 10, 6.5, 10, 12, 0, 12];
  const { thin } = routingOf(board([bar]), 0.8)!;
  expect(thin).toHaveLength(1);
  expect(thin[0]!.areaMm2).toBeCloseTo(6, 0);
  expect(Math.round(thin[0]!.x)).toBe(12);
});

test("tabs sit on straight sides of 5 mm and more, and never on the edge that is bevelled", () => {
  expect(
    routingOf(board([L]), 2)!
      .sides.map((s) => s.join(" "))
      .sort(),
  ).toEqual(["0 0 40 0", "0 30 0 0", "34 24 34 30", "34 30 0 30", "40 0 40 24", "40 24 34 24"].sort());
  const contacts = { count: 4, pitchMm: 2, widthMm: 1, lengthMm: 4, setbackMm: 1, edge: "bottom" as const };
  const sides = routingOf(board([L], { edgeContacts: { top: contacts } }), 2)!.sides;
  expect(sides).toHaveLength(5);
  expect(sides.some(([, ay, , by]) => ay === 0 && by === 0)).toBe(false);
  expect(routingOf(board([[0, 0, 4.9, 0, 4.9, 4.9, 0, 4.9]]), 2)!.sides).toEqual([]);
  // a side of a cut-out holds no tab
  expect(
    routingOf(
      board([
        [0, 0, 40, 0, 40, 30, 0, 30],
        [10, 10, 20, 10, 20, 20, 10, 20],
      ]),
      2,
    )!.sides,
  ).toHaveLength(4);
});

test("slots and paths of the drill files narrower than the cutter; nothing without an outline", () => {
  const m = board([L], {
    slots: [
      { widthMm: 1.7, lengthMm: 8, plated: false, from: [5, 5], to: [9, 5] },
      { widthMm: 2, lengthMm: 8, plated: false, from: [5, 9], to: [9, 9] },
    ],
    routedPaths: [
      {
        widthMm: 1,
        plated: false,
        points: [
          [20, 20],
          [22, 20],
        ],
      },
    ],
  });
  expect(routingOf(m, 2)!.narrowSlots).toEqual([
    { widthMm: 1.7, x: 7, y: 5 },
    { widthMm: 1, x: 20, y: 20 },
  ]);
  expect(routingOf({ ...m, outline: { cutouts: 0, closed: false } } as Measure, 2)).toBeUndefined();
});
