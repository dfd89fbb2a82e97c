import { expect, test } from "@jest/globals";
import { drill, flash, layer, measure, rim } from "../../../test/write-board.ts";
import { register, shareOnto } from "./registration.ts";

type Point = readonly [number, number];
/** No shift but its own brings these onto themselves. */
const POINTS: readonly Point[] = [
  [0, 0],
  [3, 1],
  [7, 2],
  [1, 6],
  [5, 9],
];
const moved = (dx: number, dy: number, mirror: 1 | -1 = 1): Point[] =>
  POINTS.map(([x, y]) => [mirror * x + dx, y + dy]);

test("the one shift is found, plain or mirrored, and refined past its votes", () => {
  expect(register(POINTS, moved(12.34, -7.01))).toEqual({
    share: 1,
    dxMm: expect.closeTo(12.34, 6),
    dyMm: expect.closeTo(-7.01, 6),
    isMirrored: false,
  });
  expect(register(POINTS, moved(40, 2.5, -1))).toMatchObject({
    share: 1,
    dxMm: expect.closeTo(40, 6),
    isMirrored: true,
  });
});

test("fewer than four points are no pattern, and four of five are enough", () => {
  expect(register(POINTS.slice(0, 3), moved(5, 5))).toBeUndefined();
  expect(register(POINTS, moved(5, 5).slice(0, 3))).toBeUndefined();
  expect(register(POINTS, moved(5, 5).slice(0, 4))).toMatchObject({ share: 0.8 });
  expect(register(POINTS, [...moved(5, 5).slice(0, 3), [50, 50]])).toBeUndefined();
});

test("a point counts as on another within 0.05 mm, across the cells they are looked up in", () => {
  expect(shareOnto([[0.049, 0]], [[0, 0]])).toBe(1);
  expect(shareOnto([[0.051, 0]], [[0, 0]])).toBe(0);
  expect(shareOnto([[-0.01, -0.01]], [[0.02, 0.02]])).toBe(1);
  expect(shareOnto([], [[0, 0]])).toBe(1);
});

// eight pads with holes that no shift but their own brings onto themselves
const SPOTS: readonly Point[] = [
  [5, 4],
  [8, 5],
  [12, 6],
  [6, 10],
  [10, 13],
  [21, 4],
  [17, 9],
  [25, 14],
];
const pads = (list: readonly Point[], size = "C,1.6") =>
  `%ADD10${size}*%\nD10*\n${list.map(([x, y]) => flash(x, y)).join("")}`;
const by = (dx: number, dy: number, mirror: 1 | -1 = 1): Point[] =>
  SPOTS.map(([x, y]) => [mirror * x + dx, y + dy]);
const board = (over: {
  top?: readonly Point[];
  bottom?: readonly Point[];
  mask?: readonly Point[];
  paste?: readonly Point[];
  holes?: readonly Point[];
}) =>
  measure([
    rim(30, 18),
    layer("b.gtl", pads(over.top ?? SPOTS)),
    layer("b.gbl", pads(over.bottom ?? SPOTS)),
    layer("b.gts", pads(over.mask ?? SPOTS, "C,1.8")),
    ...(over.paste ? [layer("b.gtp", pads(over.paste, "C,1.5"))] : []),
    drill("b-pth.drl", [[0.8, over.holes ?? SPOTS]]),
  ]).findings.filter((f) => f.tag === "layer-misaligned");
const R = (v: number) => expect.closeTo(v, 3);

test.each<[string, Parameters<typeof board>[0], string | undefined, object | undefined]>([
  ["everything", {}, undefined, undefined],
  [
    "the bottom, moved",
    { bottom: by(40, -3) },
    "The copper bottom does not lie on the plated holes: moved by -40.000, 3.000 mm, 100 % of it would.",
    { file: "b.gbl", move: { dxMm: R(-40), dyMm: R(3) } },
  ],
  // a point at x lies at 30 − x, moved up by 2: mirrored again and moved by 30/−2 it is back
  [
    "the bottom, as seen from below and moved",
    { bottom: by(30, 2, -1) },
    "The copper bottom does not lie on the plated holes: mirrored and moved by 30.000, -2.000 mm, 100 % of it would.",
    { file: "b.gbl", move: { dxMm: R(30), dyMm: R(-2), isMirrored: true } },
  ],
  [
    "the holes, moved",
    { holes: by(7, 1) },
    "The drill file does not lie on the copper's pads: moved by -7.000, -1.000 mm, 100 % of it would.",
    { file: "b-pth.drl", move: { dxMm: R(-7), dyMm: R(-1) } },
  ],
  [
    "the mask, moved",
    { mask: by(2.5, 0.5) },
    "The mask top does not lie on the pads below it: moved by -2.500, -0.500 mm, 100 % of it would.",
    { file: "b.gts", move: { dxMm: R(-2.5), dyMm: R(-0.5) } },
  ],
  ["the mask, a little", { mask: by(0.04, 0) }, undefined, undefined],
  [
    "the paste, mirrored",
    { paste: by(30, 0, -1) },
    "The paste top does not lie on the pads below it: mirrored and moved by 30.000, 0.000 mm, 100 % of it would.",
    { file: "b.gtp", move: { dxMm: R(30), dyMm: R(0), isMirrored: true } },
  ],
  // five points are no pattern of a mask's
  ["a paste of five openings elsewhere", { paste: by(2.5, 0.5).slice(0, 5) }, undefined, undefined],
  [
    "a paste that has nothing to do with the pads",
    { paste: SPOTS.map(([x, y], i) => [x + i, y + i * i * 0.3] as const) },
    undefined,
    undefined,
  ],
])("what does not lie on the rest is said with the move that brings it there: %s", (_, over, text, offer) => {
  const found = board(over);
  expect(found.map((f) => f.text)).toEqual(text ? [text] : []);
  if (offer) expect(found[0]).toMatchObject({ level: "error", offer });
});

test("holes that two drill files have both are said, with the first of them", () => {
  const twice = (more: readonly Point[]) =>
    measure([
      rim(30, 18),
      layer("b.gtl", pads(SPOTS)),
      drill("b-pth.drl", [[0.8, SPOTS]]),
      drill("c-pth.drl", [[0.8, more]]),
    ]).findings.filter((f) => f.tag === "hole-doubled");
  expect(twice([[15, 15]])).toEqual([]);
  expect(twice([[12, 6]])).toMatchObject([
    {
      level: "remark",
      at: { layer: "drill", x: 12, y: 6 },
      text: "1 hole is drilled twice at the same place.",
    },
  ]);
  expect(twice(SPOTS.slice(3))).toMatchObject([
    { at: { x: 6, y: 10 }, text: "5 holes are drilled twice at the same place." },
  ]);
});
