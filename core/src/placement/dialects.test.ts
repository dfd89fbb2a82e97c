import { expect, test } from "@jest/globals";
import type { Cells } from "../table/columns.ts";
import { readPlacement } from "./placement.ts";
import { settlePlacements } from "./settle.ts";

const cells = (text: string, mark = ","): Cells => text.split("\n").map((l) => l.split(mark));
const read = (text: string, mark?: string, file = "p.csv") => readPlacement(cells(text, mark), file);
/** What stands where, in words: R1 at 25.4 / 12.7 turned 90 on the top. */
const said = (text: string, mark?: string, file?: string) =>
  read(text, mark, file).parts.map((p) => `${p.ref} ${p.xMm} ${p.yMm} ${p.rotationDeg} ${p.side}`);

// one part at 25.4, 12.7 mm, turned by 90°, on the top, however it is written
test.each<[string, string, string?]>([
  ["millimetres in the heading", "Ref,X (mm),Y (mm),Rot,Side\nR1,25.4,12.7,90,top"],
  ["millimetres behind each number", "Designator,Mid X,Mid Y,Rotation,Layer\nR1,25.4mm,12.7mm,90,TopLayer"],
  ["mil behind each number", "Designator,Mid X,Mid Y,Rotation,Layer\nR1,1000mil,500mil,90,T"],
  ["thou behind each number", "Ref,X,Y,Rot,Side\nR1,1000thou,500 thou,90,top"],
  ["inches behind each number", "Ref,X,Y,Rot,Side\nR1,1in,0.5in,90,top"],
  ["inches as a mark", 'Ref;X;Y;Rot;Side\nR1;1";0.5";90;top', ";"],
  ["micrometres", "Ref,X,Y,Rot,Side\nR1,25400µm,12700um,90,top"],
  ["one cell in another unit", "Ref,X,Y,Rot,Side\nR1,1000mil,12.7mm,90,top"],
  ["a unit in each heading, two of them", "Ref,X [mil],Y [mm],Rot,Side\nR1,1000,12.7,90,top"],
  ["headings in one word", "RefDes,PosX,PosY,Rot,TB\nR1,25.4mm,12.7mm,90,T"],
  [
    "headings by the middle beside others",
    "Designator,Footprint,Mid X,Mid Y,Ref X,Ref Y,Pad X,Pad Y,TB,Rotation\nR1,0603,25.4mm,12.7mm,1mm,1mm,2mm,2mm,T,90",
  ],
  ["the middle after a plain pair", "Designator,X,Y,Mid X,Mid Y,TB,Rotation\nR1,1mm,2mm,25.4mm,12.7mm,T,90"],
  ["the middle before a plain pair", "Designator,Mid X,Mid Y,X,Y,TB,Rotation\nR1,25.4mm,12.7mm,1mm,2mm,T,90"],
  ["headings with signs", "Reference,Center-X(mm),Center-Y(mm),Rotation(deg),Side\nR1,25.4,12.7,90°,Top"],
  ["headings in capitals", "REFDES,X_COORD_MM,Y_COORD_MM,ANGLE,MOUNT SIDE\nR1,25.4,12.7,90,TOP"],
  ["headings in another language", "Bezeichner;x (mm);y (mm);Winkel;Seite\nR1;25,4;12,7;90;oben", ";"],
  ["a unit in a comment", "# Unit = mils\nRef,X,Y,Rot,Side\nR1,1000,500,90,top"],
  ["a unit in another comment", "## Units used = inches\nRef,X,Y,Rot,Side\nR1,1,0.5,90,top"],
  ["a sentence about units", "; all coordinates are in mm\nRef,X,Y,Rot,Side\nR1,25.4,12.7,90,top"],
  [
    "remarks with signs of any kind",
    "// made today\n* by me\n! careful\nRef,X mm,Y mm,Rot,Side\n% here\nR1,25.4,12.7,90,top\n-- end",
  ],
  ["a turn below nothing", "Ref,X mm,Y mm,Rot,Side\nR1,25.4,12.7,-270,top"],
  ["a turn beyond a whole one", "Ref,X mm,Y mm,Rot,Side\nR1,25.4,12.7,450 deg,top"],
  ["a decimal comma", "Ref;X mm;Y mm;Rot;Side\nR1;25,4;12,7;90,0;top", ";"],
  ["a number of powers", "Ref,X mm,Y mm,Rot,Side\nR1,2.54E+01,1.27e1,9E1,top"],
  ["a plus and a long minus", "Ref,X mm,Y mm,Rot,Side\nR1,+25.4,12.70,−270,top"],
  ["a mirror column that says no", "Ref,X mm,Y mm,Rot,Mirror\nR1,25.4,12.7,90,NO"],
  ["a side told by the file's name", "Ref,X mm,Y mm,Rot\nR1,25.4,12.7,90", ","],
  [
    "the heading once more on the next page",
    "Ref,X mm,Y mm,Rot,Side\nR1,25.4,12.7,90,top\nRef,X mm,Y mm,Rot,Side",
  ],
])("%s", (_, text, ...rest) => {
  const mark = typeof rest[0] === "string" ? rest[0] : ",";
  expect(said(text, mark, "board-top.csv")).toEqual(["R1 25.4 12.7 90 top"]);
  expect(read(text, mark, "board-top.csv").findings.filter((f) => f.level === "error")).toEqual([]);
});

test("columns set apart by blanks, with remarks that hold commas", () => {
  const rows =
    "# Module positions, made up, 2026\n# Ref Val Package PosX PosY Rot Side\nR1 4k7 R_0603 25.4000 12.7000 90.0 top\nC1 100n C_0603 5.0 6.0 0.0 bottom".split(
      "\n",
    );
  const r = readPlacement(
    rows.map((l) => l.split(",")),
    "p.pos",
  );
  expect(r.parts.map((p) => [p.ref, p.xMm, p.side])).toEqual([
    ["R1", 25.4, "top"],
    ["C1", 5, "bottom"],
  ]);
});

// words of a side
test.each([
  ["top", "top"],
  ["T", "top"],
  ["TopLayer", "top"],
  ["Top_Side", "top"],
  ["F", "top"],
  ["F.Cu".replace(".Cu", ""), "top"],
  ["front", "top"],
  ["component side", "top"],
  ["1", "top"],
  ["bottom", "bottom"],
  ["B", "bottom"],
  ["Bot", "bottom"],
  ["BottomLayer", "bottom"],
  ["BOTTOM-SIDE", "bottom"],
  ["back", "bottom"],
  ["Unterseite", "bottom"],
  ["2", "bottom"],
  ["SolderSide", "bottom"],
])("a side written %s is the %s", (word, side) => {
  expect(read(`Ref,X mm,Y mm,Rot,Side\nR1,1,2,0,${word}`).parts[0]!.side).toBe(side);
});
test.each([
  ["YES", "bottom"],
  ["1", "bottom"],
  ["M", "bottom"],
  ["no", "top"],
  ["0", "top"],
  ["N", "top"],
])("mirrored %s is the %s", (word, side) => {
  expect(read(`Ref,X mm,Y mm,Rot,Mirror\nR1,1,2,0,${word}`).parts[0]!.side).toBe(side);
});

// what cannot be read is a loss, and never nothing
test.each([
  ["an empty X", "R1,,2,0,top", "X of R1 is empty"],
  ["an empty Y", "R1,1,,0,top", "Y of R1 is empty"],
  ["a word for a place", "R1,here,2,0,top", "“here” is no X"],
  ["a unit nobody knows", "R1,1 furlong,2,0,top", "is no X"],
  ["a rotation that is none", "R1,1,2,upright,top", "“upright” is no rotation"],
  ["a place without a reference", ",1,2,0,top", "A place without a reference"],
])("%s is an error with its row, and the rest stays", (_, row, words) => {
  const r = read(`Ref,X mm,Y mm,Rot,Side\n${row}\nR9,9,9,0,top`);
  expect(r.parts.map((p) => p.ref)).toEqual(["R9"]);
  expect(r.findings).toMatchObject([
    {
      tag: "placement-bad-row",
      level: "error",
      row: 2,
      text: expect.stringContaining(words),
      do: expect.any(String),
    },
  ]);
});

// a comma with three digits behind it, beside a part at other numbers
test.each<[string, x: string, y: string, other: string, x1: number | undefined]>([
  ["all have one", "25,400", "12,700", "1,500;2,500", 25.4],
  ["another has other digits behind", "25,400", "12", "3;2,5", 25.4],
  ["another begins with 0", "25,400", "12", "3;0,500", 25.4],
  ["numbers below a thousand have none", "1,250", "950", "80;120", undefined],
  ["below nothing too", "-1,250", "950", "80;120", undefined],
  ["with its unit", "1,250mil", "950mil", "80;120", undefined],
  ["another has a point", "1,250", "2,5", "80.5;120", undefined],
])("a comma before three digits is a decimal one or not known, where %s", (_, x, y, other, x1) => {
  const r = read(`Ref;X mm;Y mm;Rot;Side\nR1;${x};${y};0;top\nR9;${other};0;top`, ";");
  expect(r.parts.map((p) => p.ref)).toEqual(x1 === undefined ? ["R9"] : ["R1", "R9"]);
  if (x1 !== undefined) expect(r.parts[0]!.xMm).toBe(x1);
  else
    expect(r.findings.filter((f) => f.level === "error")).toMatchObject([
      {
        tag: "placement-bad-row",
        level: "error",
        row: 2,
        text: expect.stringMatching(/may be -?1\.250.* or -?1250/),
      },
    ]);
});

test("a side that is no word of one is asked about; a rotation of next to a whole turn is none", () => {
  const r = read("Ref,X mm,Y mm,Rot,Side\nR1,1,2,359.9999999,middle\nR2,1,2,,top");
  expect(r.findings.map((f) => [f.tag, f.level])).toEqual([
    ["placement-side-unknown", "error"],
    ["placement-turn-unknown", "warning"],
  ]);
  expect(r.findings[0]!.text).toContain("R1 (“middle”)");
  expect(r.parts[0]!.rotationDeg).toBe(0);
});

// a board of 50 × 40 mm with twelve parts all over it, held against it in what it says or does not say
const grid = (k: number) =>
  Array.from(
    { length: 12 },
    (_, i) => `R${i},${(4 + (i % 4) * 14) * k},${(5 + Math.floor(i / 4) * 14) * k},0,top`,
  ).join("\n");
const held = (heading: string, k: number, more = "") => {
  const findings: { tag: string; level: string; text: string }[] = [];
  const placed = settlePlacements(
    read(`${heading}\n${grid(k)}${more}`),
    [0, 0, 50, 40],
    "p.csv",
    findings as never,
  );
  return {
    x: placed.parts[1]!.xMm,
    unit: placed.unit,
    findings: findings.map((f) => [f.tag, f.level]),
    text: findings.map((f) => f.text).join(),
  };
};
test.each<[string, string, number, number, [string, string][]]>([
  ["millimetres, and says so", "Ref,X mm,Y mm,Rot,Side", 1, 18, []],
  ["millimetres, and does not say so", "Ref,X,Y,Rot,Side", 1, 18, [["unit-assumed", "remark"]]],
  ["mil, and does not say so", "Ref,X,Y,Rot,Side", 1 / 0.0254, 18, [["unit-assumed", "warning"]]],
  ["inches, and does not say so", "Ref,X,Y,Rot,Side", 1 / 25.4, 18, [["unit-assumed", "warning"]]],
  [
    "mil, and says millimetres",
    "Ref,X mm,Y mm,Rot,Side",
    1 / 0.0254,
    18 / 0.0254,
    [["placement-off-pads", "error"]],
  ],
  [
    "inches, and says mil",
    "Ref,X mil,Y mil,Rot,Side",
    1 / 25.4,
    (18 / 25.4) * 0.0254,
    [["placement-off-pads", "error"]],
  ],
])("a file in %s", (_, heading, k, x, findings) => {
  const r = held(heading, k);
  expect(r.x).toBeCloseTo(x, 4);
  expect(r.findings).toEqual(findings);
});
test("parts of the bottom written as seen from below are found", () => {
  const below = Array.from({ length: 4 }, (_, i) => `\nC${i},${-10 - i * 8},20,0,bottom`).join("");
  expect(held("Ref,X mm,Y mm,Rot,Side", 1, below).findings).toEqual([["placement-mirrored", "error"]]);
});
