import { expect, test } from "@jest/globals";
import { readBoard } from "../board/read/read.ts";
import { drawSide } from "./drawing.ts";
import { boardSvg } from "./picture.ts";

const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
const nm = (v: number) => Math.round(v * 1e6);
const line = (x1: number, y1: number, x2: number, y2: number) =>
  `X${nm(x1)}Y${nm(y1)}D02*\nG01X${nm(x2)}Y${nm(y2)}D01*\n`;
const bytes = (text: string) => new TextEncoder().encode(text);
/** A board of 10 × 6 mm: a track of 0.4 from (2, 3) to (7, 3), a mask opening at its end, a line of silkscreen, a hole. */
const set = readBoard([
  { path: "a.gtl", bytes: bytes(`${HEAD}%ADD10C,0.4*%\nD10*\n${line(2, 3, 7, 3)}M02*\n`) },
  { path: "a.gts", bytes: bytes(`${HEAD}%ADD10C,1*%\nD10*\nX${nm(7)}Y${nm(3)}D03*\nM02*\n`) },
  { path: "a.gto", bytes: bytes(`${HEAD}%ADD10C,0.2*%\nD10*\n${line(1, 5, 4, 5)}M02*\n`) },
  {
    path: "a.gko",
    bytes: bytes(
      `${HEAD}%ADD10C,0.1*%\nD10*\n${line(0, 0, 10, 0)}${line(10, 0, 10, 6)}${line(10, 6, 0, 6)}${line(0, 6, 0, 0)}M02*\n`,
    ),
  },
  { path: "a.drl", bytes: bytes("M48\nMETRIC\nT1C1.000\n%\nT1\nX9.0Y1.0\nM30\n") },
]);
const COLOURS = {
  mask: "#010101",
  copperUnderMask: "#020202",
  finish: "#030303",
  laminate: "#040404",
  legend: "#050505",
  edge: "#060606",
};

test("a side as a vector picture: size, the track with round ends, the hole, what lies under what", () => {
  const svg = boardSvg(set, "top", COLOURS)!;
  expect(svg).toContain('width="12mm" height="8mm" viewBox="-1 -7 12 8"');
  expect(svg).toContain("<title>top side, 10 × 6 mm</title>");
  // the stroke's outline: 0.2 above and below its middle, closed by half circles of 0.2
  expect(svg).toContain("M2 2.8L7 2.8A0.2 0.2 0 0 1 7 3.2L2 3.2A0.2 0.2 0 0 1 2 2.8Z");
  expect(svg).toContain('<circle cx="9" cy="1" r="0.5" stroke="none"/>');
  // mask, copper under it, then laminate and finish in the opening, then ink
  const order = [
    COLOURS.mask,
    COLOURS.copperUnderMask,
    COLOURS.laminate,
    COLOURS.finish,
    COLOURS.legend,
    COLOURS.edge,
  ];
  const places = order.map((c) => svg.indexOf(c));
  expect(places).toEqual([...places].sort((a, b) => a - b));
  expect(Math.min(...places)).toBeGreaterThan(0);
  // the bottom is seen from below
  expect(boardSvg(set, "bottom", COLOURS)).toContain("translate(10 0) scale(-1 1)");
  expect(boardSvg({ ...set, files: [] }, "top", COLOURS)).toBeUndefined();
});

test("without an outline a side is as large as its copper; without either there is nothing to draw", () => {
  const pads = (list: readonly (readonly [number, number])[]) =>
    readBoard([
      {
        path: "a.gtl",
        bytes: bytes(
          `${HEAD}%ADD10R,2X1*%\nD10*\n${list.map(([x, y]) => `X${nm(x)}Y${nm(y)}D03*\n`).join("")}M02*\n`,
        ),
      },
    ]);
  const size = (list: readonly (readonly [number, number])[]) =>
    /viewBox="([^"]*)"/.exec(boardSvg(pads(list), "top", COLOURS) ?? "")?.[1];
  // from the leftmost pad's left to the rightmost one's right, and a millimetre around; y runs downward
  expect(size([[5, 7]])).toBe("3 -8.5 4 3");
  expect(
    size([
      [5, 7],
      [-20, 3],
      [11, -9],
      [4, 30],
    ]),
  ).toBe("-22 -31.5 35 42");
  expect(
    size([
      [11, -9],
      [4, 30],
      [-20, 3],
      [5, 7],
    ]),
  ).toBe("-22 -31.5 35 42");
  expect(size([])).toBeUndefined();
  const holes = readBoard([{ path: "a.drl", bytes: bytes("M48\nMETRIC\nT1C1.000\n%\nT1\nX9.0Y1.0\nM30\n") }]);
  expect(boardSvg(holes, "top", COLOURS)).toBeUndefined();
});

test("line art of a sheet: openings, silkscreen by width, holes on the board; the bottom mirrored about its middle", () => {
  const top = drawSide(set, "top")!;
  expect(top.box).toEqual([0, 0, 10, 6]);
  expect(top.legend).toEqual([{ width: 0.2, lines: [1, 5, 4, 5] }]);
  expect(top.holes).toEqual([{ x: 9, y: 1, d: 1 }]);
  expect(top.openings).toHaveLength(1);
  const bottom = drawSide(set, "bottom")!;
  expect(bottom.holes).toEqual([{ x: 1, y: 1, d: 1 }]);
  // about its middle at 5: a corner at (0, 0) lies at (10, 0), what is asymmetric is seen
  const corners = (d: typeof top) =>
    d.outline[0]!.flatMap((v, i, l) => (i % 2 === 0 ? [`${v} ${l[i + 1]}`] : []));
  expect(new Set(corners(bottom))).toEqual(new Set(["0 0", "10 0", "10 6", "0 6"]));
  expect(corners(bottom)[0]).toBe(corners(top)[0]!.replace(/^(\d+)/, (x) => String(10 - Number(x))));
  expect([bottom.side, bottom.box, bottom.openings, bottom.legend]).toEqual([
    "bottom",
    [0, 0, 10, 6],
    [],
    [],
  ]);
  const xs = top.openings[0]!.filter((_, i) => i % 2 === 0);
  expect([Math.min(...xs), Math.max(...xs)]).toEqual([expect.closeTo(6.5, 2), expect.closeTo(7.5, 2)]);
  expect(drawSide({ ...set, files: set.files.filter((f) => f.role !== "profile") }, "top")).toBeUndefined();
});

test("of the silkscreen strokes are drawn, by their width; slots too, and holes beside the board are none of it", () => {
  const more = readBoard([
    ...["a.gko", "a.gtl"].map((path) => ({
      path,
      bytes: bytes(
        path === "a.gko"
          ? `${HEAD}%ADD10C,0.1*%\nD10*\n${line(0, 0, 10, 0)}${line(10, 0, 10, 6)}${line(10, 6, 0, 6)}${line(0, 6, 0, 0)}M02*\n`
          : `${HEAD}%ADD10C,0.4*%\nD10*\n${line(2, 3, 7, 3)}M02*\n`,
      ),
    })),
    {
      path: "a.gto",
      bytes: bytes(
        `${HEAD}%ADD10C,0.2*%\n%ADD11C,0.3*%\n%ADD12R,0.5X0.5*%\nD10*\n${line(1, 5, 4, 5)}D11*\n${line(1, 4, 2, 4)}D10*\n${line(5, 5, 6, 5)}X${nm(3)}Y${nm(1)}D03*\nM02*\n`,
      ),
    },
    {
      path: "a.drl",
      bytes: bytes("M48\nMETRIC\nT1C1.000\n%\nT1\nX9.0Y1.0\nX19.0Y1.0\nX2.0Y1.0G85X4.0Y1.0\nM30\n"),
    },
  ]);
  const top = drawSide(more, "top")!;
  expect(top.legend).toEqual([
    { width: 0.2, lines: [1, 5, 4, 5, 5, 5, 6, 5] },
    { width: 0.3, lines: [1, 4, 2, 4] },
  ]);
  expect(top.holes).toEqual([{ x: 9, y: 1, d: 1 }]);
  expect(top.slots).toEqual([
    {
      points: [
        [2, 1],
        [4, 1],
      ],
      d: 1,
    },
  ]);
  expect(drawSide(more, "bottom")!.slots).toEqual([
    {
      points: [
        [8, 1],
        [6, 1],
      ],
      d: 1,
    },
  ]);
  expect(top.openings).toEqual([]);
});
