import { expect, test } from "@jest/globals";
import type { FitRow } from "../../fit/row.ts";
import type { RunDocument } from "../document/document.ts";
import type { BoardMeasured, RunRecord } from "../document/record.ts";
import { madeMeasure } from "../made-up.fixture.ts";
import { measurePoints } from "../stage/calliper-points.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { judgeLot } from "./measured.ts";

// corner at (10, 20): places are remembered from there
const measure = {
  ...madeMeasure(),
  extentMm: [10, 20, 70, 60] as [number, number, number, number],
  outline: { ...madeMeasure().outline, widthMm: 60, heightMm: 40 },
  slots: [
    { from: [20, 25], to: [20, 35], widthMm: 1.6, lengthMm: 11.6, plated: false },
    { from: [50, 30], to: [50, 32], widthMm: 2, lengthMm: 4, plated: false },
  ],
  drillTable: [
    {
      diameterMm: 3.2,
      plated: false,
      holes: 2,
      slots: 0,
      at: [
        { x: 13, y: 23 },
        { x: 67, y: 57 },
      ],
    },
    { diameterMm: 1, plated: true, holes: 4, slots: 0, at: [{ x: 30, y: 30 }] },
    { diameterMm: 4, plated: true, holes: 1, slots: 0, at: [{ x: 40, y: 40 }] },
  ],
};
const TAB: FitRow = {
  id: "tab",
  label: "lid tab",
  spec: { kind: "slot", at: [10, 10], tabMm: 1.5, tabTolMm: 0.02 },
};
const EDGE: FitRow = { id: "edge", label: "groove", spec: { kind: "edge", allowsMm: [1.4, 1.7] } };
const made = (more: Partial<RunDocument> = {}): RunDocument => {
  const doc = twoSided({}, more);
  return {
    ...doc,
    boards: [{ ...doc.boards[0]!, measure: measure as never }],
    options: { ...doc.options, thickness: "1.6" },
  };
};
const doc = made({ fits: [TAB, EDGE] });
const came = (qty: number): RunRecord["receipts"] => [
  { id: "r", order: "boards x", item: "b", qty, arrivedOn: "2026-12-01", isApart: false, because: "" },
];
let n = 0;
const board = (label: string, readings: BoardMeasured["readings"], looks = {}): BoardMeasured => ({
  id: `m${n++}`,
  item: "b",
  label,
  on: "2026-12-01",
  readings,
  looks,
  note: "",
});
const lot = (d: RunDocument, qty: number, ...measured: BoardMeasured[]) =>
  judgeLot(d, { options: d.options as never }, { purchases: [], work: [], receipts: came(qty), measured }, 0);

test("only what matters is measured: what the fit sheet asks for, else the widest few; each with what the house holds", () => {
  const points = measurePoints(doc, doc.boards[0]!, "1.6 mm");
  expect(points.map((p) => [p.key, p.mm, p.tolMm, p.fits])).toEqual([
    ["thickness", 1.6, 0.16, ["edge"]],
    ["width", 60, 0.2, []],
    ["height", 40, 0.2, []],
    // the slot of the tab alone
    ["slot 10.00 10.00", 1.6, 0.15, ["tab"]],
    // no fit asks for a hole: one of each size, the largest first
    ["hole 30.00 20.00", 4, 0.1, []],
    ["hole 3.00 3.00", 3.2, 0.05, []],
  ]);
  expect(points[0]!.whose).toMatch(/^usual: ± 0.16 mm/);
  const bare = made();
  expect(measurePoints(bare, bare.boards[0]!, undefined).map((p) => p.key)).toEqual([
    "width",
    "height",
    "slot 10.00 10.00",
    "slot 40.00 11.00",
    "hole 30.00 20.00",
    "hole 3.00 3.00",
  ]);
  const stated = made({
    house: {
      ...doc.house!,
      tolerances: {
        thicknessShare: 0.05,
        outlineMm: 0.1,
        platedHoleMm: 0.1,
        holeMm: 0.05,
        slotMm: 0.1,
        placeMm: 0.1,
      },
    },
  });
  expect(measurePoints(stated, stated.boards[0]!, "1.6")[0]).toMatchObject({
    tolMm: 0.08,
    whose: `${doc.house!.name} holds ± 0.08 mm`,
  });
});

test("a reading is held against the order with its bounds, and against what the board must go into by what was read", () => {
  // 1.45 is just what the order allows; a tab of 1.5 ± 0.02 does not go in
  const narrow = lot(doc, 1, board("1", { "slot 10.00 10.00": [1.58, 1.45, 1.6] }));
  expect(narrow.boards[0]!.points[0]).toMatchObject({ isIn: true, worstMm: 1.45 });
  expect(narrow.boards[0]!.fits.map((f) => [f.row.id, f.verdict])).toEqual([["tab", "does-not-fit"]]);
  expect(narrow.verdict).toBe("fails");
  expect([narrow.notAsOrdered, narrow.doesNotFit]).toEqual([
    [],
    ["lid tab does not fit (slot 1.45 × 11.6 mm ± 0.02): board 1"],
  ]);
  // 1.44 is not what was ordered either
  const less = lot(doc, 1, board("1", { "slot 10.00 10.00": [1.44] }));
  expect(less.notAsOrdered[0]).toBe("slot, 11.6 mm long 1.44 mm, ordered 1.6 ± 0.15: board 1");
  // as drawn it might not fit; as read it does
  expect(lot(doc, 1, board("1", { "slot 10.00 10.00": [1.58] })).boards[0]!.fits[0]!.verdict).toBe("fits");
  // of a row not all of which was read nothing is said
  expect(lot(doc, 1, board("1", { width: [60.1] })).boards[0]!.fits).toEqual([]);
  const thick = lot(doc, 1, board("1", { thickness: [1.69, 1.73] }));
  expect(thick.boards[0]!.points[0]!.isIn).toBe(true);
  expect(thick.boards[0]!.fits.map((f) => f.verdict)).toEqual(["does-not-fit"]);
});

test("one bad board refuses the lot; so many are to be measured that one in ten is found nine times in ten", () => {
  const good = (label: string) => board(label, { width: [60.2] }, { mask: true });
  expect(lot(doc, 30)).toMatchObject({
    verdict: "none",
    lot: 30,
    sample: 16,
    notAsOrdered: [],
    doesNotFit: [],
  });
  const fifteen = Array.from({ length: 15 }, (_, i) => good(String(i)));
  // the same board twice is one board
  expect(lot(doc, 30, ...fifteen, good("3")).verdict).toBe("more");
  expect(lot(doc, 30, ...fifteen, good("15")).verdict).toBe("holds");
  const bad = lot(doc, 30, ...fifteen, board("15", { width: [60.21] }, { mask: false }));
  expect(bad.verdict).toBe("fails");
  expect(bad.notAsOrdered).toEqual([
    "width 60.21 mm, ordered 60 ± 0.2: board 15",
    expect.stringMatching(/^not: mask .*: board 15$/),
  ]);
});

test("each hole is judged by its own reading, the rest of its tool as drawn", () => {
  const posts = [
    { x: 0, y: 0, diameterMm: 3 },
    { x: 54, y: 34, diameterMm: 3 },
  ];
  const holes: FitRow = {
    id: "posts",
    label: "posts",
    spec: {
      kind: "pattern",
      holes: [
        [3, 3],
        [57, 37],
      ],
      posts,
      postTolMm: 0,
    },
  };
  const with_ = made({ fits: [holes] });
  const keys = measurePoints(with_, with_.boards[0]!, undefined)
    .filter((p) => p.fits.includes("posts"))
    .map((p) => p.key);
  expect(keys).toEqual(["hole 3.00 3.00", "hole 57.00 37.00"]);
  const fits = (a: number, b: number) =>
    lot(with_, 1, board("1", { "hole 3.00 3.00": [a], "hole 57.00 37.00": [b] })).boards[0]!.fits[0]!.verdict;
  expect(fits(3.5, 3.5)).toBe("fits");
  expect(fits(3.5, 2.95)).toBe("does-not-fit");
  expect(fits(2.95, 3.5)).toBe("does-not-fit");
  // within what a place may be off nothing is settled by the sizes alone: it is tried in
  const near = lot(with_, 1, board("1", { "hole 3.00 3.00": [3.1], "hole 57.00 37.00": [3.5] }));
  expect([near.boards[0]!.fits[0]!.verdict, near.tryIn]).toEqual(["may-not-fit", ["posts"]]);
});

test("what was measured goes where its delivery goes: a lot that is set apart turns no light, and the next one is judged anew", () => {
  const receipts = (isApart: boolean): RunRecord["receipts"] => [
    { id: "old", order: "boards x", item: "b", qty: 30, arrivedOn: "2026-12-01", isApart, because: "" },
    {
      id: "new",
      order: "boards x",
      item: "b",
      qty: 20,
      arrivedOn: "2026-12-09",
      isApart: false,
      because: "",
    },
  ];
  const measured = [
    { ...board("1", { width: [61] }), receipt: "old" },
    { ...board("2", { width: [60.1] }), receipt: "new" },
  ];
  const of = (isApart: boolean, which: "usable" | "apart") =>
    judgeLot(
      doc,
      { options: doc.options as never },
      { purchases: [], work: [], receipts: receipts(isApart), measured },
      0,
      which,
    );
  expect(of(false, "usable")).toMatchObject({ verdict: "fails", lot: 50 });
  expect(of(false, "apart")).toMatchObject({ verdict: "none", lot: 0, boards: [] });
  expect(of(true, "usable")).toMatchObject({ verdict: "more", lot: 20, sample: 14 });
  expect(of(true, "apart")).toMatchObject({
    verdict: "fails",
    lot: 30,
    notAsOrdered: ["width 61 mm, ordered 60 ± 0.2: board 1"],
  });
});
