import { expect, test } from "@jest/globals";
import { C1, mm, testRules, top } from "../../test/rule.ts";
import { readLayer } from "../gerber/read.ts";
import { partsOfImage } from "./from-image.ts";

const PART = (ref: string, more: string) => `%TO.C,${ref}*%\n%TO.CRot,${more}*%\n`;

test("only what is flashed with the mark of a part's middle is a part; a stroke of it is ink", () => {
  const image = readLayer(
    new TextEncoder().encode(
      mm(
        `%TA.AperFunction,ComponentMain*%\n%ADD20C,0.3*%\n%TD.AperFunction*%\n%ADD22C,0.3*%\nD20*\n${PART("R1", "-90")}X1000uY2000uD03*\n` +
          `X0Y0D02*\nG01X2000uY0D01*\n%TD*%\n${PART("R2", "0")}D22*\nX5000uY0D03*\n%TD*%\nD20*\nX7000uY0D03*\n`,
      ),
    ),
    "a.gbr",
  );
  const { parts, lines } = partsOfImage(image, "bottom", 4);
  expect(parts).toEqual([{ ref: "R1", xMm: 1, yMm: 2, rotationDeg: 270, side: "bottom" }]);
  expect(lines.map((l) => [l.refs, l.row])).toEqual([[["R1"], 4]]);
});

testRules([
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
]);
