import { expect, test } from "@jest/globals";
import { amount, count, dayRange, mm, money, signed, unitPrice } from "./format.ts";
import { sweetSpots } from "./sweetSpots.ts";

test("money in the currency's places, a true minus, the unit behind", () => {
  expect(amount(1234.5, "EUR")).toBe("1,234.50");
  expect(amount(-0.5, "EUR")).toBe("−0.50");
  expect(amount(1234.4, "JPY")).toBe("1,234");
  expect(money(19.3, "EUR")).toBe("19.30 EUR");
});

test("changes carry their sign; what rounds to nothing is 0", () => {
  expect([signed(0.414), signed(-0.236), signed(0.004), signed(-3, 0)]).toEqual([
    "+0.41",
    "−0.24",
    "0",
    "−3",
  ]);
});

test("lengths and unit prices show no digit that says nothing", () => {
  expect([mm(0.15200001), mm(78), mm(undefined)]).toEqual(["0.152", "78", "–"]);
  expect([unitPrice(15_501), unitPrice(2_200_000), unitPrice(12_345_678)]).toEqual([
    "0.0155",
    "2.20",
    "12.35",
  ]);
});

test("ranges of days share their month", () => {
  expect(dayRange("2026-12-05", "2026-12-11")).toMatch(/^5–11 Dec/);
  expect(dayRange("2026-11-28", "2026-12-02")).toMatch(/28 Nov.* – 2 Dec/);
  expect([count(1, "line"), count(3, "line")]).toEqual(["1 line", "3 lines"]);
});

test("a sweet spot is a fall that the next quantity does not continue", () => {
  const points = [
    [10, 5],
    [20, 4.9],
    [25, 4.2],
    [30, 4.2],
    [40, 4.1],
  ].map(([quantity, perGood]) => ({ quantity: quantity!, perGood: perGood! }));
  expect(sweetSpots(points).map((p) => p.quantity)).toEqual([25]);
});
