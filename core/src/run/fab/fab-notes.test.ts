import { expect, test } from "@jest/globals";
import type { Measure } from "../../board/measure-document.ts";
import { FAR, madeMeasure, madeRun } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { panelThickness } from "../sheet/panel.ts";

const run = (measure: Measure) =>
  madeRun({
    boards: [{ id: "b", name: "Main", perProduct: 1, measure }],
    house: FAR,
    houses: [FAR],
  } as never);

test("a board of no known size says what its price rests on: the box of its copper, or nothing", () => {
  const { outline: _, ...open } = madeMeasure();
  const note = (m: Measure) => rollUp(run(m)).notes.find((n) => n.key.startsWith("board-size-unknown"))!.text;
  expect(note({ ...open, extentMm: [0, 0, 30, 20] })).toContain("the box of its copper, 30.0 × 20.0 mm");
  const { extentMm: __, ...bare } = open;
  expect(note(bare)).toContain("its area and weight count nothing here");
});

test("a sheet is as thick as chosen, else as a board's files say, else 1.6", () => {
  const { thicknessMm: _, ...plain } = madeMeasure();
  const thick = (m: Measure, thickness?: string) =>
    panelThickness({ ...run(m), options: thickness === undefined ? {} : { thickness } } as never);
  expect([
    thick(plain),
    thick({ ...plain, thicknessMm: 0.8 }),
    thick({ ...plain, thicknessMm: 0.8 }, "1.0 mm"),
  ]).toEqual([1.6, 0.8, 1]);
});
