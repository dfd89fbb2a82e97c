import { expect } from "@jest/globals";
import { PI, testRules, top } from "../../test/rule.ts";

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
]);
