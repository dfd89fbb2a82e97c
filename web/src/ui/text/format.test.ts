import { expect, test } from "@jest/globals";
import { sweetSpots } from "../chart/sweetSpots.ts";
import {
  amount,
  count,
  day,
  dayName,
  dayRange,
  mil,
  mm,
  money,
  said,
  setFormats,
  signed,
  typedNumber,
  unitPrice,
} from "./format.ts";

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

test("a shop that writes a comma and the year first", () => {
  setFormats({ decimalMark: ",", dateOrder: "ymd", showsMil: true });
  expect([amount(1234.5, "EUR"), signed(0.414), mm(0.152), unitPrice(15_501)]).toEqual([
    "1\u202f234,50",
    "+0,41",
    "0,152",
    "0,0155",
  ]);
  expect([mil(0.152), mil(undefined)]).toEqual(["6,0 mil", ""]);
  expect(said("track is 0.25, this house holds 0.4 (see 1.2.3)")).toBe(
    "track is 0,25, this house holds 0,4 (see 1,2,3)",
  );
  expect(said("approved by Ada on 2026-01-12, seen 2026-99-99")).toBe(
    "approved by Ada on 2026-01-12, seen 2026-99-99",
  );
  expect([day("2026-01-12"), dayRange("2026-12-05", "2026-12-11")]).toEqual([
    "2026-01-12",
    "2026-12-05 – 2026-12-11",
  ]);
  setFormats({ dateOrder: "mdy" });
  expect(dayRange("2026-12-05", "2026-12-11")).toMatch(/^Dec 5–11/);
  expect(said("approved by Ada on 2020-01-12")).toBe("approved by Ada on Jan 12, 2020");
  setFormats({ decimalMark: ".", dateOrder: "dmy", showsMil: false });
  expect(mil(0.152)).toBe("");
});

test("numbers are understood as they are typed; where they can be read two ways, the shop's mark decides", () => {
  const read = ["12,50", "12.50", "0,250", "1,250", "1.250", "1 234,5", "1,234.50", "-3", "abc", "1,2,3"];
  expect(read.map(typedNumber)).toEqual([
    "12.50",
    "12.50",
    "0.250",
    "1250",
    "1.250",
    "1234.5",
    "1234.50",
    "-3",
    "abc",
    "1,2,3",
  ]);
  setFormats({ decimalMark: "," });
  expect(["1.250", "1.234,50", "1,250"].map(typedNumber)).toEqual(["1250", "1234.50", "1.250"]);
  setFormats({ decimalMark: "." });
});

test("days are called by name while they are near", () => {
  const now = new Date(2026, 10, 25, 1, 30);
  expect(
    [new Date(2026, 10, 25), new Date(2026, 10, 24, 23, 59), new Date(2026, 10, 20)].map((d) =>
      dayName(d.toISOString(), now),
    ),
  ).toEqual(["Today", "Yesterday", day("2026-11-20")]);
});
