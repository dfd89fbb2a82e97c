import { expect, test } from "@jest/globals";
import { DEFAULT_ASSEMBLY, type RunDocument, type RunLot } from "../document/document.ts";
import { FAR, madeLine, madeMeasure, madeOffer, madeRun } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";

/**
 * A hundred chips by machine: 10 lost, so 110; ⌈150 mm / 4 mm⌉ = 38 lie in the leader of each strip, and one of fewer than
 * 48 is not worth a feeder.
 */
const HOUSE = { ...FAR, assembly: { ...FAR.assembly!, leaderMm: 150 } };
const refs = Array.from({ length: 10 }, (_, i) => `R${i + 1}`);
const run = (
  stock: Readonly<Record<string, readonly [stock: number, price: string]>>,
  more: Partial<RunDocument> = {},
) =>
  rollUp(
    madeRun({
      boards: [{ id: "b", name: "B", perProduct: 1, measure: madeMeasure() }],
      lines: [madeLine("r", refs)],
      placements: refs.map((ref) => ({ ref, xMm: 1, yMm: 1, rotationDeg: 0, side: "top" as const })),
      suppliers: Object.keys(stock).map((id) => ({
        id,
        name: id,
        currency: "EUR",
        shipping: "0",
        daysMin: 1,
        daysMax: 2,
      })),
      offers: Object.entries(stock).map(([id, [n, price]]) =>
        madeOffer(`o${id}`, "r", price, { supplier: id, stock: n }),
      ),
      house: HOUSE,
      houses: [HOUSE],
      assembly: { ...DEFAULT_ASSEMBLY, method: "house", house: "far" },
      ...more,
    }),
  );
const bought = (r: ReturnType<typeof run>) =>
  Object.fromEntries(r.basket.lines[0]!.buys.map((b) => [b.supplier, b.qty]));
const lot = (qty: number): RunLot => ({
  id: `l${qty}`,
  mpn: "OX-10K",
  qty,
  place: "",
  receivedOn: "2026-01-01",
  unitCost: "0",
  currency: "EUR",
  condition: "new",
});

test("one strip from one offer, though two of them would be cheaper", () => {
  // 100 at a cent and 10 at two would be 1.20
  const r = run({ a: [100, "0.01"], b: [5000, "0.02"] });
  expect([r.start, r.needs[0]!.whole, r.needs[0]!.leader]).toEqual([10, 148, 38]);
  expect(bought(r)).toEqual({ b: 148 });
});

test("by hand a rest may come from anywhere: cheapest counts", () => {
  const hand = run({ a: [100, "0.01"], b: [5000, "0.02"] }, { assembly: DEFAULT_ASSEMBLY });
  expect(Object.keys(bought(hand)).sort()).toEqual(["a", "b"]);
});

test("where nobody has enough: the fewest strips that do, a leader each, none too short to use", () => {
  const r = run({ a: [100, "0.02"], b: [90, "0.02"], c: [20, "0.01"] });
  // 110 and two leaders
  expect([r.needs[0]!.whole, r.needs[0]!.leader, r.basket.missing]).toEqual([186, 76, 0]);
  expect(bought(r)).toEqual({ a: expect.any(Number), b: expect.any(Number) });
  for (const qty of Object.values(bought(r))) expect(qty).toBeGreaterThanOrEqual(48);
});

test("not to be had at all: everything there is, and the rest is missing", () => {
  const r = run({ a: [60, "0.02"], c: [20, "0.01"] });
  // 110 and two leaders, less 80
  expect([bought(r), r.basket.missing]).toEqual([{ a: 60, c: 20 }, 106]);
});

test.each([
  // a lot of 45 would give seven pieces beyond its leader
  ["too short a rest of a strip stays on the shelf", 45, 0, 148],
  // 60 − 38 = 22 count, 88 are left to buy and take a leader of their own
  ["a strip that is worth it is used, and the rest is bought as another", 60, 60, 126],
  ["one strip for all", 200, 148, 0],
])("%s", (_, onShelf, taken, buys) => {
  const r = run({ b: [5000, "0.02"] }, { lots: [lot(onShelf)] });
  expect([r.needs[0]!.shelf.reduce((n, t) => n + t.qty, 0), r.needs[0]!.need]).toEqual([taken, buys]);
});

test("a pinned supplier with too few is not topped up with two pieces from another", () => {
  const r = run({ a: [100, "0.01"], b: [5000, "0.02"] }, { choices: { pins: { r: "a" } } });
  expect([bought(r), r.basket.missing]).toEqual([{ a: 100 }, 48]);
});

test("a house that takes reels only refuses strips of small parts; one that takes strips needs a leader of each", () => {
  const house = (more: object) => ({
    ...FAR,
    id: "h",
    assembly: {
      setupPerSide: "0",
      stencilPerSide: "0",
      perUniquePart: "0",
      perJoint: "0",
      perHandJoint: "0",
      minCharge: "0",
      days: 1,
      ...more,
    },
  });
  const at = (more: object) =>
    rollUp(
      madeRun({
        lines: [
          madeLine("1", ["R1"]),
          madeLine("2", ["J1"], { mount: "hand", package: "HDR-4", mpn: "J-1" }),
        ],
        placements: [{ ref: "R1", xMm: 0, yMm: 0, rotationDeg: 0, side: "top" }],
        offers: [
          madeOffer("cut", "1", "0.1", { packaging: "cut tape" }),
          madeOffer("wound", "1", "0.1", { packaging: "reel, wound", fee: "6" }),
          madeOffer("j", "2", "0.5", { packaging: "bag" }),
        ],
        houses: [house(more)],
        assembly: { ...DEFAULT_ASSEMBLY, method: "house", house: "h" },
      }),
    );
  const bought = (r: ReturnType<typeof at>) => r.basket.lines.flatMap((l) => l.buys.map((b) => b.offer));
  const [reels, strips] = [at({ takes: "reels" }), at({ leaderMm: 150 })];
  expect(bought(reels)).toEqual(["wound", "j"]);
  expect(bought(strips)).toEqual(["cut", "j"]);
  // ⌈150 mm / 4 mm⌉ pieces of a chip lie in the leader, none of a part put in by hand
  expect(strips.needs.map((n) => n.leader)).toEqual([38, 0]);
  expect(strips.needs[0]!.whole - reels.needs[0]!.whole).toBe(38);
});
