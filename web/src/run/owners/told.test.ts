import { expect, test } from "@jest/globals";
import { isOpen, toldOf } from "./told.ts";

const of = (runId?: string, unit?: number) => ({ ...(runId ? { runId } : {}), ...(unit ? { unit } : {}) });

test("a board that is told of twice counts once; strangers stand apart; the share is Wilson's", () => {
  // 2 of 30: (2/30 + 3.8415/60 ± 1.96·√(0.0667·0.9333/30 + 3.8415/3600)) / (1 + 3.8415/30) = 0.0185 … 0.2132
  expect(toldOf([of("a", 1), of("a", 1), of("b", 1)], 30)).toBe(
    "2 of the 30 boards that went out, likely 2 to 21 % of all",
  );
  expect(toldOf([of("a", 1), of()], 0)).toBe("1 board; 1 whose board is not known");
  expect(toldOf([of(), of()], 30)).toBe("2 whose board is not known");
  // more were told of than are known to be out: no share of that
  expect(toldOf([of("a", 1), of("a", 2)], 1)).toBe("2 boards");
});

test("what is answered, or known as a fault, is not open", () => {
  expect([isOpen({ answer: "" }), isOpen({ answer: "yes" }), isOpen({ answer: "", erratumId: "e" })]).toEqual(
    [true, false, false],
  );
});
