import { expect, test } from "@jest/globals";
import { measureBoard } from "./measure.ts";
import { isHolesLeast, partlyRead } from "./partly-read.ts";
import { readBoard } from "./read/read.ts";

const PAD =
  "%FSLAX46Y46*%\n%MOMM*%\n%TF.FileFunction,Copper,L1,Top*%\n%ADD10C,1*%\nD10*\nX5000000Y5000000D03*\n";
const DRILL = "M48\nMETRIC,TZ\nT1C0.8\n%\nT1\nX5.0Y5.0\n";
const NO_WORD = "X1,2,3D03*\n";

/** A drop of a copper layer and a drill file, and what of it is said to be read in part. */
test.each<[says: string, copper: string, drill: string, lost: string[], isLeast: boolean]>([
  ["all of it was read", `${PAD}M02*\n`, `${DRILL}M30\n`, [], false],
  ["a hole is lost", `${PAD}M02*\n`, `${DRILL}X6.0.1Y5.0\nM30\n`, ["b.drl"], true],
  ["a flash is lost", `${PAD}${NO_WORD}M02*\n`, `${DRILL}M30\n`, ["a.gbr"], false],
  ["both lose something", `${PAD}${NO_WORD}M02*\n`, `${DRILL}X6.0.1Y5.0\nM30\n`, ["a.gbr", "b.drl"], true],
  ["the drill file is cut off", `${PAD}M02*\n`, DRILL, ["b.drl"], true],
  ["a remark and a caution are no loss", `${PAD.replace("%MOMM*%\n", "")}M02*\n`, `${DRILL}M30\n`, [], false],
  ["the drill file holds nothing", `${PAD}M02*\n`, "", ["b.drl"], true],
  ["the drill file is something else", `${PAD}M02*\n`, "Dear house, as spoken.\n", ["b.drl"], true],
])("%s", (_, copper, drill, lost, isLeast) => {
  const utf8 = (text: string) => new TextEncoder().encode(text);
  const set = readBoard([
    { path: "a.gbr", bytes: utf8(copper) },
    { path: "b.drl", bytes: utf8(drill) },
  ]);
  const m = measureBoard(set);
  expect(partlyRead(m)).toEqual(lost);
  expect(isHolesLeast(m)).toBe(isLeast);
});

test("what cannot be read of a list of parts says nothing of the board", () => {
  const layers = [{ file: "parts.csv", role: "bom" }] as const;
  const findings = [{ tag: "parse-error", level: "error", file: "parts.csv", line: 3, text: "" }] as const;
  expect(partlyRead({ layers: layers as never, findings })).toEqual([]);
});
