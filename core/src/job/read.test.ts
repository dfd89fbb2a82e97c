import { expect, test } from "@jest/globals";
import type { Finding } from "../findings.ts";
import { base, checkJob, readJob } from "./read.ts";
import { writeJob } from "./write.ts";

const job = (doc: unknown) => {
  const findings: Finding[] = [];
  return {
    job: readJob(typeof doc === "string" ? doc : JSON.stringify(doc), "x.gbrjob", findings),
    findings,
  };
};

test("what a job file states of the board and of each file", () => {
  const { job: j } = job({
    GeneralSpecs: {
      BoardThickness: 1.2,
      Size: { X: 50, Y: 40.5 },
      LayerNumber: 4,
      ProjectId: { Name: "K", Revision: "B" },
    },
    FilesAttributes: [
      { Path: "out/K-F.GBR", FileFunction: "Copper,L1,Top", FilePolarity: "Positive" },
      { Path: "K-mask.gbr", FileFunction: "SolderMask,Top", FilePolarity: "Negative" },
      { FileFunction: "no path" },
    ],
  });
  expect(j).toMatchObject({
    thicknessMm: 1.2,
    widthMm: 50,
    heightMm: 40.5,
    layers: 4,
    name: "K",
    revision: "B",
  });
  expect(j!.functions.get("k-f.gbr")).toEqual(["Copper", "L1", "Top"]);
  expect([...j!.polarities]).toEqual([
    ["k-f.gbr", "Positive"],
    ["k-mask.gbr", "Negative"],
  ]);
  expect(j!.paths).toEqual(["out/K-F.GBR", "K-mask.gbr"]);
  expect(base("a/b/C.Gbr")).toBe("c.gbr");
});

test.each([
  ["no number", { BoardThickness: "1.6" }],
  ["nothing", { BoardThickness: 0 }],
  ["less than nothing", { BoardThickness: -1.6 }],
])("a thickness that is %s is not known", (_, specs) => {
  expect(job({ GeneralSpecs: specs }).job?.thicknessMm).toBeUndefined();
});

test("a thin board of one layer is stated as such", () => {
  expect(job({ GeneralSpecs: { BoardThickness: 0.8, LayerNumber: 1 } }).job).toMatchObject({
    thicknessMm: 0.8,
    layers: 1,
  });
});

test("a broken job file is said and the rest goes on without it", () => {
  const { job: j, findings } = job("{ not json");
  expect([j, findings[0]?.tag, findings[0]?.level]).toEqual([undefined, "parse-error", "warning"]);
});

test.each([
  ["Copper,L1,Top", "error"],
  ["SolderMask,Top", "error"],
  ["Profile,NP", "error"],
  ["Plated,1,2,PTH", "error"],
  ["NonPlated,1,2,NPTH", "error"],
  ["Legend,Top", "warning"],
  ["AssemblyDrawing,Top", "warning"],
])("a promised file of %s that is not there: %s", (fn, level) => {
  const findings: Finding[] = [];
  const { job: j } = job({
    FilesAttributes: [
      { Path: "gone.gbr", FileFunction: fn },
      { Path: "there.gbr", FileFunction: fn },
    ],
  });
  checkJob(j!, [{ path: "sub/THERE.gbr" }], "x.gbrjob", findings);
  expect(findings.map((f) => [f.tag, f.level, f.text.includes("gone.gbr")])).toEqual([
    ["job-missing-file", level, true],
  ]);
});

test("a job file that is written reads back with its sizes, to the nanometre", () => {
  const { job: j } = job(
    writeJob({
      name: "K",
      revision: "B",
      widthMm: 25.4 / 3,
      heightMm: 40.5,
      layers: 2,
      thicknessMm: 1.6,
      finish: "immersion gold",
      files: [{ path: "a/top.gbr", function: "Copper,L1,Top" }],
    }),
  );
  expect(j!.thicknessMm).toBe(1.6);
  expect(j).toMatchObject({ widthMm: 8.466667, heightMm: 40.5, layers: 2, name: "K", revision: "B" });
  expect([...j!.polarities]).toEqual([["top.gbr", "Positive"]]);
});
