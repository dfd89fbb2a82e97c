import { expect, test } from "@jest/globals";
import { shortfall } from "./short.ts";

test("how a run ends short: worked by hand, against every outcome, and never where all are surely good", () => {
  expect(shortfall(2, 2, { final: 0.9 })).toEqual({
    chance: expect.closeTo(0.19, 12),
    missing: expect.closeTo(0.2 / 0.19, 12),
  });
  // 33 started for 30 at 0.95: 1 − 0.9192 (domain.md 7.4)
  const s = shortfall(33, 30, { final: 0.95 });
  expect(s.chance).toBeCloseTo(1 - 0.9192, 4);
  const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n - 1, k - 1) * n) / k);
  let mean = 0;
  for (let good = 0; good < 30; good++)
    mean += (30 - good) * choose(33, good) * 0.95 ** good * 0.05 ** (33 - good);
  expect(s.missing * s.chance).toBeCloseTo(mean, 9);
  expect(shortfall(5, 5, { final: 1 })).toEqual({ chance: 0, missing: 0 });
  // EX 7.5: 34 for 30 with Beta(47, 3)
  const record = { runs: 1, boards: 30, model: 0.95, a: 47, b: 3, timeFactor: 1 };
  expect(shortfall(34, 30, { final: 0.94, record }).chance).toBeCloseTo(1 - 0.904, 3);
});
