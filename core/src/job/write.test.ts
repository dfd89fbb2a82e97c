import { expect, test } from "@jest/globals";
import { writeJob } from "./write.ts";

const JOB = {
  name: "K panel",
  revision: "B",
  widthMm: 100.1234567,
  heightMm: 79.99999996,
  layers: 2,
  files: [],
};

test("a job file holds what is known, sizes to a millionth of a millimetre, and leaves out what is not", () => {
  const of = (more: object) => JSON.parse(writeJob({ ...JOB, ...more })).GeneralSpecs;
  const plain = {
    ProjectId: { Name: "K panel", Revision: "B" },
    Size: { X: 100.123457, Y: 80 },
    LayerNumber: 2,
  };
  expect(of({})).toEqual(plain);
  expect(of({ thicknessMm: 0.8 })).toEqual({ ...plain, BoardThickness: 0.8 });
  expect(of({ finish: "ENIG" })).toEqual({ ...plain, Finish: "ENIG" });
});

test("each file stands with its function; positive where nothing else is said", () => {
  const text = writeJob({
    ...JOB,
    files: [
      { path: "a/top.gbr", function: "Copper,L1,Top" },
      { path: "a/mask.gbr", function: "Soldermask,Top", polarity: "Negative" },
    ],
  });
  expect(JSON.parse(text).FilesAttributes).toEqual([
    { Path: "a/top.gbr", FileFunction: "Copper,L1,Top", FilePolarity: "Positive" },
    { Path: "a/mask.gbr", FileFunction: "Soldermask,Top", FilePolarity: "Negative" },
  ]);
  expect(text.endsWith("}\n")).toBe(true);
});
