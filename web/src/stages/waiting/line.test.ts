import { expect, test } from "@jest/globals";
import { lineOf, mondaysOf, toPay } from "./line.ts";

const row = (since: string, to?: string) => ({
  waits: { on: "shop" as const, what: "", since },
  ...(to ? { to } : {}),
});

test("all that is waited for lies within the stretch, today too; a short one is two weeks", () => {
  const line = lineOf([row("2026-11-20", "2026-12-10"), row("2026-11-25")], "2026-11-30");
  expect([line.from, line.to]).toEqual(["2026-11-19", "2026-12-11"]);
  expect([line.at("2026-11-19"), line.at("2026-11-30"), line.at("2026-12-11")]).toEqual([0, 0.5, 1]);
  const late = lineOf([row("2026-10-01", "2026-10-05")], "2026-11-30");
  expect(late.at("2026-11-30")).toBeLessThan(1);
  const short = lineOf([row("2026-11-30")], "2026-11-30");
  expect([short.from, short.to]).toEqual(["2026-11-29", "2026-12-14"]);
});

test("Mondays mark it, never too many", () => {
  const two = lineOf([row("2026-11-20", "2026-12-10")], "2026-11-30");
  expect(mondaysOf(two)).toEqual(["2026-11-23", "2026-11-30", "2026-12-07"]);
  expect(mondaysOf(lineOf([row("2026-01-01", "2026-12-10")], "2026-11-30")).length).toBeLessThanOrEqual(8);
});

test("what is not paid is summed by currency, to the cent", () => {
  const pay = (currency: string, total: string, isPaid = false) => ({ currency, total, isPaid });
  expect(toPay([pay("EUR", "0.10"), pay("EUR", "0.20"), pay("USD", "9.99"), pay("EUR", "70", true)])).toEqual(
    [
      ["EUR", 0.3],
      ["USD", 9.99],
    ],
  );
});
