import { expect, test } from "@jest/globals";
import { readLayer } from "./read.ts";
import { plainBytes } from "./write.ts";

const round = (v: number) => Math.round(v * 1e6) / 1e6 + 0;
/** A rectangle of 2 by 1 flashed at 5/1, an arc about it, a region's corner at 3/7: places, stamp and turn of them after what is said. */
function moved(commands: string, unit = "%MOMM*%") {
  const text = `%FSLAX33Y33*%\n${unit}\n${commands}\n%ADD11R,2X1*%\n%ADD10C,0.1*%\nG75*\nD11*\nX5000Y1000D03*\nD10*\nX5000Y1000D02*\nG03X3000Y1000I-1000J0D01*\nG36*\nX3000Y7000D02*\nG01X4000Y7000D01*\nX4000Y8000D01*\nX3000Y7000D01*\nG37*\nM02*\n`;
  const l = readLayer(plainBytes(text), "a.gbr");
  const stamp = l.apertures[l.aperture[0]!]!;
  const g = [...l.geo].map(round);
  return {
    flash: g.slice(0, 2),
    box: stamp.box.map(round),
    // from, to, middle; 1 is clockwise
    arc: [...g.slice(6, 12), l.kind[1]],
    corner: [...l.points.slice(0, 2)].map(round),
    said: l.findings.map((f) => `${f.level} ${f.tag}`),
  };
}
const kind = (commands: string) => moved(commands).arc[6];
const TAKEN = ["remark deprecated-transform"];
const WIDE = [-1, -0.5, 1, 0.5];
const HIGH = [-0.5, -1, 0.5, 1];

// axes are swapped, mirrored, scaled and moved in that order, whatever order they are stated in; then the image is turned
test.each<[string, number[], number[], number[], number[], string[]]>([
  ["", [5, 1], WIDE, [5, 1, 3, 1, 4, 1], [3, 7], []],
  ["%ASAYBX*%", [1, 5], WIDE, [1, 5, 1, 3, 1, 4], [7, 3], TAKEN],
  ["%MIA1B0*%", [-5, 1], WIDE, [-5, 1, -3, 1, -4, 1], [-3, 7], TAKEN],
  ["%SFA2B1*%", [10, 1], WIDE, [10, 1, 6, 1, 8, 1], [6, 7], TAKEN],
  ["%SFA1B3*%", [5, 3], WIDE, [5, 3, 3, 3, 4, 3], [3, 21], TAKEN],
  ["%SFB3*%", [5, 3], WIDE, [5, 3, 3, 3, 4, 3], [3, 21], TAKEN],
  ["%SFA2*%", [10, 1], WIDE, [10, 1, 6, 1, 8, 1], [6, 7], TAKEN],
  ["%SFA100B0.5*%", [500, 0.5], WIDE, [500, 0.5, 300, 0.5, 400, 0.5], [300, 3.5], TAKEN],
  ["%OFA1.5*%", [6.5, 1], WIDE, [6.5, 1, 4.5, 1, 5.5, 1], [4.5, 7], TAKEN],
  ["%OFB-2*%", [5, -1], WIDE, [5, -1, 3, -1, 4, -1], [3, 5], TAKEN],
  ["%OFA5000B-5000*%", [5005, -4999], WIDE, [5005, -4999, 5003, -4999, 5004, -4999], [5003, -4993], TAKEN],
  ["%IR90*%", [-1, 5], HIGH, [-1, 5, -1, 3, -1, 4], [-7, 3], TAKEN],
  ["%IR180*%", [-5, -1], WIDE, [-5, -1, -3, -1, -4, -1], [-3, -7], TAKEN],
  ["%IR270*%", [1, -5], HIGH, [1, -5, 1, -3, 1, -4], [7, -3], TAKEN],
  // 5/1 swapped is 1/5, mirrored −1/5, scaled −2/15, moved −1/16, turned −16/−1
  [
    "%IR90*%\n%OFA1B1*%\n%SFA2B3*%\n%MIA1B0*%\n%ASAYBX*%",
    [-16, -1],
    HIGH,
    [-16, -1, -10, -1, -13, -1],
    [-10, -13],
    [...TAKEN, ...TAKEN, ...TAKEN, ...TAKEN, ...TAKEN],
  ],
  // what was stated last holds
  ["%SFA2B2*%\n%SFA1B1*%", [5, 1], WIDE, [5, 1, 3, 1, 4, 1], [3, 7], TAKEN],
])("the whole image by %j", (commands, flash, box, arc, corner, said) => {
  expect(moved(commands)).toEqual({ flash, box, arc: [...arc, expect.any(Number)], corner, said });
});

test("an arc turns the other way where the image is mirrored an odd number of times", () => {
  const usual = kind("");
  const other = kind("%MIA1B0*%");
  expect(other).not.toBe(usual);
  const ways = [
    "%MIA0B1*%",
    "%ASAYBX*%",
    "%MIA1B1*%",
    "%ASAYBX*%\n%MIA1B0*%",
    "%ASAYBX*%\n%MIA1B1*%",
    "%IR90*%",
    "%SFA2B1*%",
  ];
  expect(ways.map(kind)).toEqual([other, other, usual, usual, other, usual, usual]);
});

test("an offset is in the file's unit", () => {
  expect(moved("%OFA1B-2*%", "%MOIN*%").flash).toEqual([152.4, -25.4]);
  // 196.85 in are 4999.99 mm, 196.86 are 5000.244
  expect(moved("%OFA196.85B-196.85*%", "%MOIN*%").said).toEqual(TAKEN);
  expect(moved("%OFA196.86*%", "%MOIN*%").flash).toEqual([127, 25.4]);
});

test.each([
  "%ASAXBX*%",
  "%SFA0B1*%",
  "%SFA1B-1*%",
  "%SFA100.1*%",
  "%SFB101*%",
  "%OFA5000.1*%",
  "%OFB-5001*%",
  "%IR45*%",
  "%IR360*%",
  "%IPXXX*%",
])("%s cannot be meant: nothing is moved, and it is a loss", (command) => {
  expect(moved(command)).toEqual({ ...moved(""), said: ["error deprecated-transform"] });
});
