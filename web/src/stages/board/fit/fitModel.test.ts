import { describe, expect, test } from "@jest/globals";
import { type FitRow, type Measure, shapes } from "@kobbin/core";
import { type Draft, draftOf, EMPTY, featuresFor } from "./draft.ts";
import { checkDraft } from "./fitModel.ts";

/** A board about another origin, with two post holes, a slot, and pins of two sizes. */
const at = (x: number, y: number) => ({ layer: "drill", x: x + 100, y });
const measure = {
  extentMm: [100, 0, 150, 40],
  edgeContacts: {
    top: { count: 11, pitchMm: 2.5, widthMm: 1.5, lengthMm: 6, setbackMm: 1.5, edge: "bottom" },
  },
  slots: [{ widthMm: 1.7, lengthMm: 10, plated: false, from: [120, 20], to: [128, 20] }],
  drillTable: [
    { file: "a", diameterMm: 3.2, plated: false, holes: 2, slots: 0, at: [at(4, 4), at(46, 4)] },
    { file: "a", diameterMm: 1, plated: true, holes: 3, slots: 0, at: [at(9, 9), at(12, 9), at(15, 9)] },
    { file: "a", diameterMm: 1.3, plated: true, holes: 1, slots: 0, at: [at(30, 9)] },
  ],
} as unknown as Measure;
const draft = (more: Partial<Draft>): Draft => ({ ...EMPTY, label: "It", ...more });
const check = (more: Partial<Draft>) => checkDraft(draft(more), measure, undefined);

describe("what is typed of a row, odd ones first", () => {
  test.each([
    ["no hole picked", { posts: "0 0" }, /Pick the holes/],
    ["a post too few", { picked: [0, 1], posts: "0 0" }, /1 posts are given for 2 picked holes/],
    ["a row that is none", { picked: [0, 1], posts: "0 0\nfar" }, /Row 2/],
    ["posts in inches", { picked: [0, 1], posts: "0 0\n1.653543 0" }, /an inch/],
    ["posts of another pattern", { picked: [0, 1], posts: "0 0\n0 0" }, /do not lie like/],
    ["no slot picked", { kind: "slot", tab: "1.6" }, /Pick the slot/],
    ["no tab", { kind: "slot", picked: [0] }, /The tab is a thickness/],
    ["a slipped reading", { kind: "slot", picked: [0], tab: "1.19 12.0 1.2" }, /reading 12 is far/],
    [
      "a tab of no width",
      { kind: "slot", picked: [0], tab: "1.6", tabWidth: "wide" },
      /tab's width is a length/,
    ],
    ["no pin hole picked", { kind: "pin", pin: "0.64" }, /Pick one of the holes/],
    ["a socket the wrong way round", { kind: "edge", least: "1.8", most: "1.4" }, /which is nothing/],
    ["contacts there are none of", { kind: "contacts", edgeSide: "bottom" }, /No edge contacts .* bottom/],
    ["a socket of half", { kind: "edge", least: "1.4" }, /greatest thickness is missing/],
    ["half a board", { kind: "stack", boards: "1.5", gap: "14" }, /whole number/],
    ["a spacer without a length", { kind: "stack", gap: "14", spacers: "wide ± 0.1" }, /11 ± 0.1/],
    ["no place picked", { kind: "intended" }, /Pick the place/],
    ["a place of no size", { kind: "intended", spot: [110, 9], diameter: "0" }, /0.05 to 200 mm/],
    ["a lid without room", { kind: "lid" }, /The room is missing/],
    ["a field of three numbers", { kind: "lid", gap: "9", area: "0 0 30" }, /left, lower, right and upper/],
    [
      "a field the wrong way round",
      { kind: "lid", gap: "9", area: "30 0 0 20" },
      /left, lower, right and upper/,
    ],
    [
      "a field the wrong way up",
      { kind: "lid", gap: "9", area: "0 20 30 20" },
      /left, lower, right and upper/,
    ],
    ["no other board", { kind: "facing", gap: "9" }, /Choose the board/],
    ["half a corner", { kind: "facing", other: "Face", gap: "9", corner: "5" }, /two lengths/],
    ["play that is none", { kind: "edge", least: "1", most: "2", play: "some" }, /greatest play/],
    ["no name", { kind: "edge", least: "1", most: "2", label: " " }, /what it must fit/],
  ] as const)("%s", (_, more, says) => {
    expect(check(more as Partial<Draft>)).toEqual(
      expect.objectContaining({ wrong: expect.stringMatching(says) }),
    );
  });
});

test("what is picked is kept from the board's corner, and a kept row comes back as it was typed", () => {
  const rows: Partial<Draft>[] = [
    { picked: [0, 1], posts: "0 0 3\n42 0 3" },
    { kind: "slot", picked: [0], tab: "1.19 1.21", tabTol: "0.05", tabWidth: "8.2" },
    { kind: "pin", picked: [1], pin: "1.1", pinTol: "0.02", shape: "round" },
    { kind: "edge", least: "1.37", most: "1.77", play: "0.3" },
    { kind: "contacts", opening: "34.3", openingTol: "0.1", contact: "0.8" },
    { kind: "outline", across: "height", opening: "40.4", openingTol: "0.1" },
    { kind: "lid", overSide: "bottom", gap: "9.5", gapTol: "0.3", area: "-1 0 30 20" },
    { kind: "lid", gap: "9.5", gapTol: "0.3" },
    {
      kind: "facing",
      other: "Face",
      faces: "top",
      gap: "11",
      gapTol: "0.2",
      corner: "-5 12.5",
      turn: "270",
      joinedBy: "J1, J4",
    },
    { kind: "intended", spot: [112, 9], diameter: "1.5", what: "window", overSide: "bottom" },
    { kind: "stack", boards: "2", gap: "15", gapTol: "0.2", spacers: "11 ± 0.1; 2 ± 0" },
  ];
  for (const more of rows) {
    const made = check(more);
    if (!("body" in made)) throw new Error(made.wrong);
    // what the page makes is what the server takes
    expect(shapes.fitSpecShape(made.body.spec, "spec")).toBeUndefined();
    const row = { id: "r", ...made.body } as FitRow;
    expect(checkDraft(draftOf(row, measure), measure, undefined)).toEqual(made);
  }
  expect(check(rows[0]!)).toMatchObject({
    body: {
      spec: {
        holes: [
          [4, 4],
          [46, 4],
        ],
      },
    },
  });
  expect(check(rows[2]!)).toMatchObject({ body: { spec: { at: [30, 9] } } });
  expect(check(rows.at(-2)!)).toMatchObject({
    body: { spec: { at: [12, 9], side: "bottom", what: "window", diameterMm: 1.5 } },
  });
  expect(check(rows.at(-3)!)).toMatchObject({
    body: { spec: { at: [-5, 12.5], turnDeg: 270, joinedBy: ["J1", "J4"], faces: "top", side: "top" } },
  });
});

test("another unit is believed once it is said, and of each size of pin hole one stands for all", () => {
  const inches = { picked: [0, 1], posts: "0 0\n1.653543 0", believesUnit: true };
  const made = check(inches);
  expect(made).toMatchObject({
    body: { spec: { posts: [{ x: 0 }, { x: expect.closeTo(42, 4), diameterMm: 3 }] } },
  });
  expect(featuresFor(measure, "pin").map((h) => "diameterMm" in h && h.diameterMm)).toEqual([1, 1.3]);
  expect(featuresFor(measure, "edge")).toEqual([]);
});
