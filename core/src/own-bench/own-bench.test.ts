import { expect, test } from "@jest/globals";
import { measureBoard } from "../board/measure.ts";
import { readBoard } from "../board/read/read.ts";
import { plainBytes } from "../gerber/write.ts";
import { copperPrint, PATCH_MM, printWay, type Resist, testPatch } from "./print.ts";
import { bathMl, recipeOf } from "./recipe.ts";

const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
const nm = (v: number) => Math.round(v * 1e6);
const flash = (x: number, y: number) => `X${nm(x)}Y${nm(y)}D03*\n`;
const line = (x1: number, y1: number, x2: number, y2: number) =>
  `X${nm(x1)}Y${nm(y1)}D02*\nG01X${nm(x2)}Y${nm(y2)}D01*\n`;
const edge = `${HEAD}%ADD10C,0.1*%\nD10*\n${line(0, 0, 20, 0)}${line(20, 0, 20, 10)}${line(20, 10, 0, 10)}${line(0, 10, 0, 0)}M02*\n`;
const pad = (attributes: string, size: number) =>
  `%TA.AperFunction,${attributes}*%\n%ADD11C,${size}*%\nD11*\n`;
/** 20 × 10 mm; a component hole at (4, 5) on both sides, a hole without a pin at (12, 5), an unplated one at (18, 8). */
const layer = (extra = "") =>
  `${HEAD}${pad("ComponentPad", 2)}%TO.P,J1,1*%\n%TO.N,IN*%\n${flash(4, 5)}%TD*%\n${pad("ViaPad", 1)}%TO.N,IN*%\n${flash(12, 5)}%TD*%\n${extra}M02*\n`;
const board = (bottom = true) =>
  readBoard([
    { path: "a.gtl", bytes: plainBytes(`%TF.FileFunction,Copper,L1,Top*%\n${layer()}`) },
    ...(bottom ? [{ path: "a.gbl", bytes: plainBytes(`%TF.FileFunction,Copper,L2,Bot*%\n${layer()}`) }] : []),
    { path: "a.gko", bytes: plainBytes(`%TF.FileFunction,Profile,NP*%\n${edge}`) },
    {
      path: "p.drl",
      bytes: plainBytes(
        "M48\n; #@! TF.FileFunction,Plated,1,2,PTH\nMETRIC\nT1C1.000\nT2C0.500\n%\nT1\nX4.0Y5.0\nT2\nX12.0Y5.0\nM30\n",
      ),
    },
    {
      path: "n.drl",
      bytes: plainBytes(
        "M48\n; #@! TF.FileFunction,NonPlated,1,2,NPTH\nMETRIC\nT1C3.200\n%\nT1\nX18.0Y8.0\nM30\n",
      ),
    },
  ]);

// what lies with its toner on the copper is seen from behind; what a laser draws is seen from the copper
test.each<[Resist, "top" | "bottom", boolean, boolean]>([
  ["transfer", "top", true, false],
  ["transfer", "bottom", false, false],
  ["film", "top", true, false],
  ["film", "bottom", false, false],
  ["laser", "top", false, true],
  ["laser", "bottom", true, true],
])(
  "%s, %s: mirrored %s, negative %s, and one can tell on the print",
  (resist, side, isMirrored, isNegative) => {
    const way = printWay(resist, side);
    expect([way.isMirrored, way.isNegative]).toEqual([isMirrored, isNegative]);
    expect(way.check).toContain(
      isNegative
        ? "read the right way; black is burnt away"
        : "read backwards on the print; black is what stays",
    );
  },
);

/** Where a point of the files lies on the paper, by the transform the print states. */
function onPaper(svg: string, x: number, y: number): readonly [number, number] {
  const t =
    /<g transform="translate\(([\d.-]+) ([\d.-]+)\) scale\(1 -1\) translate\(([\d.-]+) ([\d.-]+)\)( scale\(-1 1\))?"/.exec(
      svg,
    )!;
  const [a, b, c, d] = t.slice(1, 5).map(Number) as [number, number, number, number];
  const mirrored = t[5] ? -x : x;
  return [a + c + mirrored, b - (d + y)];
}

test("the print is one to one, its left is the board's left or right, and its bar is 50 mm", () => {
  const top = copperPrint(board(), "top", "laser")!;
  expect(top).toMatch(/width="66mm" height="38mm" viewBox="0 0 66 38"/);
  expect(onPaper(top, 0, 10)).toEqual([8, 8]);
  expect(onPaper(top, 20, 0)).toEqual([28, 18]);
  const mirrored = copperPrint(board(), "top", "transfer")!;
  expect(onPaper(mirrored, 20, 10)).toEqual([8, 8]);
  expect(onPaper(mirrored, 0, 0)).toEqual([28, 18]);
  expect(top).toContain("M8 26h50M8 24.5v3M58 24.5v3");
  expect(mirrored).toContain(">top, print carried over by heat, mirrored; the bar is 50 mm<");
  expect(top).toContain(">top, paint burnt away by a laser, negative; the bar is 50 mm<");
});

test("black stays or goes, and every hole has a free dot in its middle", () => {
  const fills = (svg: string) => [...svg.matchAll(/<(?:path|g)[^>]* fill="(#[0-9a-f]+)"/g)].map((m) => m[1]);
  expect(fills(copperPrint(board(), "top", "film")!).slice(0, 3)).toEqual(["#fff", "#000", "#fff"]);
  expect(fills(copperPrint(board(), "top", "laser")!).slice(0, 3)).toEqual(["#000", "#fff", "#000"]);
  const dots = [
    ...copperPrint(board(), "top", "film")!.matchAll(/<circle cx="([\d.]+)" cy="([\d.]+)" r="([\d.]+)"/g),
  ];
  expect(dots.map((d) => d.slice(1, 4).map(Number))).toEqual([
    [4, 5, 0.2],
    [12, 5, 0.2],
    [18, 8, 0.2],
  ]);
  expect(copperPrint(board(false), "bottom", "film")).toBeUndefined();
});

test("the patch has five lines of each width with gaps as wide, and says which they are", () => {
  const svg = testPatch("film");
  const bars = [...svg.matchAll(/<rect x="14" y="([\d.]+)" width="20" height="([\d.]+)"/g)].map(
    (m) => [Number(m[1]), Number(m[2])] as const,
  );
  expect(bars).toHaveLength(5 * PATCH_MM.length);
  PATCH_MM.forEach((w, i) => {
    const own = bars.slice(5 * i, 5 * i + 5);
    for (const [k, [y, height]] of own.entries()) {
      expect(height).toBe(w);
      if (k > 0) expect(y - own[k - 1]![0]).toBeCloseTo(2 * w, 3);
    }
    // its name stands in the middle of its own lines
    const name = Number(new RegExp(`<text x="3" y="([\\d.]+)"[^>]*>${w}</text>`).exec(svg)![1]);
    expect(name).toBeGreaterThan(own[0]![0]);
    expect(name).toBeLessThan(own[4]![0] + w + 1.5);
  });
});

test("what goes into the bath: (200 − 2 pads) mm² of 35 µm on each side", () => {
  const set = board();
  const r = recipeOf(set, measureBoard(set), 35);
  const copper = Math.PI * (1 + 0.25);
  expect(r.sides).toEqual(["top", "bottom"]);
  expect(r.etchedG!).toBeCloseTo((2 * (200 - copper) * 0.035 * 8.96) / 1000, 4);
  expect(recipeOf(set, measureBoard(set), 70).etchedG!).toBeCloseTo(2 * r.etchedG!, 9);
  // by its sheet a litre takes 30 g: four boards
  expect(bathMl(r.etchedG!, 4, 30)).toBeCloseTo((1000 * 4 * r.etchedG!) / 30, 9);
  expect(bathMl(1, 1, 0)).toBe(Number.POSITIVE_INFINITY);
});

test("what is drilled, which holes want a wire, and which a pin joins; on one side nothing is joined", () => {
  const set = board();
  expect(recipeOf(set, measureBoard(set), 35)).toMatchObject({
    drills: [
      { diameterMm: 0.5, count: 1 },
      { diameterMm: 1, count: 1 },
      { diameterMm: 3.2, count: 1 },
    ],
    links: [{ x: 12, y: 5, diameterMm: 0.5, net: "IN" }],
    pinHoles: 1,
  });
  const one = board(false);
  expect(recipeOf(one, measureBoard(one), 35)).toMatchObject({ sides: ["top"], links: [] });
});
