import { expect } from "@jest/globals";
import { C1, END, HEAD, mm, PI, raw, testRules, top } from "../../test/rule.ts";

const R21 = "%ADD11R,2X1*%\n";
const RIM = mm(
  "%ADD10C,0.1*%\nD10*\nX0Y0D02*\nG01X20000uY0D01*\nX20000uY10000uD01*\nX0Y10000uD01*\nX0Y0D01*\n",
);

testRules([
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
    rule: "deprecated: an image rotated by no quarter stays as it is, and that is said",
    files: raw(`%FSLAX23Y23*%\n%MOMM*%\n%IR45*%\n%ADD11R,2X1*%\nD11*\nX5000Y0D03*\n${END}`),
    box: [4, -0.5, 6, 0.5],
    also: (m) =>
      expect(m.findings.filter((f) => f.tag === "deprecated-transform")).toMatchObject([
        { level: "error", text: expect.stringContaining("not applied") },
      ]),
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
]);
