import { expect, test } from "@jest/globals";
import { readLayer } from "../../gerber/read.ts";
import { chainOutline } from "./outline.ts";

const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n%ADD10C,0.1*%\n%ADD11C,4*%\n%ADD12R,6X2*%\nD10*\n";
const outline = (body: string) =>
  chainOutline(readLayer(new TextEncoder().encode(`${HEAD}${body}M02*\n`), "edge.gbr"), "edge.gbr");
const nm = (v: number) => Math.round(v * 1e6);
const to = (x: number, y: number, op = 1) => `X${nm(x)}Y${nm(y)}D0${op}*\n`;
const line = (...points: [number, number][]) =>
  `G01*\n${points.map(([x, y], i) => to(x, y, i === 0 ? 2 : 1)).join("")}`;
const frame = (x: number, y: number, w: number, h: number) =>
  line([x, y], [x + w, y], [x + w, y + h], [x, y + h], [x, y]);
/** Part of a circle from one angle to another, degrees; clockwise where it runs down. */
const arc = (cx: number, cy: number, r: number, from: number, end: number) => {
  const at = (a: number): [number, number] => [
    cx + r * Math.cos((a * Math.PI) / 180),
    cy + r * Math.sin((a * Math.PI) / 180),
  ];
  const [[x1, y1], [x2, y2]] = [at(from), at(end)];
  return `${to(x1, y1, 2)}${end > from ? "G03" : "G02"}*\nX${nm(x2)}Y${nm(y2)}I${nm(cx - x1)}J${nm(cy - y1)}D01*\n`;
};
const region = (body: string) => `G36*\n${body}G37*\n`;
const CIRCLE = Math.PI * 100;

// a circle of radius 10 about 20, 15: 20 × 20 mm and π·100 mm² however it is drawn
test.each([
  ["one full turn from the right", arc(20, 15, 10, 0, 360)],
  ["one full turn from an odd angle", arc(20, 15, 10, 37, 397)],
  ["one full turn clockwise", arc(20, 15, 10, 200, -160)],
  ["two halves", arc(20, 15, 10, 0, 180) + arc(20, 15, 10, 180, 360)],
  ["two halves from below", arc(20, 15, 10, -90, 90) + arc(20, 15, 10, 90, 270)],
  ["two halves, one each way", arc(20, 15, 10, 0, 180) + arc(20, 15, 10, 0, -180)],
  ["two unequal parts", arc(20, 15, 10, 10, 260) + arc(20, 15, 10, 260, 370)],
  [
    "three parts, one backwards",
    arc(20, 15, 10, 0, 120) + arc(20, 15, 10, 240, 120) + arc(20, 15, 10, 240, 360),
  ],
  ["four quarters", [0, 90, 180, 270].map((a) => arc(20, 15, 10, a, a + 90)).join("")],
  [
    "eight eighths from an odd angle",
    Array.from({ length: 8 }, (_, i) => arc(20, 15, 10, 11 + i * 45, 56 + i * 45)).join(""),
  ],
  ["two halves, each drawn twice", (arc(20, 15, 10, 0, 180) + arc(20, 15, 10, 180, 360)).repeat(2)],
  [
    "four quarters in the single-quadrant mode",
    `G74*\n${to(30, 15, 2)}G03*\n${[
      [20, 25, 10, 0],
      [10, 15, 0, 10],
      [20, 5, 10, 0],
      [30, 15, 0, 10],
    ]
      .map(([x, y, i, j]) => `X${nm(x!)}Y${nm(y!)}I${nm(i!)}J${nm(j!)}D01*\n`)
      .join("")}`,
  ],
])("a circle drawn as %s is one circle", (_, body) => {
  const o = outline(body);
  expect(o).toMatchObject({ isClosed: true, cutouts: 0, findings: [] });
  expect([o.widthMm, o.heightMm]).toEqual([expect.closeTo(20, 4), expect.closeTo(20, 4)]);
  expect(o.areaMm2).toBeCloseTo(CIRCLE, 1);
});

test.each(Array.from({ length: 16 }, (_, i) => i * 22.5))(
  "an arc that bulges over %s degrees reaches as far as its circle does there",
  (angle) => {
    // a lens: the arc of 100 degrees about that direction, closed by its chord
    const [a, b] = [angle - 50, angle + 50];
    const at = (deg: number): [number, number] => [
      10 * Math.cos((deg * Math.PI) / 180),
      10 * Math.sin((deg * Math.PI) / 180),
    ];
    for (const body of [arc(0, 0, 10, a, b) + line(at(b), at(a)), arc(0, 0, 10, b, a) + line(at(b), at(a))]) {
      const o = outline(body);
      // by many points along it
      const xs = Array.from({ length: 20_001 }, (_, i) => at(a + (i * 100) / 20_000));
      const size = (k: 0 | 1) => Math.max(...xs.map((p) => p[k])) - Math.min(...xs.map((p) => p[k]));
      expect(o.widthMm).toBeCloseTo(size(0), 5);
      expect(o.heightMm).toBeCloseTo(size(1), 5);
    }
  },
);

// a board of 40 × 30 mm: what is cut out of it, however it is drawn, and its area
test.each<[string, string, number, number]>([
  ["nothing", frame(0, 0, 40, 30), 0, 1200],
  ["a frame inside the frame", frame(0, 0, 40, 30) + frame(10, 10, 5, 4), 1, 1180],
  ["a disc flashed into it", `${frame(0, 0, 40, 30)}D11*\n${to(20, 15, 3)}`, 1, 1200 - Math.PI * 4],
  ["a bar flashed into it", `${frame(0, 0, 40, 30)}D12*\n${to(20, 15, 3)}`, 1, 1188],
  ["a region in the frame", frame(0, 0, 40, 30) + region(frame(10, 10, 5, 4)), 1, 1180],
  ["the board as a region, nothing cut", region(frame(0, 0, 40, 30)), 0, 1200],
  [
    "the board as a region, a clear region in it",
    `${region(frame(0, 0, 40, 30))}%LPC*%\n${region(frame(10, 10, 5, 4))}`,
    1,
    1180,
  ],
  [
    "the board as a region, a clear flash in it",
    `${region(frame(0, 0, 40, 30))}%LPC*%\nD12*\n${to(20, 15, 3)}`,
    1,
    1188,
  ],
  [
    "the board as one contour that is led in to its hole and back",
    region(
      line(
        [0, 0],
        [40, 0],
        [40, 30],
        [0, 30],
        [0, 12],
        [10, 12],
        [10, 14],
        [15, 14],
        [15, 10],
        [10, 10],
        [10, 12],
        [0, 12],
        [0, 0],
      ),
    ),
    1,
    1180,
  ],
  [
    "two regions that lie over each other",
    region(frame(0, 0, 30, 30)) + region(frame(20, 0, 20, 30)),
    0,
    1200,
  ],
  [
    "a clear region that reaches over the edge",
    `${region(frame(0, 0, 40, 30))}%LPC*%\n${region(frame(35, 10, 10, 4))}`,
    0,
    1180,
  ],
  [
    "a hole of two half circles",
    frame(0, 0, 40, 30) + arc(20, 15, 3, 0, 180) + arc(20, 15, 3, 180, 360),
    1,
    1200 - Math.PI * 9,
  ],
])("%s is read as the final image shows it", (_, body, cutouts, area) => {
  const o = outline(body);
  expect(o).toMatchObject({ isClosed: true, cutouts, widthMm: 40, heightMm: 30, findings: [] });
  expect(o.areaMm2).toBeCloseTo(area, 1);
});

test("a cut-out that does not close is an error, a line by itself a caution", () => {
  const open = outline(frame(0, 0, 40, 30) + line([10, 10], [15, 10], [15, 14], [10, 14], [10, 11]));
  expect(open.findings).toMatchObject([{ tag: "outline-stray", level: "error" }]);
  expect(open.findings[0]!.text).toContain("may be missing on the board");
  const stray = outline(frame(0, 0, 40, 30) + line([10, 10], [20, 10]));
  expect(stray.findings).toMatchObject([{ tag: "outline-stray", level: "warning" }]);
});
