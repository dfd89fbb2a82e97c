import { expect, test } from "@jest/globals";
import { boardK } from "../board-k.fixture.ts";
import { togetherOf } from "../curve.ts";
import { layChange } from "../document/lay-change.ts";
import { FULL } from "../full-house.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { ownWork } from "./own-work.ts";
import { crossingsOf, hardestParts, routesOf } from "./routes.ts";

const doc = boardK();

test("the ways there are: by iron, by foil, and each house that assembles; what cannot be says why", () => {
  const house = { ...FULL, id: "f", name: "FULL" };
  const with_ = { ...doc, houses: [house], house };
  const r = rollUp(with_);
  const told = (d: typeof doc) =>
    routesOf(d, r).map((x) => `${x.key}${x.isOwn ? " own" : ""}${x.cannot ? `: ${x.cannot}` : ""}`);
  expect(told({ ...with_, placements: [{} as never] }).slice(0, 2)).toEqual(["iron", "stencil own"]);
  expect(
    told({ ...with_, placements: [] })
      .slice(3)
      .every((t) => t.endsWith("there is no placement file")),
  ).toBe(true);
  expect(told({ ...with_, houses: [] })).toEqual(["iron", "stencil own", "stencil-oven"]);
  const bare = {
    ...with_,
    boards: with_.boards.map((b) => ({ ...b, measure: { ...b.measure, paste: {} } })),
  };
  expect(told(bare)[1]).toBe("stencil own: there is no paste layer");
  expect(
    routesOf({ ...with_, assembly: { ...doc.assembly, method: "iron" } }, r)
      .map((x) => x.isOwn)
      .slice(0, 2),
  ).toEqual([true, false]);
});

test("a plate is no way for parts on both sides; an oven is, and its profile is checked first", () => {
  const two = twoSided({ method: "stencil" });
  const r = rollUp(two);
  const routes = routesOf(two, r);
  expect(routes.map((x) => [x.key, x.isOwn, x.cannot ?? ""]).slice(1, 4)).toEqual([
    ["stencil", false, "parts sit on both sides, and a plate heats boards that lie flat"],
    ["stencil-oven", false, ""],
    ["stencil-other", true, ""],
  ]);
  const as = (key: string) => rollUp(layChange(two, { assembly: routes.find((x) => x.key === key)!.change }));
  const oven = as("stencil-oven");
  expect(oven.minutes.setup - r.minutes.setup).toBe(15);
  const plate = as("stencil");
  expect(plate.blockers.map((n) => n.key.split(" ").slice(0, 2).join(" "))).toContain("order plate");
});

test("each way is a whole run: taking it gives what its row says", () => {
  for (const route of routesOf(doc, rollUp(doc)).filter((x) => !x.cannot)) {
    const r = rollUp({ ...doc, assembly: route.assembly });
    expect(routesOf({ ...doc, assembly: route.assembly }, r).find((x) => x.isOwn)?.key).toBe(route.key);
  }
});

test("the hardest by name: Board K with a foil, shares of the 0.0674 defects it is expected to have", () => {
  const { parts, yield: y } = rollUp(doc);
  const hard = hardestParts(parts);
  expect(hard.reduce((s, h) => s + h.defects, 0)).toBeCloseTo(y.lambda, 12);
  expect(hard.reduce((s, h) => s + h.share, 0)).toBeCloseTo(1, 12);
  expect(hard.map((h) => h.defects)).toEqual([...hard.map((h) => h.defects)].sort((a, b) => b - a));
  // 32 leads at 300, one placement at 1200 and again for its direction: 0.012
  const u = hard.find((h) => h.joints === 32)!;
  expect(u.defects).toBeCloseTo((32 * 300 + 2 * 1200) / 1e6, 12);
  expect(u.by.iron).toBeCloseTo((32 * 500 + 2 * 1500) / 1e6, 12);
  expect(u.by.house).toBeCloseTo((32 * 50 + 2 * 60) / 1e6, 12);
  // the shop's own faults are of how it is soldered now, and say nothing of the other ways
  const own = hardestParts(parts, 10, { gull: 3 }).find((h) => h.joints === 32)!;
  expect(own.defects).toBeCloseTo((3 * 32 * 300 + 2 * 1200) / 1e6, 12);
  expect([own.by.stencil, own.by.iron, own.by.house]).toEqual([own.defects, u.by.iron, u.by.house]);
  expect(hardestParts(parts, 2)).toHaveLength(2);
  expect(hardestParts([])).toEqual([]);
});

test("a crossing is where one becomes the cheaper and stays so", () => {
  const curve = (key: string, ...perGood: number[]) => ({
    key,
    perGood: new Map(perGood.map((v, i) => [i + 1, v])),
  });
  expect(crossingsOf([curve("a", 9, 8, 5, 4), curve("b", 7, 6, 6, 6)])).toEqual([
    { route: "a", against: "b", after: 2, from: 3 },
  ]);
  // cheaper for a while only; from the first on; never; at equal cost it costs no more
  expect(crossingsOf([curve("a", 9, 5, 9, 4), curve("b", 6, 6, 6, 6)])).toEqual([
    { route: "a", against: "b", after: 3, from: 4 },
  ]);
  expect(crossingsOf([curve("a", 1, 1), curve("b", 2, 2)])).toEqual([]);
  expect(crossingsOf([curve("a", 9, 6), curve("b", 6, 6)])).toEqual([
    { route: "a", against: "b", after: 1, from: 2 },
  ]);
  // what was not worked out for both is left aside
  const holes = {
    key: "b",
    perGood: new Map([
      [1, 6],
      [3, 6],
    ]),
  };
  expect(crossingsOf([curve("a", 9, 1, 5), holes])).toEqual([
    { route: "a", against: "b", after: 1, from: 3 },
  ]);
});

test("found by halving, a crossing is the one a scan over every quantity finds", () => {
  const [iron, foil] = routesOf(doc, rollUp(doc)) as [
    ReturnType<typeof routesOf>[0],
    ReturnType<typeof routesOf>[0],
  ];
  const at = (route: typeof iron, q: number) =>
    rollUp({ ...doc, assembly: route.assembly, goodBoards: q }).perGood;
  const all = Array.from({ length: 60 }, (_, i) => i + 1);
  const curve = (route: typeof iron, list: readonly number[]) => ({
    key: route.key,
    perGood: new Map(list.map((q) => [q, at(route, q)])),
  });
  const scan = crossingsOf([curve(iron, all), curve(foil, all)]);
  const coarse = crossingsOf([curve(iron, [1, 4, 12, 30, 60]), curve(foil, [1, 4, 12, 30, 60])]);
  expect(scan.length).toBeGreaterThan(0);
  for (const c of scan) {
    const wide = coarse.find((x) => x.route === c.route)!;
    expect(wide.after < c.from && c.from <= wide.from).toBe(true);
  }
  expect(coarse.length).toBe(scan.length);
});

test("what is said of several curves holds where it holds for any of them", () => {
  const p = (quantity: number, more: object = {}) => ({ quantity, perGood: 1, total: 1, start: 1, ...more });
  expect(
    togetherOf([
      [p(2, { unpriced: 1, quoted: ["N"] }), p(1)],
      [p(1, { isEstimate: true }), p(2, { unpriced: 3, quoted: ["M"] })],
    ]).map(({ quantity, isEstimate, unpriced, quoted }) => ({ quantity, isEstimate, unpriced, quoted })),
  ).toEqual([
    { quantity: 1, isEstimate: true, unpriced: undefined, quoted: undefined },
    { quantity: 2, isEstimate: undefined, unpriced: 3, quoted: ["N", "M"] },
  ]);
});

test("own work names paste on two sides only where there are two", () => {
  const label = (both: string[]) => {
    const r = rollUp(doc);
    return ownWork(doc, { ...r, sides: { ...r.sides, own: { ...r.sides.own, both } } } as never).find((row) =>
      row.label.startsWith("print"),
    )?.label;
  };
  expect([label([]), label(["b"])]).toEqual(["print the paste", "print the paste, two sides"]);
});
