import { expect, test } from "@jest/globals";
import type { BoardsWith } from "@kobbin/contract";
import { saysBoardsWith } from "./boardsWith.ts";

const run = (more: Partial<BoardsWith>): BoardsWith => ({
  runId: "r",
  run: "one",
  product: "P",
  revision: "A",
  begun: 0,
  good: 0,
  out: 0,
  ...more,
});

test("pieces that were taken, else those that came, over all runs, with boards that were begun and went out", () => {
  // one run took 19 of the 20 that came for it, another one: 20, on 39 boards
  expect(
    saysBoardsWith([run({ taken: 1, begun: 18, out: 11 }), run({ came: 20, taken: 19, begun: 21, out: 10 })]),
  ).toBe(
    "20 pieces went to 2 runs with 39 boards; which of those have one is not written down. 21 of the 39 went out.",
  );
  expect(saysBoardsWith([run({ came: 7, begun: 1 })])).toBe(
    "7 pieces went to 1 run with 1 board; which of those has one is not written down. None of them went out yet.",
  );
  expect(saysBoardsWith([run({ taken: -2 }), run({ came: 1 })])).toBe(
    "1 piece went to 2 runs, of which no board is begun.",
  );
});
