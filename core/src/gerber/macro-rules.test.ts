import { expect, test } from "@jest/globals";
import { PI, raw, testRules, top } from "../../test/rule.ts";
import { readLayer } from "./read.ts";
import { plainBytes } from "./write.ts";

/** Statements of a macro, rings of a moiré and corners of a polygon that are drawn at most. */
const [STATEMENTS, RINGS, CORNERS] = [2000, 50, 360];

testRules([
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
    // width 3, height 1, its lower left corner at 2/5, turned about the origin by 90°: x from −6 to −5, y from 2 to 5
    rule: "macro: a rectangle by its lower left corner",
    files: top("%AMM*22,1,3,1,2,5,90*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: 3,
    box: [-6, 2, -5, 5],
  },
  {
    rule: "macro: a rectangle by its lower left corner, cleared",
    files: top("%AMM*1,1,10,0,0*22,0,3,1,-1,-1,0*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: 25 * PI - 3,
  },
  {
    rule: "macro: plus before a number, and brackets in brackets",
    files: top("%AMM*1,1,+2x(1+(+3-2)),-+1,0*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: 4 * PI,
    box: [-3, -2, 1, 2],
  },
  {
    rule: "macro: a triangle and a square by their corners on a circle",
    files: top("%AMM*5,1,3,0,0,2,0*5,1,4,10,0,2,45*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: (3 * Math.sqrt(3)) / 4 + 2,
    islands: 2,
  },
  {
    // rings of 4 to 3 and 2 to 1 across, each 0.5 thick, 0.5 apart, in inches; no third: nothing is left for it
    rule: "macro: a moiré in inches whose rings end in its middle",
    files: raw(
      "%FSLAX24Y24*%\n%MOIN*%\n%AMM*6,0,0,0.4,0.05,0.05,9,0,0,0*%\n%ADD11M*%\nD11*\nX0Y0D03*\nM02*\n",
    ),
    area: PI * (4 - 2.25 + 1 - 0.25) * 2.54 ** 2,
    islands: 2,
  },
  {
    // the ring is as thick as half its width: a disc
    rule: "macro: a moiré's ring without a hole",
    files: top("%AMM*6,0,0,4,2,0.1,1,0,0,0*%\n%ADD11M*%\nD11*\nX0Y0D03*\n"),
    area: 4 * PI,
  },
]);

test.each<[string, string]>([
  ["1,1,2x(1+1,0,0*", "(1+1"],
  ["5,1,2,0,0,2,0*", "a polygon of 2 corners"],
  ["5,1,3.5,0,0,2,0*", "a polygon of 3.5 corners"],
  ["4,1,2,0,0,1,1,0,0,0*", "outline of 2 sides has 9 numbers"],
  ["4,1,3,0,0,1,1,0,0,0*", "outline of 3 sides has 9 numbers"],
  ["1,1,2,0*", "primitive 1 has 3 numbers; it takes 4 at least"],
  ["20,1,1,0,0,4*", "primitive 20 has 5 numbers; it takes 6 at least"],
  ["2,1,1,0,0,4*", "primitive 2 has 5 numbers; it takes 6 at least"],
  ["21,1,3,1,0*", "primitive 21 has 4 numbers; it takes 5 at least"],
  ["22,1,3,1,0*", "primitive 22 has 4 numbers; it takes 5 at least"],
  ["5,1,8,0,0*", "primitive 5 has 4 numbers; it takes 5 at least"],
  ["6,0,0,4,1,1,2,0.1*", "primitive 6 has 7 numbers; it takes 8 at least"],
  ["7,0,0,4,2*", "primitive 7 has 4 numbers; it takes 5 at least"],
])("a macro of %s cannot be drawn, and why is told", (body, why) => {
  const { findings } = readLayer(
    plainBytes(`%FSLAX33Y33*%\n%MOMM*%\n%AMM*${body}%\n%ADD11M*%\nD11*\nX0Y0D03*\nM02*\n`),
    "a.gbr",
  );
  expect(findings[0]).toMatchObject({
    tag: "macro-error",
    level: "error",
    text: expect.stringContaining(why),
  });
});

test("a macro draws so many statements, rings and corners and no more", () => {
  const said = (body: string) =>
    readLayer(
      plainBytes(`%FSLAX33Y33*%\n%MOMM*%\n%AMM*${body}%\n%ADD11M*%\nD11*\nX0Y0D03*\nM02*\n`),
      "a.gbr",
    ).findings.map((f) => f.text);
  const discs = (n: number) => Array.from({ length: n }, () => "1,1,1,0,0*").join("\n");
  expect(said(discs(STATEMENTS))).toEqual([]);
  expect(said(discs(STATEMENTS + 1))[0]).toContain(
    `${STATEMENTS + 1} statements; ${STATEMENTS} are drawn at most`,
  );
  expect(said(`6,0,0,9,0.001,0.001,${RINGS},0,0,0*`)).toEqual([]);
  expect(said(`6,0,0,9,0.001,0.001,${RINGS + 1},0,0,0*`)[0]).toContain(`a moiré of ${RINGS + 1} rings`);
  expect(said(`5,1,${CORNERS},0,0,2,0*`)).toEqual([]);
  expect(said(`5,1,${CORNERS + 1},0,0,2,0*`)[0]).toContain(`a polygon of ${CORNERS + 1} corners`);
});
