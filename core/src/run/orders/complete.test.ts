import { expect, test } from "@jest/globals";
import { costDocument } from "../cost-document.ts";
import { curvePoint } from "../curve.ts";
import type { RunDocument } from "../document/document.ts";
import { FAR, madeLine, madeMeasure, madeOffer, madeRun } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { whatIf } from "../what-if.ts";
import { isComplete, saysUnpriced, type Unpriced } from "./complete.ts";

/** Two lines of one piece a board, one supplier with 60 pieces of each at 1.00 and 0.50 from 50 on, a house, no own hours. */
const two = (more: Partial<RunDocument> = {}): RunDocument => {
  const breaks = [
    { qty: 1, price: "1.00" },
    { qty: 50, price: "0.50" },
  ];
  return madeRun({
    boards: [{ name: "b", perProduct: 1, measure: madeMeasure() }],
    house: FAR,
    houses: [FAR],
    lines: [madeLine("x", ["R1"], { mpn: "X" }), madeLine("y", ["R2"], { mpn: "Y" })],
    offers: [
      madeOffer("ox", "x", "1.00", { stock: 60, breaks }),
      madeOffer("oy", "y", "1.00", { stock: 60, breaks }),
    ],
    ...more,
  });
};

test.each<readonly [string, Unpriced, string]>([
  ["nothing", { lines: [], boards: false, assembly: false }, ""],
  ["one line", { lines: ["R1"], boards: false, assembly: false }, "1 line is not priced"],
  ["three lines", { lines: ["R1", "R2", "R3"], boards: false, assembly: false }, "3 lines are not priced"],
  ["the boards", { lines: [], boards: true, assembly: false }, "the bare boards are not priced"],
  ["the assembly", { lines: [], boards: false, assembly: true }, "the assembly is not priced"],
  [
    "a line and the boards",
    { lines: ["R1"], boards: true, assembly: false },
    "1 line and the bare boards are not priced",
  ],
  [
    "all of it",
    { lines: ["R1", "R2"], boards: true, assembly: true },
    "2 lines, the bare boards and the assembly are not priced",
  ],
])("what is left out in words: %s", (_, u, says) => {
  expect(saysUnpriced(u)).toBe(says);
  expect(isComplete(u)).toBe(says === "");
});

test.each<readonly [string, RunDocument, Unpriced]>([
  ["everything has a price", two(), { lines: [], boards: false, assembly: false }],
  [
    "a line without an offer",
    two({ offers: two().offers.slice(0, 1) }),
    { lines: ["R2"], boards: false, assembly: false },
  ],
  [
    "a line with too few in stock",
    two({ offers: [two().offers[0]!, { ...two().offers[1]!, stock: 3 }] }),
    { lines: ["R2"], boards: false, assembly: false },
  ],
  [
    "an offer in a currency without a rate",
    two({ offers: [two().offers[0]!, { ...two().offers[1]!, currency: "USD" }] }),
    { lines: ["R2"], boards: false, assembly: false },
  ],
  [
    "a line that is not fitted needs none",
    two({ lines: [two().lines[0]!, { ...two().lines[1]!, dnp: true }], offers: two().offers.slice(0, 1) }),
    { lines: [], boards: false, assembly: false },
  ],
  ["no house", (({ house: _, ...rest }) => rest)(two()), { lines: [], boards: true, assembly: false }],
  [
    "placed by a house without a price list",
    two({
      houses: [(({ assembly: _, ...h }) => h)(FAR)],
      assembly: { ...two().assembly, method: "house", house: "far" },
    }),
    { lines: [], boards: false, assembly: true },
  ],
])("what a run leaves out: %s", (_, doc, unpriced) => {
  expect(rollUp(doc).unpriced).toEqual(unpriced);
  expect(costDocument(doc)).toMatchObject({ complete: isComplete(unpriced), uncovered: unpriced.lines });
});

test("a line more that nothing prices makes no figure smaller that is called complete", () => {
  const whole = rollUp(two());
  const more = rollUp(two({ lines: [...two().lines, madeLine("z", ["R3"], { mpn: "Z" })] }));
  expect(isComplete(whole.unpriced)).toBe(true);
  expect(isComplete(more.unpriced)).toBe(false);
  // R3 costs nothing in it but its handling: what the page calls at least
  expect(more.perGood).toBeGreaterThanOrEqual(whole.perGood);
});

test("effects say that they leave something out, on either side", () => {
  const doc = two({ offers: two().offers.slice(0, 1) });
  const partial = whatIf(doc, rollUp(doc));
  expect(partial.confidence.filter((e) => !e.isChosen).every((e) => e.isPartial)).toBe(true);
  const whole = whatIf(two(), rollUp(two()));
  // 99 % of 10 good needs more than ten, and all of 60 in stock are enough
  expect(whole.confidence.some((e) => e.isPartial)).toBe(false);
  // with just as many in stock as 90 % need, the surest choice cannot be bought whole
  const enough = Math.max(...rollUp(two()).needs.map((n) => n.need));
  const tight = two({ offers: two().offers.map((o) => ({ ...o, stock: enough })) });
  expect(isComplete(rollUp(tight).unpriced)).toBe(true);
  expect(whatIf(tight, rollUp(tight)).confidence.map((e) => [e.value, e.isPartial ?? false])).toContainEqual([
    "0.99",
    true,
  ]);
});

test("beyond the stock the curve carries the known prices on and calls that an estimate", () => {
  const within = curvePoint(two(), 40);
  expect([within.isEstimate, within.unpriced]).toEqual([undefined, undefined]);
  const beyond = curvePoint(two(), 200);
  expect([beyond.isEstimate, beyond.unpriced]).toEqual([true, undefined]);
  // the same run with ten thousand in stock is what the estimate stands for
  const stocked = rollUp(
    two({ goodBoards: 200, offers: two().offers.map((o) => ({ ...o, stock: 10_000 })) }),
  );
  expect(beyond.total).toBeCloseTo(stocked.total / 1e6, 6);
  // counted as nothing, the missing pieces would have made it cheaper by half a euro each
  const missing = 2 * (stocked.needs[0]!.need - 60);
  expect(missing).toBeGreaterThan(250);
  expect(beyond.total - rollUp({ ...two(), goodBoards: 200 }).total / 1e6).toBeCloseTo(missing * 0.5, 6);
  // a line that nothing prices stays out, and is counted
  const open = curvePoint(two({ lines: [...two().lines, madeLine("z", ["R3"], { mpn: "Z" })] }), 200);
  expect([open.isEstimate, open.unpriced]).toEqual([true, 1]);
});
