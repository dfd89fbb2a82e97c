import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { clipAreas } from "../geometry/clip.ts";
import { signedArea } from "../geometry/polygon.ts";
import { posedRing } from "../geometry/turn.ts";
import type { LayerImage } from "./image.ts";
import { LayerWriter } from "./layer-writer.ts";
import { readLayer } from "./read.ts";
import { ringsOf, shapesOf } from "./shapes.ts";
import { plainBytes } from "./write.ts";

const read = (text: string): LayerImage => readLayer(plainBytes(text), "a.gbr");
const painted = (image: LayerImage) => shapesOf(image).flatMap((s) => ringsOf(s));
const areaOf = (rings: readonly (readonly number[])[]) =>
  clipAreas("union", rings, []).reduce((n, a) => n + a.reduce((m, r) => m + signedArea(r), 0), 0);

const SOURCE = `%FSLAX46Y46*%
%MOMM*%
%AMDONUT*1,1,2,0,0*1,0,1,0,0*%
%AMSKEW*4,1,3,0,0,1,0,0,0.5,0,0,15*%
%ADD10C,0.5*%
%ADD11R,1.2X0.4*%
%ADD12O,0.6X1.4*%
%ADD13P,1X6X10*%
%ADD14DONUT*%
%ADD15SKEW*%
%ADD16C,1X0.4*%
G75*
G01*
D11*
X1000000Y1000000D03*
D12*
X4000000Y1000000D03*
D13*
X7000000Y1000000D03*
D14*
X10000000Y1000000D03*
D15*
X13000000Y1000000D03*
D16*
X16000000Y1000000D03*
D10*
X1000000Y5000000D02*
X4000000Y6000000D01*
G02*
X6000000Y4000000I0J-2000000D01*
G01*
D11*
X8000000Y5000000D02*
X11000000Y5000000D01*
G36*
X12000000Y4000000D02*
X16000000Y4000000D01*
G03*
X16000000Y7000000I0J1500000D01*
G01*
X12000000Y7000000D01*
X12000000Y4000000D01*
G37*
%LPC*%
D10*
X14000000Y5500000D03*
%LPD*%
D12*
X14000000Y5500000D03*
M02*
`;

test("every kind of object is painted where it was after each quarter turn, to the nanometre's area", () => {
  const image = read(SOURCE);
  expect(image.findings.filter((f) => f.level === "error")).toEqual([]);
  for (const turnDeg of [0, 90, 180, 270]) {
    const at = { xMm: 31.5, yMm: -7.25, turnDeg };
    const w = new LayerWriter([["FileFunction", "Copper", "L1", "Top"]]);
    w.copy(image, at);
    const back = read(w.done());
    expect(back.findings).toEqual([]);
    const there = painted(image).map((r) => posedRing(at, r));
    const apart = clipAreas("xor", there, painted(back));
    expect(areaOf(apart.flat())).toBeLessThan(1e-3);
    expect(areaOf(painted(back))).toBeCloseTo(areaOf(painted(image)), 3);
  }
});

test("what was cleared stays clear, what was drawn after it stays drawn", () => {
  const w = new LayerWriter([]);
  w.copy(read(SOURCE), { xMm: 0, yMm: 0, turnDeg: 0 });
  const text = w.done();
  expect(text.match(/%LPC\*%/g)).toHaveLength(1);
  expect(text.indexOf("%LPC*%")).toBeLessThan(text.lastIndexOf("%LPD*%"));
});

test("a stamp is defined once, a plain one by its plain name; rectangles and obrounds swap their sides", () => {
  const w = new LayerWriter([]);
  const image = read(SOURCE);
  w.copy(image, { xMm: 0, yMm: 0, turnDeg: 90 });
  w.copy(image, { xMm: 50, yMm: 0, turnDeg: 90 });
  const text = w.done();
  expect(text).toContain("R,0.4X1.2*%");
  expect(text).toContain("O,1.4X0.6*%");
  expect(text.match(/%ADD\d+R,0.4X1.2\*%/g)).toHaveLength(1);
  expect(text.split("\n").slice(-2)).toEqual(["M02*", ""]);
  // nothing deprecated, and no word is repeated for nothing
  expect(text).not.toMatch(/G54|G70|G71|G74|G90|G91/);
});

test("copies are alike to the last digit, wherever they lie", () => {
  fc.assert(
    fc.property(fc.integer({ min: -2e8, max: 2e8 }), fc.integer({ min: -2e8, max: 2e8 }), (dx, dy) => {
      const w = new LayerWriter([]);
      const image = read(SOURCE);
      w.copy(image, { xMm: dx / 1e6, yMm: dy / 1e6, turnDeg: 0 });
      const back = read(w.done());
      // of the first flash, in whole nanometres
      expect(Math.round(back.geo[0]! * 1e6)).toBe(1_000_000 + dx);
      expect(Math.round(back.geo[1]! * 1e6)).toBe(1_000_000 + dy);
    }),
    { numRuns: 20 },
  );
});

test("a repeated block is read as so many copies at its steps", () => {
  const w = new LayerWriter([]);
  w.repeated(3, 2, 20, 15.5, () => w.copy(read(SOURCE), { xMm: 1, yMm: 2, turnDeg: 0 }));
  w.disc(0, 0, 1, ["FiducialPad", "Panel"]);
  const one = new LayerWriter([]);
  for (const j of [0, 1])
    for (const i of [0, 1, 2]) one.copy(read(SOURCE), { xMm: 1 + 20 * i, yMm: 2 + 15.5 * j, turnDeg: 0 });
  one.disc(0, 0, 1);
  const [a, b] = [read(w.done()), read(one.done())];
  expect(a.n).toBe(b.n);
  expect(areaOf(clipAreas("xor", painted(a), painted(b)).flat())).toBeLessThan(1e-9);
  expect(a.apertures[a.aperture[a.n - 1]!]!.function).toEqual(["FiducialPad", "Panel"]);
});

/** A layer whose one aperture is a macro, flashed at 10/20. */
const stamped = (macro: string) =>
  read(`%FSLAX46Y46*%\n%MOMM*%\n%AMX*${macro}%\n%ADD10X*%\nD10*\nX10000000Y20000000D03*\nM02*\n`);
/** What is written for it, as definitions, each on one line. */
const written = (macro: string, turnDeg = 0) => {
  const w = new LayerWriter([]);
  w.copy(stamped(macro), { xMm: 0, yMm: 0, turnDeg });
  const text = w.done();
  return [...text.matchAll(/%(?:AM|ADD)[^%]*%/g)].map((m) => m[0].replaceAll("\n", ""));
};

// a stamp is written plainly only where the plain one is the same: about its own middle, one piece, right angles
test.each<[string, string, string[]]>([
  ["a stroke of no length, which is nothing", "20,1,0.4,0,0,0,0,0*", ["%AMSHAPE1*%", "%ADD10SHAPE1*%"]],
  ["a stroke across", "20,1,0.4,-1,0,1,0,0*1,1,0.4,-1,0*1,1,0.4,1,0*", []],
  [
    "a rectangle aside",
    "21,1,2,1,0.5,0,0*",
    ["%AMSHAPE1*4,1,4,1.5,0.5,-0.5,0.5,-0.5,-0.5,1.5,-0.5,1.5,0.5,0*%", "%ADD10SHAPE1*%"],
  ],
  [
    "a rectangle above",
    "21,1,2,1,0,0.25,0*",
    ["%AMSHAPE1*4,1,4,1,0.75,-1,0.75,-1,-0.25,1,-0.25,1,0.75,0*%", "%ADD10SHAPE1*%"],
  ],
  ["a rectangle in its middle", "21,1,2,1,0,0,0*", ["%ADD10R,2X1*%"]],
  [
    "a rhombus in its middle",
    "4,1,4,-1,0,0,-1,1,0,0,1,-1,0,0*",
    ["%AMSHAPE1*4,1,4,1,0,0,1,-1,0,0,-1,1,0,0*%", "%ADD10SHAPE1*%"],
  ],
])("a stamp of %s", (_, macro, lines) => {
  if (lines.length > 0) expect(written(macro)).toEqual(lines);
  const w = new LayerWriter([]);
  w.copy(stamped(macro), { xMm: 0, yMm: 0, turnDeg: 0 });
  const [a, b] = [painted(stamped(macro)), painted(read(w.done()))];
  expect(areaOf(clipAreas("xor", a, b).flat())).toBeLessThan(1e-6);
});

test("an obround as wide as high is a circle, and one of nothing's width has no sign of less", () => {
  const w = new LayerWriter([]);
  w.copy(read("%FSLAX46Y46*%\n%MOMM*%\n%ADD10O,0.6X0.6*%\nD10*\nX0Y0D03*\nM02*\n"), {
    xMm: 0,
    yMm: 0,
    turnDeg: 90,
  });
  expect(w.done()).toContain("%ADD10C,0.6*%");
});

test("of a stamp of several areas with holes none is lost under another's hole, in whichever order they come", () => {
  // a ring of 4 outside and 3 inside, and in its hole a disc of 1: the hole is cleared before the disc is drawn
  for (const macro of ["1,1,4,0,0*1,0,3,0,0*1,1,1,0,0*", "1,1,4,0.5,0*1,0,3,0.5,0*1,1,1,0,0.5*"]) {
    const w = new LayerWriter([]);
    w.copy(stamped(macro), { xMm: 0, yMm: 0, turnDeg: 90 });
    // π·(4 − 2.25 + 0.25)
    expect(areaOf(painted(read(w.done())))).toBeCloseTo(2 * Math.PI, 2);
  }
});

test("an outline of more corners than the format allows keeps every second one until it fits", () => {
  const n = 9000;
  const ring = Array.from({ length: n }, (_, i) => {
    const a = (2 * Math.PI * i) / n;
    return [Math.cos(a) * 5, Math.sin(a) * 4].map((v) => v.toFixed(6)).join(",");
  });
  // an eccentric ring of 9,000 corners; of 4,999 and fewer none is left out
  const corners = (macro: string) => Number(/4,1,(\d+),/.exec(written(macro, 7).join(""))?.[1]);
  expect(corners(`4,1,${n},${[...ring, ring[0]].join(",")},0*`)).toBe(4500);
  const few = ring.filter((_, i) => i % 9 < 5).slice(1);
  expect(corners(`4,1,${few.length},${[...few, few[0]].join(",")},0*`)).toBe(4999);
});

test("what has too few corners to be drawn is not; one that is said twice is one", () => {
  const w = new LayerWriter([]);
  w.outline([1, 1], 0.2);
  w.outline([1, 1, 1, 1.0000001, 1, 1], 0.2);
  w.area([[0, 0, 1, 1]]);
  w.area([[0, 0, 1, 1, 1, 1, 0, 0]]);
  expect(read(w.done()).n).toBe(0);
  w.outline([1, 1, 2, 1], 0.2);
  w.area([[0, 0, 3, 0, 3, 0, 0, 3, 0, 0]]);
  w.area([
    [10, 0, 13, 0, 10, 3],
    [10.5, 0.5, 11.5, 0.5, 10.5, 1.5],
  ]);
  const l = read(w.done());
  // there and back; a triangle of three corners; another with a hole cleared in it
  expect([l.n, [...l.dark]]).toEqual([5, [1, 1, 1, 1, 0]]);
  expect(areaOf(painted(l).filter((r) => r.length === 6))).toBeCloseTo(4.5 + 4.5 - 0.5, 6);
  // cleared, and what lies in it drawn
  const clear = new LayerWriter([]);
  clear.area([[0, 0, 9, 0, 9, 9, 0, 9]]);
  clear.area(
    [
      [1, 1, 4, 1, 4, 4, 1, 4],
      [2, 2, 3, 2, 3, 3, 2, 3],
    ],
    false,
  );
  expect([...read(clear.done()).dark]).toEqual([1, 0, 1]);
  expect(areaOf(painted(read(clear.done())))).toBeCloseTo(81 - 9 + 1, 6);
});

test("a layer that begins with an arc is read back as that arc", () => {
  const arc = read(
    "%FSLAX46Y46*%\n%MOMM*%\nG75*\n%ADD10C,0.5*%\nD10*\nX0Y0D02*\nG03X2000000Y2000000I0J2000000D01*\nM02*\n",
  );
  const w = new LayerWriter([]);
  w.copy(arc, { xMm: 1, yMm: 0, turnDeg: 0 });
  const back = read(w.done());
  const there = painted(arc).map((r) => posedRing({ xMm: 1, yMm: 0, turnDeg: 0 }, r));
  expect(areaOf(clipAreas("xor", there, painted(back)).flat())).toBeLessThan(1e-3);
  expect(areaOf(painted(back))).toBeGreaterThan(1);
});
