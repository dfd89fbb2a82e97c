import { expect, test } from "@jest/globals";
import type { House } from "../../fab/house.ts";
import { microsToNumber } from "../../money/money.ts";
import { boardK } from "../board-k.fixture.ts";
import type { RunDocument } from "../document/document.ts";
import type { PasteSides } from "../document/sides.ts";
import { FAR, madeMeasure } from "../made-up.fixture.ts";
import { foilOrder } from "../orders/foil-order.ts";
import { benchMinutes } from "../orders/order-boards.ts";
import { rollUp } from "../roll-up.ts";
import { whatIf } from "../what-if.ts";

const BENCH: House = {
  ...FAR,
  id: "bench",
  name: "Here",
  limits: {},
  options: {
    ...FAR.options,
    mask: [{ value: "none", label: "none" }],
    legend: [{ value: "none", label: "none" }],
  },
  price: {
    ...FAR.price,
    setup: { "2": "4" },
    perDm2: { "2": "2" },
    minDm2: 0,
    tiers: [{ fromDm2: 0, factor: 1 }],
    testSetup: "0",
    testPerPiece: "0",
    per1000Holes: "0",
    lead: [{ days: 0, factor: 1 }],
    freightBase: "0",
    freightPerHalfKg: "0",
    transitDays: 0,
    step: 1,
    minPieces: 1,
    importHandling: "0",
  },
  bench: { setupMin: 45, perBoardMin: 12, secondsAHole: 6, yield: 0.8 },
};

test("boards made here cost their blanks and own hours, take days of them, and no cash for the hours", () => {
  const doc = boardK({ house: BENCH, houses: [BENCH, FAR], options: { finish: "levelled-lead-free" } });
  const r = rollUp(doc);
  const [order] = r.orders;
  // so many that four fifths of them are enough
  expect(order!.quote.pieces).toBe(Math.ceil(r.start / 0.8));
  const holes = order!.facts.holes;
  const minutes = 45 + order!.quote.pieces * (12 + holes * 0.1);
  expect(order!.ownMinutes).toBeCloseTo(minutes, 9);
  expect(benchMinutes(BENCH.bench!, 0, 1)).toBe(57);
  const boards = r.tree.children.find((c) => c.key === "boards")!;
  const rate = Number(doc.workshop.hourlyRate) / 60;
  expect(microsToNumber(Math.round(boards.micros))).toBeCloseTo(
    microsToNumber(order!.quote.total) + minutes * rate,
    4,
  );
  expect(microsToNumber(Math.round(boards.children[0]!.fixedMicros))).toBeCloseTo(4 + 45 * rate, 4);
  expect(order!.days).toBeCloseTo(minutes / 60 / doc.workshop.hoursPerDay, 9);
  const cash = r.cash.find((c) => c.key === "boards 0")!;
  expect(cash.micros).toBe(order!.micros);
  // ink and mask are both none, which is nobody's breach
  expect(r.notes.map((n) => n.key)).not.toContain("legend-unreadable");
});

test("what it lacks and what to mind is said; a house says nothing of it", () => {
  const keys = (house: House) => rollUp(boardK({ house, houses: [house] })).notes.map((n) => n.key);
  expect(keys(BENCH)).toEqual(
    expect.arrayContaining(["bench-links", "safety-bench-etch", "safety-bench-drill", "safety-bench-laser"]),
  );
  expect(keys(FAR).filter((k) => /bench/.test(k))).toEqual([]);
  const one = boardK({ house: BENCH, houses: [BENCH] });
  const flat = { ...one, boards: [{ ...one.boards[0]!, measure: madeMeasure({ copperLayers: 1 }) }] };
  expect(rollUp(flat).notes.map((n) => n.key)).not.toContain("bench-links");
  // two sides without a plated hole: there is nothing to join
  const bare = {
    ...one,
    boards: [{ ...one.boards[0]!, measure: { ...one.boards[0]!.measure, holes: [] } }],
  };
  expect(rollUp(bare).notes.map((n) => n.key)).not.toContain("bench-links");
});

test("its own hours stand beside its money among the houses, and a house of foils alone is none of them", () => {
  const foils: House = { ...FAR, id: "foils", layers: [], foils: FOILS };
  const doc = boardK({ houses: [FAR, BENCH, foils] });
  const { houses } = whatIf(doc, rollUp(doc));
  expect(houses.map((h) => [h.house, h.ownHours !== undefined])).toEqual([
    ["far", false],
    ["bench", true],
  ]);
});

const FOILS = {
  loose: "14.00",
  framed: "38.00",
  secondSide: "6.00",
  freight: "5.00",
  days: 3,
  largestMm: [380, 280],
} as const;
const SISKIN: House = { ...FAR, id: "s", name: "Foils", layers: [], foils: FOILS };
const buying = (
  more: Partial<RunDocument["assembly"]>,
  size: readonly [number, number] = [50, 40],
): RunDocument => {
  const d = boardK({ houses: [FAR, SISKIN] });
  const measure = madeMeasure({ outline: { widthMm: size[0], heightMm: size[1], cutouts: 0, closed: true } });
  return {
    ...d,
    boards: [{ ...d.boards[0]!, measure }],
    assembly: { ...d.assembly, foilHouse: "s", ...more },
  };
};
const [ONE, TWO] = [1, 2];
const sidesOf = (doc: RunDocument, n: number): PasteSides => {
  const { name, measure } = doc.boards[0]!;
  const { widthMm, heightMm } = measure.outline!;
  const pattern = { name, sides: n, ...(widthMm && heightMm ? { widthMm, heightMm } : {}) };
  return { ofDesigns: n, perProduct: n, both: n > 1 ? [name] : [], patterns: [pattern] };
};

test.each<[string, RunDocument, number, number, number | undefined, number, boolean?]>([
  ["one side, loose", buying({}), ONE, 1, 19, 0],
  ["one side, in a frame", buying({ foilForm: "framed" }), ONE, 1, 43, 0],
  ["both sides on one foil: 14 + 6 + 5", buying({}), TWO, 2, 25, 1],
  ["both sides of a board too large for it: 2 × 14 + 5", buying({}, [200, 200]), TWO, 2, 33, 0],
  ["340 + 40 in 380, 240 + 40 in 280", buying({}, [340, 240]), ONE, 1, 19, 0],
  ["a hair more is not cut at all", buying({}, [240.1, 340]), ONE, 1, 19, 0, true],
  ["it fits turned: 2 × 100 + 60 in 280, 300 + 40 in 380", buying({}, [300, 100]), TWO, 2, 25, 1],
  ["one side is there already", buying({}), TWO, 1, 19, 0],
  ["all are there already: nothing is sent", buying({}), TWO, 0, 0, 0],
  ["no house is chosen for foils", buying({ foilHouse: "" }), ONE, 1, undefined, 0],
  ["the house chosen cuts none", buying({ foilHouse: "far" }), ONE, 1, undefined, 0],
])("foils bought: %s", (_, doc, n, toBuy, cost, shared, isTooLarge = false) => {
  const order = foilOrder(doc, sidesOf(doc, n), toBuy);
  expect(order && microsToNumber(order.micros)).toBe(cost);
  if (order) expect([order.shared, order.tooLarge.length > 0]).toEqual([shared, isTooLarge]);
});

test("the foil's house counts in the place of the price a side, and its words say how", () => {
  const cost = (doc: RunDocument) => {
    const leaf = rollUp(doc)
      .tree.children.find((c) => c.key === "assembly")!
      .children.find((c) => c.key === "stencil")!;
    return [microsToNumber(leaf.micros), leaf.terms![0]!.note];
  };
  const d = buying({});
  expect(cost(d)).toEqual([19, "1 loose × 14.00 + freight 5.00, Foils"]);
  expect(cost({ ...d, assembly: { ...d.assembly, foilHouse: "" } })[0]).toBe(Number(d.assembly.stencilPrice));
  const { foilsAt } = whatIf(d, rollUp(d));
  expect(foilsAt.map((f) => [f.value, f.isChosen])).toEqual([
    ["", false],
    ["s:loose", true],
    ["s:framed", false],
  ]);
});
