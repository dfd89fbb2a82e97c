import { expect, test } from "@jest/globals";
import type { Measure } from "../board/measure-document.ts";
import { FAR, madeMeasure } from "../run/made-up.fixture.ts";
import { checkHouse, shortOf } from "./check.ts";
import { fitOptions } from "./fit-options.ts";
import { tolerancesOf, USUAL_TOLERANCES } from "./tolerances.ts";

const check = (more: Partial<Measure>, limits: object = {}) => {
  const house = { ...FAR, limits: { ...FAR.limits, ...limits } };
  return checkHouse(house, madeMeasure(more), fitOptions(house, {}));
};
const level = (more: Partial<Measure>, measure: string, limits: object = {}) =>
  check(more, limits).find((c) => c.measure === measure)?.level;

test.each([
  ["just the limit can be made, and is told as tight", { minTrackMm: 0.127 }, "minTrackMm", "tight"],
  ["a rounding under it is none under it", { minTrackMm: 0.127 - 5e-7 }, "minTrackMm", "tight"],
  ["a micrometre under it cannot", { minTrackMm: 0.126 }, "minTrackMm", "cannot"],
  ["less than a twentieth above is tight", { minTrackMm: 0.133 }, "minTrackMm", "tight"],
  ["a twentieth above is fine", { minTrackMm: 0.1334 }, "minTrackMm", "fine"],
  ["what houses mend wants a look", { minMaskWebMm: 0.09 }, "minMaskWebMm", "look"],
  ["what is not measured is not judged", { minMaskWebMm: undefined as never }, "minMaskWebMm", undefined],
] as const)("%s", (_, measure, key, expected) => {
  expect(level(measure, key)).toBe(expected);
});

const outline = (widthMm: number, heightMm: number) => ({
  outline: { widthMm, heightMm, areaMm2: widthMm * heightMm, perimeterMm: 1, cutouts: 0, closed: true },
});
const sizes = (w: number, h: number) => check(outline(w, h)).filter((c) => c.measure === "outline");

test("a board fits the sheet whichever way it lies: long side to long side, and just as large is not too large", () => {
  const limits = { maxBoardMm: [400, 500], minBoardMm: [10, 20] };
  const at = (w: number, h: number) =>
    check(outline(w, h), limits)
      .filter((c) => c.measure === "outline")
      .map((c) => [c.level, Number(c.margin.toFixed(6))]);
  for (const [w, h] of [
    [400, 500],
    [500, 400],
    [10, 20],
    [20, 10],
  ] as const)
    expect([w, h, at(w, h)]).toEqual([w, h, []]);
  expect(at(401, 450)).toEqual([["cannot", -1]]);
  expect(at(100, 502)).toEqual([["cannot", -2]]);
  expect(at(9, 100).map(([l]) => l)).toHaveLength(1);
  expect(sizes(50, 40)).toEqual([]);
});

test("layers a house does not offer it cannot make; one layer is made as two", () => {
  const layers = (copperLayers: number, offered: readonly number[]) =>
    checkHouse({ ...FAR, layers: offered }, madeMeasure({ copperLayers }), fitOptions(FAR, {})).filter(
      (c) => c.measure === "copperLayers",
    );
  expect(layers(4, [1, 2])).toMatchObject([{ level: "cannot", value: 4, limit: 2 }]);
  expect(layers(1, [4])).toMatchObject([{ level: "cannot", value: 1 }]);
  expect(layers(1, [2, 4])).toEqual([]);
  expect(layers(0, [4])).toEqual([]);
});

test("what an ordinary house holds is as in domain.md 5.6; what a house leaves out is taken from there, and that is told", () => {
  expect(USUAL_TOLERANCES).toEqual({
    thicknessShare: 0.1,
    outlineMm: 0.2,
    platedHoleMm: 0.1,
    holeMm: 0.05,
    slotMm: 0.15,
    placeMm: 0.1,
  });
  expect(tolerancesOf({ slotMm: 0.1 })).toEqual({
    values: { ...USUAL_TOLERANCES, slotMm: 0.1 },
    isStated: false,
  });
  expect(tolerancesOf(USUAL_TOLERANCES).isStated).toBe(true);
  expect(tolerancesOf(undefined)).toEqual({ values: USUAL_TOLERANCES, isStated: false });
});

test("a board too small to be taken singly is named, though no measure of the table has that name", () => {
  const small = check(outline(8, 8), { minBoardMm: [20, 20] }).find((c) => c.measure === "outline")!;
  expect(shortOf(small)).toBe("board smaller than the house takes singly");
  expect(shortOf(check({ minTrackMm: 0.2 }).find((c) => c.measure === "minTrackMm")!)).toBe("smallest track");
});
