import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { type Measure, measureBoard } from "@kobbin/core";
import { readAsBoard } from "@kobbin/packing";
import { readPaths } from "./drop.ts";

/** One rule of a published format: a small file that turns on it, and what follows by hand. */
interface Rule {
  readonly rule: string;
  readonly files: Readonly<Record<string, string>>;
  /** Copper of the top: area mm², islands, box. */
  readonly area?: number;
  readonly islands?: number;
  readonly box?: readonly [number, number, number, number];
  readonly holes?: readonly (readonly [number, number])[];
  readonly tags?: readonly string[];
  readonly also?: (m: Measure) => void;
}

const PI = Math.PI;
const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
const END = "M02*\n";
const C1 = "%ADD10C,1*%\n";
const R21 = "%ADD11R,2X1*%\n";
/** A layer of the usual head: millimetres, six decimals; points are written in micrometres for brevity. */
const mm = (body: string) =>
  HEAD + body.replace(/([XYIJ])(-?\d+)u/g, (_, c, v) => `${c}${Number(v) * 1000}`) + END;
const top = (body: string) => ({ "a.gtl": mm(body) });
const raw = (text: string) => ({ "a.gtl": text });
const square = (x: number, y: number, a: number) =>
  `G36*\nX${x}uY${y}uD02*\nG01*\nX${x + a}uY${y}uD01*\nX${x + a}uY${y + a}uD01*\nX${x}uY${y + a}uD01*\nX${x}uY${y}uD01*\nG37*\n`;
const drill = (body: string) => ({ "a.gtl": mm(`${C1}D10*\nX0Y0D03*\n`), "a.drl": body });
const RIM = mm(
  "%ADD10C,0.1*%\nD10*\nX0Y0D02*\nG01X20000uY0D01*\nX20000uY10000uD01*\nX0Y10000uD01*\nX0Y0D01*\n",
);
const holes = (m: Measure) => m.holes.map((h) => [h.diameterMm, h.count]);

const PART = (ref: string, more: string) => `%TO.C,${ref}*%\n%TO.CRot,${more}*%\n`;
const RULES: readonly Rule[] = [
  {
    rule: "a component layer says where its parts stand, how they are turned and what they are",
    files: {
      ...top(`${C1}D10*\nX0Y0D03*\nX5000uY0D03*\n`),
      "a.components-top.gbr":
        "%TF.FileFunction,Component,L1,Top*%\n" +
        mm(
          `%TA.AperFunction,ComponentMain*%\n%ADD20C,0.3*%\n%TA.AperFunction,ComponentOutline,Body*%\n%ADD21C,0.1*%\n%TD.AperFunction*%\n` +
            `D20*\n${PART("R1", "450")}%TO.CVal,4k7*%\nX1000uY2000uD03*\nD21*\nX0Y0D02*\nG01X2000uY0D01*\nD20*\n` +
            `${PART("R2", "-90")}X3000uY2000uD03*\n%TD*%\n${PART("FD1", "0")}%TO.CMnt,Fiducial*%\nX9000uY0D03*\n%TD*%\n`,
        ),
    },
    islands: 2,
    tags: ["bom-from-layers"],
    also: (m) => {
      expect(m.layers.find((l) => l.role === "placement")?.side).toBe("top");
      // the outline's stroke and the mark for cameras are no parts
      expect(m.crossCheck).toMatchObject({ inBomNotPlaced: [], placedNotInBom: [], partsOnBottom: [] });
    },
  },
  {
    rule: "a circle flashed",
    files: top(`${C1}D10*\nX0Y0D03*\n`),
    area: PI / 4,
    islands: 1,
    box: [-0.5, -0.5, 0.5, 0.5],
  },
  { rule: "a circle with a hole", files: top("%ADD10C,2X1*%\nD10*\nX0Y0D03*\n"), area: PI - PI / 4 },
  { rule: "a rectangle", files: top(`${R21}D11*\nX0Y0D03*\n`), area: 2, box: [-1, -0.5, 1, 0.5] },
  { rule: "a rectangle with a hole", files: top("%ADD11R,2X1X0.5*%\nD11*\nX0Y0D03*\n"), area: 2 - PI / 16 },
  { rule: "an obround is a capsule", files: top("%ADD11O,3X1*%\nD11*\nX0Y0D03*\n"), area: 2 + PI / 4 },
  {
    rule: "an upright obround",
    files: top("%ADD11O,1X3*%\nD11*\nX0Y0D03*\n"),
    area: 2 + PI / 4,
    box: [-0.5, -1.5, 0.5, 1.5],
  },
  {
    rule: "a hexagon by its outer diameter",
    files: top("%ADD11P,2X6*%\nD11*\nX0Y0D03*\n"),
    area: (3 * Math.sqrt(3)) / 2,
  },
  {
    rule: "a square turned by 45°",
    files: top("%ADD11P,2X4X45*%\nD11*\nX0Y0D03*\n"),
    area: 2,
    box: [-Math.SQRT1_2, -Math.SQRT1_2, Math.SQRT1_2, Math.SQRT1_2],
  },
  {
    rule: "a stroke is a capsule",
    files: top(`${C1}D10*\nX0Y0D02*\nG01X4000uY0D01*\n`),
    area: 4 + PI / 4,
    box: [-0.5, -0.5, 4.5, 0.5],
  },
  {
    rule: "a stroke of no length is the stamp",
    files: top(`${C1}D10*\nX0Y0D02*\nG01X0Y0D01*\n`),
    area: PI / 4,
  },
  {
    rule: "a stroke of a rectangle sweeps it",
    files: top(`${R21}D11*\nX0Y0D02*\nG01X3000uY0D01*\n`),
    area: 5,
  },
  {
    rule: "a slanted stroke of a square sweeps a hexagon",
    files: top("%ADD11R,1X1*%\nD11*\nX0Y0D02*\nG01X3000uY3000uD01*\n"),
    area: 1 + 3 * 2,
  },
  {
    rule: "a half circle, counter-clockwise",
    files: top(`${C1}D10*\nX0Y0D02*\nG03X-4000uY0I-2000uJ0D01*\n`),
    area: 2 * PI + PI / 4,
    box: [-4.5, -0.5, 0.5, 2.5],
  },
  {
    rule: "a half circle, clockwise",
    files: top(`${C1}D10*\nX0Y0D02*\nG02X-4000uY0I-2000uJ0D01*\n`),
    area: 2 * PI + PI / 4,
    box: [-4.5, -2.5, 0.5, 0.5],
  },
  {
    rule: "start and end alike are a whole circle in multi-quadrant",
    files: top(`${C1}D10*\nX2000uY0D02*\nG03X2000uY0I-2000uJ0D01*\n`),
    area: PI * (2.5 ** 2 - 1.5 ** 2),
  },
  {
    rule: "start and end alike are a point in single quadrant",
    files: top(`G74*\n${C1}D10*\nX2000uY0D02*\nG03X2000uY0I0J0D01*\n`),
    area: PI / 4,
    tags: ["arc-invalid"],
  },
  {
    rule: "a quarter in single quadrant, offsets without sign",
    files: top(`G74*\n${C1}D10*\nX2000uY0D02*\nG03X0Y2000uI2000uJ0D01*\n`),
    area: PI + PI / 4,
    box: [-0.5, -0.5, 2.5, 2.5],
  },
  { rule: "a region fills its contour", files: top(square(0, 0, 3000)), area: 9, islands: 1 },
  {
    rule: "contours of one region are areas of their own",
    files: top(
      `G36*\nX0Y0D02*\nG01X1000uY0D01*\nX1000uY1000uD01*\nX0Y0D01*\nX5000uY0D02*\nX6000uY0D01*\nX6000uY1000uD01*\nX5000uY0D01*\nG37*\n`,
    ),
    area: 1,
    islands: 2,
  },
  {
    rule: "a cut-in leaves a hole",
    files: top(
      "G36*\nX0Y0D02*\nG01X6000uY0D01*\nX6000uY6000uD01*\nX0Y6000uD01*\nX0Y3000uD01*\nX2000uY3000uD01*\nX2000uY4000uD01*\nX4000uY4000uD01*\nX4000uY2000uD01*\nX2000uY2000uD01*\nX2000uY3000uD01*\nX0Y3000uD01*\nX0Y0D01*\nG37*\n",
    ),
    area: 36 - 4,
    islands: 1,
  },
  {
    rule: "an arc in a region",
    files: top("G36*\nX0Y0D02*\nG01X4000uY0D01*\nG03X0Y0I-2000uJ0D01*\nG37*\n"),
    area: 2 * PI,
  },
  {
    rule: "clear paint cuts what came before it",
    files: top(`${square(0, 0, 4000)}%LPC*%\n${C1}D10*\nX2000uY2000uD03*\n`),
    area: 16 - PI / 4,
  },
  {
    rule: "dark paint after clear paint stays",
    files: top(
      `${square(0, 0, 4000)}%LPC*%\n%ADD12C,2*%\nD12*\nX2000uY2000uD03*\n%LPD*%\n${C1}D10*\nX2000uY2000uD03*\n`,
    ),
    area: 16 - PI + PI / 4,
    islands: 2,
  },
  {
    rule: "clear paint can part an island",
    files: top(`${square(0, 0, 4000)}%LPC*%\n${C1}D10*\nX-1000uY2000uD02*\nG01X5000uY2000uD01*\n`),
    area: 12,
    islands: 2,
  },
  {
    rule: "step and repeat",
    files: top(`${C1}%SRX3Y2I2J5*%\nD10*\nX0Y0D03*\n%SR*%\n`),
    area: (6 * PI) / 4,
    islands: 6,
    box: [-0.5, -0.5, 4.5, 5.5],
  },
  {
    rule: "an open step and repeat ends with the file",
    files: top(`${C1}%SRX2Y1I3J0*%\nD10*\nX0Y0D03*\n`),
    islands: 2,
  },
  {
    rule: "mirror, then rotate, about the stamp's middle",
    files: top(`%AMT*4,1,3,0,0,2,0,0,1,0,0,0*%\n%ADD11T*%\n%LMX*%\n%LR90*%\nD11*\nX0Y0D03*\n`),
    area: 1,
    box: [-1, -2, 0, 0],
  },
  {
    rule: "scaling a stamp scales its stroke",
    files: top(`${C1}%LS2*%\nD10*\nX0Y0D02*\nG01X4000uY0D01*\n`),
    area: 8 + PI,
  },
  {
    rule: "a block keeps its own polarity",
    files: top(
      `${C1}%ADD12C,2*%\n%ABD30*%\nD12*\nX0Y0D03*\n%LPC*%\nD10*\nX0Y0D03*\n%LPD*%\n%AB*%\nD30*\nX0Y0D03*\nX9000uY0D03*\n`,
    ),
    area: 2 * (PI - PI / 4),
    islands: 2,
  },
  {
    rule: "a block inside a block",
    files: top(
      `${C1}%ABD30*%\nD10*\nX0Y0D03*\nX2000uY0D03*\n%ABD31*%\n%AB*%\n%AB*%\n%ABD32*%\nD30*\nX0Y0D03*\nX0Y3000uD03*\n%AB*%\nD32*\nX0Y0D03*\nX9000uY0D03*\n`,
    ),
    islands: 8,
  },
  {
    rule: "a block stamped under clear polarity turns over",
    files: top(`${square(0, 0, 4000)}${C1}%ABD30*%\nD10*\nX0Y0D03*\n%AB*%\n%LPC*%\nD30*\nX2000uY2000uD03*\n`),
    area: 16 - PI / 4,
  },
  {
    rule: "a block that stamps itself is refused",
    files: top(`${C1}%ABD30*%\nD10*\nX0Y0D03*\nD30*\nX0Y0D03*\n%AB*%\nD30*\nX0Y0D03*\n`),
    islands: 1,
    tags: ["block-recursive"],
  },
  {
    rule: "macro: a circle off its middle, turned about the origin",
    files: top("%AMM*1,1,1,2,0,90*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: PI / 4,
    box: [-0.5, 1.5, 0.5, 2.5],
  },
  {
    rule: "macro: a vector line has square ends",
    files: top("%AMM*20,1,1,0,0,4,0,0*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: 4,
    box: [0, -0.5, 4, 0.5],
  },
  {
    rule: "macro: a centre line turned by 30° keeps its area",
    files: top("%AMM*21,1,3,1,0,0,30*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: 3,
  },
  {
    rule: "macro: an outline with its closing point",
    files: top("%AMM*4,1,4,0,0,3,0,3,2,0,2,0,0,0*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: 6,
    box: [0, 0, 3, 2],
  },
  {
    rule: "macro: a polygon",
    files: top("%AMM*5,1,8,0,0,2,0*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: 2 * Math.SQRT2,
  },
  {
    rule: "macro: a thermal is a ring less its cross",
    files: top("%AMM*7,0,0,4,2,0.1,0*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: 3 * PI - 4 * 0.1,
    also: (m) => expect(m.copperIslands.top).toBe(4),
  },
  {
    rule: "macro: a moiré of two rings and a cross",
    files: top("%AMM*6,0,0,4,0.5,0.5,2,0.1,0.2,0*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: PI * (4 - 2.25) + PI * (1 - 0.25),
  },
  {
    rule: "macro: arithmetic, variables and exposure off",
    files: top("%AMM*$3=$1-2x$2*1,1,$1,0,0*1,0,$3,0,0*%\n%ADD11M,4X0.5*%\nD11*\nX0Y0D03*\n"),
    area: PI * (4 - 2.25),
  },
  {
    rule: "macro: unary minus and brackets",
    files: top("%AMM*21,1,(1+2)x1,4/(-2)x-1,0,0,0*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: 6,
  },
  {
    rule: "inches, 2.4, leading zeros omitted",
    files: raw(`%FSLAX24Y24*%\n%MOIN*%\n%ADD10C,0.1*%\nD10*\nX10000Y0D03*\n${END}`),
    area: (PI * 2.54 ** 2) / 4,
    box: [24.13, -1.27, 26.67, 1.27],
  },
  {
    rule: "trailing zeros omitted",
    files: raw(`%FSTAX24Y24*%\n%MOMM*%\n${C1}D10*\nX01Y0D03*\n${END}`),
    box: [0.5, -0.5, 1.5, 0.5],
  },
  {
    rule: "different formats of X and Y",
    files: raw(`%FSLAX23Y24*%\n%MOMM*%\n${C1}D10*\nX1000Y10000D03*\n${END}`),
    box: [0.5, 0.5, 1.5, 1.5],
  },
  {
    rule: "incremental points",
    files: raw(`%FSLIX23Y23*%\n%MOMM*%\n${C1}D10*\nX2000Y0D03*\nX2000Y0D03*\n${END}`),
    islands: 2,
    box: [1.5, -0.5, 4.5, 0.5],
  },
  {
    rule: "decimal points win over the format",
    files: raw(`%FSLAX23Y23*%\n%MOMM*%\n${C1}D10*\nX1.5Y-2.5D03*\n${END}`),
    box: [1, -3, 2, -2],
  },
  {
    rule: "units by the old words",
    files: raw(`%FSLAX23Y23*%\nG70*\n%ADD10C,0.1*%\nD10*\nX1000Y0D03*\n${END}`),
    box: [24.13, -1.27, 26.67, 1.27],
  },
  {
    rule: "a repeated point without its D code goes on as before",
    files: top(`${C1}D10*\nX0Y0D02*\nG01X2000uY0D01*\nX2000uY2000u*\n`),
    area: 3.75 + (5 * PI) / 16,
  },
  {
    rule: "short codes, select by G54, several words on a line",
    files: raw(`%FSLAX23Y23*%%MOMM*%%ADD10C,1*%G54D10*X0Y0D3*X5000Y0D3*M2*`),
    islands: 2,
  },
  {
    rule: "deprecated: axes swapped",
    files: raw(`%FSLAX23Y23*%\n%MOMM*%\n%ASAYBX*%\n${R21}D11*\nX5000Y0D03*\n${END}`),
    box: [-1, 4.5, 1, 5.5],
    tags: ["deprecated-transform"],
  },
  {
    rule: "deprecated: image rotated, stamps with it",
    files: raw(`%FSLAX23Y23*%\n%MOMM*%\n%IR90*%\n${R21}D11*\nX5000Y0D03*\n${END}`),
    box: [-0.5, 4, 0.5, 6],
  },
  {
    rule: "deprecated: image offset",
    files: raw(`%FSLAX23Y23*%\n%MOMM*%\n%OFA1.5B-2*%\n${C1}D10*\nX0Y0D03*\n${END}`),
    box: [1, -2.5, 2, -1.5],
  },
  {
    rule: "deprecated: data mirrored, stamps not",
    files: raw(`%FSLAX23Y23*%\n%MOMM*%\n%MIA1B0*%\n${R21}D11*\nX5000Y1000D03*\n${END}`),
    box: [-6, 0.5, -4, 1.5],
  },
  {
    rule: "deprecated: neutral words say nothing",
    files: raw(
      `%FSLAX23Y23*%\n%MOMM*%\n%ASAXBY*%\n%IPPOS*%\n%IR0*%\n%MIA0B0*%\n%SFA1B1*%\n%OFA0B0*%\n%INname*%\n%LNlayer*%\n${C1}D10*\nX0Y0D03*\n${END}`,
    ),
    also: (m) => expect(m.findings.map((f) => f.tag)).not.toContain("deprecated-transform"),
  },
  {
    rule: "deprecated: a negative image fills the board",
    files: { "a.gtl": mm(`%IPNEG*%\n${C1}D10*\nX5000uY5000uD03*\n`), "a.gko": RIM },
    area: 200 - PI / 4,
    tags: ["deprecated-transform"],
  },
  {
    rule: "attributes in comments give the role",
    files: { "odd.txt": `G04 #@! TF.FileFunction,Copper,L1,Top*\n${mm(`${C1}D10*\nX0Y0D03*\n`)}` },
    area: PI / 4,
    also: (m) => expect(m.layers[0]).toMatchObject({ role: "copper", side: "top", because: "attribute" }),
  },
  {
    rule: "an aperture that is not defined is said, the rest read",
    files: top(`${C1}D99*\nX0Y0D03*\nD10*\nX5000uY0D03*\n`),
    islands: 1,
    tags: ["undefined-aperture"],
  },
  { rule: "a missing end is said", files: raw(`${HEAD}${C1}D10*\nX0Y0D03*\n`), tags: ["missing-end"] },
  {
    rule: "text nobody knows is passed over with its line",
    files: top(`${C1}%XX9*%\nD10*\nX0Y0D03*\n`),
    islands: 1,
    tags: ["unknown-command"],
  },
  {
    rule: "drill: decimals, metric",
    files: drill("M48\nMETRIC\nT1C0.8\n%\nT1\nX1.5Y2\nX3Y2\nM30\n"),
    holes: [[0.8, 2]],
  },
  {
    rule: "drill: leading zeros kept",
    files: drill("M48\nMETRIC,LZ\nT1C0.8\n%\nT1\nX0125Y01\nM30\n"),
    also: (m) => expect(m.minHoleAt![0]).toMatchObject({ x: 12.5, y: 10 }),
  },
  {
    rule: "drill: trailing zeros kept",
    files: drill("M48\nMETRIC,TZ\nT1C0.8\n%\nT1\nX12500Y1000\nM30\n"),
    also: (m) => expect(m.minHoleAt![0]).toMatchObject({ x: 12.5, y: 1 }),
  },
  {
    rule: "drill: inches, 2.4",
    files: drill("M48\nINCH,TZ\nT1C0.0315\n%\nT1\nX10000Y5000\nM30\n"),
    also: (m) => expect(m.minHoleAt![0]).toMatchObject({ x: 25.4, y: 12.7 }),
  },
  {
    rule: "drill: a slot by G85",
    files: drill("M48\nMETRIC\nT1C1\n%\nT1\nX0.0Y0.0G85X3.0Y0.0\nM30\n"),
    also: (m) => expect(m.slots).toEqual([expect.objectContaining({ widthMm: 1, lengthMm: 4 })]),
  },
  {
    rule: "drill: a routed path",
    files: drill("M48\nMETRIC\nT1C1\n%\nT1\nG00X0.0Y0.0\nM15\nG01X3.0Y0.0\nX3.0Y2.0\nM16\nM30\n"),
    also: (m) =>
      expect(m.routedPaths).toEqual([
        expect.objectContaining({
          widthMm: 1,
          points: [
            [0, 0],
            [3, 0],
            [3, 2],
          ],
        }),
      ]),
  },
  {
    rule: "drill: a routed arc by its radius",
    files: drill("M48\nMETRIC\nT1C1\n%\nT1\nG00X0.0Y0.0\nM15\nG03X2.0Y0.0A1.0\nM16\nM30\n"),
    also: (m) => {
      const p = m.routedPaths[0]!.points;
      expect(Math.min(...p.map(([, y]) => y))).toBeCloseTo(-1, 2);
      expect(p.at(-1)).toEqual([2, 0]);
    },
  },
  {
    rule: "drill: repeats",
    files: drill("M48\nMETRIC\nT1C0.5\n%\nT1\nX0.0Y0.0\nR3X1.0Y0.0\nM30\n"),
    holes: [
      [0.5, 1],
      [0.5, 3],
    ],
  },
  {
    rule: "drill: the tool table in the body",
    files: drill("%\nT1C0.5\nX0.0Y0.0\nT2C0.9\nX5.0Y0.0\nM30\n"),
    holes: [
      [0.5, 1],
      [0.9, 1],
    ],
  },
  {
    rule: "drill: comments carry the plating",
    files: drill(
      "M48\nMETRIC\n;TYPE=NON_PLATED\nT1C2\n;TYPE=PLATED\nT2C0.5\n%\nT1\nX0.0Y0.0\nT2\nX5.0Y0.0\nM30\n",
    ),
    also: (m) =>
      expect(m.holes).toEqual([
        { diameterMm: 0.5, plated: true, count: 1 },
        { diameterMm: 2, plated: false, count: 1 },
      ]),
  },
  {
    rule: "drill data as a layer image",
    files: {
      "a.gtl": mm(`${C1}D10*\nX0Y0D03*\n`),
      "d.gbr": `%TF.FileFunction,Plated,1,2,PTH*%\n${mm("%ADD10C,0.4*%\n%ADD11O,3X1*%\nD10*\nX0Y0D03*\nD11*\nX5000uY0D03*\n")}`,
    },
    holes: [[0.4, 1]],
    also: (m) =>
      expect(m.slots).toEqual([expect.objectContaining({ widthMm: 1, lengthMm: 3, plated: true })]),
  },
];

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "kobbin-rules-"));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test.each(RULES.map((r) => [r.rule, r] as const))("%s", async (_, r) => {
  const at = mkdtempSync(join(folder, "rule-"));
  for (const [path, text] of Object.entries(r.files)) {
    mkdirSync(dirname(join(at, path)), { recursive: true });
    writeFileSync(join(at, path), text);
  }
  const { set } = await readAsBoard(readPaths([at]));
  const m = measureBoard(set);
  expect(m.outcome).toBe("accept");
  if (r.area !== undefined)
    expect(Math.abs(m.copperAreaMm2.top! - r.area)).toBeLessThan(0.004 * Math.max(1, r.area));
  if (r.islands !== undefined) expect(m.copperIslands.top).toBe(r.islands);
  if (r.box) for (let k = 0; k < 4; k++) expect(m.extentMm![k]).toBeCloseTo(r.box[k]!, 3);
  if (r.holes) expect(holes(m)).toEqual(r.holes);
  for (const tag of r.tags ?? []) expect(m.findings.map((f) => f.tag)).toContain(tag);
  r.also?.(m);
});

test("there are more than forty rules", () => expect(RULES.length).toBeGreaterThan(40));
