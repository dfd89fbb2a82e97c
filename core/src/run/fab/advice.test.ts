import { expect, test } from "@jest/globals";
import type { Measure } from "../../board/measure-document.ts";
import type { FabOptions, OptionKey } from "../../fab/options.ts";
import { contrastOf } from "../../order-sheet/colours.ts";
import { FULL } from "../full-house.fixture.ts";
import { madeLine, madeMeasure, madeRun } from "../made-up.fixture.ts";
import { rollUp } from "../roll-up.ts";
import { adviceOn } from "./advice.ts";

/** What is said of a value: "+ reason" and "− reason". */
const said = (
  m: Partial<Measure>,
  wish: Partial<FabOptions>,
  key: OptionKey,
  value: string,
  more = {},
): string[] => {
  const doc = madeRun({
    boards: [{ name: "B", perProduct: 1, measure: madeMeasure(m) }],
    house: FULL,
    houses: [FULL],
    options: wish,
    ...more,
  });
  return adviceOn(doc, rollUp(doc), key)!.by[value]!.map(
    (r) => `${r.speaks === "for" ? "+" : "−"} ${r.text}`,
  );
};
const edgeContacts = {
  top: { count: 8, pitchMm: 2, widthMm: 1.4, lengthMm: 5, setbackMm: 2, edge: "bottom" as const },
};

test.each<[string, Partial<Measure>, Partial<FabOptions>, OptionKey, string, string[], string[]]>([
  [
    "levelled solder under fine pads",
    { minPitchMm: 0.5 },
    {},
    "finish",
    "levelled",
    ["− uneven under pads 0.5 mm apart: they bridge more easily"],
    ["+ pads"],
  ],
  [
    "levelled solder under coarse ones",
    { minPitchMm: 0.51 },
    {},
    "finish",
    "levelled",
    ["+ pads 0.51 mm apart do not need a flat one"],
    ["− uneven"],
  ],
  ["gold under fine pads", { minPitchMm: 0.4 }, {}, "finish", "gold", ["+ flat under pads 0.4 mm apart"], []],
  [
    "where no pitch is measured nothing is said of it",
    {},
    {},
    "finish",
    "gold",
    [],
    ["+ flat under", "− uneven"],
  ],
  [
    "gold on contacts",
    { edgeContacts },
    {},
    "finish",
    "gold",
    [
      "+ right for the 8 contacts on the edge, as gold against gold",
      "− thin gold on contacts wears through after some 20 to 50 insertions",
    ],
    [],
  ],
  [
    "gold where the contacts have their own",
    { edgeContacts },
    { finish: "gold", contacts: "hard-gold" },
    "finish",
    "gold",
    [],
    ["+ right for", "− thin gold"],
  ],
  [
    "white ink on green",
    {},
    {},
    "legend",
    "white",
    [expect.stringMatching(/^\+ stands out \d\.\d : 1 on green$/) as never],
    [],
  ],
  [
    "black ink on green",
    {},
    {},
    "legend",
    "black",
    [expect.stringMatching(/^− stands out 2\.\d : 1 on green: hard to read$/) as never],
    [],
  ],
  [
    "a web white cannot hold",
    { minMaskWebMm: 0.11 },
    {},
    "mask",
    "white",
    ["− webs of 0.11 mm are narrower than the 0.13 mm it holds: they may come off"],
    [],
  ],
  [
    "the same web in green",
    { minMaskWebMm: 0.11 },
    {},
    "mask",
    "green",
    ["+ tracks and faults are seen best"],
    ["− webs"],
  ],
  [
    "a thinner board: (1.6 / 0.8)³ is 8",
    { thicknessMm: 1.6 },
    {},
    "thickness",
    "0.8",
    ["− bends 8.0 times as far under the same load as 1.6 mm"],
    ["+ what the job"],
  ],
  [
    "the stated one",
    { thicknessMm: 1.6 },
    {},
    "thickness",
    "1.6",
    ["+ what the job file states"],
    ["− bends"],
  ],
  [
    "heavy copper over tracks of 0.2",
    { minTrackMm: 0.2, minNetSpaceMm: 0.2 },
    {},
    "copper",
    "70",
    ["− smallest track 0.2 mm, it wants 0.25 mm", "+ smallest gap 0.2 mm, it wants 0.2 mm"],
    [],
  ],
  [
    "no test of four layers",
    { copperLayers: 4 },
    {},
    "test",
    "none",
    ["− 4 layers without a test are a blind purchase"],
    [],
  ],
  ["no test of two", {}, {}, "test", "none", [], ["− 2 layers"]],
  [
    "hard gold without contacts",
    {},
    {},
    "contacts",
    "hard-gold",
    ["− no contacts are found on the edge"],
    [],
  ],
])("%s", (_, m, wish, key, value, has, hasNot) => {
  const list = said(m as Partial<Measure>, wish, key, value);
  expect(list).toEqual(expect.arrayContaining(has));
  for (const start of hasNot) expect(list.filter((t) => t.startsWith(start))).toEqual([]);
});

test("a thickness is held against the fit sheet, and rows that ask for bodies are left to it", () => {
  const fits = [
    { id: "s", label: "Socket", spec: { kind: "edge", allowsMm: [1.37, 1.77] } },
    { id: "l", label: "Lid", spec: { kind: "lid", side: "top", roomMm: 1, roomTolMm: 0.1 } },
  ];
  const of = (value: string) => said({}, {}, "thickness", value, { fits }).filter((t) => /fit/.test(t));
  expect(of("1.6")).toEqual(["+ all 1 rows of the fit sheet that hang on it fit"]);
  expect(of("0.8")).toEqual(["− Socket does not fit"]);
});

test("the presets of domain.md 5.4 are readable, and a colour nobody knows is not guessed", () => {
  for (const mask of ["green", "red", "blue", "black", "purple"])
    expect(contrastOf(mask, "white")).toBeGreaterThan(3);
  for (const mask of ["white", "yellow"]) expect(contrastOf(mask, "black")).toBeGreaterThan(3);
  expect(contrastOf("white", "white")).toBe(1);
  // to white ink and to black, of the colours as they are drawn
  const ratios = ["green", "red", "blue", "purple", "yellow", "clear"].map((m) =>
    ["white", "black"].map((ink) => Number(contrastOf(m, ink)!.toFixed(2))),
  );
  expect(ratios).toEqual([
    [5.55, 2.83],
    [6.52, 2.41],
    [7.28, 2.16],
    [10.27, 1.53],
    [1.84, 8.54],
    [2.02, 7.76],
  ]);
  // L of (242, 242, 238) is 0.885, of (23, 25, 27) 0.0095: (0.885 + 0.05) / (0.0095 + 0.05)
  expect(contrastOf("black", "white")).toBeCloseTo(15.7, 1);
  expect(contrastOf("black", "white")).toBe(contrastOf("white", "black"));
  expect(contrastOf("aubergine", "white")).toBeUndefined();
});

test.each<[string, Partial<Measure>, OptionKey, string, string, string[]]>([
  [
    "a laminate that stays firm, under one heat",
    {},
    "material",
    "glass epoxy, softens from 155 °C",
    "1.6",
    ["− nothing here is soldered so hot or so often"],
  ],
  [
    "the same under a thick board",
    {},
    "material",
    "glass epoxy, softens from 155 °C",
    "3.2",
    ["+ 3.2 mm soak up heat: it stays firm"],
  ],
  [
    "the same under two heats",
    {},
    "material",
    "glass epoxy, softens from 155 °C",
    "1.6",
    ["+ 2 pasted sides are as many heats: it stays firm"],
  ],
  [
    "an ordinary one under one heat",
    {},
    "material",
    "glass epoxy, softens from 135 °C",
    "1.6",
    ["+ one heat and an ordinary thickness ask for no more"],
  ],
  [
    "an ordinary one under a thick board",
    {},
    "material",
    "glass epoxy, softens from 135 °C",
    "3.2",
    ["− 3.2 mm soak up heat: one that softens from 150 °C is the usual advice"],
  ],
  ["one of which nothing is stated", {}, "material", "glass epoxy", "1.6", []],
  ["tin", {}, "finish", "immersion tin", "1.6", ["+ right for pins pressed in"]],
  [
    "silver",
    {},
    "finish",
    "immersion silver",
    "1.6",
    ["− tarnishes where the air holds sulphur; keep it sealed"],
  ],
  [
    "organic coating under one heat",
    {},
    "finish",
    "organic coating",
    "1.6",
    ["− keeps half a year, two heats; hard to probe through"],
  ],
  [
    "organic coating under two heats",
    {},
    "finish",
    "organic coating",
    "1.6",
    [
      "− keeps half a year, two heats; hard to probe through",
      "− 2 pasted sides use up its heats before anything is mended",
    ],
  ],
])("by its words: %s", (name, m, key, label, thickness, has) => {
  const list = [FULL.options[key as "finish"][0]!, { value: "own", label }];
  const house = { ...FULL, options: { ...FULL.options, [key]: list } };
  const place = (ref: string, side: string) => ({ ref, xMm: 1, yMm: 1, rotationDeg: 0, side });
  const both = /two heats/.test(name)
    ? { lines: [madeLine("r", ["R1", "R2"])], placements: [place("R1", "top"), place("R2", "bottom")] }
    : {};
  expect(said(m, { thickness }, key, "own", { house, houses: [house], ...both })).toEqual(has);
});

test("thicker copper of which a house states no limits is not called as fine as the rest", () => {
  const copper = FULL.options.copper.map(({ limits: _, ...v }) => v);
  const house = { ...FULL, options: { ...FULL.options, copper } };
  const of = (value: string) => said({}, {}, "copper", value, { house, houses: [house] });
  expect(of("35")).toEqual(["+ tracks and gaps may be as fine as the house makes them"]);
  expect(of("70")).toEqual([
    "+ carries more at the same width, and spreads heat",
    "− the house states no limits for it: thicker copper is etched coarser, ask how fine",
  ]);
});

test("a decision nobody advises on has no advice", () => {
  const doc = madeRun({ house: FULL, houses: [FULL] });
  expect(adviceOn(doc, rollUp(doc), "marking")).toBeUndefined();
  expect(
    adviceOn({ ...doc, house: undefined } as never, rollUp({ ...doc, house: undefined } as never), "finish"),
  ).toBeUndefined();
});
