import { expect, test } from "@jest/globals";
import { type PriceRow, typedPrices } from "./priceRows.ts";

const row = (part: string, each: string, from = "", stock = ""): PriceRow => ({
  id: part,
  lines: [`line ${part}`],
  part,
  number: "",
  need: 10,
  each,
  from,
  stock,
});
const read = (...rows: PriceRow[]) => {
  const { offers, problems, doubt } = typedPrices(rows, "EUR", 500);
  return [
    ...offers.map(
      (o) =>
        `${o.lineIds.join()} from ${o.moq} of ${o.stock}: ${o.breaks.map((b) => `${b.qty} ${b.price}`).join(", ")}`,
    ),
    ...problems,
    ...(doubt ? [`asked ${doubt.text}`] : []),
  ];
};

test.each<[string, PriceRow[], string[]]>([
  ["a price alone is from one piece on", [row("R1", "0.12")], ["line R1 from 1 of 500: 1 0.12"]],
  [
    "beside a least quantity and a stock",
    [row("R1", "0,12", "100", "12'000")],
    ["line R1 from 100 of 12000: 100 0.12"],
  ],
  [
    "with its currency",
    [row("R1", "EUR 0.12"), row("R2", "0.5 €")],
    ["line R1 from 1 of 500: 1 0.12", "line R2 from 1 of 500: 1 0.5"],
  ],
  ["steps in one cell", [row("R1", "10: 0.12; 100: 0.055")], ["line R1 from 10 of 500: 10 0.12, 100 0.055"]],
  [
    "steps whose first is below the least",
    [row("R1", "1: 0.12; 100: 0.055", "50")],
    ["line R1 from 50 of 500: 1 0.12, 100 0.055"],
  ],
  ["nothing typed is nothing kept", [row("R1", ""), row("R2", "  ")], []],
  [
    "three digits behind a mark, as the others are written",
    [row("R1", "1.234"), row("R2", "0.5")],
    ["line R1 from 1 of 500: 1 1.234", "line R2 from 1 of 500: 1 0.5"],
  ],
  [
    "and between thousands",
    [row("R1", "1.234"), row("R2", "0,5")],
    ["line R1 from 1 of 500: 1 1234", "line R2 from 1 of 500: 1 0.5"],
  ],
  ["what may be either is asked", [row("R1", "1,234")], ["asked 1,234"]],
  [
    "no price",
    [row("R1", "ask"), row("R2", "0.1")],
    ["line R2 from 1 of 500: 1 0.1", "R1: “ask” is no plain price each."],
  ],
  ["two numbers without steps", [row("R1", "0.12 0.13")], ["R1: “0.12 0.13” is no plain price each."]],
  ["another currency", [row("R1", "0.12 USD")], ["R1: “0.12 USD” is in USD, the offer in EUR."]],
  ["a price for a hundred", [row("R1", "12.00 / 100")], ["R1: “12.00 / 100” is no plain price each."]],
  ["below nought", [row("R1", "-0.12")], ["R1: “-0.12” is no plain price each."]],
  ["a stock without a price", [row("R1", "", "", "40")], ["R1: no price stands beside its stock."]],
  ["no least quantity", [row("R1", "0.12", "few")], ["R1: “few” is no least quantity."]],
  ["a least quantity of none", [row("R1", "0.12", "0")], ["R1: “0” is no least quantity."]],
  ["no stock", [row("R1", "0.12", "", "-3")], ["R1: “-3” is no stock."]],
])("%s", (_, rows, said) => {
  expect(read(...rows)).toEqual(said);
});

test("an answer to what may be either holds for all of them", () => {
  const offers = typedPrices([row("R1", "1,234"), row("R2", "2,500")], "EUR", 1, "decimal").offers;
  expect(offers.map((o) => o.breaks[0]!.price)).toEqual(["1.234", "2.500"]);
});
