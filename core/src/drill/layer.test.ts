import { expect, test } from "@jest/globals";
import { readLayer } from "../gerber/read.ts";
import { drillOfImage } from "./from-image.ts";
import { readDrill } from "./read.ts";
import { holesFor } from "./use.ts";

const HEAD = "%FSLAX46Y46*%\n%MOMM*%\n";
const drills = (body: string, fn = "Plated,1,2,PTH") =>
  drillOfImage(
    readLayer(new TextEncoder().encode(`${HEAD}%TF.FileFunction,${fn}*%\n${body}M02*\n`), "holes.gbr"),
    "holes.gbr",
  );

test("holes drawn as a layer: flashes are holes, strokes and long flashes slots, arcs paths; nothing else is drilled", () => {
  const d = drills(
    "G75*\n%ADD10C,0.8*%\n%ADD11O,3.0X1.0*%\n%ADD12R,2.0X2.0*%\nD10*\nX1000000Y2000000D03*\n" +
      "D11*\nX5000000Y5000000D03*\nD12*\nX9000000Y9000000D03*\n" +
      "D10*\nX0Y10000000D02*\nG01X4000000Y11000000D01*\n" +
      "X0Y0D02*\nG03X2000000Y0I1000000J0D01*\n" +
      "%LPC*%\nX7000000Y7000000D03*\n%LPD*%\nG36*\nX0Y0D02*\nG01X1000000Y0D01*\nX1000000Y1000000D01*\nX0Y0D01*\nG37*\n",
  );
  expect(d.hits).toMatchObject([{ x: 1, y: 2, diameterMm: 0.8, plated: true, tool: { name: "D10" } }]);
  const [long, stroke, arc] = d.routs;
  // 3 × 1 long: its middle line is 2 mm, its tool 1 mm wide
  expect(long).toMatchObject({
    points: [
      [4, 5],
      [6, 5],
    ],
    widthMm: 1,
    isSlot: true,
    tool: { name: "D11" },
  });
  expect(stroke).toMatchObject({
    points: [
      [0, 10],
      [4, 11],
    ],
    widthMm: 0.8,
    isSlot: true,
    plated: true,
  });
  expect(arc).toMatchObject({ widthMm: 0.8, isSlot: false, plated: true });
  expect(arc!.points[0]).toEqual([0, 0]);
  expect(arc!.points.at(-1)).toEqual([expect.closeTo(2, 6), expect.closeTo(0, 6)]);
  // half a circle below its chord, 1 mm about (1, 0)
  for (const [x, y] of arc!.points) expect(Math.hypot(x - 1, y)).toBeCloseTo(1, 3);
  expect(arc!.points.every(([, y]) => y <= 1e-6)).toBe(true);
  expect(d.routs).toHaveLength(3);
  // the square and the region
  expect(d.findings.map((f) => [f.tag, f.text])).toEqual([
    ["value-out-of-range", expect.stringMatching(/^2 shapes/)],
  ]);
  expect([d.plated, d.isCertain, d.isDrillFile]).toEqual([true, true, true]);
});

test.each([
  ["Plated,1,2,PTH", "", true, true],
  ["NonPlated,1,2,NPTH", "", false, false],
  ["Copper,L1,Top", "", undefined, undefined],
  ["Plated,1,2,PTH", "ComponentDrill,NonPlated", true, false],
  ["Plated,1,2,PTH", "MechanicalDrill", true, false],
  ["Plated,1,2,PTH", "ViaDrill", true, true],
])("a layer of %s with a tool for “%s” is plated: %s, its hole: %s", (fn, use, file, hole) => {
  const d = drills(`${use ? `%TA.AperFunction,${use}*%\n` : ""}%ADD10C,0.8*%\nD10*\nX0Y0D03*\n`, fn);
  expect([d.plated, d.hits[0]!.plated]).toEqual([file, hole]);
  expect(d.findings).toEqual([]);
});

test.each([
  [["ViaDrill"], "via"],
  [["ViaDrill", "Filled"], "via, filled"],
  [["ComponentDrill", "PressFit"], "component, press fit"],
  [["BackDrill"], "drilled back"],
  [["CastellatedDrill"], "half hole"],
  [[" slot "], "slot"],
  [["CutOut"], "cut-out"],
  [["MechanicalDrill", "Tooling"], "mechanical, tooling"],
  [["MechanicalDrill", "BreakOut"], "mechanical, break-off"],
  [["ViaDrill", "NotFilled"], "via, not filled"],
  [["Other", "something"], undefined],
  [[], undefined],
])("holes of %j are for: %s", (fields, words) => {
  expect(holesFor(fields)).toBe(words);
});

test("a tool of the number nothing ends the tool before it and is no loss", () => {
  const d = readDrill("M48\nMETRIC\nT1C0.8\n%\nT1\nX1.0Y1.0\nT0\nM30\n", "a.drl");
  expect([d.hits.length, d.findings]).toEqual([1, []]);
});

test("tolerances of a tool go with its own holes and no other's", () => {
  const d = readDrill(
    "M48\n; #@! TA.AperFunction,Plated,PTH,ComponentDrill\n; #@! TA.DrillTolerance,0.05,0.02\nMETRIC\nT1C0.8\n; #@! TD\nT2C1.0\n%\nT1\nX1.0Y1.0\nT2\nX2.0Y2.0\nM30\n",
    "a.drl",
  );
  expect(d.hits.map((h) => [h.tool?.name, h.tool?.use, h.tool?.toleranceMm])).toEqual([
    ["T1", "component", [0.05, 0.02]],
    ["T2", undefined, undefined],
  ]);
});

test("a tool that is defined in the body drills from there on; in the header it waits to be chosen", () => {
  const body = readDrill("M48\nMETRIC\n%\nT1C0.8\nX1.0Y1.0\nM30\n", "a.drl");
  expect(body.hits).toMatchObject([{ diameterMm: 0.8 }]);
  const header = readDrill("M48\nMETRIC\nT1C0.8\nT2C1.0\n%\nX1.0Y1.0\nT1\nX2.0Y2.0\nM30\n", "a.drl");
  expect(header.hits.map((h) => [h.x, h.diameterMm])).toEqual([[2, 0.8]]);
});
