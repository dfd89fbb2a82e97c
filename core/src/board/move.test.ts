import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { readDrill } from "../drill/read.ts";
import type { Move } from "../findings.ts";
import { readLayer } from "../gerber/read.ts";
import { analyseLayer } from "./copper/copper.ts";
import { composeMoves, moveDrill, moveLayer, movePlacements, movePoints } from "./move.ts";

const aMove = fc
  .tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 }), fc.boolean())
  .map(([dxMm, dyMm, isMirrored]): Move => ({ dxMm, dyMm, ...(isMirrored ? { isMirrored } : {}) }));
const at = (x: number, y: number) => ({ x, y }) as never;

test("a move after another is both as one; none leaves everything as it is", () => {
  fc.assert(
    fc.property(aMove, aMove, (first, then) => {
      const once = movePoints([at(3, 5)], composeMoves(first, then));
      expect(once).toEqual(movePoints(movePoints([at(3, 5)], first), then));
      expect(movePoints([at(3, 5)], composeMoves(undefined, then))).toEqual(movePoints([at(3, 5)], then));
    }),
  );
  const points = [at(3, 5)];
  expect(movePoints(points, undefined)).toBe(points);
});

test("turned over, X runs the other way before it is shifted; angles run the other way too", () => {
  const over: Move = { dxMm: 10, dyMm: 1, isMirrored: true };
  const shift: Move = { dxMm: 10, dyMm: 1 };
  expect(movePoints([at(3, 5)], over)).toEqual([at(7, 6)]);
  expect(movePoints([at(3, 5)], shift)).toEqual([at(13, 6)]);
  const places = { parts: [{ ref: "U1", xMm: 3, yMm: 5, rotationDeg: 30, side: "top" }] } as never;
  expect(movePlacements(places, over).parts).toMatchObject([{ xMm: 7, yMm: 6, rotationDeg: 150 }]);
  expect(movePlacements(places, shift).parts).toMatchObject([{ xMm: 13, yMm: 6, rotationDeg: 30 }]);
  expect(movePlacements(places, undefined)).toBe(places);
});

test("holes, slots and copper lie where they were moved to, as large as before", () => {
  const drill = readDrill("M48\nMETRIC\nT1C1.0\n%\nT1\nX3.0Y5.0\nX8.0Y6.0G85X8.0Y9.0\nM30\n", "a.drl");
  const over: Move = { dxMm: 10, dyMm: 1, isMirrored: true };
  expect(moveDrill(drill, over).hits).toMatchObject([{ x: 7, y: 6, diameterMm: 1 }]);
  expect(moveDrill(drill, over).routs[0]!.points).toEqual([
    [2, 7],
    [2, 10],
  ]);
  expect(moveDrill(drill, undefined)).toBe(drill);
  // a rectangle, a quarter of a ring to the right and up from it, a triangle as a region
  const text =
    "%FSLAX46Y46*%%MOMM*%G75*%ADD10C,0.2*%%ADD11R,2X1*%D11*X0Y0D03*D10*X4000000Y0D02*G03X2000000Y2000000I-2000000J0D01*G01*" +
    "G36*X5000000Y5000000D02*X8000000D01*X5000000Y6000000D01*X5000000Y5000000D01*G37*M02*";
  const image = readLayer(new TextEncoder().encode(text), "a.gbr");
  const box = (move?: Move) => {
    const { solids } = analyseLayer(moveLayer(image, move), "a");
    return Array.from({ length: solids.count }, (_, k) =>
      Array.from(solids.box.slice(4 * k, 4 * k + 4), (v) => Math.round(v * 100) / 100 + 0),
    );
  };
  const plain = box();
  expect(box({ dxMm: 2, dyMm: 3 })).toEqual(plain.map(([a, b, c, d]) => [a! + 2, b! + 3, c! + 2, d! + 3]));
  expect(box({ dxMm: 0, dyMm: 0, isMirrored: true })).toEqual(
    plain.map(([a, b, c, d]) => [-c! + 0, b, -a! + 0, d]),
  );
});
