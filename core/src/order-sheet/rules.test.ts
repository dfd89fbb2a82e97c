import { expect, test } from "@jest/globals";
import type { Measure } from "../board/measure-document.ts";
import { fitOptions } from "../fab/fit-options.ts";
import type { FabOptions, OptionKey } from "../fab/options.ts";
import { FULL } from "../run/full-house.fixture.ts";
import { madeMeasure } from "../run/made-up.fixture.ts";
import { coatingOf, orderRules } from "./rules.ts";
import { choose, settle } from "./settle.ts";

const card = (setbackMm: number, more: Partial<Measure> = {}) =>
  madeMeasure({
    edgeContacts: { top: { count: 8, pitchMm: 2, widthMm: 1.4, lengthMm: 5, setbackMm, edge: "bottom" } },
    ...more,
  });
const said = (m: Measure, wish: Partial<FabOptions>): string[] =>
  orderRules(FULL, [m]).flatMap((r) => r.broken(fitOptions(FULL, wish)) ?? []);

// by hand: a bevel is (t − n) / (2 · tan α) deep and copper keeps 0.2 mm behind it (domain.md 2.5), the flat nose n 0.5 mm at 1.6
test.each<[string, Measure, Partial<FabOptions>, (string | RegExp)[]]>([
  ["an ordinary board with what is usual", madeMeasure(), {}, []],
  [
    "ink of the mask's colour",
    madeMeasure(),
    { mask: "white" },
    ["silkscreen and mask are both white; nothing would be readable"],
  ],
  [
    "contacts under levelled solder",
    card(2),
    {},
    ["the edge contacts need gold: other finishes are uneven or tarnish"],
  ],
  // FULL lets a hole be an eighth of the thickness: 0.15 mm goes through 0.8, not through 1.6
  [
    "a hole that the thinnest board takes and a thicker one does not",
    madeMeasure({ minHoleMm: 0.15, holes: [{ diameterMm: 0.15, count: 1, plated: true }] as never }),
    {},
    ["thickness to smallest plated hole is 10.67, FULL holds 8"],
  ],
  ["contacts under gold", card(2), { finish: "gold" }, []],
  ["a bevel of 45° behind which 2 mm are free", card(2), { finish: "gold", bevel: "45" }, []],
  [
    "one of 20°, 1.511 mm deep: with its 0.2 mm it needs 1.711",
    card(1.5),
    { finish: "gold", bevel: "20" },
    ["a bevel of 20° at 1.6 mm grinds contacts: 0.211 mm are missing to their copper"],
  ],
  [
    "a bevelled board that is too thin",
    madeMeasure(),
    { thickness: "0.8", bevel: "45" },
    ["boards under 1 mm are not bevelled"],
  ],
  [
    "hard gold without the finish it is made beside",
    card(2),
    { contacts: "hard-gold" },
    ["coating of the contacts hard gold is made there only with finish immersion gold"],
  ],
  [
    "half holes that are not ordered",
    madeMeasure({ castellatedHoles: { count: 6, diameterMm: 0.8, edge: "left" } }),
    {},
    ["6 holes are cut by the edge, which is made as an option of its own"],
  ],
  ["half holes ordered for a board without any", madeMeasure(), { castellation: "cut", finish: "gold" }, []],
  [
    "a metal core under two layers",
    madeMeasure(),
    { material: "aluminium" },
    [/^a metal core has one layer of copper and no plated holes; this board has 2 and \d+$/],
  ],
  [
    "a metal core under one layer without plated holes",
    madeMeasure({ copperLayers: 1, holes: [] }),
    { material: "aluminium" },
    [],
  ],
  [
    "a quick board in another colour",
    madeMeasure(),
    { mask: "white", legend: "black", leadDays: 3 },
    ["lead time 3 days is made there only with mask colour green"],
  ],
  [
    "heavy copper over fine tracks",
    madeMeasure({ minTrackMm: 0.2 }),
    { copper: "70" },
    ["smallest track is 0.2 mm, FULL holds 0.25 mm with copper 70 µm"],
  ],
  ["heavy copper over tracks as wide as it asks", madeMeasure({ minTrackMm: 0.25 }), { copper: "70" }, []],
  [
    "a board too thick for its holes: 3.2 / 0.3 is 10.67",
    madeMeasure({ holes: [{ diameterMm: 0.3, plated: true, count: 4 }] }),
    { thickness: "3.2" },
    ["thickness to smallest plated hole is 10.67, FULL holds 8"],
  ],
  [
    "tracks no copper of the house allows are the board's fault, and no option's",
    madeMeasure({ minTrackMm: 0.05 }),
    { copper: "35" },
    [],
  ],
  [
    "a mask web too narrow for white wants a look, and refuses nothing",
    madeMeasure({ minMaskWebMm: 0.11 }),
    { mask: "white", legend: "black" },
    [],
  ],
])("%s", (_, m, wish, expected) => {
  expect(said(m, wish)).toEqual(expected.map((e) => (typeof e === "string" ? e : expect.stringMatching(e))));
});

const pick = (m: Measure, from: Partial<FabOptions>, key: OptionKey, value: string) =>
  choose(FULL, orderRules(FULL, [m]), fitOptions(FULL, from), key, value);

test("choosing brings with it what it needs, and nothing else", () => {
  expect(pick(card(2), { finish: "gold" }, "bevel", "45")).toMatchObject({ changes: [] });
  expect(pick(card(2), { finish: "gold" }, "finish", "levelled")).toEqual({
    cannot: "the edge contacts need gold: other finishes are uneven or tarnish",
  });
  expect(pick(madeMeasure(), {}, "contacts", "hard-gold")).toMatchObject({
    options: { finish: "gold", contacts: "hard-gold", mask: "green" },
    changes: [
      {
        key: "finish",
        value: "gold",
        from: "levelled solder",
        to: "immersion gold",
        because: "coating of the contacts hard gold is made there only with finish immersion gold",
      },
    ],
  });
  // the ink gives way to the mask, and the mask to the ink
  expect(pick(madeMeasure(), {}, "mask", "white")).toMatchObject({
    options: { mask: "white", legend: "black" },
  });
  expect(pick(madeMeasure(), { mask: "white", legend: "black" }, "legend", "white")).toMatchObject({
    options: { mask: "green", legend: "white" },
  });
});

test("what cannot be by any change says why in its own matter, whatever else is amiss", () => {
  // copper at the very edge: every bevel grinds it, and ink on a mask of its colour has nothing to do with that
  const chosen = pick(card(0.1), { mask: "white", legend: "white", finish: "gold" }, "bevel", "45");
  expect(chosen).toEqual({ cannot: expect.stringMatching(/^a bevel of 45° .* grinds contacts/) });
});

test("another bevel is taken before the bevel is given up", () => {
  const from = { finish: "gold", bevel: "20", thickness: "1.6" };
  // at 1.5 mm the 20° one grinds and the 45° one does not
  const rules = orderRules(FULL, [card(1.5)]);
  const mended = settle(FULL, rules, fitOptions(FULL, from), new Set(["thickness"]), {
    price: (o) => (o.bevel === "none" ? 0 : 12),
  });
  expect(mended?.options.bevel).toBe("45");
});

test("one change is taken before two, even where the two begin with what gives way first", () => {
  const rules = [
    {
      id: "pair",
      keys: ["legend", "mask"] as const,
      broken: (o: FabOptions) => (o.legend === "white" && o.mask === "green" ? "not these two" : undefined),
    },
    {
      id: "then",
      keys: ["copper", "legend"] as const,
      broken: (o: FabOptions) =>
        o.legend === "black" && o.copper === "35" ? "black wants more copper" : undefined,
    },
  ];
  const start = fitOptions(FULL, {});
  const mended = settle(FULL, rules, start, new Set());
  expect(mended!.changes.map((c) => [c.key, c.value])).toEqual([["mask", "white"]]);
  // where that one may not change, the two are found
  const other = settle(FULL, rules, start, new Set<OptionKey>(["mask"]));
  expect(other!.changes.map((c) => c.key)).toEqual(["legend", "copper"]);
  expect(settle(FULL, rules, start, new Set<OptionKey>(["mask", "legend"]))).toBeUndefined();
});

test("a breach that was there before and is about something else stays, and is not mended unasked", () => {
  const chosen = pick(card(2), {}, "mask", "white");
  expect(chosen).toMatchObject({ options: { finish: "levelled", mask: "white", legend: "black" } });
});

test("contacts are coated as they are ordered, else like the board", () => {
  const of = (wish: Partial<FabOptions>) => coatingOf(FULL, fitOptions(FULL, wish));
  expect(of({})).toMatchObject({ isGold: false });
  expect(of({ finish: "gold" })).toMatchObject({ isGold: true, isHard: false });
  expect(of({ contacts: "hard-gold" })).toMatchObject({ isGold: true, isHard: true });
});
