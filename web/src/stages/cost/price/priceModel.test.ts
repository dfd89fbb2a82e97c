import { expect, test } from "@jest/globals";
import { pricesOf, typedGrid, typedShare, typedSum, withFact } from "./priceModel.ts";

test.each<[string, number | undefined | string]>([
  ["4.9", 0.049],
  ["4,9 %", 0.049],
  ["20%", 0.2],
  ["", undefined],
  ["0", 0],
  ["101", "wrong"],
  ["-1", "wrong"],
  ["some", "wrong"],
])("%j per cent is %j", (text, is) => {
  const got = typedShare(text);
  expect(typeof got === "string" ? "wrong" : got).toEqual(is);
});

test("amounts and endings as people write them", () => {
  expect(typedSum("12,50")).toEqual({ value: "12.50" });
  expect(typedSum(" ")).toEqual({});
  expect(typedSum("12.5o")).toHaveProperty("wrong");
  expect(typedGrid("0.90 .50;0")).toEqual(["0.90", "0.50", "0"]);
  expect(typedGrid("")).toEqual([]);
  expect(typedGrid("1.90")).toContain("no ending");
  expect(withFact({ name: "a", margin: 0.4 }, "margin", undefined)).toEqual({ name: "a" });
});

test("what a shown price goes into adds up to it, with tax and without, whatever is taken", () => {
  const selling = {
    packing: "0.80",
    taxRate: 0.2,
    grid: ["0.90"],
    channels: [
      { name: "own", feeShare: 0.049, feeFixed: "0.30", margin: 0.4 },
      { name: "fair", taxIncluded: false, margin: 0.3 },
      { name: "reseller", discount: 0.35, margin: 0.2 },
      { name: "listed", list: "10.00", feeShare: 0.1 },
    ],
  };
  const { shown } = pricesOf(selling, "13.116")!;
  for (const { price, parts } of shown) {
    const { tax, fees, cost, stays } = parts!;
    expect(tax + fees + cost + stays).toBeCloseTo(Number(price.pricePoint), 9);
    // one costs the same wherever it is sold: 13.116 and its packing
    expect(cost).toBeCloseTo(13.916, 3);
  }
  // 10.00 with tax does not pay for it
  expect(shown[3]!.parts!.stays).toBeLessThan(0);
  expect(pricesOf({ channels: [] }, "1")).toBeUndefined();
  expect(
    pricesOf({ channels: [{ name: "all", feeShare: 0.7, margin: 0.4 }] }, "1")!.shown[0]!.parts,
  ).toBeUndefined();
});
