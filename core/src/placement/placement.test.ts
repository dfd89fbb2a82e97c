import { expect, test } from "@jest/globals";
import { readBoard } from "../board/read/read.ts";
import { readPlacement } from "./placement.ts";

test("parts stand where a component layer flashes them; a list that lies beside it wins", () => {
  const layer = (side: string, body: string) =>
    new TextEncoder().encode(
      `%TF.FileFunction,Component,L1,${side}*%\n%FSLAX46Y46*%\n%MOMM*%\n%TA.AperFunction,ComponentMain*%\n%ADD20C,0.3*%\nD20*\n${body}M02*\n`,
    );
  const drop = [
    {
      path: "top.gbr",
      bytes: layer(
        "Top",
        "%TO.C,R1*%\n%TO.CRot,450*%\n%TO.CVal,4k7*%\nX1000000Y2000000D03*\n%TO.C,R2*%\nX3000000Y2000000D03*\n%TD*%\n",
      ),
    },
    { path: "bottom.gbr", bytes: layer("Bot", "%TO.C,C1*%\n%TO.CRot,-90*%\nX5000000Y0D03*\n%TD*%\n") },
  ];
  const set = readBoard(drop);
  expect(set.placements?.parts).toEqual([
    { ref: "R1", xMm: 1, yMm: 2, rotationDeg: 90, side: "top" },
    { ref: "R2", xMm: 3, yMm: 2, rotationDeg: 90, side: "top" },
    { ref: "C1", xMm: 5, yMm: 0, rotationDeg: 270, side: "bottom" },
  ]);
  expect(set.bom?.lines.map((l) => [l.refs, l.value?.si])).toEqual([
    [["R1", "R2"], 4700],
    [["C1"], undefined],
  ]);
  const cells = [
    ["Ref", "X", "Y", "Rot", "Side"],
    ["R1", "1", "2", "0", "top"],
    ["R2", "3", "2", "0", "top"],
  ];
  const both = readBoard([
    ...drop,
    {
      path: "p.csv",
      bytes: new TextEncoder().encode("Ref,X,Y,Rot,Side\nR1,1,2,0,top\nR2,3,2,0,top\n"),
      cells,
    },
  ]);
  expect(both.placements?.parts.map((p) => [p.ref, p.rotationDeg])).toEqual([
    ["R1", 0],
    ["R2", 0],
  ]);
});

test.each([
  [
    "millimetres by the header",
    [
      ["Designator", "Mid X", "Mid Y", "Rotation", "Layer"],
      ["u1", "1.5mm", "2mm", "-90", "TopLayer"],
    ],
    "mm",
    1.5,
    270,
    "top",
  ],
  [
    "mils by the header",
    [
      ["Ref", "X (mil)", "Y (mil)", "Rot", "Side"],
      ["U1", "100", "200", "450", "bottom"],
    ],
    "mil",
    2.54,
    90,
    "bottom",
  ],
  [
    "blank-separated with a comment header",
    [["# Ref Val Package PosX PosY Rot Side"], ["U1 x y 25.4 1 0 top"]],
    "mm",
    25.4,
    0,
    "top",
  ],
  [
    "decimal commas",
    [
      ["Ref", "X", "Y", "Rot"],
      ["U1", "1,25", "2", "0"],
    ],
    "mm",
    1.25,
    0,
    "top",
  ],
])("%s", (_, cells, unit, x, rotation, side) => {
  const p = readPlacement(cells, "p.csv");
  expect(p.unit).toBe(unit);
  expect(p.parts[0]).toMatchObject({ ref: "U1", xMm: expect.closeTo(x, 9), rotationDeg: rotation, side });
});

test("columns of a reference's own place and value are not the reference", () => {
  const p = readPlacement(
    [
      ["Ref X", "Ref Y", "Part value", "Part", "Rotation", "Side", "Mid X", "Mid Y"],
      ["9", "9", "10k", "R7", "0", "top", "1", "2"],
    ],
    "p.csv",
  );
  expect(p.parts).toMatchObject([{ ref: "R7", xMm: 1, yMm: 2 }]);
});

test("a unit is a guess where nothing names it, and none where nothing was placed by it", () => {
  const head = ["Ref", "X", "Y", "Rot", "Side"];
  const read = (...rows: string[][]) => readPlacement([head, ...rows], "p.csv").isUnitAssumed;
  expect(read(["R1", "1", "2", "0", "top"])).toBe(true);
  expect(read(["R1", "1mm", "2mm", "0", "top"])).toBeUndefined();
  expect(read(["R1", "far", "2", "0", "top"])).toBeUndefined();
});

test("a row that cannot be read is said and left out", () => {
  const p = readPlacement(
    [
      ["Ref", "X", "Y", "Rot", "Side"],
      ["R1", "far", "2", "0", "top"],
      ["R2", "1", "2", "0", "top"],
    ],
    "p.csv",
  );
  expect(p.parts.map((x) => x.ref)).toEqual(["R2"]);
  expect(p.findings).toEqual([expect.objectContaining({ tag: "placement-bad-row", row: 2, about: ["R1"] })]);
});

test("a side that is none is an error that names it; a mirror column says it where no side does", () => {
  const sides = (rows: readonly (readonly string[])[]) => readPlacement(rows as string[][], "p.csv");
  const odd = sides([
    ["Ref", "X", "Y", "Side", "Mirror"],
    ["R1", "1", "2", "sideways", "yes"],
    ["R2", "1", "2", "", "yes"],
    ["R3", "1", "2", "", "no"],
    ["R4", "1", "2", "bottom", "no"],
  ]);
  expect(odd.parts.map((p) => p.side)).toEqual(["top", "bottom", "top", "bottom"]);
  expect(odd.findings).toEqual([
    expect.objectContaining({ tag: "placement-side-unknown", level: "error", about: ["R1"] }),
    expect.objectContaining({ tag: "placement-turn-unknown" }),
  ]);
});
