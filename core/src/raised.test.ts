import { expect, test } from "@jest/globals";
import { drill, entry, flash, layer, measure, rim, stroke } from "../test/write-board.ts";
import { readBom } from "./bom/bom.ts";
import type { Finding } from "./findings.ts";
import { readLayer } from "./gerber/read.ts";
import { rect, refused, solved, spec } from "./panel/designs.fixture.ts";
import { layoutAt } from "./panel/lay/layout.ts";
import { isRefusal, type PanelDesign, type PanelLayout, type PanelRefusal } from "./panel/spec.ts";
import { readPlacement } from "./placement/placement.ts";
import { chooseSheet } from "./table/sheets.ts";

/*
 * The least input that deserves each of these findings, and beside it the one a step away that does not: whoever takes the
 * branch out, or turns its condition round, meets it here.
 */

const cells = (text: string): string[][] => text.split("\n").map((row) => row.split(";"));
const bill = (text: string) => readBom(cells(text), "a.csv").findings;
const places = (text: string) => readPlacement(cells(text), "p.csv").findings;
const gerber = (text: string, maxObjects = 1000) =>
  readLayer(new TextEncoder().encode(text), "a.gtl", { maxObjects } as never).findings;
const HEAD = "%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,1*%\nD10*\n";
const pads = (n: number) => Array.from({ length: n }, (_, i) => flash(3 + i * 2, 3)).join("");
const copper = (path: string) => layer(path, `%ADD10C,1*%\nD10*\n${pads(2)}`);
const board = (...entries: Parameters<typeof measure>[0]) => measure(entries).findings;
const both = [copper("b.gtl"), copper("b.gbl"), rim(20, 10)];
const holes = drill("b.drl", [[0.8, [[3, 3]]]]);
const job = (layers: number, x: number) =>
  entry(
    "b.gbrjob",
    JSON.stringify({ GeneralSpecs: { LayerNumber: layers, Size: { X: x, Y: 10 }, BoardThickness: 1.6 } }),
  );
/** A rim of four strokes with a corner left open by so much. */
const open = (gap: number) =>
  layer(
    "b.gko",
    `%ADD10C,0.1*%\nD10*\n${stroke(0, 0, 20, 0)}${stroke(20, 0, 20, 10)}${stroke(20, 10, 0, 10)}${stroke(0, 10, 0, gap)}`,
  );
const two = layer(
  "b.gko",
  `%ADD10C,0.1*%\nD10*\n${[0, 30].map((x) => `${stroke(x, 0, x + 20, 0)}${stroke(x + 20, 0, x + 20, 10)}${stroke(x + 20, 10, x, 10)}${stroke(x, 10, x, 0)}`).join("")}`,
);
const sheet = (name: string, isHidden = false, looks?: object) => ({
  name,
  isHidden,
  cells: [[name === "list" || name === "more" ? "Ref" : "hello"]],
  ...(looks ? { looks: { struck: [], hidden: [], coloured: [], hiddenColumns: [], ...looks } } : {}),
});
const chosen = (...sheets: ReturnType<typeof sheet>[]) => {
  const said: Finding[] = [];
  chooseSheet(sheets as never, (c) => c[0]?.[0] === "Ref", "a list", "a.xlsx", said);
  return said;
};

test.each<[tag: string, level: string | undefined, said: () => readonly Finding[]]>([
  ["missing-format", "error", () => gerber("X1000000Y1000000D02*\nX2000000Y1000000D01*\nM02*\n")],
  [
    "coordinates-before-format",
    "error",
    () => gerber("%MOMM*%\n%ADD10C,1*%\nD10*\nX1000000Y1000000D03*\nM02*\n"),
  ],
  ["missing-format", undefined, () => gerber(`${HEAD}X1000000Y1000000D03*\nM02*\n`)],
  ["too-many-objects", "error", () => gerber(`${HEAD}${pads(4)}M02*\n`, 3)],
  ["too-many-objects", undefined, () => gerber(`${HEAD}${pads(3)}M02*\n`, 3)],
  // what is stepped counts as often as it is made
  ["too-many-objects", "error", () => gerber(`${HEAD}%SRX2Y2I5J5*%\n${pads(1)}%SR*%\nM02*\n`, 3)],
  ["bom-no-lines", "error", () => bill("Reference;Qty;Value\n;;\nTotal;;")],
  ["bom-no-lines", undefined, () => bill("Reference;Qty;Value\nR1;1;10k")],
  ["bom-sheet-chosen", "remark", () => chosen(sheet("list"), sheet("notes"))],
  ["bom-sheet-chosen", "warning", () => chosen(sheet("list"), sheet("more"))],
  ["bom-sheet-chosen", "warning", () => chosen(sheet("list", true), sheet("notes"))],
  ["bom-sheet-chosen", undefined, () => chosen(sheet("list"))],
  ["table-rows-marked", "warning", () => chosen(sheet("list", false, { struck: [3] }))],
  ["table-rows-marked", "remark", () => chosen(sheet("list", false, { hiddenColumns: [2] }))],
  ["table-rows-marked", undefined, () => chosen(sheet("list", false, {}))],
  ["placement-header-missing", "error", () => places("hello;there\nR1;odd")],
  [
    "placement-turn-sense",
    "remark",
    () => places("Ref;X (mm);Y (mm);Rotation (clockwise);Side\nR1;1;2;90;top"),
  ],
  ["placement-turn-sense", undefined, () => places("Ref;X (mm);Y (mm);Rotation;Side\nR1;1;2;90;top")],
  [
    "placement-units-mixed",
    "remark",
    () => places("Ref;X;Y;Rotation;Side\nR1;1mm;2mm;0;top\nR2;100mil;200mil;0;top"),
  ],
  ["placement-units-mixed", undefined, () => places("Ref;X;Y;Rotation;Side\nR1;1mm;2mm;0;top")],
  [
    "placement-column-unknown",
    "warning",
    () => places("Ref;X (mm);Y (mm);Rot;Puoli\nR1;1;2;0;ylä\nR2;3;4;0;ala\nC3;5;6;0;ylä"),
  ],
  ["drill-missing", "warning", () => board(...both)],
  ["drill-missing", undefined, () => board(...both, holes)],
  ["job-layer-count", "warning", () => board(...both, holes, job(4, 20))],
  ["job-layer-count", undefined, () => board(...both, holes, job(2, 20))],
  ["job-size", "warning", () => board(...both, holes, job(2, 20.4))],
  ["job-size", undefined, () => board(...both, holes, job(2, 20.2))],
  ["outline-gap", "warning", () => board(copper("b.gtl"), open(0.08))],
  ["outline-gap", "remark", () => board(copper("b.gtl"), open(0.03))],
  ["outline-gap", undefined, () => board(copper("b.gtl"), open(0))],
  ["outline-several", "warning", () => board(copper("b.gtl"), two)],
  ["outline-several", undefined, () => board(copper("b.gtl"), rim(20, 10))],
])("%s: %s", (tag, level, said) => {
  const of = said().filter((f) => f.tag === tag);
  expect(of.map((f) => f.level).slice(0, 1)).toEqual(level === undefined ? [] : [level]);
});

test.each<[tag: string, make: () => { readonly tag: string; readonly nearest: readonly number[] }]>([
  ["no-board", () => refused([], spec({}))],
  ["no-count", () => refused([rect(20, 10)], spec({ counts: [0] }))],
  [
    "layers-differ",
    () => refused([rect(20, 10), rect(20, 10, { layers: 4 })], spec({ counts: [1, 1], turns: [[0], [0]] })),
  ],
  [
    "thickness-differs",
    () =>
      refused(
        [rect(20, 10, { thicknessMm: 1.6 }), rect(20, 10, { thicknessMm: 0.8 })],
        spec({ counts: [1, 1], turns: [[0], [0]] }),
      ),
  ],
  [
    "several-by-tabs",
    () =>
      refused([rect(20, 10), rect(20, 15)], spec({ counts: [1, 1], turns: [[0], [0]], separation: "score" })),
  ],
  [
    "larger-than-sheet",
    () => refused([rect(60, 50)], spec({ counts: [1], maxWidthMm: 55, maxHeightMm: 55 })),
  ],
  [
    "smaller-than-least",
    () =>
      refused(
        [rect(20, 10)],
        spec({ counts: [1], rails: [], minWidthMm: 70, minHeightMm: 70, separation: "score" }),
      ),
  ],
])("a sheet is refused: %s", (tag, make) => {
  expect(make().tag).toBe(tag);
});

test("scores: not through a board, not in one too thin or too thick, and a hole beside one is said", () => {
  const how = spec({
    counts: [4],
    separation: "score",
    rails: [],
    fiducials: false,
    toolingHoles: false,
    badMarks: false,
  });
  const laid = solved([rect(40, 40)], how);
  expect([laid.widthMm, laid.heightMm]).toEqual([80, 80]);
  const made = (upMm: number, thicknessMm = 1.6, more: Partial<PanelDesign> = {}) =>
    layoutAt(
      [rect(40, 40, more)],
      { ...how, thicknessMm },
      {
        ...laid,
        heightMm: 80 + upMm,
        // one of the upper row is put higher: a score along it would run through its neighbour
        places: laid.places.map((p, i) => (i === 3 ? { ...p, yMm: p.yMm + upMm } : p)),
      },
    );
  const tags = (l: PanelLayout | PanelRefusal) => (isRefusal(l) ? [l.tag] : l.findings.map((f) => f.tag));
  expect(tags(made(0))).toEqual([]);
  expect([0.79, 0.8, 2.4, 2.41].map((t) => tags(made(0, t)))).toEqual([
    ["score-thickness"],
    [],
    [],
    ["score-thickness"],
  ]);
  expect(tags(made(4))).toEqual(["score-through-board"]);
  const hole = (mm: number) => tags(made(0, 1.6, { holeToEdge: { mm, x: mm, y: 5 } }));
  expect([hole(0.49), hole(0.5)]).toEqual([["score-near-hole"], []]);
});
