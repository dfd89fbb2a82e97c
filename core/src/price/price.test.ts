import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { type Channel, type Pricing, priceDocument } from "./price.ts";

const channel = (more: Partial<Channel> = {}): Channel => ({
  name: "own shop",
  feeShare: 0.049,
  feeFixed: "0.30",
  feeOn: "gross",
  discount: 0,
  taxIncluded: true,
  margin: 0.4,
  ...more,
});
const price = (more: Partial<Pricing>, ...channels: Channel[]) =>
  priceDocument({ unitCost: "13.116", packing: "0.80", taxRate: 0.2, grid: ["0.90"], channels, ...more });
const one = (more: Partial<Pricing>, c: Channel) => price(more, c).channels[0]!;

test("EX 8.2: 21.40 at 40 % with 4.9 % and 0.30 of fees is 40.096 net, 48.115 with 20 % tax", () => {
  const p = one({ unitCost: "21.40", packing: "0", grid: [] }, channel());
  // 21.70 / 0.5412; with no margin 21.70 · 1.2 / 0.9412
  expect(p).toMatchObject({ net: "40.0961", gross: "48.1153", pricePoint: "48.12", floor: "27.6668" });
});

test("EX 8.3: Board K at 31.90 keeps 40.6 %", () => {
  const p = one({}, channel());
  expect(p).toMatchObject({ net: "26.2676", gross: "31.5211", pricePoint: "31.90" });
  expect(p.atPoint).toEqual({
    net: "26.5833",
    fees: "1.8631",
    contribution: "10.8042",
    margin: 0.4064,
    markup: 0.7764,
  });
  expect(one({}, channel({ list: "31.90", margin: 0 }))).toMatchObject({
    net: "26.5833",
    gross: "31.9000",
    pricePoint: "31.90",
    atPoint: p.atPoint,
    floor: p.floor,
  });
});

test("EX 8.4: a reseller's 35 % of 31.90 leaves 17.279 and 19.5 % without fees", () => {
  const p = one({}, channel({ feeShare: 0, feeFixed: "0", discount: 0.35, list: "31.90" }));
  expect(p).toMatchObject({ net: "17.2792", gross: "31.9000" });
  expect(p.atPoint!.margin).toBeCloseTo(0.1946, 9);
});

test("EX 8.5: 49.00 at 118.4 is 41.39 of then; from 45.00 that is 8.0 % less; 53.28 would hold it", () => {
  // biome-ignore lint/suspicious/noThenProperty: nobody waits for an index
  const index = { then: 100, now: 118.4, old: "45.00" };
  expect(price({ index }, channel({ list: "49.00" })).real).toEqual({
    old: "45.0000",
    now: "41.3851",
    change: -0.0803,
    toHold: "53.2800",
  });
  expect(price({ index }, channel({ margin: 1 })).real).toEqual({ old: "45.0000", toHold: "53.2800" });
});

test("what cannot be is said, the floor stays where fees leave anything; without tax shown the point is without", () => {
  expect(one({}, channel({ margin: 0.95 }))).toEqual({
    name: "own shop",
    floor: expect.any(String),
    impossible: "Fees and the margin wished for take all that is received.",
  });
  expect(one({}, channel({ feeShare: 0.9 }))).toEqual({
    name: "own shop",
    impossible: "The fee alone takes all that is received.",
  });
  const bare = one(
    { unitCost: "10", packing: "0" },
    channel({ feeShare: 0.1, feeOn: "net", feeFixed: "0", margin: 0.4, taxIncluded: false }),
  );
  // 10 / 0.5; shown without tax 20.00, so 20.90; nothing is left at 10 / 0.9
  expect(bare).toMatchObject({ net: "20.0000", gross: "24.0000", pricePoint: "20.90", floor: "11.1111" });
  const refused = (more: object) => () => priceDocument({ unitCost: "1", channels: [channel()], ...more });
  expect(refused({ grid: ["1.00"] })).toThrow("grid[0] should be an ending below 1");
  expect(refused({ unitCost: "-1" })).toThrow("unitCost should be an amount");
  expect(refused({ channels: [] })).toThrow("channels holds fewer than 1");
  expect(refused({ channels: [channel({ discount: 1 })] })).toThrow("discount should be below 1");
  // biome-ignore lint/suspicious/noThenProperty: nobody waits for an index
  expect(refused({ index: { then: 0, now: 1, old: "1" } })).toThrow("then should be above 0");
});

test("a price that lies on the grid exactly stays there, whatever divides it", () => {
  // (1 + 0) / 0.3 · 1.2 is 4 exactly
  const c = channel({ feeShare: 0, feeFixed: "0", margin: 0.7 });
  expect(one({ unitCost: "1", packing: "0", grid: ["0.00"] }, c).pricePoint).toBe("4.00");
  expect(one({ unitCost: "1", packing: "0", grid: [] }, c).pricePoint).toBe("4.00");
  expect(one({ unitCost: "1.0001", packing: "0", grid: ["0.00"] }, c).pricePoint).toBe("5.00");
});

test("the margin at the point is the wished one or more, and at the next lower point less; at the floor nothing is left", () => {
  const cents = (n: number) => (n / 100).toFixed(2);
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 50_000 }),
      fc.integer({ min: 0, max: 30 }),
      fc.integer({ min: 0, max: 60 }),
      fc.integer({ min: 0, max: 40 }),
      fc.boolean(),
      fc.constantFrom("gross" as const, "net" as const),
      (cost, f, m, d, taxIncluded, feeOn) => {
        const c = channel({
          feeShare: f / 100,
          margin: m / 100,
          discount: d / 100,
          taxIncluded,
          feeOn,
          feeFixed: "0.30",
        });
        const at = (list: string) =>
          one({ unitCost: cents(cost), packing: "0", grid: [] }, { ...c, list }).atPoint!;
        const p = one({ unitCost: cents(cost), packing: "0", grid: [] }, c);
        if (p.impossible)
          return expect(1 - m / 100 - (f / 100) * (feeOn === "gross" ? 1.2 : 1)).toBeLessThan(1e-9);
        expect(p.atPoint).toEqual(at(p.pricePoint!));
        expect(p.atPoint!.margin).toBeGreaterThanOrEqual(m / 100 - 5e-5);
        const lower = (Number(p.pricePoint) - 0.01).toFixed(2);
        if (Number(lower) > 0) expect(at(lower).margin!).toBeLessThanOrEqual(m / 100 + 5e-5);
        expect(Math.abs(Number(at(p.floor!).contribution))).toBeLessThan(2e-4);
      },
    ),
    { numRuns: 300, seed: 8 },
  );
});
