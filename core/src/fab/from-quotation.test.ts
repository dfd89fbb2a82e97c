import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { microsToText, toMicros } from "../money/money.ts";
import { houseShape } from "../shape/index.ts";
import { fitOptions } from "./fit-options.ts";
import { type FirstPrice, type FirstQuotation, houseFromQuotation } from "./from-quotation.ts";
import { fabQuote } from "./price.ts";

/** 80 × 50 mm are 0.4 dm². */
const asked: FirstQuotation = {
  name: "Cold Lane Boards",
  currency: "EUR",
  today: "2026-11-27",
  board: { widthMm: 80, heightMm: 50, layers: 2, holes: 900, copperShare: 0.6 },
  options: {
    thickness: { value: "1.6", label: "1.6 mm" },
    copper: { value: "35", label: "35 µm" },
    finish: { value: "immersion-gold", label: "immersion gold" },
    mask: { value: "green", label: "green" },
    legend: { value: "white", label: "white" },
  },
  prices: [{ pieces: 50, boards: "60.00" }],
  freight: "12.00",
  handling: "3.50",
  leadDays: 9,
  transitDays: 4,
  delayDays: 2,
  limits: {},
};
const quoteOf = (q: FirstQuotation, pieces: number) => {
  const house = { ...houseFromQuotation(q), id: "new" };
  return fabQuote(house, q.board, fitOptions(house, {}), pieces);
};

// by hand: of 60.00 half is set-up, so 0.60 a board; 100 boards are 30 + 60, with 12 freight and 3.50 handling
test("of one price half is set-up: as quoted for the pieces quoted, worked on for others, and the pieces are kept", () => {
  expect(quoteOf(asked, 50)).toMatchObject({ boards: 60e6, total: 75.5e6, leadDays: 9, days: 13 });
  expect(quoteOf(asked, 100)).toMatchObject({ boards: 90e6, total: 105.5e6 });
  const profile = houseFromQuotation(asked);
  expect(profile).toMatchObject({ quotedFor: [50], layers: [2], limits: {}, checkedOn: "2026-11-27" });
  expect(profile.about).toBe("from its quotation for 50 boards");
  expect(houseShape(profile, "")).toBeUndefined();
});

// by hand: 20 for 44.00 and 100 for 84.00 are 0.50 a board and 34.00 once; 50 are 34 + 25
test("two prices tell what is paid once from what a board costs, in either order", () => {
  const prices = [
    { pieces: 100, boards: "84.00" },
    { pieces: 20, boards: "44.00" },
  ] as const;
  for (const p of [prices, [prices[1], prices[0]] as const]) {
    const q = { ...asked, prices: p };
    expect(houseFromQuotation(q).price.setup).toEqual({ "2": "34" });
    expect([20, 50, 100].map((n) => quoteOf(q, n).boards)).toEqual([44e6, 59e6, 84e6]);
  }
});

test("prices that are none of one house are refused, and which is wrong is said", () => {
  const second = (pieces: number, boards: string) => () =>
    houseFromQuotation({ ...asked, prices: [asked.prices[0], { pieces, boards }] });
  expect(second(50, "61.00")).toThrow("Both prices are for 50 boards.");
  expect(second(100, "59.99")).toThrow("100 boards for 59.99 are less than 50 for 60.00.");
  expect(second(100, "120.01")).toThrow("A board costs more among 100 than among 50.");
  // the bounds themselves: as much for more, and no set-up at all
  expect(second(100, "60.00")().price.perDm2).toEqual({ "2": "0" });
  expect(second(100, "120.00")().price.setup).toEqual({ "2": "0" });
  expect(() => houseFromQuotation({ ...asked, board: { ...asked.board, widthMm: 0 } })).toThrow(
    "The size of this board is not known",
  );
});

test("four layers are priced as four, and no other", () => {
  const four = houseFromQuotation({ ...asked, board: { ...asked.board, layers: 4 } });
  expect(four).toMatchObject({ layers: [4], price: { setup: { "4": "30" } } });
  // one copper layer goes by the price of two
  expect(houseFromQuotation({ ...asked, board: { ...asked.board, layers: 1 } }).price.setup).toEqual({
    "2": "30",
  });
});

test("whatever was quoted is what the profile says of it, to the cent", () => {
  const price = fc.record({
    pieces: fc.integer({ min: 1, max: 2000 }),
    cents: fc.integer({ min: 1, max: 500_000 }),
  });
  fc.assert(
    fc.property(
      price,
      fc.integer({ min: 1, max: 2000 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (a, more, share) => {
        const b = {
          pieces: a.pieces + more,
          cents: a.cents + Math.floor((a.cents / a.pieces) * more * share),
        };
        const as = (p: typeof a): FirstPrice => ({ pieces: p.pieces, boards: microsToText(p.cents * 1e4) });
        for (const prices of [[as(a)], [as(a), as(b)]] as const)
          for (const p of prices)
            expect(quoteOf({ ...asked, prices }, p.pieces).boards).toBe(toMicros(p.boards));
      },
    ),
  );
});
