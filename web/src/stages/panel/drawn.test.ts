import { expect, test } from "@jest/globals";
import type { PanelDesign, PanelLayout } from "@kobbin/core";
import { outlinePath, pathOf, placeTransform, tabsPath } from "./drawn.ts";

test("rings as a path: what is up on the sheet is down on the screen, hundredths are enough", () => {
  expect(pathOf([[0, 0, 10, 0, 10.004, 5.006]], 20)).toBe("M0 20L10 20L10 14.99Z");
  expect(
    pathOf(
      [
        [1, 2],
        [3, 4],
      ].map((r) => [...r]),
      10,
    ),
  ).toBe("M1 8ZM3 6Z");
});

test("a board in its own coordinates, its cut-outs with it, and where a copy of it lies", () => {
  const design = { outline: [0, 0, 4, 0, 4, 3], cutouts: [[1, 1, 2, 1, 2, 2]] } as unknown as PanelDesign;
  expect(outlinePath(design)).toBe("M0 0L4 0L4 -3ZM1 -1L2 -1L2 -2Z");
  expect(placeTransform({ xMm: 12.346, yMm: 5, turnDeg: 90 }, 50)).toBe("translate(12.35 45) rotate(-90)");
});

test("bridges are drawn a little longer than their gap, so that no line shows between", () => {
  const tab = { xMm: 10, yMm: 10, widthMm: 5, gapMm: 2, acrossDeg: 90 };
  const numbers = [
    ...tabsPath({ tabs: [tab], heightMm: 20 } as unknown as PanelLayout).matchAll(/-?[\d.]+/g),
  ].map((m) => Number(m[0]));
  const xs = numbers.filter((_, i) => i % 2 === 0);
  const ys = numbers.filter((_, i) => i % 2 === 1);
  expect([Math.min(...xs), Math.max(...xs)]).toEqual([7.5, 12.5]);
  expect([Math.min(...ys), Math.max(...ys)]).toEqual([8.95, 11.05]);
});
