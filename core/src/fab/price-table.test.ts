import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { microsToText, toMicros } from "../money/money.ts";
import { fitOptions } from "./fit-options.ts";
import { type FirstPrice, houseFromQuotation } from "./from-quotation.ts";
import { fabQuote } from "./price.ts";
import { readPriceTable } from "./price-table.ts";

const read = (text: string, currency = "EUR") =>
  readPriceTable(
    text.split("\n").map((l) => l.split(";")),
    currency,
  );
const prices = (...list: readonly (readonly [number, string])[]) =>
  list.map(([pieces, boards]) => ({ pieces, boards }));

// ways people write such a table, odd ones first, the right answer by hand
test.each<[string, string, FirstPrice[] | string[]]>([
  [
    "each, with a comma and the currency in the head",
    "Boards;EUR each\n10;1,25\n100;0,405",
    prices([10, "12.50"], [100, "40.500"]),
  ],
  [
    "each, in the first column",
    "EUR each;Boards\n1,25;10\n0,405;100",
    prices([10, "12.50"], [100, "40.500"]),
  ],
  [
    "in all, thousands by a point",
    "Qty;Total price\n10;44,00\n1000;1.234,50",
    prices([10, "44.00"], [1000, "1234.50"]),
  ],
  [
    "out of order, with signs of money",
    "total €;pieces\n€ 84.00;100\n44.00 €;20",
    prices([20, "44.00"], [100, "84.00"]),
  ],
  [
    "a thousand with an apostrophe, empty rows between",
    "Quantity;Sum\n\n1'000;2'500.00\n",
    prices([1000, "2500.00"]),
  ],
  ["whole sums", "pcs;price\n5;61\n10;61", prices([5, "61"], [10, "61"])],
  [
    "no header",
    "10;44\n20;60",
    ["The first row does not name a column of pieces and one of prices, in all or each."],
  ],
  [
    "only pieces",
    "Qty\n10",
    ["The first row does not name a column of pieces and one of prices, in all or each."],
  ],
  ["nothing below the head", "Qty;Price", ["There is no row of prices."]],
  ["another currency in the head", "Qty;Price USD\n10;44", ["The prices are in USD, the house charges EUR."]],
  ["another currency in a row", "Qty;Price\n10;44\n20;GBP 60", ["Row 3 is in GBP, the house charges EUR."]],
  ["a sign of another currency", "Qty;Price\n10;£44", ["Row 2 is in GBP, the house charges EUR."]],
  [
    "gaps, words and twice the same: all of them named",
    "Qty;Price\n10;\nsome;5\n20;60\n20;61\n30;on request",
    [
      "Row 2 has no price for 10 pieces.",
      "Row 3 has no whole number of pieces: “some”.",
      "Row 5 has 20 pieces again.",
      "Row 6 has no plain price for 30 pieces: “on request”.",
    ],
  ],
  [
    "a decimal comma between commas",
    "Qty;Price\n10;44;00",
    ["Row 2 has more cells than the first row: “10 | 44 | 00”."],
  ],
  [
    "a range, a loss and words beside it are no amount",
    "Qty;Price\n10;12-15\n20;-5\n30;from 9",
    [
      "Row 2 has no plain price for 10 pieces: “12-15”.",
      "Row 3 has no plain price for 20 pieces: “-5”.",
      "Row 4 has no plain price for 30 pieces: “from 9”.",
    ],
  ],
  [
    "a sign several currencies share, and the house's is none of them",
    "Qty;Price\n10;$44",
    ["Row 2 is in $, the house charges EUR."],
  ],
  [
    "prices for a hundred",
    "Qty;Price per 100\n10;44",
    ["The prices are “Price per 100”: write them in all or each."],
  ],
  ["capitals that are no currency", "QTY;SUM\n10;44 EUR", prices([10, "44"])],
  ["thousands by a space", "Qty;Total\n1000;1 234,50", prices([1000, "1234.50"])],
  [
    "rows keep their numbers where empty ones lie between",
    "Qty;Price\n\n10;44\n\n20;",
    ["Row 5 has no price for 20 pieces."],
  ],
  [
    "a mark that could be either",
    "Qty;Price\n1000;1.234",
    ["Row 2: 1.234 can be read two ways; write it without a mark for thousands."],
  ],
  [
    "the other rows tell which it is",
    "Qty;Price\n10;44,00\n1000;1.234",
    prices([10, "44.00"], [1000, "1234"]),
  ],
])("%s", (_, text, expected) => {
  const table = read(text);
  expect(table.prices ?? table.wrong).toEqual(expected);
  expect(table.wrong.length > 0).toBe(table.prices === undefined);
});

const asked = {
  name: "Table",
  currency: "EUR",
  today: "2026-11-27",
  board: { widthMm: 80, heightMm: 50, layers: 2, holes: 0, copperShare: 0.6 },
  options: Object.fromEntries(
    ["thickness", "copper", "finish", "mask", "legend"].map((k) => [k, { value: "1.6", label: k }]),
  ) as never,
  freight: "0",
  handling: "0",
  leadDays: 5,
  transitDays: 1,
  delayDays: 1,
  limits: {},
};

test("a house of a table charges what the table says, to the cent, for every number in it", () => {
  const rise = fc.array(fc.tuple(fc.integer({ min: 1, max: 300 }), fc.integer({ min: 0, max: 40_000 })), {
    minLength: 2,
    maxLength: 9,
  });
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 50 }),
      fc.integer({ min: 500, max: 30_000 }),
      rise,
      (first, cents, steps) => {
        const list: FirstPrice[] = [{ pieces: first, boards: microsToText(cents * 10_000) }];
        for (const [more, dearer] of steps) {
          const last = list.at(-1)!;
          list.push({
            pieces: last.pieces + more,
            boards: microsToText(toMicros(last.boards) + dearer * 10_000),
          });
        }
        // the first two rows are a line: a board that costs more in the larger number is refused before
        const perFew = toMicros(list[0]!.boards) / list[0]!.pieces;
        const slope =
          (toMicros(list[1]!.boards) - toMicros(list[0]!.boards)) / (list[1]!.pieces - list[0]!.pieces);
        fc.pre(slope <= perFew && slope > 0);
        const house = { ...houseFromQuotation({ ...asked, prices: list as never }), id: "t" };
        for (const p of list) {
          const q = fabQuote(house, asked.board, fitOptions(house, {}), p.pieces);
          expect(Math.abs(q.boards - toMicros(p.boards))).toBeLessThanOrEqual(10_000);
        }
        expect(house.quotedFor).toEqual(list.map((p) => p.pieces));
      },
    ),
  );
});
