import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { readDrill } from "./read.ts";
import { writeDrill } from "./write.ts";

test("tools ascend, each with what it is for; slots are routed; the file ends", () => {
  const text = writeDrill(
    [
      { x: 5, y: 5, diameterMm: 3, use: "MechanicalDrill,Tooling" },
      { x: 12.25, y: 47, diameterMm: 0.5, use: "MechanicalDrill,Breakout" },
      { x: 13.05, y: 47, diameterMm: 0.5, use: "MechanicalDrill,Breakout" },
      { x: 13.052, y: 47, diameterMm: 0.5, use: "MechanicalDrill,Breakout" },
    ],
    [
      {
        points: [
          [10, 49],
          [60, 49],
        ],
        widthMm: 2,
      },
    ],
    [["FileFunction", "NonPlated", "1", "2", "NPTH"]],
  );
  expect(text.split("\n")).toEqual([
    "M48",
    "; #@! TF.GenerationSoftware,Kobbin,Kobbin,1",
    "; #@! TF.FileFunction,NonPlated,1,2,NPTH",
    "METRIC",
    "; #@! TA.AperFunction,MechanicalDrill,Breakout",
    "T01C0.5",
    "; #@! TD",
    "T02C2.0",
    "; #@! TA.AperFunction,MechanicalDrill,Tooling",
    "T03C3.0",
    "; #@! TD",
    "%",
    "G05",
    "T01",
    "X12.2500Y47.0000",
    "X13.0500Y47.0000",
    "T02",
    "G00X10.0000Y49.0000",
    "M15",
    "G01X60.0000Y49.0000",
    "M16",
    "G05",
    "T03",
    "X5.0000Y5.0000",
    "M30",
    "",
  ]);
});

test("what is written is read as it was, each hole with its size", () => {
  const mm = fc.integer({ min: -3_000_000, max: 3_000_000 }).map((v) => v / 10_000);
  const hole = fc.record({ x: mm, y: mm, diameterMm: fc.constantFrom(0.3, 0.5, 1.05, 3.2) });
  fc.assert(
    fc.property(
      // two that lie as good as on one spot are one hole, wherever on the grid that spot is
      fc.uniqueArray(hole, {
        maxLength: 30,
        comparator: (a, b) => Math.abs(a.x - b.x) < 0.01 && Math.abs(a.y - b.y) < 0.01,
      }),
      (holes) => {
        const back = readDrill(writeDrill(holes, [], [["FileFunction", "Plated", "1", "2", "PTH"]]), "a.drl");
        const words = (list: readonly { x: number; y: number; diameterMm: number }[]) =>
          list
            .map((h) =>
              [h.x, h.y, h.diameterMm].map((v) => (v + 0).toFixed(4).replace("-0.0000", "0.0000")).join(" "),
            )
            .sort();
        expect(words(back.hits)).toEqual(words(holes));
        expect(back.findings.filter((f) => f.level !== "remark")).toEqual([]);
      },
    ),
  );
});
