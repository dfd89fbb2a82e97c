import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { microsToNumber } from "../money/money.ts";
import type { House } from "./house.ts";
import type { FabOptions } from "./options.ts";
import { type BoardFacts, boardMassG, fabQuote, MOST_TIMES, orderPieces } from "./price.ts";

const limits = {
  minTrackMm: 0.1,
  minNetSpaceMm: 0.1,
  minHoleMm: 0.2,
  minAnnularMm: 0.1,
  minCopperToEdgeMm: 0.2,
  minMaskWebMm: 0.1,
  minLegendLineMm: 0.1,
  minSlotMm: 0.6,
  maxAspect: 8,
  minBoardMm: [5, 5],
  maxBoardMm: [400, 500],
} as const;
const options = {
  thickness: [{ value: "1.6", label: "1.6" }],
  copper: [{ value: "35", label: "35" }],
  legend: [{ value: "white", label: "white" }],
} as const;

/** The two invented houses of the worked price tables. */
const far: House = {
  id: "far",
  name: "FAR",
  about: "",
  currency: "EUR",
  checkedOn: "2026-01-01",
  limits,
  layers: [2, 4],
  options: {
    ...options,
    finish: [
      { value: "gold", label: "", setup: "9", perDm2: "1.50" },
      { value: "levelled", label: "" },
    ],
    mask: [
      { value: "green", label: "" },
      { value: "black", label: "", setup: "4" },
    ],
  },
  price: {
    setup: { "2": "14", "4": "48" },
    perDm2: { "2": "2.40", "4": "6.80" },
    minDm2: 5,
    tiers: [
      { fromDm2: 0, factor: 1 },
      { fromDm2: 10, factor: 0.82 },
      { fromDm2: 30, factor: 0.64 },
      { fromDm2: 100, factor: 0.5 },
    ],
    testSetup: "6",
    testPerPiece: "0.02",
    freeHolesPerDm2: 1200,
    per1000Holes: "0.90",
    lead: [
      { days: 12, factor: 1 },
      { days: 6, factor: 1.25 },
      { days: 3, factor: 1.6 },
    ],
    freightBase: "16",
    freightPerHalfKg: "5.50",
    transitDays: 8,
    delaySigmaDays: 4,
    step: 5,
    minPieces: 5,
    importHandling: "0",
  },
};
const near: House = {
  ...far,
  id: "near",
  options: { ...far.options, finish: [{ value: "gold", label: "", perDm2: "2.80" }] },
  price: {
    ...far.price,
    setup: { "2": "32", "4": "88" },
    perDm2: { "2": "7.50", "4": "15.00" },
    minDm2: 2,
    tiers: [
      { fromDm2: 0, factor: 1 },
      { fromDm2: 10, factor: 0.88 },
      { fromDm2: 30, factor: 0.74 },
      { fromDm2: 100, factor: 0.62 },
    ],
    testSetup: "0",
    testPerPiece: "0",
    freeHolesPerDm2: 1500,
    per1000Holes: "1.20",
    lead: [
      { days: 5, factor: 1 },
      { days: 3, factor: 1.4 },
      { days: 1, factor: 2.2 },
    ],
    freightBase: "7",
    freightPerHalfKg: "1.50",
  },
};
const premium: House = {
  ...far,
  id: "premium",
  options: { ...far.options, finish: [{ value: "gold", label: "", perDm2: "3.20" }] },
  price: {
    ...far.price,
    setup: { "2": "95", "4": "160" },
    perDm2: { "2": "13.00", "4": "24.00" },
    minDm2: 4,
    tiers: [
      { fromDm2: 0, factor: 1 },
      { fromDm2: 10, factor: 0.9 },
      { fromDm2: 30, factor: 0.8 },
      { fromDm2: 100, factor: 0.72 },
    ],
    testSetup: "15",
    testPerPiece: "0.05",
    freeHolesPerDm2: 2000,
    per1000Holes: "1.50",
    lead: [
      { days: 10, factor: 1 },
      { days: 5, factor: 1.5 },
    ],
    freightBase: "12",
    freightPerHalfKg: "2.00",
  },
};
const board: BoardFacts = { widthMm: 50, heightMm: 40, layers: 2, holes: 180, copperShare: 0.6 };
const choice: FabOptions = {
  thickness: "1.6",
  copper: "35",
  finish: "gold",
  mask: "green",
  legend: "white",
  leadDays: 12,
};
const total = (house: House, q: number, more: Partial<FabOptions> = {}, b = board) => {
  const quote = fabQuote(house, b, { ...choice, ...more }, q);
  return [microsToNumber(quote.boards), microsToNumber(quote.freight)];
};

test("a board of 50 × 40 × 1.6 mm weighs 6.370 g, one of 100 × 100 mm 31.85 g (worked example)", () => {
  expect(boardMassG(50, 40, 1.6, 35, 0.6)).toBeCloseTo(6.37, 3);
  expect(boardMassG(100, 100, 1.6, 35, 0.6)).toBeCloseTo(31.85, 2);
});

test.each([
  [5, 48.6, 21.5],
  [10, 48.7, 21.5],
  [30, 53, 21.5],
  [35, 57, 21.5],
  [100, 94.96, 27],
  [300, 184.76, 43.5],
  [1000, 439, 98.5],
])("far house, %d boards: %d + freight %d (worked table)", (q, boards, freight) => {
  expect(total(far, q)).toEqual([boards, freight]);
});

test.each([
  [5, 52.6, 8.5],
  [10, 52.6, 8.5],
  [30, 93.8, 8.5],
  [35, 104.1, 8.5],
  [100, 213.28, 10],
  [300, 489.32, 14.5],
  [1000, 1309.2, 29.5],
])("near house, %d boards: %d + freight %d (worked table)", (q, boards, freight) => {
  expect(total(near, q, { leadDays: 5 })).toEqual([boards, freight]);
});

test.each([
  [5, 175.05, 14],
  [10, 175.3, 14],
  [30, 208.7, 14],
  [35, 225.15, 14],
  [100, 406.6, 16],
  [300, 902.6, 22],
  [1000, 2492.8, 42],
])("premium house, %d boards: %d + freight %d (worked table)", (q, boards, freight) => {
  expect(total(premium, q, { leadDays: 10 })).toEqual([boards, freight]);
});

test("holes, lead time, colour, finish and layers change the price as worked", () => {
  expect(total(far, 30, {}, { ...board, holes: 300 })[0]).toBe(54.62);
  expect(total(far, 30, { leadDays: 3 })[0]).toBe(84.8);
  expect(total(far, 30, { mask: "black" })[0]).toBe(57);
  expect(total(far, 30, { finish: "levelled" })[0]).toBe(35);
  expect(total(far, 30, {}, { ...board, layers: 4 })[0]).toBe(113.4);
  expect(total(near, 30, { leadDays: 1 })[0]).toBe(206.36);
});

test("50 boards are cheaper than 45, and that is found", () => {
  expect(total(far, 45)[0]).toBe(65);
  expect(total(far, 50)[0]).toBe(61.98);
  expect(orderPieces(far, board, choice, 42).pieces).toBe(50);
});

test("more is cheaper over all steps up to four times the pieces, and the reason is told", () => {
  // set-up 14, test 6 + 0.02 each, 2.40 a dm²; 1 dm² boards: from 60 dm² on a third of the price
  const steep = {
    ...far,
    price: {
      ...far.price,
      step: 5,
      minPieces: 5,
      tiers: [
        { fromDm2: 0, factor: 1 },
        { fromDm2: 60, factor: 0.4 },
      ],
    },
  };
  const dm = { ...board, widthMm: 100, heightMm: 100, holes: 0 };
  const plain = { ...choice, finish: "levelled", thickness: "1.6" };
  // 30 pieces: 14 + 6 + 0.60 + 72 = 92.60; 60 pieces: 14 + 6 + 1.20 + 57.60 = 78.80, before freight
  const bare = { ...steep, price: { ...steep.price, freightPerHalfKg: "0" } };
  const q = orderPieces(bare, dm, plain, 30);
  expect(q.pieces).toBe(60);
  expect(q.boards / 1e6).toBeCloseTo(78.8, 6);
  expect(q.insteadOf?.pieces).toBe(30);
  expect((q.insteadOf!.total - q.total) / 1e6).toBeCloseTo(92.6 - 78.8, 6);
  // ten pieces are not made sixty: beyond four times what would do
  expect(orderPieces(bare, dm, plain, 10)).toMatchObject({ pieces: 10 });
  expect(orderPieces(bare, dm, plain, 10).insteadOf).toBeUndefined();
  // even where they would cost less: 60 at a tenth are 35.60, 10 are 44.20; 15 are made 60
  const cheap = {
    ...bare,
    price: {
      ...bare.price,
      tiers: [
        { fromDm2: 0, factor: 1 },
        { fromDm2: 60, factor: 0.1 },
      ],
    },
  };
  expect(orderPieces(cheap, dm, plain, 10).pieces).toBe(10);
  expect(orderPieces(cheap, dm, plain, 15).pieces).toBe(60);
});

test("no step up to the bound is cheaper than the one that is taken", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 120 }),
      fc.integer({ min: 20, max: 200 }),
      fc.integer({ min: 20, max: 160 }),
      fc.integer({ min: 1, max: 10 }),
      fc.array(
        fc.record({ fromDm2: fc.integer({ min: 1, max: 150 }), factor: fc.integer({ min: 30, max: 100 }) }),
        { maxLength: 4 },
      ),
      (wanted, widthMm, heightMm, step, more) => {
        let factor = 1;
        const tiers = [
          { fromDm2: 0, factor: 1 },
          ...[...more]
            .sort((a, b) => a.fromDm2 - b.fromDm2)
            .map((t) => {
              factor = Math.min(factor, t.factor / 100);
              return { fromDm2: t.fromDm2, factor };
            }),
        ];
        const house = { ...far, price: { ...far.price, step, minPieces: step, tiers } };
        const facts = { ...board, widthMm, heightMm };
        const q = orderPieces(house, facts, choice, wanted);
        const first = Math.max(step, Math.ceil(wanted / step) * step);
        for (let n = first; n <= MOST_TIMES * first; n += step)
          expect(fabQuote(house, facts, choice, n).total).toBeGreaterThanOrEqual(q.total);
        expect(q.pieces).toBeGreaterThanOrEqual(first);
      },
    ),
    { numRuns: 100 },
  );
});
