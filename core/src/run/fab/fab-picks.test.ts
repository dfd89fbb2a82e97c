import { expect, test } from "@jest/globals";
import type { House } from "../../fab/house.ts";
import { FAR, madeMeasure, madeRun } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { cheapestWithin, type FabPick, fabPicks, quickestBelow } from "./fab-picks.ts";

/** Near and dear: four days on the way less, everything half as dear again. */
const NEAR: House = {
  ...FAR,
  id: "near",
  name: "NEAR",
  price: {
    ...FAR.price,
    setup: { "2": "60" },
    transitDays: 2,
    lead: [
      { days: 4, factor: 1 },
      { days: 1, factor: 2 },
    ],
  },
};
const BLIND: House = { ...FAR, id: "blind", name: "BLIND", currency: "NOK" };
const COARSE: House = { ...FAR, id: "coarse", name: "COARSE", limits: { minTrackMm: 0.4 } };
const doc = (more: object = {}) =>
  madeRun({
    boards: [{ name: "B", perProduct: 1, measure: madeMeasure() }],
    house: FAR,
    houses: [FAR, NEAR, BLIND, COARSE],
    options: { leadDays: FAR.price.lead[0]!.days },
    ...more,
  });

test("every house that can, in each of its lead times, cheapest first; one that cannot or has no rate is none of them", () => {
  const d = doc();
  const { start, orders } = rollUp(d);
  const picks = fabPicks(d, start);
  expect(new Set(picks.map((p) => p.house))).toEqual(new Set(["FAR", "NEAR"]));
  expect(picks).toHaveLength(FAR.price.lead.length + 2);
  expect(picks.map((p) => p.landed)).toEqual([...picks.map((p) => p.landed)].sort((a, b) => a - b));
  // the chosen one is what the run itself counts
  const chosen = picks.filter((p) => p.isChosen);
  expect(chosen).toHaveLength(1);
  expect(chosen[0]).toMatchObject({
    house: "FAR",
    landed: orders[0]!.micros / 1e6,
    days: orders[0]!.days,
    pieces: orders[0]!.quote.pieces,
    gives: [],
  });
});

test("what a house does not have of the options is told, its other lead times are not", () => {
  const plain = { ...NEAR, options: { ...NEAR.options, finish: [{ value: "organic", label: "organic" }] } };
  const gold = FAR.options.finish.find((f) => /gold/.test(f.value))!;
  const d = doc({ houses: [FAR, plain], options: { finish: gold.value } });
  const gives = fabPicks(d, 10)
    .filter((p) => p.house === "NEAR")
    .map((p) => p.gives.map((g) => g.got));
  expect(gives).toEqual([["organic"], ["organic"]]);
});

test("a price that is a guess, and limits a house does not state, are told with it", () => {
  const { minHoleMm: _, ...limits } = FAR.limits;
  const typed: House = { ...NEAR, quotedFor: [7], limits };
  const d = doc({ houses: [FAR, typed] });
  const of = (house: string) => fabPicks(d, 10).find((p) => p.house === house)!;
  expect(of("NEAR")).toMatchObject({ isGuessed: true, unstated: ["smallest hole"] });
  expect(of("FAR")).toMatchObject({ isGuessed: false, unstated: [] });
});

test("cheapest within days, quickest within a sum; bounds count in, ties go to the other measure", () => {
  const pick = (house: string, days: number, landed: number): FabPick => ({
    houseId: house,
    house,
    leadDays: 1,
    days,
    landed,
    pieces: 1,
    way: "ordinary",
    with: {},
    gives: [],
    isGuessed: false,
    unstated: [],
    isChosen: false,
  });
  const picks = [
    pick("a", 20, 50),
    pick("b", 10, 80),
    pick("c", 8, 80),
    pick("d", 3, 200),
    pick("e", 3, 190),
  ];
  const within = (days: number) => cheapestWithin(picks, days)?.house;
  expect([within(30), within(20), within(19), within(9), within(3), within(2)]).toEqual([
    "a",
    "a",
    "c",
    "c",
    "e",
    undefined,
  ]);
  const below = (sum: number) => quickestBelow(picks, sum)?.house;
  expect([below(500), below(190), below(189), below(80), below(79), below(49)]).toEqual([
    "e",
    "e",
    "c",
    "c",
    "a",
    undefined,
  ]);
});

test("a board of more layers than the house has prices for is counted as two, which is said and is never the cheapest", () => {
  const four = madeMeasure({ copperLayers: 4, layerOrder: ["top", "inner 1", "inner 2", "bottom"] });
  const boards = [{ name: "B", perProduct: 1, measure: four }];
  const priced: House = {
    ...FAR,
    id: "four",
    name: "FOUR",
    price: {
      ...FAR.price,
      setup: { ...FAR.price.setup, "4": "50" },
      perDm2: { ...FAR.price.perDm2, "4": "7" },
    },
  };
  const said = (house: House) =>
    rollUp(doc({ boards, house, houses: [FAR, priced] })).notes.filter((n) => n.key === "layers-not-priced");
  expect(said(FAR)).toEqual([
    expect.objectContaining({ level: "error", text: expect.stringContaining("4 copper layers") }),
  ]);
  expect(said(priced)).toEqual([]);
  expect(new Set(fabPicks(doc({ boards, houses: [FAR, priced] }), 10).map((p) => p.house))).toEqual(
    new Set(["FOUR"]),
  );
  const quoted = doc({
    boards,
    quotes: [{ house: FAR.id, kind: "fab", total: "90", currency: "EUR", days: 9, capturedOn: "2026-11-20" }],
  });
  expect(rollUp(quoted).notes.map((n) => n.key)).not.toContain("layers-not-priced");
});
