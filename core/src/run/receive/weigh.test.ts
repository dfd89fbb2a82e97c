import { expect, test } from "@jest/globals";
import { countByWeight } from "./weigh.ts";

test.each([
  // 20 pieces weigh 1.00 g: 0.05 g each; 10.2 g in a bag of 0.2 g are 200; open: 200 × 0.005 and 0.2
  [10.2, 0.2, 1, 20, 0.01, { pieces: 200, openTo: 2 }],
  // a scale ten times as fine leaves less than one open
  [10.2, 0.2, 1, 20, 0.001, { pieces: 200, openTo: 1 }],
  [0.2, 0.2, 1, 20, 0.01, { pieces: 0, openTo: 1 }],
  // screws of 1.9 g one by one
  [191.7, 1.7, 1.9, 1, 0.1, { pieces: 100, openTo: 3 }],
])("%d g less %d g, %d g for %d, step %d", (all, empty, some, k, step, is) => {
  expect(countByWeight(all, empty, some, k, step)).toEqual(is);
});

test.each([
  [0.1, 0.2, 1, 20, 0.01],
  [10, -1, 1, 20, 0.01],
  [10, 0, 0, 20, 0.01],
  [10, 0, 1, 0, 0.01],
  [10, 0, 1, 2.5, 0.01],
  [Number.NaN, 0, 1, 20, 0.01],
  // ten chips of 1 mg on a scale of 0.01 g
  [10, 0, 0.02, 10, 0.01],
])("%d less %d, %d for %d, step %d is refused", (...given) => {
  expect(countByWeight(...given)).toHaveProperty("wrong");
});

test("the true number lies within what is left open, whatever the scale rounds", () => {
  for (let n = 1; n <= 400; n += 7)
    for (const [each, k, step] of [
      [0.0123, 40, 0.01],
      [0.19, 10, 0.01],
      [1.7, 3, 0.1],
    ] as const) {
      const reads = (g: number) => Math.round(g / step) * step;
      const w = countByWeight(reads(n * each + 0.334), reads(0.334), reads(each * k), k, step);
      if ("wrong" in w) throw new Error(w.wrong);
      expect(Math.abs(w.pieces - n)).toBeLessThanOrEqual(w.openTo);
    }
});
