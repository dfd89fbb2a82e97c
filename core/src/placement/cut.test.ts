import { expect, test } from "@jest/globals";
import { readPlacement } from "./placement.ts";
import { settlePlacements } from "./settle.ts";

const read = (text: string) =>
  readPlacement(
    text.split("\n").map((l) => l.split(",")),
    "p.csv",
  );
const told = (text: string) => {
  const r = read(text);
  return [
    r.parts.map((p) => `${p.ref} ${p.xMm} ${p.yMm} ${p.rotationDeg} ${p.side}`),
    r.findings.filter((f) => f.tag === "placement-bad-row").map((f) => f.level),
  ];
};

// decimal commas in a list parted by commas: what it means, worked by hand; nothing where it could be two things
test.each<[string, string, string[], string[]]>([
  [
    "both coordinates, a side behind them",
    "Ref,X mm,Y mm,Rot,Side\nR1,2,540,12,700,90,top\nR2,58,420,38,100,0,bottom",
    ["R1 2.54 12.7 90 top", "R2 58.42 38.1 0 bottom"],
    ["warning"],
  ],
  [
    "the rotation too",
    "Ref,X mm,Y mm,Rot,Side\nR1,2,540,12,700,90,0,top\nR2,58,420,38,100,22,5,bottom",
    ["R1 2.54 12.7 90 top", "R2 58.42 38.1 22.5 bottom"],
    ["warning"],
  ],
  [
    "the reference behind, letters of a side that mean another beside another",
    "Side,Y mm,X mm,Ref,Rot\nBS,2,540,12,700,R1,90\nLS,58,420,38,100,R2,0",
    ["R1 12.7 2.54 90 top", "R2 38.1 58.42 0 bottom"],
    ["warning"],
  ],
  [
    "a place below nothing",
    "Ref,X mm,Y mm,Rot,Side\nR1,-2,540,12,700,90,top\nR2,58,420,38,100,0,bottom",
    ["R1 -2.54 12.7 90 top", "R2 58.42 38.1 0 bottom"],
    ["warning"],
  ],
  // one comma of three: of which number nobody can tell
  ["one cell too many", "Ref,X mm,Y mm,Rot,Side\nR1,12,5,30,0,top\nR2,12,5,31,0,top", [], ["error"]],
  // nothing stands behind, and the numbers of digits differ: a column without a heading may be a count
  ["nothing behind them", "Side,Ref,X mm,Y mm\ntop,R1,12,34,90,5\ntop,R2,13,35,180,5", [], ["error"]],
  [
    "nothing behind them, and all have three digits",
    "Side,Ref,X mm,Y mm\ntop,R1,12,340,90,500\ntop,R2,13,350,18,500\ntop,R3,1,000,2,000",
    ["R1 12.34 90.5 0 top", "R2 13.35 18.5 0 top", "R3 1 2 0 top"],
    ["warning"],
  ],
  [
    "a turn of more than a whole one",
    "Ref,X mm,Y mm,Rot,Side\nR1,2,540,12,700,420,180,top\nR2,58,420,38,100,0,5,top",
    [],
    ["error"],
  ],
  [
    "a row that cannot be made whole among those that can",
    "Ref,X mm,Y mm,Rot,Side\nR1,2,540,12,700,90,top\nR2,a,420,38,100,0,top",
    [],
    ["error"],
  ],
  // moved by a cell, so that a number stands under the references
  ["numbers under the references", "Side,X mm,Y mm,Ref,Val\ntop,2,54,12,5,R1,gate,1", [], ["error"]],
])("%s", (_, text, parts, levels) => {
  expect(told(text)).toEqual([parts, levels]);
});

test("the letters of sides of a table without headings are told by each other", () => {
  const sides = (a: string, b: string) =>
    told(`R1,2.54,3.81,90,${a}\nR2,12.7,8.89,180,${b}\nR3,1.27,5.08,0,${a}`)[0]!.map((p) => p.split(" ")[4]);
  expect(sides("BS", "LS")).toEqual(["top", "bottom", "top"]);
  expect(sides("TS", "BS")).toEqual(["top", "bottom", "top"]);
});

// places that state no unit, with no board beside them: over how much room in millimetres, and what is taken
test.each<[string, k: number, many: number, unit: string]>([
  ["a board", 1, 12, "mm"],
  ["more than any board", 39.37, 12, "mil"],
  ["more than any board, even in mil", 4000, 12, "mm"],
  ["less than parts take", 1 / 25.4, 12, "inch"],
  ["little, and few parts", 1 / 25.4, 3, "mm"],
  ["a large board", 14, 12, "mm"],
])("places over %s", (_, k, many, unit) => {
  const rows = Array.from(
    { length: many },
    (_x, i) => `R${i},${(4 + (i % 4) * 14) * k},${(5 + i * 3) * k},0,top`,
  );
  const findings: { tag: string; level: string }[] = [];
  const placed = settlePlacements(
    read(`Ref,X,Y,Rot,Side\n${rows.join("\n")}`),
    undefined,
    "p.csv",
    findings as never,
  );
  expect(placed.unit).toBe(unit);
  expect(placed.parts[1]!.xMm).toBeCloseTo(18 * k * { mm: 1, mil: 0.0254, inch: 25.4 }[unit as "mm"], 3);
  expect(findings.map((f) => [f.tag, f.level])).toEqual([["unit-assumed", "warning"]]);
});
