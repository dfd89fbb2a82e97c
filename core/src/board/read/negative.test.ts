import { expect, test } from "@jest/globals";
import { clipAreas } from "../../geometry/clip.ts";
import { signedArea } from "../../geometry/polygon.ts";
import type { LayerImage } from "../../gerber/image.ts";
import { readLayer } from "../../gerber/read.ts";
import { ringsOf, shapesOf } from "../../gerber/shapes.ts";
import { plainBytes } from "../../gerber/write.ts";
import { positiveOf } from "./negative.ts";

/** A disc of 1 at 2/3, a triangle of 2 by 2 at 10/5, a stroke of 0.2 from 4/8 to 6/8; then a disc of 0.5 cleared at 2/3. */
const IMAGE = readLayer(
  plainBytes(
    "%FSLAX33Y33*%\n%MOMM*%\n%ADD10C,1*%\n%ADD11C,0.2*%\n%ADD12C,0.5*%\n%TA.AperFunction,Conductor*%\n%TD*%\nD10*\nX2000Y3000D03*\nG36*\nX10000Y5000D02*\nG01X12000Y5000D01*\nX10000Y7000D01*\nX10000Y5000D01*\nG37*\nD11*\nX4000Y8000D02*\nX6000Y8000D01*\n%LPC*%\nD12*\nX2000Y3000D03*\nM02*\n",
  ),
  "a.gbr",
);
const PI = Math.PI;
const DRAWN = PI / 4 - PI / 16 + 2 + 0.4 + PI / 100;
const painted = (image: LayerImage) => shapesOf(image).flatMap((s) => ringsOf(s));
const union = (image: LayerImage) => clipAreas("union", painted(image), []).flat();
const areaOf = (image: LayerImage) => union(image).reduce((n, r) => n + signedArea(r), 0);
const boxOf = (image: LayerImage) => {
  const v = union(image).flat();
  const [xs, ys] = [v.filter((_, i) => i % 2 === 0), v.filter((_, i) => i % 2 === 1)];
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)].map(
    (n) => Math.round(n * 1e4) / 1e4,
  );
};

test("the negative of a drawing is its board without what was drawn; what was cleared in it is copper again", () => {
  expect(areaOf(IMAGE)).toBeCloseTo(DRAWN, 2);
  const outer = [0, 0, 20, 0, 20, 10, 0, 10];
  const whole = positiveOf({ ...IMAGE, isNegative: true }, [outer]);
  expect(areaOf(whole)).toBeCloseTo(200 - DRAWN, 2);
  expect(boxOf(whole)).toEqual([0, 0, 20, 10]);
  expect(whole).not.toHaveProperty("isNegative");
  // cut-outs of the board are no copper
  const holed = positiveOf(IMAGE, [outer, [15, 2, 18, 2, 18, 6, 15, 6], [1, 8, 2, 8, 2, 9, 1, 9]]);
  expect(areaOf(holed)).toBeCloseTo(200 - 12 - 1 - DRAWN, 2);
  expect(whole.n).toBe(IMAGE.n + 1);
  expect([...whole.attributes.slice(1)]).toEqual([...IMAGE.attributes]);
});

test("without an outline it is the box of what is drawn, a millimetre larger on every side", () => {
  const free = positiveOf(IMAGE, []);
  // from the disc's left to the triangle's right, from the disc's foot to the stroke's head
  expect(boxOf(free)).toEqual([0.5, 1.5, 13, 9.1]);
  expect(areaOf(free)).toBeCloseTo(12.5 * 7.6 - DRAWN, 2);
  const nothing = readLayer(
    plainBytes("%FSLAX33Y33*%\n%MOMM*%\n%ADD10C,1*%\n%LPC*%\nD10*\nX0Y0D03*\nM02*\n"),
    "a.gbr",
  );
  expect(positiveOf(nothing, [])).toBe(nothing);
});
