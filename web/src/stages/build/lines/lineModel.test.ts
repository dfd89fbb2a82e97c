import { expect, test } from "@jest/globals";
import { linesOfUnit, type TestItem, type TestTry } from "@kobbin/core";
import { graphOf, standWords } from "./lineModel.ts";

const plan = (worst?: string, applied = ["10", "25", "40"]) =>
  applied.map((a) => ({
    id: a,
    name: a,
    unit: "mV",
    point: { of: "probe", applied: a, unit: "mV", ...(worst ? { worst } : {}) },
  })) as unknown as TestItem[];
const read = (...values: string[]) =>
  values.map((value, i) => ({
    unit: 1,
    item: ["10", "25", "40"][i],
    on: "2026-12-01",
    value,
    limits: {},
    verdict: "pass",
  })) as unknown as TestTry[];
const line = (tries: TestTry[], items = plan("0.05")) => linesOfUnit(items, tries, 1)[0]!;

test("points are drawn by what is applied and how far they are off, the allowed band about the middle; by hand", () => {
  // 10, 25.2, 39.67: off −0.12302, 0.24604, −0.12302
  const g = graphOf(line(read("10", "25.2", "39.67")), 228)!;
  expect(g.points.map((p) => Math.round(p.x))).toEqual([14, 114, 214]);
  expect(g.points.map((p) => p.anchor)).toEqual(["start", "middle", "end"]);
  // the farthest is 30 above the middle, the band 30 × 0.05 / 0.24604
  expect(g.points[1]!.y).toBeCloseTo(g.mid - 30, 6);
  expect(g.points[0]!.y).toBeCloseTo(g.mid + 15, 6);
  expect(g.band).toBeCloseTo(6.0966, 3);
  expect(g.points.map((p) => p.isOver)).toEqual([true, true, true]);
  const near = graphOf(line(read("10", "24.86", "39.67")), 228)!;
  expect(near.points.some((p) => p.isOver)).toBe(false);
  // within what is allowed the band is what the height is measured by
  expect(near.band).toBeCloseTo(24, 6);
  expect(graphOf(line(read("10", "24.86")), 228)).toBeUndefined();
});

test.each([
  [line(read("10", "24.86", "39.67")), "at most 0.017 mV off, 0.05 allowed"],
  [line(read("10", "25.2", "39.67")), "0.25 mV off its line at 25 mV, 0.05 allowed"],
  [line(read("10", "24.86", "39.67"), plan()), "at most 0.017 mV off, and nobody says what is allowed"],
  [line(read("10")), "not every point is read"],
  [
    line(read("10", "24"), plan("0.05", ["10", "25"])),
    "two points: nothing is known of what is between them",
  ],
  [line(read("9", "9", "9")), "what is read does not follow what is applied"],
])("a line is told %#", (is, words) => expect(standWords(is)).toBe(words));
