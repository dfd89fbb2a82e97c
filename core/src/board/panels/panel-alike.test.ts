import { expect, test } from "@jest/globals";
import type { BoardFile } from "../board-file.ts";
import { readBoard } from "../read/read.ts";
import { isBoardOfPiece, kindsOfPieces, knownOnPanel } from "./panel-alike.ts";

const mark = {
  areaMm2: 1000,
  holes: 4,
  diametersMm: 3.6,
  holesSpreadMm: 12,
  pads: 30,
  padsSpreadMm: 9.5,
};

test.each([
  ["itself", {}, true],
  // a strip of a millimetre along four tabs of eight
  ["cut along its perforations", { areaMm2: 968 }, true],
  ["a sixth smaller", { areaMm2: 840 }, false],
  ["larger", { areaMm2: 1015 }, false],
  ["a pad more", { pads: 31 }, false],
  ["a hole less", { holes: 3 }, false],
  ["one hole wider by a tenth", { diametersMm: 3.7 }, false],
  ["pads a little further apart", { padsSpreadMm: 9.52 }, false],
  ["holes a little closer", { holesSpreadMm: 11.98 }, false],
  ["another file's rounding", { padsSpreadMm: 9.504, holesSpreadMm: 12.004, diametersMm: 3.62 }, true],
])("a piece with %s: known again %s", (_, more, is) => {
  expect(isBoardOfPiece({ ...mark, ...more }, mark)).toBe(is);
});

test("of each kind on a panel all of a shop's boards it may be are named, in the shop's order", () => {
  const other = { ...mark, pads: 44 };
  const known = [
    { name: "Dial B", mark },
    { name: "Lid", mark: other },
    { name: "Dial A", mark: { ...mark, areaMm2: 1001 } },
  ];
  const on = knownOnPanel(
    [
      { copies: 6, ...mark },
      { copies: 1, ...mark, holes: 9 },
    ],
    known,
  );
  expect(on.map((k) => [k.copies, k.boards.map((b) => b.name)])).toEqual([
    [6, ["Dial B", "Dial A"]],
    [1, []],
  ]);
});

test("a board with two places could be any, and is known as none", () => {
  const bare = { ...mark, holes: 0, diametersMm: 0, holesSpreadMm: 0, pads: 2 };
  expect(isBoardOfPiece(bare, bare)).toBe(false);
  expect(isBoardOfPiece({ ...bare, pads: 3 }, { ...bare, pads: 3 })).toBe(true);
});

/** Flashes at places, drawn as a top copper file; holes as a drill file. */
function filesOf(
  pads: readonly (readonly [number, number])[],
  holes: readonly (readonly [number, number, number])[],
  isPlated = true,
): readonly BoardFile[] {
  const at = (v: number) => Math.round(v * 1e6);
  const copper = `%TF.FileFunction,Copper,L1,Top*%\n%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,0.5*%\nD10*\n${pads.map(([x, y]) => `X${at(x)}Y${at(y)}D03*`).join("\n")}\nM02*\n`;
  const tools = [...new Set(holes.map((h) => h[2]))];
  const drill = `M48\n; #@! TF.FileFunction,${isPlated ? "Plated,1,2,PTH" : "NonPlated,1,2,NPTH"}\nMETRIC\n${tools.map((d, i) => `T${i + 1}C${d}`).join("\n")}\n%\n${tools.map((d, i) => `T${i + 1}\n${holes.flatMap(([x, y, w]) => (w === d ? [`X${x.toFixed(3)}Y${y.toFixed(3)}`] : [])).join("\n")}`).join("\n")}\nM30\n`;
  const bytes = (s: string) => new TextEncoder().encode(s);
  return readBoard([
    { path: "a-copper-top.gbr", bytes: bytes(copper) },
    { path: "a.drl", bytes: bytes(drill) },
  ]).files;
}
const square = (x: number, y: number) => [[x, y, x + 20, y, x + 20, y + 20, x, y + 20]];

test("pieces are counted by what lies in them, wherever they lie and however they are turned; perforations are not", () => {
  const own = [
    [2, 2],
    [18, 2],
    [10, 15],
  ] as const;
  const turned = own.map(([x, y]) => [130 - y, 100 + x] as const);
  const hole = [10, 5, 1] as const;
  const files = filesOf(
    [...own, ...turned, [60, 60]],
    [hole, [130 - hole[1], 100 + hole[0], 1], [60, 65, 3]],
  );
  const [kind, ...others] = kindsOfPieces(files, [square(0, 0), square(110, 100)])!;
  expect(others).toEqual([]);
  // middle at 10, 6⅓: squares 64 + 64 + 0 and 18.78 + 18.78 + 75.11, of three
  expect(kind).toMatchObject({
    copies: 2,
    areaMm2: 400,
    holes: 1,
    diametersMm: 1,
    holesSpreadMm: 0,
    pads: 3,
  });
  expect(kind!.padsSpreadMm).toBeCloseTo(Math.sqrt((128 + 112.6667) / 3), 5);
  const two = kindsOfPieces(files, [square(0, 0), square(50, 50)])!;
  expect(two.map((k) => [k.copies, k.pads, k.holes])).toEqual([
    [1, 3, 1],
    [1, 1, 1],
  ]);
  // written twice on one spot it is one
  expect(kindsOfPieces(filesOf([...own, ...own], [hole, hole]), [square(0, 0)])).toMatchObject([
    { pads: 3, holes: 1, padsSpreadMm: kind!.padsSpreadMm },
  ]);
  // unplated and small: rows that boards are broken along
  expect(kindsOfPieces(filesOf(own, [[10, 5, 0.5]], false), [square(0, 0)])![0]!.holes).toBe(0);
  expect(kindsOfPieces(filesOf(own, [[10, 5, 0.5]]), [square(0, 0)])![0]!.holes).toBe(1);
  // a half hole on the edge is the board's, the hole of a rail a millimetre beside it is not
  const edge = kindsOfPieces(
    filesOf(own, [
      [20.3, 10, 1],
      [21, 5, 1],
    ]),
    [square(0, 0)],
  )!;
  expect(edge[0]!.holes).toBe(1);
});
