import { expect, test } from "@jest/globals";
import type { Entry } from "./board-file.ts";
import { measureBoard } from "./measure.ts";
import { readBoard } from "./read/read.ts";

const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
const nm = (v: number) => Math.round(v * 1e6);
const entry = (path: string, text: string): Entry => ({ path, bytes: new TextEncoder().encode(text) });
const stroke = (x1: number, y1: number, x2: number, y2: number) =>
  `X${nm(x1)}Y${nm(y1)}D02*\nG01X${nm(x2)}Y${nm(y2)}D01*\n`;
const flash = (x: number, y: number) => `X${nm(x)}Y${nm(y)}D03*\n`;
const frame = (w: number, h: number) =>
  stroke(0, 0, w, 0) + stroke(w, 0, w, h) + stroke(w, h, 0, h) + stroke(0, h, 0, 0);

/** Two pads on a track, one pad apart, a via of 0.3 in a pad of 0.6; every figure below is worked out by hand from this. */
const board = (): Entry[] => [
  entry(
    "t-top.gtl",
    `${HEAD}%ADD10C,0.6*%\n%ADD11R,1X1*%\n%ADD12C,0.2*%\nD10*\n${flash(5, 5)}D11*\n${flash(10, 5)}${flash(11.4, 5)}D12*\n${stroke(5, 5, 10, 5)}M02*\n`,
  ),
  entry(
    "t-bottom.gbl",
    `${HEAD}%ADD10C,0.6*%\n%ADD12C,0.25*%\nD10*\n${flash(5, 5)}D12*\n${stroke(5, 5, 5, 8)}M02*\n`,
  ),
  entry("t-mask.gts", `${HEAD}%ADD10R,1.1X1.1*%\nD10*\n${flash(10, 5)}${flash(11.4, 5)}M02*\n`),
  entry("t-paste.gtp", `${HEAD}%ADD10R,1X1*%\nD10*\n${flash(10, 5)}${flash(11.4, 5)}M02*\n`),
  entry("t-edge.gko", `${HEAD}%ADD10C,0.1*%\nD10*\n${frame(20, 10)}M02*\n`),
  entry("t.drl", "M48\nMETRIC\nT1C0.3\nT2C2.0\n%\nT1\nX5.0Y5.0\nT2\nX17.0Y5.0\nM30\n"),
];
const measure = (entries: Entry[]) => measureBoard(readBoard(entries));

test("a small board measures as drawn", () => {
  const m = measure(board());
  expect(m).toMatchObject({
    outcome: "accept",
    outline: { widthMm: 20, heightMm: 10, areaMm2: 200, perimeterMm: 60, closed: true, cutouts: 0 },
    copperLayers: 2,
    layerOrder: ["top", "bottom"],
    minTrackMm: 0.2,
    minSpaceMm: 0.4,
    minNetSpaceMm: 0.4,
    minHoleMm: 0.3,
    minAnnularMm: 0.15,
    minMaskWebMm: 0.3,
    copperFlashes: { top: 3, bottom: 1 },
    copperIslands: { top: 2, bottom: 1 },
    nets: { count: 2 },
    smdPads: { top: 2 },
    viaPads: 1,
    throughHolePads: 0,
    paste: { top: { count: 2, areaMm2: 2 } },
    maskOpenings: { top: { count: 2 } },
  });
  expect(m.holes).toEqual([
    { diameterMm: 0.3, plated: true, count: 1 },
    { diameterMm: 2, plated: false, count: 1 },
  ]);
  expect(m.copperAreaMm2.top).toBeCloseTo(2 + Math.PI * 0.09 + 0.2 * (4.5 - 0.3), 1);
  expect(m.minNetSpaceAt?.[0]).toMatchObject({ layer: "top", x: expect.closeTo(10.7, 0) });
  // nearest copper to the edge: the square pads, from 5.5 to the top edge at 10, lie farther than the track's end at the bottom
  expect(m.minCopperToEdgeMm).toBeCloseTo(10 - 8 - 0.125, 6);
});

test("the same board in inches, moved, measures the same", () => {
  const inch = board().map((e) => {
    const text = new TextDecoder().decode(e.bytes);
    if (e.path.endsWith(".drl")) return e;
    const sizes = (p: string) =>
      p
        .split("X")
        .map((v) => Number(v) / 25.4)
        .join("X");
    const inInches = (line: string) =>
      line.startsWith("%")
        ? line.replace("%MOMM*%", "%MOIN*%").replace(/(?<=%ADD\d+[CR],)[\d.X]+/g, sizes)
        : line.replace(/([XY])(-?\d+)/g, (_, c, v) => `${c}${Math.round(Number(v) / 25.4)}`);
    return entry(e.path, text.split("\n").map(inInches).join("\n"));
  });
  const [a, b] = [measure(board()), measure(inch)];
  for (const key of ["minTrackMm", "minNetSpaceMm", "minAnnularMm", "minCopperToEdgeMm"] as const)
    expect(b[key]).toBeCloseTo(a[key]!, 4);
  expect(b.copperIslands).toEqual(a.copperIslands);
  expect(b.copperAreaMm2.top).toBeCloseTo(a.copperAreaMm2.top!, 3);
  expect(b.findings.map((f) => f.tag)).toEqual(a.findings.map((f) => f.tag));
});

test.each([
  ["no outline", (e: Entry[]) => e.filter((f) => !f.path.endsWith(".gko")), "outline-missing", "error"],
  ["no copper", (e: Entry[]) => e.filter((f) => !/\.g[tb]l$/.test(f.path)), "no-copper-layer", "error"],
  ["no mask below", (e: Entry[]) => e, "mask-missing", "warning"],
  [
    "drills elsewhere",
    (e: Entry[]) => [
      ...e.filter((f) => !f.path.endsWith(".drl")),
      entry("t-pth.drl", "M48\nMETRIC\nT1C0.3\n%\nT1\nX15.0Y9.0\nM30\n"),
    ],
    "drill-misaligned",
    "error",
  ],
  [
    "a hole outside",
    (e: Entry[]) => [...e, entry("u-npth.drl", "M48\nMETRIC\nT1C0.9\n%\nT1\nX35.0Y9.0\nM30\n")],
    "hole-outside-board",
    "warning",
  ],
  [
    "a second parts list",
    (e: Entry[]) => [
      ...e,
      ...["one", "two"].map((n) => ({
        ...entry(`${n}.csv`, "Ref,Value,Package\nR1,10k,0603\n"),
        cells: [
          ["Ref", "Value", "Package"],
          ["R1", "10k", "0603"],
        ],
      })),
    ],
    "duplicate-layer",
    "warning",
  ],
  [
    "a second netlist",
    (e: Entry[]) => [
      ...e,
      ...["a", "b"].map((n) =>
        entry(
          `${n}.ipc`,
          `P  UNITS CUST 1\n327A                R1    -1          A01X+001000Y+001000\n999\n`,
        ),
      ),
    ],
    "duplicate-layer",
    "warning",
  ],
  [
    "the top twice, alike",
    (e: Entry[]) => [...e, { ...e[0]!, path: "again-top.gtl" }],
    "duplicate-layer",
    "remark",
  ],
  [
    "two tops that differ",
    (e: Entry[]) => [...e, entry("again-top.gtl", `${HEAD}%ADD10C,1*%\nD10*\n${flash(1, 1)}M02*\n`)],
    "duplicate-layer",
    "warning",
  ],
])("%s is found", (_, change, tag, level) => {
  expect(measure(change(board())).findings).toContainEqual(expect.objectContaining({ tag, level }));
});

test("a picture renamed to a layer and an empty file are named and left out", () => {
  const png = { path: "t-inner.g1", bytes: Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10) };
  const m = measure([...board(), png, entry("t-bottom.gbs", "")]);
  expect(m.findings).toContainEqual(expect.objectContaining({ tag: "not-a-layer-file", file: "t-inner.g1" }));
  expect(m.findings).toContainEqual(expect.objectContaining({ tag: "empty-file", file: "t-bottom.gbs" }));
  expect(m.copperLayers).toBe(2);
});

test("a role comes from the attribute, then the job file, then name and content; a person's word wins", () => {
  const attribute = entry(
    "odd.gbl",
    `%TF.FileFunction,Copper,L1,Top*%\n${HEAD}%ADD10C,1*%\nD10*\n${flash(1, 1)}M02*\n`,
  );
  const set = readBoard([attribute]);
  expect(set.files[0]).toMatchObject({ role: "copper", side: "top", because: "attribute" });
  expect(set.findings.map((f) => f.tag)).toContain("role-contradiction");
  const job = entry(
    "b.gbrjob",
    JSON.stringify({
      GeneralSpecs: { BoardThickness: 1.2 },
      FilesAttributes: [
        { Path: "x.art", FileFunction: "Soldermask,Top" },
        { Path: "gone.art", FileFunction: "Legend,Top" },
      ],
    }),
  );
  const told = readBoard([entry("x.art", `${HEAD}%ADD10C,1*%\nD10*\n${flash(1, 1)}M02*\n`), job]);
  expect(told.files[0]).toMatchObject({ role: "mask", side: "top", because: "job" });
  expect(told.findings.map((f) => f.tag)).toContain("job-missing-file");
  expect(told.job?.thicknessMm).toBe(1.2);
  const corrected = readBoard([attribute], { roles: { "odd.gbl": { role: "paste", side: "bottom" } } });
  expect(corrected.files[0]).toMatchObject({ role: "paste", side: "bottom", because: "corrected" });
});

test("a layer that lies there under another name than the job's is taken for it; two that might be are not", () => {
  const top = (path: string, x = 1) =>
    entry(path, `%TF.FileFunction,Copper,L1,Top*%\n${HEAD}%ADD10C,1*%\nD10*\n${flash(x, 1)}M02*\n`);
  const job = entry(
    "b.gbrjob",
    JSON.stringify({ FilesAttributes: [{ Path: "was-top.gbr", FileFunction: "Copper,L1,Top" }] }),
  );
  const told = (...entries: Entry[]) =>
    readBoard([...entries, job])
      .findings.filter((f) => f.tag.startsWith("job-"))
      .map((f) => [f.tag, f.level]);
  expect(told(top("is-top.gbr"))).toEqual([["job-file-renamed", "remark"]]);
  expect(told(top("is-top.gbr"), top("or-top.gbr", 2))).toEqual([["job-missing-file", "error"]]);
  const bottom = entry(
    "is-bottom.gbr",
    `%TF.FileFunction,Copper,L2,Bot*%\n${HEAD}%ADD10C,1*%\nD10*\n${flash(1, 1)}M02*\n`,
  );
  expect(told(bottom)).toEqual([["job-missing-file", "error"]]);
});

test("plated holes cut by the edge are counted as half holes and keep out of the ring", () => {
  const [top, ...rest] = board();
  const edgePads = [3, 5, 7].map((y) => flash(20, y)).join("");
  const text = new TextDecoder().decode(top!.bytes).replace("M02*", `%ADD20C,1.4*%\nD20*\n${edgePads}M02*`);
  const holes = `M48\nMETRIC\nT1C0.8\n%\nT1\n${[3, 5, 7].map((y) => `X20.0Y${y}.0\n`).join("")}M30\n`;
  const m = measure([entry("t-top.gtl", text), ...rest, entry("edge-pth.drl", holes)]);
  expect(m.castellatedHoles).toEqual({
    count: 3,
    diameterMm: 0.8,
    edge: "right",
    at: { layer: "drill", x: 20, y: 3 },
  });
  expect(m.minAnnularMm).toBe(0.15);
  expect(m.findings).toContainEqual(expect.objectContaining({ tag: "castellated-holes" }));
});
