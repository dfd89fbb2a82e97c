import { expect, test } from "@jest/globals";
import { readLayer } from "../gerber/read.ts";
import { analyseLayer } from "./copper.ts";
import { slotKeys } from "./measure-keys.ts";
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
