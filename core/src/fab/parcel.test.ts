import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { FAR } from "../run/made-up.fixture.ts";
import { ASSEMBLY_FIELDS, PRICE_FIELDS } from "./house-fields.ts";
import { MEASURES } from "./measures.ts";
import { inOneParcel } from "./parcel.ts";
import { fabQuote, PACKING_KG } from "./price.ts";

const options = {
  thickness: "1.6",
  copper: "35",
  finish: "immersion-gold",
  mask: "green",
  legend: "white",
  leadDays: 12,
};
const facts = { widthMm: 100, heightMm: 50, layers: 2, holes: 100, copperShare: 0.6 };
const house = {
  ...FAR,
  price: { ...FAR.price, freightBase: "16", freightPerHalfKg: "5.50", importHandling: "6.00" },
};

test("a single board's parcel is as it was; so is none", () => {
  const one = fabQuote(house, facts, options, 50);
  expect(inOneParcel(house, [one])).toEqual([one]);
  expect(inOneParcel(house, [])).toEqual([]);
});

// by hand: 100 × 50 × 1.6 mm weigh 15.925 g with mask and copper; a parcel's kilograms are 1.08 of its boards and 0.15
test("two boards share freight by weight and the last takes the rest; handling is paid once, the slowest decides", () => {
  const [a, b] = [
    fabQuote(house, facts, options, 100),
    fabQuote(house, facts, { ...options, leadDays: 3 }, 20),
  ];
  const [x, y] = inOneParcel(house, [a, b]) as [typeof a, typeof a];
  // 0.15 packing once: 1.08 · 120 · 15.925 g and 0.15 are 2.214 kg, five half kilograms
  const kg = (1.08 * 120 * 15.925) / 1000 + PACKING_KG;
  expect(a.kg + b.kg - PACKING_KG).toBeCloseTo(kg, 3);
  expect(x.freight + y.freight).toBe(16e6 + Math.ceil(kg / 0.5) * 5.5e6);
  expect(Math.ceil(kg / 0.5)).toBe(5);
  // a hundred of a hundred and twenty, to the cent
  expect(x.freight).toBe(Math.round(((43.5 * 100) / 120) * 100) * 1e4);
  expect([x.handling, y.handling]).toEqual([6e6, 0]);
  expect([x.total, y.total]).toEqual([x.boards + x.freight + 6e6, y.boards + y.freight]);
  expect([x.leadDays, y.leadDays, x.days, y.days]).toEqual([12, 12, 20, 20]);
  const terms = (q: typeof a) => q.sum.map((t) => t.key);
  expect(terms(x)).toContain("handling");
  expect(terms(y)).not.toContain("handling");
  for (const q of [x, y])
    expect(q.sum.find((t) => t.key === "freight")).toMatchObject({
      micros: q.freight,
      note: "its share of one parcel of 2.21 kg",
    });
});

test("a price is the sum of its terms, whatever is ordered; a term of nothing is not named", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 400 }),
      fc.integer({ min: 0, max: 3000 }),
      fc.constantFrom(12, 3),
      fc.constantFrom("green", "white"),
      fc.constantFrom("immersion-gold", "levelled-lead-free"),
      (pieces, holes, leadDays, mask, finish) => {
        const q = fabQuote(house, { ...facts, holes }, { ...options, leadDays, mask, finish }, pieces);
        expect(Math.abs(q.sum.reduce((s, t) => s + t.micros, 0) - q.total)).toBeLessThanOrEqual(10_000);
        expect(q.sum.every((t) => t.key === "setup" || t.key === "test" || t.micros !== 0)).toBe(true);
        expect(q.total).toBe(q.boards + q.freight + q.handling);
      },
    ),
  );
});

test("set-up takes the options' own with it, and their days go on the lead time", () => {
  const at = (more: object) => fabQuote(house, facts, { ...options, ...more }, 50);
  const setup = (more: object) => at(more).sum.find((t) => t.key === "setup")!.micros;
  // gold 9, white mask 4, and 14 of the house
  expect([setup({ finish: "levelled-lead-free" }), setup({}), setup({ mask: "white" })]).toEqual([
    14e6, 23e6, 27e6,
  ]);
  expect([at({}).leadDays, at({ mask: "white" }).leadDays]).toEqual([12, 13]);
});

test("without a border nothing is handled, and no term says so", () => {
  const free = { ...house, price: { ...house.price, importHandling: "0" } };
  expect(fabQuote(free, facts, options, 50).sum.map((t) => t.key)).toEqual([
    "setup",
    "area",
    "test",
    "freight",
  ]);
});

test("every measure is told to a thousandth, a ratio to a hundredth", () => {
  expect(MEASURES.filter((m) => m.digits !== (m.unit === "mm" ? 3 : 2)).map((m) => m.key)).toEqual([]);
});

test("the bounds of a profile's fields are those a house can have", () => {
  const most = (t: Readonly<Record<string, { kind: string; most?: number }>>) =>
    Object.fromEntries(Object.entries(t).flatMap(([k, f]) => (f.most === undefined ? [] : [[k, f.most]])));
  expect(most(PRICE_FIELDS)).toEqual({
    minDm2: 1e6,
    freeHolesPerDm2: 1e6,
    transitDays: 1000,
    delaySigmaDays: 1000,
    step: 1e6,
    minPieces: 1e6,
  });
  expect(most(ASSEMBLY_FIELDS)).toEqual({ days: 1000, leaderMm: 2000 });
  expect(PRICE_FIELDS.step.least).toBe(1);
});
