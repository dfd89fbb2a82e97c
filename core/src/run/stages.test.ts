import { expect, test } from "@jest/globals";
import { microsToNumber } from "../money/money.ts";
import { boardK } from "./board-k.fixture.ts";
import type { RunDocument } from "./document/document.ts";
import { madeLine, madeOffer, madeRun } from "./made-up.fixture.ts";
import { rollUp } from "./roll-up.ts";
import { whatIf } from "./what-if.ts";

const BASE = boardK();
const base = rollUp(BASE);
const effects = whatIf(BASE, base);

test("what stands beside a house is what its boards then cost, weigh on a good one, and when they come", () => {
  expect(effects.houses.length).toBeGreaterThan(1);
  for (const h of effects.houses) {
    const r = rollUp({ ...BASE, house: BASE.houses!.find((x) => x.id === h.house)! });
    const boards = r.tree.children.find((n) => n.key === "boards")!;
    expect(h.boardsTotal).toBeCloseTo(microsToNumber(boards.micros), 6);
    expect(h.boardsPerGood).toBeCloseTo(r.stages.fab.micros / 1e6, 6);
    expect(h.daysAtDoor).toBe(r.stages.fab.days);
    expect(h.pieces).toBe(r.orders[0]!.quote.pieces);
    expect(h.perGood).toBeCloseTo(microsToNumber(r.perGood) - microsToNumber(base.perGood), 6);
    expect(h.cash).toBeCloseTo(microsToNumber(r.cashNeeded) - microsToNumber(base.cashNeeded), 6);
    expect(h.days).toBeCloseTo(r.ready.days - base.ready.days, 1);
  }
});

const KEYS = ["thickness", "copper", "finish", "mask", "legend", "leadDays"] as const;
test.each(KEYS)("each alternative of %s changes what it said it would", (key) => {
  for (const e of effects.options[key]) {
    const value = key === "leadDays" ? Number(e.value) : e.value;
    const r = rollUp({ ...BASE, options: { ...BASE.options, [key]: value } as RunDocument["options"] });
    expect(e.perGood).toBeCloseTo(microsToNumber(r.perGood) - microsToNumber(base.perGood), 6);
    expect(e.cash).toBeCloseTo(microsToNumber(r.cashNeeded) - microsToNumber(base.cashNeeded), 6);
    expect(e.days).toBeCloseTo(r.ready.days - base.ready.days, 1);
  }
  expect(effects.options[key].filter((e) => e.isChosen)).toHaveLength(1);
});

test("more certainty costs the run what it says and leaves so many spare ones; a board, what the figure then is", () => {
  for (const e of effects.confidence) {
    const r = rollUp({ ...BASE, confidence: Number(e.value) });
    expect(e.run).toBeCloseTo(microsToNumber(r.total) - microsToNumber(base.total), 6);
    expect(e.perGood).toBeCloseTo(microsToNumber(r.perGood) - microsToNumber(base.perGood), 6);
    expect(e.spares).toBeCloseTo(Math.max(0, r.expectedGood - BASE.goodBoards), 9);
  }
});

test("what is left over is kept, or charged to the run: one of the two is chosen, and the other says its difference", () => {
  const [kept, charged] = effects.leftovers;
  expect([kept!.isChosen, charged!.isChosen]).toEqual([true, false]);
  expect([kept!.label, charged!.label]).toEqual(["kept as stock value", "charged to this run"]);
  const r = rollUp({ ...BASE, choices: { ...BASE.choices, leftovers: "expense" } });
  expect(charged!.perGood).toBeCloseTo(microsToNumber(r.perGood) - microsToNumber(base.perGood), 9);
  expect(charged!.perGood).toBeGreaterThan(0);
  expect(r.leftover).toBe(0);
});

test("parts take as long as the slowest parcel, with the days an offer asks for beside its supplier's usual ones", () => {
  const doc = (leadDays?: number) =>
    madeRun({
      lines: [madeLine("x", ["R1"]), madeLine("y", ["R2"], { mpn: "OX-2" })],
      suppliers: [
        { id: "a", name: "A", currency: "EUR", shipping: "5", daysMin: 1, daysMax: 9 },
        { id: "b", name: "B", currency: "EUR", shipping: "5", daysMin: 4, daysMax: 6 },
      ],
      offers: [
        madeOffer("ox", "x", "1"),
        madeOffer("oy", "y", "1", { supplier: "b", ...(leadDays === undefined ? {} : { leadDays }) }),
      ],
    });
  expect(rollUp(doc()).stages.source.days).toBe(9);
  // b then takes 6 + 3, and 6 + 5
  expect(rollUp(doc(3)).stages.source.days).toBe(9);
  expect(rollUp(doc(5)).stages.source.days).toBe(11);
});

test("without a house and without offers the boards take no days and cost nothing; what is left is own work", () => {
  const { house: _, ...rest } = BASE;
  const r = rollUp({ ...rest, offers: [] });
  expect(r.stages.fab).toEqual({ micros: 0, days: 0 });
  expect(r.ready.sum.map((t) => t.label)).toEqual(["own work"]);
  expect(r.cash.filter((c) => c.micros !== 0).map((c) => c.key)).not.toContain("boards 0");
});

test("a house that breaks a limit says the first by its measure; one that states none says what; a guess is called one", () => {
  const [own] = BASE.houses!;
  const houses = [
    ...BASE.houses!,
    { ...own!, id: "coarse", limits: { ...own!.limits, minTrackMm: 9, minHoleMm: 9 } },
    { ...own!, id: "silent", limits: {}, quotedFor: [7] },
  ];
  const of = (id: string) => whatIf({ ...BASE, houses }, base).houses.find((h) => h.house === id)!;
  const track = BASE.boards[0]!.measure.minTrackMm!;
  expect(of("coarse").cannot).toBe(`smallest track is ${Number(track.toFixed(3))}, this house holds 9`);
  expect(of("coarse").breaches.map((c) => c.measure)).toEqual(["minTrackMm", "minHoleMm"]);
  expect(of("coarse").unstated).toEqual([]);
  expect(of("silent").cannot).toBeUndefined();
  expect(of("silent").unstated).toEqual(expect.arrayContaining(["smallest track", "smallest hole"]));
  expect([of("silent").isGuessed, of("coarse").isGuessed]).toEqual([true, false]);
  expect(of(own!.id).isChosen).toBe(BASE.house!.id === own!.id);
  // asked for just so many it is no guess
  const pieces = of("silent").pieces;
  const asked = { ...own!, id: "asked", quotedFor: [7, pieces] };
  expect(whatIf({ ...BASE, houses: [asked] }, base).houses[0]!.isGuessed).toBe(false);
});
