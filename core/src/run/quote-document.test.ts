import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { often } from "../../test/long.ts";
import { EXTRA_OPTIONS, FAB_OPTIONS, type FabOptions } from "../fab/options.ts";
import { orderRules } from "../order-sheet/rules.ts";
import { FULL } from "./full-house.fixture.ts";
import { FAR, madeMeasure } from "./made-up.fixture.ts";
import { quoteDocument, type Wishes } from "./quote-document.ts";

const board = madeMeasure();

test("what is left out is the house's first value; a wish it has is taken, and nothing is refused", () => {
  const q = quoteDocument(board, FAR, 28, {});
  expect(q).toMatchObject({
    kobbin: "quote/1",
    house: "FAR",
    currency: "EUR",
    pieces: 30,
    options: {
      thickness: "1.6",
      copper: "35",
      finish: "immersion-gold",
      mask: "green",
      legend: "white",
      leadDays: 12,
    },
    refused: [],
    unstated: [],
    days: 20,
  });
  expect(
    quoteDocument(board, FAR, 28, { mask: "white", legend: "black", leadDays: 3 }).options,
  ).toMatchObject({ mask: "white", legend: "black", leadDays: 3 });
  expect(q.checks.map((c) => c.measure)).toContain("minTrackMm");
  expect(q.total).toBeCloseTo(q.boards + q.freight + q.handling, 6);
});

test("a wish nobody has, a lead time in between, an option there is not, and ink that cannot be read are each answered", () => {
  const q = quoteDocument(board, FAR, 30, { mask: "pink", leadDays: 5, weight: "light" } as Wishes);
  expect(q.refused).toEqual([
    { key: "mask", value: "pink", because: "FAR has green, white" },
    { key: "leadDays", value: "5", because: "FAR makes boards in 12, 3 days" },
    { key: "weight", value: "light", because: "there is no such option" },
  ]);
  expect(q.options).toMatchObject({ mask: "green", leadDays: 3 });
  const ink = quoteDocument(board, FAR, 30, { mask: "white", legend: "white" });
  expect([ink.options.legend, ink.refused]).toEqual([
    "black",
    [
      {
        key: "legend",
        value: "white",
        because: "silkscreen and mask are both white; nothing would be readable",
      },
    ],
  ]);
  // nobody wished the ink: it is settled, and nothing was refused
  expect(quoteDocument(board, FAR, 30, { mask: "white" })).toMatchObject({
    options: { legend: "black" },
    refused: [],
  });
});

test("a limit that is not stated is named, not passed over", () => {
  const { minTrackMm: _, ...limits } = FAR.limits;
  expect(quoteDocument(board, { ...FAR, limits }, 30, {}).unstated).toEqual(["minTrackMm"]);
});

test("more boards that cost less in all are taken, and the note says so", () => {
  const steep = {
    ...FAR,
    price: {
      ...FAR.price,
      freightPerHalfKg: "0",
      tiers: [
        { fromDm2: 0, factor: 1 },
        { fromDm2: 20, factor: 0.3 },
      ],
    },
  };
  const q = quoteDocument(board, steep, 40, {});
  expect(q.pieces).toBeGreaterThan(40);
  expect(q.sum.find((t) => t.label === "area")!.note).toMatch(
    new RegExp(`; ${q.pieces} in the place of 40 cost [\\d.]+ less in all$`),
  );
});

/** Any value of each list of the house, or one nobody has, or nothing said. */
const wishes = fc.record(
  Object.fromEntries(
    [...FAB_OPTIONS, ...EXTRA_OPTIONS].map((key) => [
      key,
      fc.constantFrom(...(FULL.options[key] ?? []).map((o) => o.value), "a thing nobody has"),
    ]),
  ),
  { requiredKeys: [] },
);
const cents = (v: number) => Math.round(v * 100);

test("of thousands of sheets the terms add up to the cent, what is settled can stand, and a wish not kept is answered", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 900 }),
      wishes,
      fc.constantFrom(12, 3, 5),
      fc.constantFrom("ordinary", "express"),
      fc.constantFrom({ minTrackMm: 0.128 }, { minTrackMm: 0.2 }, { copperLayers: 1, holes: [] }),
      (n, wish, leadDays, freight, more) => {
        const m = madeMeasure(more);
        const q = quoteDocument(m, FULL, n, { ...wish, leadDays, freight });
        expect(q.sum.every((t) => Math.abs(t.amount * 100 - cents(t.amount)) < 1e-6)).toBe(true);
        expect(q.sum.reduce((s, t) => s + cents(t.amount), 0)).toBe(cents(q.total));
        expect(cents(q.boards) + cents(q.freight) + cents(q.handling)).toBe(cents(q.total));
        expect(q.pieces).toBeGreaterThanOrEqual(n);
        expect(orderRules(FULL, [m]).flatMap((r) => r.broken(q.options) ?? [])).toEqual([]);
        for (const [key, value] of Object.entries(wish))
          if (q.options[key as keyof FabOptions] !== value)
            expect(q.refused).toContainEqual({ key, value, because: expect.stringMatching(/\w/) });
        expect(q.refused.length).toBeLessThanOrEqual(Object.keys(wish).length + 1);
      },
    ),
    { numRuns: often(500, 10_000) },
  );
});

test("more boards never cost less in all, unless the larger step was named before", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 400 }),
      fc.integer({ min: 1, max: 60 }),
      wishes,
      (n, more, wish) => {
        const [few, many] = [quoteDocument(board, FULL, n, wish), quoteDocument(board, FULL, n + more, wish)];
        // beyond four times the pieces a cheaper step is not looked for
        if (many.pieces <= 4 * n) expect(many.total).toBeGreaterThanOrEqual(few.total - 1e-9);
      },
    ),
    { numRuns: often(300, 3000) },
  );
});
