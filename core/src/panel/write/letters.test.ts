import { expect, test } from "@jest/globals";
import { textStrokes, textWidth } from "./letters.ts";

const boxOf = (strokes: ReturnType<typeof textStrokes>) => {
  const xs = strokes.flatMap(([x1, , x2]) => [x1, x2]);
  const ys = strokes.flatMap(([, y1, , y2]) => [y1, y2]);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)].map((v) =>
    Number(v.toFixed(6)),
  );
};

test("every letter and figure a name has is drawn with strokes that hang together, within its height and its place", () => {
  for (const c of "ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789") {
    const strokes = textStrokes(c, 2);
    expect([c, strokes.length > 0]).toEqual([c, true]);
    const [x0, y0, x1, y1] = boxOf(strokes) as [number, number, number, number];
    expect(Math.min(x0, y0)).toBeGreaterThanOrEqual(0);
    expect(y1).toBe(2);
    expect(x1).toBeLessThan(textWidth(c, 2));
  }
});

test("letters stand beside each other, small ones as large ones; what has no letter leaves its place", () => {
  const one = boxOf(textStrokes("H", 2));
  const [x0, , x1] = boxOf(textStrokes("~~h", 2)) as [number, number, number, number];
  expect([x0, x1].map((v) => Number((v - 2 * textWidth("H", 2)).toFixed(6)))).toEqual([one[0], one[2]]);
  expect(textStrokes("~ ", 2)).toEqual([]);
  expect(textWidth("HH", 4)).toBeCloseTo(4 * textWidth("H", 2), 9);
  boxOf(textStrokes("H", 4)).forEach((v, i) => {
    expect(v).toBeCloseTo(2 * one[i]!, 5);
  });
});
