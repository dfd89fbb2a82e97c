import { expect } from "@jest/globals";
import { C1, mm, testRules } from "../../test/rule.ts";

const drill = (body: string) => ({ "a.gtl": mm(`${C1}D10*\nX0Y0D03*\n`), "a.drl": body });

testRules([
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
]);
