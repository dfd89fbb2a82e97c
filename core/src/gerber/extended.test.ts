import { expect, test } from "@jest/globals";
import { readLayer } from "./read.ts";
import { plainBytes } from "./write.ts";

const read = (text: string) => readLayer(plainBytes(text), "a.gbr");
const HEAD = "%FSLAX33Y33*%\n%MOMM*%\n%ADD10C,1*%\nD10*\n";
const said = (text: string) => read(text).findings.map((f) => `${f.level} ${f.tag} ${f.text}`);

/** Blocks so deep inside of each other, a disc in the innermost, the outermost flashed at 10/20. */
const nested = (deep: number) =>
  `${HEAD}${Array.from({ length: deep }, (_, i) => `%ABD${20 + i}*%\n`).join("")}X1000Y2000D03*\n%AB*%\n${Array.from(
    { length: deep - 1 },
    (_, i) => `D${20 + deep - 1 - i}*\nX0Y0D03*\n%AB*%\n`,
  ).join("")}D20*\nX10000Y20000D03*\nM02*\n`;

test("blocks are nested ten deep; what is deeper is drawn where it stands, and that is an error", () => {
  const at = (deep: number) => {
    const l = read(nested(deep));
    return [l.n, l.geo[0], l.geo[1], l.findings.filter((f) => f.level === "error").map((f) => f.text)];
  };
  expect(at(1)).toEqual([1, 11, 22, []]);
  expect(at(10)).toEqual([1, 11, 22, []]);
  expect(at(11)[3]).toContain("Blocks are nested more than 10 deep; this one is drawn where it stands.");
});

test("a scale is above nothing and a hundred at most; what lies five metres away is not repeated", () => {
  expect(said(`${HEAD}%LS100*%\nX0Y0D03*\nM02*\n`)).toEqual([]);
  expect(said(`${HEAD}%LS100.1*%\nX0Y0D03*\nM02*\n`)[0]).toContain("a scale of 100.1 cannot be meant");
  expect(said(`${HEAD}%LS0*%\nX0Y0D03*\nM02*\n`)[0]).toContain("a scale of 0 cannot be meant");
  expect(said(`${HEAD}%SRX2Y1I2499J0*%\nX0Y0D03*\n%SR*%\nM02*\n`)).toEqual([]);
  expect(said(`${HEAD}%SRX2Y1I2500J0*%\nX0Y0D03*\n%SR*%\nM02*\n`)[0]).toContain("metres away");
  expect(said(`${HEAD}%SRX1Y2I0J-2500*%\nX0Y0D03*\n%SR*%\nM02*\n`)[0]).toContain("metres away");
});

test("a drill's tolerance is in the unit of the file; an attribute nobody knows is passed over by its first thirty letters", () => {
  const inch = read(
    "%FSLAX24Y24*%\n%MOIN*%\n%TA.DrillTolerance,0.004,0.002*%\n%ADD10C,0.1*%\nD10*\nX0Y0D03*\nM02*\n",
  );
  expect(inch.apertures[0]!.toleranceMm).toEqual([expect.closeTo(0.1016, 9), expect.closeTo(0.0508, 9)]);
  const mm = read(
    "%FSLAX24Y24*%\n%MOMM*%\n%TA.DrillTolerance,0.1,0.05*%\n%ADD10C,1*%\nD10*\nX0Y0D03*\nM02*\n",
  );
  expect(mm.apertures[0]!.toleranceMm).toEqual([0.1, 0.05]);
  const odd = "TQ.Something that goes on and on and on";
  expect(said(`${HEAD}%${odd}*%\nX0Y0D03*\nM02*\n`).join()).toContain(`“${odd.slice(0, 30)}”`);
});
