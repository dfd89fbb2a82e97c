import { C1, PI, square, testRules, top } from "../../test/rule.ts";

const R21 = "%ADD11R,2X1*%\n";

testRules([
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
]);
