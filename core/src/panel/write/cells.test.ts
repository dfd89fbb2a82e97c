import { expect, test } from "@jest/globals";
import { signedArea } from "../../geometry/polygon.ts";
import { readLayer } from "../../gerber/read.ts";
import { plainBytes } from "../../gerber/write.ts";
import type { PanelPlace } from "../spec.ts";
import { Cell, objectBox, withoutHoles } from "./cells.ts";
import { gridOf } from "./write.ts";

const image = (body: string) =>
  readLayer(
    plainBytes(`%FSLAX33Y33*%\n%MOMM*%\n%ADD10C,1*%\n%ADD11R,2X1*%\nG75*\nG01*\n${body}M02*\n`),
    "a.gbr",
  );
const area = (rings: readonly (readonly number[])[]) => rings.reduce((n, r) => n + signedArea(r), 0);
const square = (x0: number, y0: number, x1: number, y1: number) => [x0, y0, x1, y0, x1, y1, x0, y1];

test("of what is drawn over a board's edge what lies in its cell is kept, the rest is not", () => {
  // 10 by 8, grown by one
  const cell = new Cell(square(0, 0, 10, 8), 1);
  const shares = cell.sharesOf(
    image(
      // inside; on the edge of the cell; half over its left edge; outside; a stroke over the corner; nothing at all
      "D11*\nX5000Y4000D03*\nX8000Y8500D03*\nX-1000Y4000D03*\nX13000Y4000D03*\nD10*\nX9000Y4000D02*\nX13000Y4000D01*\nG36*\nX5000Y5000D02*\nX6000Y5000D01*\nX5000Y5000D01*\nG37*\n",
    ),
  );
  expect(shares.map((s) => (typeof s === "string" ? s : Math.round(area(s) * 1e3) / 1e3))).toEqual([
    "whole",
    "whole",
    1,
    "none",
    // from x 9 to 11: half a disc of 1 and a bar of 2
    expect.closeTo(2 + Math.PI / 8, 2),
  ]);
});

test("a cell of another shape than a rectangle looks at its edges", () => {
  const ell = new Cell([0, 0, 40, 0, 40, 10, 10, 10, 10, 30, 0, 30], 0);
  expect([
    ell.holds([1, 1, 39, 9]),
    ell.holds([1, 1, 9, 29]),
    // all corners inside, and its middle beside the L
    ell.holds([1, 1, 11, 11]),
    ell.holds([12, 12, 14, 14]),
    ell.holds([-1, 1, 5, 5]),
  ]).toEqual([true, true, false, false, false]);
  const u = new Cell([0, 0, 30, 0, 30, 20, 20, 20, 20, 10, 10, 10, 10, 20, 0, 20], 0);
  expect([u.holds([2, 12, 28, 18]), u.holds([2, 2, 28, 9]), u.has(15, 15), u.has(5, 15)]).toEqual([
    false,
    true,
    false,
    true,
  ]);
});

test("an area with holes is cut into pieces without any, and none of it is lost or doubled", () => {
  const outer = square(0, 0, 10, 10);
  const hole = (x: number, y: number) => [...square(x, y, x + 1, y + 2)];
  const clockwise = (r: readonly number[]) =>
    r.flatMap((_, i) => (i % 2 === 0 ? [r[r.length - 2 - i]!, r[r.length - 1 - i]!] : []));
  const pieces = (...holes: number[][]) => withoutHoles([outer, ...holes.map(clockwise)]);
  expect(withoutHoles([])).toEqual([]);
  expect(pieces()).toEqual([outer]);
  for (const holes of [[hole(2, 3)], [hole(2, 3), hole(2, 7)], [hole(1, 1), hole(4, 4), hole(8, 7)]]) {
    const parts = pieces(...holes);
    expect(area(parts)).toBeCloseTo(100 - 2 * holes.length, 6);
    expect(parts.every((r) => signedArea(r) > 0)).toBe(true);
  }
  // cut through the middle of the one hole: two halves
  expect(
    pieces(hole(2, 3))
      .map((r) => signedArea(r))
      .sort((a, b) => a - b),
  ).toEqual([24, 74]);
});

test("the box of what is painted: a stamp, a stroke, an arc by its circle, an area", () => {
  const i = image(
    "D11*\nX5000Y4000D03*\nD10*\nX9000Y4000D02*\nX7000Y6000D01*\nX2000Y0D02*\nG03X0Y2000I-2000J0D01*\nG01*\nG36*\nX5000Y5000D02*\nX6000Y5000D01*\nX6000Y9000D01*\nX5000Y5000D01*\nG37*\n",
  );
  expect([0, 1, 2, 3].map((k) => objectBox(i, k).map((v) => Math.round(v * 1e6) / 1e6))).toEqual([
    [4, 3.5, 6, 4.5],
    [6.5, 3.5, 9.5, 6.5],
    [-2.5, -2.5, 2.5, 2.5],
    [5, 5, 6, 9],
  ]);
});

const at = (...list: readonly (readonly [number, number, number?])[]): PanelPlace[] =>
  list.map(([xMm, yMm, turnDeg = 0], i) => ({ board: 0, copy: i + 1, xMm, yMm, turnDeg }));
test.each<[string, PanelPlace[], object | undefined]>([
  ["none", [], undefined],
  ["one", at([3, 4]), { nx: 1, ny: 1, stepX: 0, stepY: 0, first: { xMm: 3, yMm: 4 } }],
  ["a row", at([3, 4], [13, 4], [23, 4]), { nx: 3, ny: 1, stepX: 10, stepY: 0, first: { copy: 1 } }],
  [
    "rows, in any order",
    at([13, 9], [3, 4], [13, 4], [3, 9], [3, 14], [13, 14]),
    { nx: 2, ny: 3, stepX: 10, stepY: 5, first: { copy: 2 } },
  ],
  ["turned all alike", at([3, 4, 90], [13, 4, 90]), { nx: 2, first: { turnDeg: 90 } }],
  ["turned otherwise", at([3, 4, 90], [13, 4, 270]), undefined],
  ["columns at uneven steps", at([3, 4], [13, 4], [24, 4]), undefined],
  ["rows at uneven steps", at([3, 4], [3, 9], [3, 15]), undefined],
  ["one missing in a corner", at([3, 4], [13, 4], [3, 9]), undefined],
  ["two on one place, and one missing", at([3, 4], [13, 4], [3, 9], [3, 4]), undefined],
])("places that are written as a grid: %s", (_, places, grid) => {
  if (grid) expect(gridOf(places)).toMatchObject(grid);
  else expect(gridOf(places)).toBeUndefined();
});
