import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { microsToNumber, microsToText, toMicros } from "../money/money.ts";
import { bestBasket, proveBasket } from "./basket.ts";
import { findBaskets } from "./compare-baskets.ts";
import type { Need } from "./need.ts";
import { buyAt, cheapestBuy, type Offer, type Supplier, toBreaks } from "./offer.ts";

const offer = (
  id: string,
  supplier: string,
  breaks: readonly (readonly [number, number])[],
  more: Partial<Offer> = {},
): Offer => ({
  id,
  supplier,
  stock: 1e6,
  moq: 1,
  multiple: 1,
  ...more,
  breaks: toBreaks(breaks.map(([qty, price]) => ({ qty, price }))),
});
const supplier = (id: string, shipping: number, freeFrom?: number): Supplier => ({
  id,
  name: id,
  shipping: toMicros(shipping),
  ...(freeFrom === undefined ? {} : { freeFrom: toMicros(freeFrom) }),
});
const STEPS = [
  [1, 0.12],
  [10, 0.1],
  [100, 0.055],
  [500, 0.032],
] as const;

// worked examples of price steps, minimum and multiple
test.each([
  [54, 54, "5.4"],
  [55, 55, "5.5"],
  [56, 100, "5.5"],
  [80, 100, "5.5"],
  [99, 100, "5.5"],
  [291, 500, "16"],
  [290, 290, "15.95"],
])("need %d at the steps buys %d for %s", (need, qty, cost) => {
  const buy = cheapestBuy(offer("a", "A", STEPS), need)!;
  expect([buy.qty, microsToText(buy.cost)]).toEqual([qty, cost]);
});

test.each([
  [9, 1.08],
  [10, 1],
  [80, 8],
  [99, 9.9],
  [100, 5.5],
  [499, 27.445],
  [500, 16],
])("%d pieces at the steps cost %d (worked example)", (qty, cost) => {
  expect(microsToNumber(buyAt(offer("a", "A", STEPS), qty).cost)).toBe(cost);
});

test("900 of a reel: cut tape 9.45, wound 11.58 with its fee, the full reel 20.50 (worked example)", () => {
  const cost = (o: Offer) => microsToNumber(cheapestBuy(o, 900)!.cost);
  expect(cost(offer("cut", "A", [[1, 0.0105]]))).toBe(9.45);
  expect(cost(offer("wound", "A", [[1, 0.0062]], { fee: toMicros("6.00") }))).toBe(11.58);
  expect(cost(offer("full", "A", [[5000, 0.0041]], { moq: 5000, multiple: 5000 }))).toBe(20.5);
});

test("stock hides a step, minimum and multiple round up, too little stock is none", () => {
  expect(microsToText(cheapestBuy(offer("a", "A", STEPS, { stock: 450 }), 300)!.cost)).toBe("16.5");
  expect(microsToText(cheapestBuy(offer("a", "A", STEPS, { moq: 50, multiple: 50 }), 130)!.cost)).toBe(
    "8.25",
  );
  expect(cheapestBuy(offer("a", "A", STEPS, { stock: 20 }), 21)).toBeUndefined();
});

const worked = (need3: number): { needs: Need[]; suppliers: Supplier[] } => ({
  suppliers: [supplier("A", 8, 50), supplier("B", 5)],
  needs: [
    {
      id: "1",
      need: 30,
      offers: [
        offer("1a", "A", [
          [1, 0.9],
          [25, 0.78],
        ]),
        offer("1b", "B", [
          [1, 0.7],
          [50, 0.6],
        ]),
      ],
    },
    {
      id: "2",
      need: 60,
      offers: [
        offer("2a", "A", [
          [1, 0.25],
          [100, 0.12],
        ]),
        offer("2b", "B", [
          [1, 0.2],
          [100, 0.14],
        ]),
      ],
    },
    { id: "3", need: need3, offers: [offer("3a", "A", [[1, 0.85]])] },
  ],
});

test("the whole basket beats the cheapest line: 60.90 with free shipping (worked example)", () => {
  const { needs, suppliers } = worked(30);
  const best = findBaskets(needs, suppliers)[0]!;
  expect([microsToText(best.total), best.suppliers, best.shipping]).toEqual(["60.9", ["A"], 0]);
});

test("two pieces more reach free shipping: 50.09 (worked example)", () => {
  const { needs, suppliers } = worked(17);
  expect(microsToText(findBaskets(needs, suppliers)[0]!.total)).toBe("50.09");
});

test("a line nobody has enough of is split, or all stock is bought and the rest is missing", () => {
  const needs: Need[] = [
    {
      id: "1",
      need: 100,
      offers: [offer("a", "A", [[1, 1]], { stock: 60 }), offer("b", "B", [[1, 2]], { stock: 70 })],
    },
  ];
  const split = findBaskets(needs, [supplier("A", 0), supplier("B", 0)])[0]!;
  expect(split.lines[0]!.buys.map((b) => [b.supplier, b.qty]).sort()).toEqual([
    ["A", 60],
    ["B", 40],
  ]);
  const short = findBaskets([{ ...needs[0]!, need: 200 }], [supplier("A", 0), supplier("B", 0)])[0]!;
  expect([short.missing, short.lines[0]!.buys.length]).toEqual([70, 2]);
});

const anyOffers = fc.array(
  fc.record({
    supplier: fc.constantFrom("A", "B", "C"),
    p1: fc.integer({ min: 1, max: 90 }),
    p2: fc.integer({ min: 1, max: 90 }),
    at: fc.integer({ min: 2, max: 40 }),
    moq: fc.integer({ min: 1, max: 9 }),
    multiple: fc.integer({ min: 1, max: 5 }),
  }),
  { minLength: 1, maxLength: 3 },
);

test("one more offer never raises the total, and multiplying all money multiplies it", () => {
  fc.assert(
    fc.property(
      anyOffers,
      fc.integer({ min: 1, max: 60 }),
      fc.integer({ min: 2, max: 7 }),
      (list, need, k) => {
        const make = (offers: typeof list, f: number) =>
          bestBasket(
            [
              {
                id: "1",
                need,
                offers: offers.map((o, i) =>
                  offer(
                    String(i),
                    o.supplier,
                    [
                      [1, (o.p1 * f) / 100],
                      [o.at, (Math.min(o.p1, o.p2) * f) / 100],
                    ],
                    { moq: o.moq, multiple: o.multiple },
                  ),
                ),
              },
            ],
            ["A", "B", "C"].map((id) => supplier(id, 3 * f, 20 * f)),
          ).basket;
        const [all, fewer, times] = [
          make(list, 1),
          make(list.slice(0, -1).length > 0 ? list.slice(0, -1) : list, 1),
          make(list, k),
        ];
        // what is known to be the least of more offers is no more than any basket of fewer
        expect(all.proof!.bound).toBeLessThanOrEqual(fewer.total);
        if (all.proof!.isProven) expect(all.total).toBeLessThanOrEqual(fewer.total);
        if (all.proof!.isProven && times.proof!.isProven) expect(times.total).toBe(all.total * k);
      },
    ),
    { numRuns: 60 },
  );
});

test("of more suppliers than are listed in every combination: each alone, and the best without each of its own", () => {
  const names = "ABCDEFGH".split("");
  // A and B are cheapest for a line each; everybody has everything, dearer by the letter
  const needs: Need[] = [0, 1].map((l) => ({
    id: `l${l}`,
    need: 10,
    offers: names.map((s, i) => offer(`${s}${l}`, s, [[1, i === l ? 1 : 2 + i / 100]])),
  }));
  const baskets = findBaskets(
    needs,
    names.map((n) => supplier(n, 4)),
  );
  // 10 + 10 + 4 + 4 in two parcels; A alone 10 + 20 + 4, B alone 20.10 + 10 + 4; C alone 40.40 + 4
  expect(baskets.map((b) => [b.suppliers.join(""), microsToNumber(b.total)])).toEqual([
    ["AB", 28],
    ["A", 34],
    ["B", 34.1],
    ...["C", "D", "E", "F", "G", "H"].map((s, i) => [s, Number((20 * (2 + (i + 2) / 100) + 4).toFixed(2))]),
  ]);
});

test("under a limit of parcels that reaches no whole list: fewest pieces open, then the cheapest; nothing is called proven", async () => {
  // everybody sells a line of their own; A's is the longest, and B and C have as much of theirs
  const own = (s: string, need: number, price: number): Need => ({
    id: s,
    need,
    offers: [offer(s, s, [[1, price]])],
  });
  const needs = [own("A", 30, 1), own("B", 20, 2), own("C", 20, 1.5), own("D", 5, 1)];
  const few = (maxParcels: number) =>
    proveBasket(
      needs,
      ["A", "B", "C", "D"].map((n) => supplier(n, 4)),
      () => Promise.reject(new Error("no solver is needed")),
      1,
      () => 0,
      { maxParcels },
    );
  const tell = async (n: number) => {
    const b = await few(n);
    return [b.suppliers.join(""), b.missing, microsToNumber(b.total), b.proof !== undefined];
  };
  expect(await tell(1)).toEqual(["A", 45, 34, false]);
  expect(await tell(2)).toEqual(["AC", 25, 68, false]);
  expect(await tell(3)).toEqual(["ABC", 5, 112, false]);
  expect((await tell(4)).slice(0, 3)).toEqual(["ABCD", 0, 121]);
});
