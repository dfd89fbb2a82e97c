import { expect, test } from "@jest/globals";
import { readLayer } from "../../gerber/read.ts";
import { slotKeys } from "../measure/measure-keys.ts";
import { analyseLayer } from "./copper.ts";
import { openingsOf } from "./paste.ts";

const layer = (body: string) =>
  analyseLayer(
    readLayer(
      new TextEncoder().encode(`%FSLAX46Y46*%\n%MOMM*%\nG75*\n%ADD10R,1X2*%\n%ADD11C,0.5*%\n${body}M02*\n`),
      "p.gbr",
    ),
    "paste",
  );
const nm = (v: number) => Math.round(v * 1e6);
const at = (x: number, y: number) => `X${nm(x)}Y${nm(y)}`;
const area = (x0: number, y0: number, x1: number, y1: number) =>
  `G36*\n${at(x0, y0)}D02*\nG01*\n${[
    [x1, y0],
    [x1, y1],
    [x0, y1],
    [x0, y0],
  ]
    .map(([x, y]) => `${at(x!, y!)}D01*\n`)
    .join("")}G37*\n`;

test("openings stand at their middles: flashed, drawn as areas, and pieces that touch as one", () => {
  const found = openingsOf(
    layer(
      // outlines are flattened to half a micrometre; a flash 1 × 2 at 3, 4; an area 2 × 1 about 11, 20.5; an area 3 × 1 about 31.5, 7.5; a stroke of 0.5 from 40 to 42
      `D10*\n${at(3, 4)}D03*\n${area(10, 20, 12, 21)}${area(30, 7, 33, 8)}D11*\n${at(40, 1)}D02*\n${at(42, 1)}D01*\n`,
    ),
  );
  const told = found.map((o) =>
    [o.x, o.y, o.areaMm2, o.widthMm, o.lengthMm].map((v) => Number(v.toFixed(2))),
  );
  expect(told.sort((a, b) => a[0]! - b[0]!)).toEqual([
    [3, 4, 2, 1, 2],
    [11, 20.5, 2, 1, 2],
    [31.5, 7.5, 3, 1, 3],
    [41, 1, expect.closeTo(2 * 0.5 + Math.PI * 0.25 ** 2, 2), 0.5, 2.5],
  ]);
});

test("a slot is as long as its ends are apart, and its width; a routed path keeps its points", () => {
  const rout = { widthMm: 1, plated: true } as const;
  expect(
    slotKeys([
      {
        ...rout,
        isSlot: true,
        points: [
          [1, 2],
          [4, 6],
        ],
      },
      {
        ...rout,
        isSlot: false,
        points: [
          [0, 0],
          [9, 0],
          [9, 9],
        ],
      },
    ]),
  ).toEqual({
    slots: [{ widthMm: 1, lengthMm: 6, plated: true, from: [1, 2], to: [4, 6] }],
    routedPaths: [
      {
        widthMm: 1,
        plated: true,
        points: [
          [0, 0],
          [9, 0],
          [9, 9],
        ],
      },
    ],
  });
});

test("an obround flashed is as large as its formula says, at any turn; so is what is one only as drawn", () => {
  const figures = (text: string) => {
    const {
      x: _x,
      y: _y,
      ...o
    } = openingsOf(analyseLayer(readLayer(new TextEncoder().encode(text), "p.gbr"), "paste"))[0]!;
    return [o.areaMm2, o.perimeterMm, o.widthMm, o.lengthMm].map((v) => Math.round(v * 1e3) / 1e3);
  };
  // 3 by 1: two halves of a disc of 1 and a square of 2 between them
  const want = [2 + Math.PI / 4, 4 + Math.PI, 1, 3].map((v) => Math.round(v * 1e3) / 1e3);
  const head = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n%ADD10O,3X1*%\n";
  for (const turn of ["", "%LR90*%\n", "%LR30*%\n"])
    expect(figures(`${head}${turn}D10*\n${at(5, 7)}D03*\nM02*\n`)).toEqual(want);
  // a disc with a hole in its middle: what is inside counts as edge
  const [area, around] = figures("%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,2X1*%\nD10*\nX0Y0D03*\nM02*\n");
  expect([area, around]).toEqual([expect.closeTo((3 * Math.PI) / 4, 1), expect.closeTo(3 * Math.PI, 1)]);
});
