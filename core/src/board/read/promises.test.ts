import { expect, test } from "@jest/globals";
import type { Entry } from "../board-file.ts";
import { measureBoard } from "../measure.ts";
import { readBoard } from "./read.ts";

const utf8 = (text: string) => new TextEncoder().encode(text);
const head = (attributes = "") =>
  `%FSLAX46Y46*%\n%MOMM*%\n${attributes}%ADD10R,1X1*%\n%ADD11C,0.2*%\n%ADD12C,1.6*%\n`;
const nm = (v: number) => Math.round(v * 1e6);
const flash = (code: number, ...points: [number, number][]) =>
  `D${code}*\n${points.map(([x, y]) => `X${nm(x)}Y${nm(y)}D03*\n`).join("")}`;
const line = (...points: [number, number][]) =>
  `D11*\n${points.map(([x, y], i) => `X${nm(x)}Y${nm(y)}D0${i === 0 ? 2 : 1}*\n`).join("")}`;
const PADS_A: [number, number][] = [
  [5, 5],
  [10, 5],
  [15, 5],
  [5, 9],
];
const PADS_B: [number, number][] = [
  [7, 12],
  [12, 12],
  [17, 12],
  [7, 15],
];
const layer = (body: string, attributes = "") => `${head(attributes)}${body}M02*\n`;
const COPPER_A = layer(
  flash(10, ...PADS_A) + line([5, 5], [5, 9]) + line([10, 5], [15, 5], [15, 6], [16, 6], [16, 7]),
);
const COPPER_B = layer(
  flash(10, ...PADS_B) + line([7, 12], [7, 15]) + line([12, 12], [17, 12], [17, 13], [18, 13], [18, 14]),
);
const MASK_A = layer(flash(10, ...PADS_A));
const MASK_B = layer(flash(10, ...PADS_B));
const EDGE = layer(line([0, 0], [25, 0], [25, 20], [0, 20], [0, 0]));
const drop = (files: Readonly<Record<string, string>>): Entry[] =>
  Object.entries(files).map(([path, text]) => ({ path, bytes: utf8(text) }));
/** Roles by file, and the findings that want a look or block. */
const read = (files: Readonly<Record<string, string>>) => {
  const set = readBoard(drop(files));
  return {
    roles: Object.fromEntries(
      set.files.map((f) => [
        f.path,
        `${f.role} ${f.side === "inner" ? `inner ${f.index}` : (f.side ?? "")}`.trim(),
      ]),
    ),
    blockers: set.findings.filter((f) => f.level === "error").map((f) => f.tag),
    cautions: set.findings.filter((f) => f.level === "warning").map((f) => f.tag),
    text: set.findings.map((f) => `${f.text} ${f.do ?? ""}`).join("\n"),
  };
};

// which side is up
test.each<[string, Record<string, string>, Record<string, string>, string[]]>([
  [
    "two plainly named layers, whatever their order",
    { "z-TopLayer.gbr": COPPER_A, "a-BottomLayer.gbr": COPPER_B },
    { "z-TopLayer.gbr": "copper top", "a-BottomLayer.gbr": "copper bottom" },
    [],
  ],
  [
    "layers numbered from the top",
    { "brd-l1.gbr": COPPER_A, "brd-l2.gbr": COPPER_A, "brd-l3.gbr": COPPER_B, "brd-l4.gbr": COPPER_B },
    {
      "brd-l1.gbr": "copper top",
      "brd-l2.gbr": "copper inner 1",
      "brd-l3.gbr": "copper inner 2",
      "brd-l4.gbr": "copper bottom",
    },
    [],
  ],
  [
    "two layers numbered",
    { "L1.gbr": COPPER_A, "L2.gbr": COPPER_B },
    { "L1.gbr": "copper top", "L2.gbr": "copper bottom" },
    [],
  ],
  [
    "inner ones numbered beside top and bottom",
    { "top.gbr": COPPER_A, "layer1.gbr": COPPER_A, "layer2.gbr": COPPER_B, "bottom.gbr": COPPER_B },
    {
      "top.gbr": "copper top",
      "layer1.gbr": "copper inner 1",
      "layer2.gbr": "copper inner 2",
      "bottom.gbr": "copper bottom",
    },
    [],
  ],
  [
    "numbers that go on from the top",
    { "top.gbr": COPPER_A, "L2.gbr": COPPER_A, "L3.gbr": COPPER_B, "bottom.gbr": COPPER_B },
    {
      "top.gbr": "copper top",
      "L2.gbr": "copper inner 1",
      "L3.gbr": "copper inner 2",
      "bottom.gbr": "copper bottom",
    },
    [],
  ],
  [
    "an adhesive layer beside a bottom",
    { "TopAdhesive.gbr": COPPER_A, "bottom_copper.gbr": COPPER_B },
    { "TopAdhesive.gbr": "unknown top", "bottom_copper.gbr": "copper bottom" },
    [],
  ],
  [
    "two that say no side: the masks tell",
    { "copper-x.gbr": COPPER_B, "copper-y.gbr": COPPER_A, "mask_top.gbr": MASK_A, "mask_bottom.gbr": MASK_B },
    { "copper-x.gbr": "copper bottom", "copper-y.gbr": "copper top" },
    [],
  ],
  [
    "two that say no side and nothing tells: asked",
    { "copper-x.gbr": COPPER_B, "copper-y.gbr": COPPER_A },
    { "copper-x.gbr": "copper top", "copper-y.gbr": "copper bottom" },
    ["side-guessed", "side-guessed"],
  ],
  [
    "one that says no side beside a top: the other",
    { "top.gbr": COPPER_A, "copper.gbr": COPPER_B },
    { "copper.gbr": "copper bottom" },
    [],
  ],
  [
    "the highest number with others missing: asked",
    { "L1.gbr": COPPER_A, "L4.gbr": COPPER_B },
    { "L1.gbr": "copper top", "L4.gbr": "copper bottom" },
    ["side-guessed"],
  ],
  [
    "a closed thin line named like copper is the outline",
    { "top.gbr": COPPER_A, "bottom.gbr": EDGE },
    { "bottom.gbr": "profile" },
    [],
  ],
])("%s", (_, files, roles, asked) => {
  const r = read(files);
  expect(r.roles).toMatchObject(roles);
  expect(r.blockers.filter((t) => t === "side-guessed")).toEqual(asked);
});

test("whatever is taken and not said by the file is said, with how it fared against the other", () => {
  const r = read({
    "copper-x.gbr": COPPER_B,
    "copper-y.gbr": COPPER_A,
    "mask_top.gbr": MASK_A,
    "mask_bottom.gbr": MASK_B,
  });
  expect(r.text).toContain("open over 100 % of its pads, those of the bottom over 0 %");
  expect(read({ "top.gbl": COPPER_A }).text).toContain("The ending .gbl is used for copper bottom");
});

// polarity: the board is 25 × 20 mm, the plane full but for four discs of 1.6 mm
const DISCS = flash(12, ...PADS_A);
const PLANE = 500 - 4 * Math.PI * 0.64;
const COMMENT = (polarity: string) => `G04 #@! TF.FilePolarity,${polarity}*\n`;
const JOB = (polarity: string, layers = 4) =>
  JSON.stringify({
    GeneralSpecs: { LayerNumber: layers },
    FilesAttributes: [{ Path: "in1.gbr", FileFunction: "Copper,L2,Inr", FilePolarity: polarity }],
  });
test.each<[string, Record<string, string>, number]>([
  ["the attribute", { "In1_Cu.gbr": layer(DISCS, "%TF.FilePolarity,Negative*%\n") }, PLANE],
  ["an attribute in a comment", { "In1_Cu.gbr": layer(DISCS, COMMENT("Negative")) }, PLANE],
  ["the old command", { "In1_Cu.gbr": layer(DISCS, "%IPNEG*%\n") }, PLANE],
  ["the job file", { "in1.gbr": layer(DISCS), "job.gbrjob": JOB("Negative") }, PLANE],
  [
    "the attribute and the old command: not twice",
    { "In1_Cu.gbr": layer(DISCS, "%TF.FilePolarity,Negative*%\n%IPNEG*%\n") },
    PLANE,
  ],
  [
    "attribute, comment, command and job file",
    {
      "in1.gbr": layer(DISCS, `%TF.FilePolarity,Negative*%\n${COMMENT("Negative")}%IPNEG*%\n`),
      "job.gbrjob": JOB("Negative"),
    },
    PLANE,
  ],
  ["positive by its attribute", { "In1_Cu.gbr": layer(DISCS, "%TF.FilePolarity,Positive*%\n") }, 500 - PLANE],
  ["positive by the old command", { "In1_Cu.gbr": layer(DISCS, "%IPPOS*%\n") }, 500 - PLANE],
  ["nothing", { "In1_Cu.gbr": layer(DISCS) }, 500 - PLANE],
])("an inner plane whose polarity is told by %s", (_, inner, area) => {
  const m = measureBoard(
    readBoard(drop({ "top.gbr": COPPER_A, "bottom.gbr": COPPER_B, "edge_cuts.gbr": EDGE, ...inner })),
  );
  expect(m.copperAreaMm2["inner 1"]).toBeCloseTo(area, 1);
});

test("a mask is read as openings whatever it declares; a plane that says nothing and looks like a negative is asked about", () => {
  const opened = (attributes: string) =>
    measureBoard(
      readBoard(
        drop({
          "top.gbr": COPPER_A,
          "mask_top.gbr": layer(flash(10, ...PADS_A), attributes),
          "edge_cuts.gbr": EDGE,
        }),
      ),
    ).maskOpenings.top;
  expect(opened("%TF.FilePolarity,Negative*%\n")).toEqual({ count: 4 });
  expect(opened("")).toEqual({ count: 4 });
  const holes = `M48\nMETRIC\nT1C0.4\n%\nT1\n${PADS_A.map(([x, y]) => `X${x}.0Y${y}.0`).join("\n")}\nM30\n`;
  const set = { "top.gbr": COPPER_A, "bottom.gbr": COPPER_B, "edge_cuts.gbr": EDGE, "holes-pth.drl": holes };
  expect(read({ ...set, "In1_Cu.gbr": layer(DISCS) }).blockers).toContain("polarity-unknown");
  expect(
    read({ ...set, "In1_Cu.gbr": layer(DISCS, "%TF.FilePolarity,Positive*%\n") }).blockers,
  ).not.toContain("polarity-unknown");
  // pads of the holes' own size with tracks are a signal layer
  const signal = layer(
    flash(10, ...PADS_A) + Array.from({ length: 8 }, (_, i) => line([2, 2 + i], [20, 2 + i])).join(""),
  );
  expect(read({ ...set, "In1_Cu.gbr": signal }).blockers).not.toContain("polarity-unknown");
});

// what is promised and not given
const WHOLE = { "top.gbr": COPPER_A, "bottom.gbr": COPPER_B, "edge_cuts.gbr": EDGE };
const PICTURE = "\u0089PNG";
test.each<[string, Record<string, string>, string]>([
  ["a copper layer that is empty", { ...WHOLE, "bottom.gbr": "" }, "its name promises copper bottom"],
  [
    "a copper layer that is a text",
    { ...WHOLE, "bottom.gbr": "see the attached drawing\n" },
    "its name promises copper bottom",
  ],
  ["a mask that is a table", { ...WHOLE, "mask_top.gbr": "a,b\n1,2\n3,4\n" }, "its name promises mask top"],
  ["a drill file that is empty", { ...WHOLE, "board.drl": "" }, "its name promises drill"],
  ["a drill file that is a text", { ...WHOLE, "drill.txt": "no holes yet" }, "its name promises drill"],
  [
    "a copper layer of a header only",
    { ...WHOLE, "bottom.gbr": layer("") },
    "copper bottom by its name, bottom.gbr, and holds nothing",
  ],
  ["a mask of a header only", { ...WHOLE, "mask_top.gbr": layer("") }, "mask top by its name"],
  [
    "a drill file with tools and no holes",
    { ...WHOLE, "holes-pth.drl": "M48\nMETRIC\nT1C0.8\n%\nM30\n" },
    "holds nothing",
  ],
  [
    "a copper layer that is cut off",
    { ...WHOLE, "top.gbr": COPPER_A.replace("M02*\n", "") },
    "what is cut off is missing on the board",
  ],
  [
    "what the job file promises",
    {
      ...WHOLE,
      "x1.gbr": "",
      "job.gbrjob": JSON.stringify({ FilesAttributes: [{ Path: "x1.gbr", FileFunction: "Soldermask,Top" }] }),
    },
    "the job file promises mask top",
  ],
  [
    "what the job file lists and is not there",
    {
      ...WHOLE,
      "job.gbrjob": JSON.stringify({
        FilesAttributes: [{ Path: "gone.gbr", FileFunction: "Copper,L3,Inr" }],
      }),
    },
    "lists gone.gbr, which is not in the drop",
  ],
  [
    "an inner layer left out between two",
    { ...WHOLE, "In1_Cu.gbr": COPPER_A, "In3_Cu.gbr": COPPER_B },
    "Inner copper 2 is missing",
  ],
  [
    "inner layers the job file counts",
    { ...WHOLE, "job.gbrjob": JOB("Positive") },
    "Inner copper 1, 2 are missing: the job file counts 4",
  ],
  [
    "a top that is not there",
    { "bottom.gbr": COPPER_B, "In1_Cu.gbr": COPPER_A, "edge_cuts.gbr": EDGE },
    "The copper of the top is missing",
  ],
  [
    "layers a drill file joins",
    {
      ...WHOLE,
      "via.drl": "M48\n; #@! TF.FileFunction,Plated,1,4,PTH\nMETRIC\nT1C0.4\n%\nT1\nX5.0Y5.0\nM30\n",
    },
    "joins copper layers down to 4, but only 2",
  ],
])("%s is an error that says so", (_, files, words) => {
  const set = readBoard(drop(files));
  const said = set.findings.filter((f) => f.level === "error");
  expect(said.map((f) => f.text).join("\n")).toContain(words);
  expect(said.every((f) => f.do !== undefined)).toBe(true);
});

test.each<[string, Record<string, string>]>([
  ["a whole board", WHOLE],
  [
    "an empty file of unplated holes",
    { ...WHOLE, "holes-npth.drl": "M48\n; #@! TF.FileFunction,NonPlated,1,2,NPTH\nMETRIC\n%\nM30\n" },
  ],
  ["a note beside it", { ...WHOLE, "readme.txt": "Thank you.\n" }],
  ["a picture beside it", { ...WHOLE, "photo.png": PICTURE }],
  ["an empty legend", { ...WHOLE, "silk_bottom.gbr": layer("") }],
  ["an empty paste layer", { ...WHOLE, "paste_bottom.gbr": layer("") }],
  ["four layers, all there", { ...WHOLE, "In1_Cu.gbr": COPPER_A, "In2_Cu.gbr": COPPER_B }],
])("%s is no loss", (_, files) => {
  expect(read(files).blockers).toEqual([]);
});

const made = (more: string) => (body: string) => body.replace("%MOMM*%\n", `%MOMM*%\n${more}`);
test.each<[string, (b: string) => string, (b: string) => string, string, string | undefined]>([
  [
    "two projects",
    made("%TF.ProjectId,lamp,1111,A*%\n"),
    made("%TF.ProjectId,horn,2222,A*%\n"),
    "error",
    "lamp 1111 A",
  ],
  [
    "two revisions",
    made("%TF.ProjectId,lamp,1111,A*%\n"),
    made("%TF.ProjectId,lamp,1111,B*%\n"),
    "error",
    "“lamp 1111 B”",
  ],
  [
    "two writers",
    made("%TF.GenerationSoftware,Made up,Planner,1*%\n"),
    made("%TF.GenerationSoftware,Made up,Planner,2*%\n"),
    "warning",
    "writers",
  ],
  [
    "two months",
    made("%TF.CreationDate,2026-09-01T10:00:00Z*%\n"),
    made("%TF.CreationDate,2026-11-01T10:00:00Z*%\n"),
    "warning",
    "days of export",
  ],
  [
    "one evening to the next morning",
    made("%TF.CreationDate,2026-09-01T23:59:00Z*%\n"),
    made("%TF.CreationDate,2026-09-02T00:01:00Z*%\n"),
    "none",
    undefined,
  ],
  ["one project told and one not", made("%TF.ProjectId,lamp,1111,A*%\n"), (b) => b, "none", undefined],
])("files of %s in one drop", (_, a, b, level, words) => {
  const set = readBoard(
    drop({ "top.gbr": a(COPPER_A), "bottom.gbr": b(COPPER_B), "edge_cuts.gbr": a(EDGE) }),
  );
  const said = set.findings.filter((f) => f.tag === "mixed-revisions");
  expect(said.map((f) => f.level)).toEqual(level === "none" ? [] : [level]);
  if (words) expect(said[0]!.text).toContain(words);
});
