import { expect, test } from "@jest/globals";
import { microsToNumber } from "../../money/money.ts";
import { curvePoint, quotedOf } from "../curve.ts";
import { FAR, madeLine, madeMeasure, madeOffer, madeRun } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { whatIf } from "../what-if.ts";
import type { RunDocument, RunQuote } from "./document.ts";

/** Ten good boards of one part at one house; the fixture's options are 1.6 mm, gold, green, white, 12 days. */
const doc = (quote: Partial<RunQuote> | undefined, more: Partial<RunDocument> = {}) =>
  madeRun({
    boards: [{ name: "b", perProduct: 1, measure: madeMeasure() }],
    house: FAR,
    houses: [FAR],
    lines: [madeLine("x", ["R1"])],
    offers: [madeOffer("ox", "x", "0.01")],
    quotes: quote
      ? [
          {
            house: "far",
            kind: "fab",
            total: "77.00",
            currency: "EUR",
            days: 9,
            capturedOn: "2026-11-20",
            ...quote,
          },
        ]
      : [],
    ...more,
  });
const open = rollUp(doc(undefined));
const BASIS = { boards: open.orders[0]!.quote.pieces, options: open.options!, revision: "A" };
const boards = (d: RunDocument) => {
  const r = rollUp(d);
  return {
    cost: microsToNumber(r.orders[0]!.micros),
    days: r.orders[0]!.days,
    notes: r.notes.filter((n) => n.key.startsWith("quote-")).map((n) => `${n.level} ${n.key}`),
    misfits: r.orders[0]!.unfit?.misfits,
  };
};
const ESTIMATE = { cost: microsToNumber(open.orders[0]!.micros), days: open.orders[0]!.days };

test.each<readonly [string, RunDocument, "quoted" | "estimate", readonly string[], (readonly string[])?]>([
  ["for just this", doc({ basis: BASIS }), "quoted", []],
  ["that says nothing of what it was for", doc({}), "quoted", ["remark quote-unbased"]],
  [
    "for more boards",
    doc({ basis: { ...BASIS, boards: 60 } }),
    "estimate",
    ["warning quote-elsewhere"],
    [`60 boards, now it is ${BASIS.boards}`],
  ],
  [
    "for fewer boards",
    doc({ basis: { ...BASIS, boards: 5 } }),
    "estimate",
    ["warning quote-elsewhere"],
    [`5 boards, now it is ${BASIS.boards}`],
  ],
  [
    "for another revision",
    doc({ basis: { ...BASIS, revision: "B" } }),
    "estimate",
    ["warning quote-elsewhere"],
    ["revision B, now it is A"],
  ],
  [
    "for another finish",
    doc({ basis: { ...BASIS, options: { ...BASIS.options, finish: "levelled-lead-free" } } }),
    "estimate",
    ["warning quote-elsewhere"],
    ["finish levelled, now it is gold"],
  ],
  [
    "for another colour and lead time",
    doc({ basis: { ...BASIS, options: { ...BASIS.options, mask: "white", leadDays: 3 } } }),
    "estimate",
    ["warning quote-elsewhere"],
    ["mask colour white, now it is green", "lead time 3 days, now it is 12 days"],
  ],
  [
    "for some of the options, the others left open",
    doc({ basis: { ...BASIS, options: { thickness: "1.6" } } }),
    "quoted",
    [],
  ],
  ["past its date", doc({ basis: BASIS, validUntil: "2026-11-21" }), "quoted", ["error quote-expired"]],
  ["of another house", doc({ house: "near", basis: BASIS }), "estimate", []],
  [
    "for the run before it grew",
    doc({ basis: BASIS }, { goodBoards: 40 }),
    "estimate",
    ["warning quote-elsewhere"],
  ],
])("a quotation %s", (_, run, counts, notes, ...rest) => {
  const b = boards(run);
  if (counts === "quoted") expect([b.cost, b.days]).toEqual([77, 9]);
  else if (run.goodBoards === 10) expect([b.cost, b.days]).toEqual([ESTIMATE.cost, ESTIMATE.days]);
  else expect(b.cost).not.toBe(77);
  expect(b.notes).toEqual(notes);
  if (Array.isArray(rest[0])) expect(b.misfits).toEqual(rest[0]);
});

test("another option gives the quotation up, and the effect is that of the estimate", () => {
  const run = doc({ basis: BASIS });
  const effects = whatIf(run, rollUp(run));
  const levelled = effects.options.finish.find((e) => e.value === "levelled-lead-free")!;
  const estimate = rollUp({
    ...run,
    quotes: [],
    options: { ...BASIS.options, finish: "levelled-lead-free" },
  });
  expect(levelled.perGood).toBeCloseTo(
    microsToNumber(estimate.perGood) - microsToNumber(rollUp(run).perGood),
    6,
  );
  expect(effects.houses[0]).toMatchObject({ isQuoted: true });
});

test("a quotation that says nothing of a bevel was for none: it does not hold for a bevelled board", () => {
  const house = {
    ...FAR,
    options: {
      ...FAR.options,
      bevel: [
        { value: "none", label: "none" },
        { value: "30", label: "30°" },
      ],
    },
  };
  const of = (bevel: string) =>
    boards(doc({ basis: BASIS }, { house, houses: [house], options: { bevel } })).misfits;
  expect(BASIS.options).not.toHaveProperty("bevel");
  expect(of("none")).toBeUndefined();
  expect(of("30")).toEqual(["bevel none, now it is 30°"]);
});

test("of a curve the quantities a quotation holds for are told from those that are estimated", () => {
  const at = doc({ basis: BASIS });
  const points = [8, 10, 40].map((n) => curvePoint(at, n));
  // five over: 15 are ordered for eight and for ten
  expect(points.map((p) => p.quoted)).toEqual(
    [8, 10, 40].map((n) => (rollUp({ ...at, goodBoards: n }).orders[0]!.quoted ? ["FAR"] : undefined)),
  );
  expect(quotedOf(points)).toEqual({
    quantities: points.filter((p) => p.quoted).map((p) => p.quantity),
    names: ["FAR"],
  });
  expect(points.filter((p) => p.quoted).map((p) => p.quantity)).toContain(10);
  expect(points.at(-1)!.quoted).toBeUndefined();
  // all of one kind is no mixture
  expect(quotedOf([10].map((n) => curvePoint(at, n)))).toBeUndefined();
  expect(quotedOf([8, 10].map((n) => curvePoint(doc(undefined), n)))).toBeUndefined();
});
