import { expect, test } from "@jest/globals";
import type { BoardDiff } from "../board/diff-document.ts";
import { emptyMeasure } from "../board/measure/measure-keys.ts";
import type { Measure } from "../board/measure-document.ts";
import type { Finding } from "../findings.ts";
import { FAR } from "../run/made-up.fixture.ts";
import { comparePartPads, partsAt } from "./parts.ts";
import { compareMeasured } from "./verdicts.ts";

type Pin = readonly [pin: string, x: number, y: number, layer?: string];
const measure = (pins: readonly Pin[], more: Partial<Measure> = {}) =>
  ({
    ...emptyMeasure([]),
    findings: [],
    nets: {
      count: 1,
      islands: [{ net: 1, pads: pins.map(([pin, x, y, layer = "top"]) => ({ pin, x, y, layer })) }],
    },
    copperLayers: 2,
    // the same on both boards: no change of it is told
    minNetSpaceMm: 0.2,
    ...more,
  }) as Measure;
/** A part of three pins, its middle at 10/10, turned counter-clockwise about it. */
const part = (ref: string, deg = 0, dx = 0, dy = 0, layer = "top"): Pin[] =>
  [
    [-1, -1],
    [1, -1],
    [0, 2],
  ].map(([x, y], i): Pin => {
    const [s, c] = [Math.sin((deg * Math.PI) / 180), Math.cos((deg * Math.PI) / 180)];
    return [`${ref}.${i + 1}`, 10 + dx + c * x! - s * y!, 10 + dy + s * x! + c * y!, layer];
  });
const changes = (now: readonly Pin[], was: readonly Pin[], shift?: readonly [number, number]) =>
  comparePartPads(measure(now), measure(was), shift).map((c) => [c.ref, c.kind, ...c.by, c.turnDeg]);

test("parts that moved, turned, changed sides, came and went, by their pins", () => {
  expect(changes(part("U1"), part("U1"))).toEqual([]);
  expect(changes(part("U1", 0, 0.5, -0.25), part("U1"))).toEqual([["U1", "moved", 0.5, -0.25, 0]]);
  expect(changes(part("U1", 45), part("U1"))).toEqual([["U1", "turned", 0, 0, 45]]);
  expect(changes(part("U1", -90, 2), part("U1"))).toEqual([["U1", "turned", 2, 0, -90]]);
  expect(changes(part("U1", 0, 0, 0, "bottom"), part("U1"))).toEqual([["U1", "other side", 0, 0, 0]]);
  expect(changes([...part("U1"), ...part("U2", 0, 9)], [...part("U1"), ...part("U3")])).toEqual([
    ["U2", "added", 0, 0, 0],
    ["U3", "gone", 0, 0, 0],
  ]);
});

test("one pin more, or one that is elsewhere, are other pads", () => {
  const [a, b, c] = part("U1") as [Pin, Pin, Pin];
  expect(changes([a, b], [a, b, c])[0]!.slice(0, 2)).toEqual(["U1", "other pads"]);
  expect(changes([a, b, ["U1.3", 10.05, 12]], [a, b, c])[0]!.slice(0, 2)).toEqual(["U1", "other pads"]);
  // pins 1 and 2 swapped is no turn
  expect(changes([["U1.1", b[1], b[2]], ["U1.2", a[1], a[2]], c], [a, b, c])[0]!.slice(0, 2)).toEqual([
    "U1",
    "other pads",
  ]);
});

test("a board drawn about another origin has moved no part, and one without names tells nothing", () => {
  expect(changes(part("U1", 0, 100, 7), part("U1"), [100, 7])).toEqual([]);
  expect(comparePartPads(measure([]), measure(part("U1")))).toEqual([]);
});

test("parts at a place are those whose pads lie at it, by their whole name", () => {
  const m = measure([...part("R1"), ["U1.EP", 30, 30], ["J2.A.1", 30.6, 30]]);
  const at = (x: number, y: number, side = 1) => partsAt(m, { x, y, widthMm: side, heightMm: side });
  // 0.5 and 0.3 from the middle: 30.6 is in, what is farther is not
  expect(at(30, 30)).toEqual(["U1", "J2.A"]);
  expect(at(29.7, 30)).toEqual(["U1"]);
  expect(at(30, 30.81)).toEqual([]);
  expect(at(9, 9, 0.1)).toEqual(["R1"]);
  // a name of one letter before the dot is one too
  expect(partsAt(measure([["K.2", 1, 1]]), { x: 1, y: 1, widthMm: 1, heightMm: 1 })).toEqual(["K"]);
});

const diff = (...changed: string[]): BoardDiff => ({
  changed,
  unchanged: [],
  stencilReusable: {},
  stencil: {},
  places: {},
  shift: [0, 0],
});
test.each([
  [[], "none"],
  [["paste-top"], "stencil"],
  [["legend-bottom"], "suffix"],
  [["legend-top", "paste-top"], "suffix"],
  [["mask-top"], "letter"],
  [["copper-inner-1"], "letter"],
  [["profile"], "letter"],
  [["drill-unplated", "legend-top"], "letter"],
])("%j changed: %s (domain.md 9.8)", (changed, says) => {
  expect(compareMeasured(diff(...changed), measure([]), measure([])).letter.says).toBe(says);
});

test("figures say which way they went, and findings are the same by what they are about, not by their numbers", () => {
  const finding = (text: string, about?: string[]): Finding => ({
    tag: "parse-error",
    level: "warning",
    text,
    ...(about ? { about } : {}),
  });
  const was = measure([], {
    minTrackMm: 0.2,
    copperLayers: 2,
    findings: [finding("0.30 mm at 4.1, 2"), finding("no pads", ["R1"]), finding("gone")],
  });
  const now = measure([], {
    minTrackMm: 0.15,
    copperLayers: 4,
    findings: [finding("0.28 mm at 9.1, 7"), finding("pads are missing", ["R1"]), finding("new")],
  });
  // a track of 0.1 is below what the house can: 0.127
  const [, thin] = compareMeasured(diff(), { ...now, minTrackMm: 0.1 }, was, FAR).figures;
  expect([thin!.levelWas, thin!.levelNow]).toEqual(["fine", "cannot"]);
  const c = compareMeasured(diff("copper-top"), now, was);
  expect(c.figures[1]).not.toHaveProperty("levelNow");
  expect(c.figures.map((f) => [f.key, f.was, f.now, f.is])).toEqual([
    ["copperLayers", 2, 4, undefined],
    ["minTrackMm", 0.2, 0.15, "worse"],
  ]);
  expect([c.notes.fresh.map((f) => f.text), c.notes.solved.map((f) => f.text), c.notes.same]).toEqual([
    ["new"],
    ["gone"],
    2,
  ]);
  // two alike of which one is left: one is solved, one is as before
  const twice = [finding("0.3 mm at 1"), finding("0.4 mm at 2")];
  const { notes } = compareMeasured(
    diff(),
    measure([], { findings: [finding("0.5 mm at 3")] }),
    measure([], { findings: twice }),
  );
  expect([notes.fresh.length, notes.solved.length, notes.same]).toEqual([0, 1, 1]);
});
