import { expect, test } from "@jest/globals";
import { readQuotation, recogniseQuotation } from "./quotation.ts";

const table = (text: string) =>
  text
    .trim()
    .split("\n")
    .map((l) => l.split(";").map((c) => c.trim()));
const read = (text: string, reading?: "decimal" | "grouped") => {
  const cells = table(text);
  return readQuotation(cells, recogniseQuotation(cells)!, "EUR", reading);
};

test("one row a step, with stock, minimum and pack; decimal commas", () => {
  expect(
    read(`
Quotation of 3 May;;;;;
Part number; Qty; Unit price; Stock; MOQ; Pack
OX-1; 1; 0,12; 4.000; 10; 5
ox-1; 1.000; 0,055 EUR; ; ;
TB-2; 25; 1,9; 300; ;
; ; ; ; ;
TB-3; some; 2,1; ; ;
TB-4; 1; ; ; ;`),
  ).toEqual({
    offers: [
      {
        mpn: "OX-1",
        row: 3,
        stock: 4000,
        moq: 10,
        multiple: 5,
        breaks: [
          { qty: 1, price: "0.12" },
          { qty: 1000, price: "0.055" },
        ],
      },
      { mpn: "TB-2", row: 5, stock: 300, breaks: [{ qty: 25, price: "1.9" }] },
    ],
    problems: [
      { row: 7, text: "“some” is no quantity" },
      { row: 8, text: "TB-4 has no price" },
    ],
    unread: [],
  });
});

test("a column for each quantity", () => {
  const { offers } = read(`
Article; 1; 10+; from 100; Lead time
OX-1; 0.12; 0.10; 0.055; 14 days
OX-2; 2.5; ; 1.75;`);
  expect(offers).toEqual([
    {
      mpn: "OX-1",
      row: 2,
      leadDays: 14,
      breaks: [
        { qty: 1, price: "0.12" },
        { qty: 10, price: "0.10" },
        { qty: 100, price: "0.055" },
      ],
    },
    {
      mpn: "OX-2",
      row: 3,
      breaks: [
        { qty: 1, price: "2.5" },
        { qty: 100, price: "1.75" },
      ],
    },
  ]);
});

test("a price that can be read two ways is asked, not guessed; another that tells decides it", () => {
  const open = "MPN;Price\nA-1;1,234";
  expect(read(open)).toMatchObject({
    offers: [],
    doubt: { text: "1,234", decimal: "1.234", grouped: "1234" },
  });
  expect(read(open, "grouped").offers[0]!.breaks).toEqual([{ qty: 1, price: "1234" }]);
  expect(read(open, "decimal").offers[0]!.breaks).toEqual([{ qty: 1, price: "1.234" }]);
  expect(read(`${open}\nA-2;0,5`).offers[0]!.breaks).toEqual([{ qty: 1, price: "1.234" }]);
});

test("nothing is taken that is in another currency or for other than one piece, and what is not read is named", () => {
  const whole = (text: string) => {
    const { offers, problems, unread } = read(text);
    const prices = offers.map((o) => `${o.mpn} ${o.breaks.map((b) => `${b.qty}: ${b.price}`).join(" ")}`);
    return [...prices, ...problems.map((p) => `row ${p.row}: ${p.text}`), ...unread];
  };
  expect(whole("MPN;Price (USD)\nA-1;0.12")).toEqual(["row 1: “Price (USD)” is in USD, the offer in EUR"]);
  expect(whole("MPN;Price per 100\nA-1;0.12")).toEqual(["row 1: “Price per 100” is no price each"]);
  expect(whole("MPN;Price;Currency;Remark\nA-1;0.12;EUR;soon\nA-2;0.2;USD;\nA-3;0.3;€;\nA-4;0.4;;")).toEqual([
    "A-1 1: 0.12",
    "A-3 1: 0.3",
    "A-4 1: 0.4",
    "row 3: A-2 is in USD, the offer in EUR",
    "Remark",
  ]);
  expect(whole("MPN;1;100;Stock\nA-1;0.12;9.00/100;many\nA-2;$0.2;on request;5\nA-3;–;0.1;–")).toEqual([
    "A-1 1: 0.12",
    "A-3 100: 0.1",
    "row 2: “9.00/100” is no plain price each",
    "row 2: “many” of A-1 is no number in stock, and not taken",
    "row 3: “$0.2” is in $, the offer in EUR",
    "row 3: “on request” is no plain price each",
  ]);
});

test("a column says for how many a price is; what stands beside the prices is gathered over the rows of a number", () => {
  const rows = `
MPN;Price;Per;Qty;Stock;MOQ;Lead time
A-1;12.00;100;1;;;
A-2;0.2;1 pc;1;;;2 weeks
A-2;0.1;each;100;40;10;14 days
A-2;0.05;;1000;50;;soon
A-3;0.3;1;1;–;;
A-3;0.4;1;1;;;`;
  expect(read(rows)).toEqual({
    offers: [
      {
        mpn: "A-2",
        row: 3,
        leadDays: 14,
        stock: 40,
        moq: 10,
        breaks: [
          { qty: 1, price: "0.2" },
          { qty: 100, price: "0.1" },
          { qty: 1000, price: "0.05" },
        ],
      },
      { mpn: "A-3", row: 6, breaks: [{ qty: 1, price: "0.3" }] },
    ],
    problems: [
      { row: 2, text: "the price of A-1 is for 100, not for one" },
      { row: 5, text: "A-2 says 50 where it said 40 above; the first is kept" },
      { row: 5, text: "“soon” of A-2 is no number of days, and not taken" },
      { row: 7, text: "A-3 has two prices from 1; the first is kept" },
    ],
    unread: [],
  });
});

test("what is no quotation is none", () => {
  expect(recogniseQuotation(table("a;b\nc;d"))).toBeUndefined();
  expect(recogniseQuotation(table("Price\n3"))).toBeUndefined();
});
