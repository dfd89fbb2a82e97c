import { expect, test } from "@jest/globals";
import type { Body } from "../bodies/body.ts";
import { madeMeasure } from "../run/made-up.fixture.ts";
import { panelDesign } from "./design.ts";
import { solved, spec } from "./designs.fixture.ts";
import type { PanelDesign } from "./spec.ts";

const measure = madeMeasure({
  outline: {
    widthMm: 50,
    heightMm: 40,
    areaMm2: 2000,
    perimeterMm: 180,
    cutouts: 0,
    closed: true,
    rings: [[0, 0, 0, 40, 50, 40, 50, 0]],
  },
  extentMm: [0, 0, 50, 40],
});
const body = (ref: string, x: number, y: number, more: Partial<Body> = {}): Body => ({
  ref,
  side: "top",
  x,
  y,
  turnDeg: 0,
  lengthMm: 2,
  widthMm: 1,
  tolMm: 0.1,
  heightTolMm: 0.1,
  sizeFrom: "package",
  lies: "row",
  ...more,
});
const made = (bodies: readonly Body[], more = {}) =>
  panelDesign({
    name: "d",
    measure,
    bodies,
    packages: new Map([
      ["C1", "0603"],
      ["C9", "ELEC 6.3x5.4"],
    ]),
    ...more,
  }) as PanelDesign;

test("an outline is counter-clockwise whatever it was; one that is open, or was not kept, makes no sheet", () => {
  expect(made([]).outline).toEqual([50, 0, 50, 40, 0, 40, 0, 0]);
  expect(made([]).areaMm2).toBe(2000);
  const open = { ...measure, outline: { cutouts: 0, closed: false } };
  expect(panelDesign({ name: "d", measure: open, bodies: [] })).toMatchObject({ tag: "outline-open" });
  const { rings: _, ...bare } = measure.outline!;
  expect(panelDesign({ name: "d", measure: { ...measure, outline: bare }, bodies: [] })).toMatchObject({
    tag: "outline-not-kept",
  });
});

test.each([
  ["a ceramic chip", body("C1", 25, 20), { tabMm: 3, scoreMm: 3 }],
  ["a can, which is no chip", body("C9", 25, 20), { tabMm: 1, scoreMm: 1 }],
  ["a resistor", body("R1", 25, 20), { tabMm: 1, scoreMm: 1 }],
  ["a tall part", body("L1", 25, 20, { heightMm: 5.1 }), { tabMm: 1, scoreMm: 3 }],
  ["a part just as high as is not tall", body("L1", 25, 20, { heightMm: 5 }), { tabMm: 1, scoreMm: 1 }],
  ["one that hangs over", body("J1", 49.5, 20), { tabMm: 0.5, scoreMm: 0, isHard: true }],
  ["one that is flush", body("J1", 49, 20), { tabMm: 1, scoreMm: 1 }],
  ["a ceramic chip that hangs over", body("C1", 49.5, 20), { isHard: true }],
] as const)("%s keeps cuts off as it wants", (_, b, want) => {
  expect(made([b]).bans[0]).toMatchObject(want);
  if (!("isHard" in want)) expect(made([b]).bans[0]!.isHard).toBeUndefined();
});

test("a turned body counts by its corners; how far it hangs over is known", () => {
  expect(made([body("J1", 49, 20, { lengthMm: 8, turnDeg: 90 })]).bans[0]!.isHard).toBeUndefined();
  const d = made([body("J1", 49, 20, { lengthMm: 8 })]);
  expect(d.bans[0]!.isHard).toBe(true);
  expect(d.overhangs).toEqual([{ ref: "J1", box: [45, 19.5, 53, 20.5], mm: 3 }]);
});

test("contacts and half holes forbid their edge, and a bevel makes contacts look out", () => {
  const contacts = {
    top: {
      count: 5,
      pitchMm: 2,
      widthMm: 1.2,
      lengthMm: 6,
      setbackMm: 0.5,
      edge: "bottom" as const,
      from: { x: 10, y: 3 },
      to: { x: 18, y: 3 },
    },
  };
  const m = {
    ...measure,
    edgeContacts: contacts,
    castellatedHoles: { count: 4, diameterMm: 0.8, edge: "left" as const },
  };
  const d = panelDesign({ name: "d", measure: m, bodies: [], isBevelled: true }) as PanelDesign;
  expect(d.bans.map((b) => [b.box, b.isHard])).toEqual([
    [[9.4, -0.5, 18.6, 6.5], true],
    // all of the edge, but for what the sides beside it need
    [[1, -0.5, 49, 0.3], true],
    [[-0.5, 0, 0.4, 40], true],
  ]);
  expect(d.outward).toEqual(["bottom"]);
  expect((panelDesign({ name: "d", measure: m, bodies: [] }) as PanelDesign).outward).toEqual([]);
});

test("on the right and at the top the strip that is kept free lies inside and half a millimetre beyond", () => {
  const contacts = (edge: "right" | "top", from: [number, number], to: [number, number]) => ({
    top: {
      count: 5,
      pitchMm: 2,
      widthMm: 1.2,
      lengthMm: 6,
      setbackMm: 0.5,
      edge,
      from: { x: from[0], y: from[1] },
      to: { x: to[0], y: to[1] },
    },
  });
  const bans = (m: object) =>
    (panelDesign({ name: "d", measure: { ...measure, ...m }, bodies: [] }) as PanelDesign).bans.map(
      (b) => b.box,
    );
  expect(bans({ edgeContacts: contacts("right", [47, 20], [47, 10]) })).toEqual([
    [43.5, 9.4, 50.5, 20.6],
    [49.7, 1, 50.5, 39],
  ]);
  expect(bans({ edgeContacts: contacts("top", [30, 37], [20, 37]) })).toEqual([
    [19.4, 33.5, 30.6, 40.5],
    [1, 39.7, 49, 40.5],
  ]);
  expect(bans({ castellatedHoles: { count: 4, diameterMm: 0.8, edge: "right" } })).toEqual([
    [49.6, 0, 50.5, 40],
  ]);
  expect(bans({ castellatedHoles: { count: 4, diameterMm: 0.8, edge: "top" } })).toEqual([
    [0, 39.6, 50, 40.5],
  ]);
  // where the row's ends are not known nothing can be kept free along it
  const { from: _, ...half } = contacts("top", [30, 37], [20, 37]).top;
  expect(bans({ edgeContacts: { top: half } })).toEqual([]);
});

test("of a card the whole edge of its tongue bears neither tab nor score, over its key, and its shoulders do", () => {
  // a card 60 wide, its tongue from 10 to 50 with a key of 2 at 24, five contacts on the left of the key
  const ring = [0, 8, 10, 8, 10, 0, 24, 0, 24, 6, 26, 6, 26, 0, 50, 0, 50, 8, 60, 8, 60, 40, 0, 40];
  const m = {
    ...measure,
    extentMm: [0, 0, 60, 40] as [number, number, number, number],
    edgeContacts: {
      top: {
        count: 5,
        pitchMm: 2,
        widthMm: 1.2,
        lengthMm: 6,
        setbackMm: 0.5,
        edge: "bottom" as const,
        from: { x: 12, y: 3 },
        to: { x: 20, y: 3 },
      },
    },
  };
  const d = panelDesign({ name: "d", measure: m, rings: [ring], bodies: [] }) as PanelDesign;
  expect(d.bans.map((b) => b.box)).toEqual([
    [11.4, -0.5, 20.6, 6.5],
    [11, -0.5, 49, 0.3],
  ]);
  const l = solved([d], spec({ counts: [1], separation: "tabs", rails: ["top", "bottom"], turns: [[0]] }));
  // at the bottom only the shoulders are held
  const below = l.tabs.filter((t) => t.acrossDeg === -90).map((t) => t.xMm - l.places[0]!.xMm);
  expect(below.length).toBeGreaterThan(0);
  expect(below.every((x) => x < 10 || x > 50)).toBe(true);
});
