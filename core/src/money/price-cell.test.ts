import { expect, test } from "@jest/globals";
import { headingWrong, meansCurrency, unitPrice } from "./price-cell.ts";

/* Ways people write the price of one piece, what each means in euros worked by hand. */
test.each<[cell: string, price: string | undefined]>([
  ["0.12", "0.12"],
  ["0,12 €", "0,12"],
  ["€0.12/pc", "0.12"],
  ["EUR 0.12", "0.12"],
  ["0.12EUR", "0.12"],
  ["0.12 each", "0.12"],
  ["0,12 €/Stk.", "0,12"],
  ["0.12 EUR per piece", "0.12"],
  ["0.12 / 1 pc", "0.12"],
  ["@ 0.12", "0.12"],
  ["0.12 net", "0.12"],
  ["1.234,50", "1.234,50"],
  ["1 234,50 €", "1234,50"],
  ["12'000.5", "12'000.5"],
  [".05", "0.05"],
  ["", undefined],
  ["–", undefined],
  ["n/a", undefined],
])("%j is %s each", (cell, price) => {
  expect(unitPrice(cell, "EUR")).toEqual(price === undefined ? {} : { price });
});

test.each<[cell: string, why: string]>([
  ["0.12 USD", "is in USD, the offer in EUR"],
  ["$0.12", "is in $, the offer in EUR"],
  ["£ 0.12", "is in GBP, the offer in EUR"],
  ["12.00 / 100", "is no plain price each"],
  ["12.00/1000 pcs", "is no plain price each"],
  ["12.00 per 100", "is no plain price each"],
  ["0.12USD", "is in USD, the offer in EUR"],
  ["0.12 1.20", "is no plain price each"],
  ["2x0.5", "is no plain price each"],
  ["-0.12", "is no plain price each"],
  ["~0.12", "is no plain price each"],
  ["0.12*", "is no plain price each"],
  ["0.12 - 0.15", "is no plain price each"],
  ["12 ct", "is no plain price each"],
  ["1.2e-2", "is no plain price each"],
  ["on request", "is no plain price each"],
  ["0.00", "is a price of nothing"],
])("%j is refused: %s", (cell, why) => {
  expect(unitPrice(cell, "EUR")).toEqual({ wrong: `“${cell}” ${why}` });
});

test("a sign means any of its currencies; a word alone the one it names", () => {
  expect(unitPrice("$0.12", "USD")).toEqual({ price: "0.12" });
  expect(unitPrice("$0.12", "CAD")).toEqual({ price: "0.12" });
  expect(["EUR", "eur", "€", "Euro"].map((t) => meansCurrency(t, "EUR"))).toEqual([true, true, true, true]);
  expect(["USD", "$", "Dollar", "x"].map((t) => meansCurrency(t, "EUR"))).toEqual([
    false,
    false,
    false,
    false,
  ]);
});

test("headings: prices in another currency, or for a hundred, are none of one piece", () => {
  expect(
    ["Price", "Unit price (EUR)", "Price / 1", "€ each", "Preis je Stück"].map((h) => headingWrong(h, "EUR")),
  ).toEqual(Array(5).fill(undefined));
  expect(["Price USD", "Price ($)"].map((h) => headingWrong(h, "EUR"))).toEqual([
    "“Price USD” is in USD, the offer in EUR",
    "“Price ($)” is in $, the offer in EUR",
  ]);
  for (const h of ["Price per 100", "Price/1000", "Preis je 100 St", "Price per thousand", "EUR/100"])
    expect(headingWrong(h, "EUR")).toBe(`“${h}” is no price each`);
});

test("every number beside every currency and every word of how many: taken where all three are right, named where one is not", () => {
  const right = {
    money: ["", "EUR", "€"],
    per: ["", "each", "/pc", "/ 1 pc", "pcs"],
    n: ["0.12", "1,234", "12", "1 200,00", ".5"],
  };
  const wrong = {
    money: ["USD", "$", "£", "CHF"],
    per: ["/100", "per 1000", "per 10 pcs", "/hundred"],
    n: ["-3", "0", "3.-", "x"],
  };
  for (const m of [...right.money, ...wrong.money])
    for (const per of [...right.per, ...wrong.per])
      for (const n of [...right.n, ...wrong.n])
        for (const text of [`${n} ${m} ${per}`, `${m} ${n}${per}`, `${m}${n} ${per}`]) {
          const isRight = right.money.includes(m) && right.per.includes(per) && right.n.includes(n);
          const digits = n === ".5" ? "0.5" : n.replace(" ", "");
          expect([text, unitPrice(text, "EUR")]).toEqual([
            text,
            isRight ? { price: digits } : { wrong: expect.any(String) },
          ]);
        }
});
