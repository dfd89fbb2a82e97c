import { expect, test } from "@jest/globals";
import type { Measure } from "../../board/measure-document.ts";
import { microsToNumber } from "../../money/money.ts";
import { type Foil, openingsToKeep } from "../../stencil/reuse.ts";
import type { RunDocument } from "../document/document.ts";
import { madeLine, madeMeasure, madeRun } from "../made-up.fixture.ts";
import { leftOffPaste } from "../needs/off-paste.ts";
import { rollUp } from "../roll-up.ts";
import { whatIf } from "../what-if.ts";
import { foilThickness } from "./foil-cut.ts";
import { changeWords, standingOf } from "./foils.ts";
import { stencilNeed } from "./stencil-need.ts";

/** Ten openings in a row, from the corner at (5, 7) of the files. */
const row = (
  change: (i: number) => readonly [number, number, number, number] = (i) => [6 + i, 8, 0.5, 0.8],
  n = 10,
) => Array.from({ length: n }, (_, i) => change(i)).flat();
const measure = (top: readonly number[], more: Partial<Measure> = {}): Measure =>
  madeMeasure({
    extentMm: [5, 7, 55, 47],
    paste: { top: { count: top.length / 4, areaMm2: 4 } },
    stencil: { top: { byThicknessMm: {}, thickestMm: 0.15, pasteGrams: {}, openings: top } } as never,
    ...more,
  });
const FOIL: Foil = {
  id: "f",
  name: "first foil",
  board: "B",
  foilMm: 0.12,
  form: "loose",
  openings: { top: openingsToKeep(measure(row()), "top")! },
  without: [],
  price: "22.00",
  currency: "EUR",
  madeOn: "2026-01-01",
  prints: 30,
  place: "drawer",
  state: "ready",
  note: "",
};
const doc = (m: Measure, foil: Partial<Foil> = {}, more: Partial<RunDocument> = {}): RunDocument => {
  const d = madeRun({
    boards: [{ name: "B", perProduct: 1, measure: m }],
    lines: [
      madeLine("r", ["R1", "R2"]),
      madeLine("x", ["R3"], { dnp: true }),
      madeLine("h", ["J1"], { mount: "hand" }),
    ],
    foils: [{ ...FOIL, ...foil }],
    ...more,
  });
  return {
    ...d,
    workshop: { ...d.workshop, hourlyRate: "24.00" },
    assembly: { ...d.assembly, method: "stencil", stencilPrice: "22.00", foil: "f" },
  };
};
const stencilCost = (d: RunDocument) =>
  microsToNumber(
    rollUp(d)
      .tree.children.find((c) => c.key === "assembly")!
      .children.find((c) => c.key === "stencil")!.micros,
  );
const notes = (d: RunDocument) =>
  rollUp(d)
    .notes.filter((n) => n.key.startsWith("foil-"))
    .map((n) => [n.level, n.key]);

test("openings are kept from the board's corner, so that another program's zero does not matter", () => {
  expect(FOIL.openings.top!.slice(0, 8)).toEqual([1, 1, 0.5, 0.8, 2, 1, 0.5, 0.8]);
  const shifted = measure(
    row((i) => [106 + i, -92, 0.5, 0.8]),
    { extentMm: [105, -93, 155, -53] },
  );
  expect(standingOf(doc(shifted), FOIL).cannot).toBeUndefined();
  expect(openingsToKeep(madeMeasure(), "top")).toBeUndefined();
});

test.each<[string, Measure, Partial<Foil>, string | undefined]>([
  ["the same layer", measure(row()), {}, undefined],
  ["0.05 mm off and 5 % larger are the same", measure(row((i) => [6.05 + i, 8, 0.525, 0.84])), {}, undefined],
  [
    "four openings moved",
    measure(row((i) => [6 + i, i < 4 ? 8.2 : 8, 0.5, 0.8])),
    {},
    "the paste layer of the top is another one: 4 openings moved or of another size",
  ],
  ["three more openings are put on by hand", measure(row(undefined, 13)), {}, undefined],
  [
    "four more are too many",
    measure(row(undefined, 14)),
    {},
    "the paste layer of the top is another one: 4 missing in it",
  ],
  [
    "one too many, and nobody knows what lies under it",
    measure(row(undefined, 9)),
    {},
    "the paste layer of the top is another one: 1 too many",
  ],
  ["thrown away", measure(row()), { state: "gone" }, "it was thrown away"],
  ["of a board that is not there", measure(row()), { board: "other", openings: FOIL.openings }, undefined],
  [
    "cut without a part that is fitted now",
    measure(row()),
    { without: ["R1", "R3"] },
    "it has no openings for R1",
  ],
  ["cut without parts that get no paste now either", measure(row()), { without: ["R3", "J1"] }, undefined],
  [
    "a board measured before openings were listed",
    madeMeasure({
      extentMm: [5, 7, 55, 47],
      stencil: { top: { byThicknessMm: {}, thickestMm: 1, pasteGrams: {} } } as never,
    }),
    {},
    "the openings of the top are not listed: read the board's files again",
  ],
])("a foil against %s", (_, m, foil, cannot) => {
  expect(standingOf(doc(m, foil), { ...FOIL, ...foil }).cannot).toBe(cannot);
});

test("a board of two is found by its name, or by the openings it has", () => {
  const two = doc(measure(row()), { board: "C" });
  const other = { ...two.boards[0]!, id: "2", name: "D", measure: measure(row((i) => [6 + i, 30, 1, 1])) };
  const found = (foil: Foil, boards: RunDocument["boards"]) => standingOf({ ...two, boards }, foil);
  expect(found({ ...FOIL, board: "D" }, [...two.boards, other])).toMatchObject({
    board: { name: "D" },
    cannot: expect.stringMatching(/another one/),
  });
  expect(found({ ...FOIL, board: "C" }, [other, ...two.boards])).toMatchObject({ board: { name: "B" } });
  expect(found({ ...FOIL, board: "C" }, [other, { ...other, name: "E" }]).cannot).toBe(
    "the product has no board called C",
  );
});

test("a foil that serves costs nothing more; one that does not is a new one, and blocks", () => {
  const good = doc(measure(row()));
  expect([stencilCost({ ...good, assembly: { ...good.assembly, foil: "" } }), stencilCost(good)]).toEqual([
    22, 0,
  ]);
  expect(notes(good)).toEqual([]);
  const bad = doc(measure(row(undefined, 14)));
  expect(stencilCost(bad)).toBe(22);
  expect(notes(bad)).toEqual([["error", "foil-refused f"]]);
  expect(notes(doc(measure(row(undefined, 12))))).toEqual([["warning", "foil-dispense f top"]]);
  expect(notes(doc(measure(row()), { state: "worn" }))).toEqual([["warning", "foil-worn f"]]);
  // another thickness than was chosen is said, and what is printed follows the foil
  const other = { ...good, assembly: { ...good.assembly, foilMm: 0.15 } };
  expect(notes(other)).toEqual([["warning", "foil-thickness f"]]);
  expect(foilThickness(other, undefined, "top")).toBe(0.12);
  expect(foilThickness(other, undefined, "bottom")).toBe(0.15);
  expect(foilThickness({ ...bad, assembly: { ...bad.assembly, foilMm: 0.15 } }, undefined, "top")).toBe(0.15);
  expect(foilThickness({ ...good, assembly: { ...good.assembly, foil: "" } }, undefined, "top")).toBe(0.12);
  expect(notes({ ...good, foils: [] })).toEqual([["error", "foil-missing"]]);
  expect(notes({ ...bad, assembly: { ...bad.assembly, method: "iron" } })).toEqual([]);
  const cash = rollUp(good).cash.find((c) => c.key === "stencil")!;
  expect(cash.micros).toBe(0);
});

test("each foil is offered with what it saves, or refused with its reason; one thrown away is not listed", () => {
  const d = {
    ...doc(measure(row(undefined, 14))),
    foils: [
      FOIL,
      {
        ...FOIL,
        id: "g",
        name: "fits",
        openings: { top: openingsToKeep(measure(row(undefined, 14)), "top")! },
      },
      { ...FOIL, id: "h", state: "gone" as const },
    ],
  };
  const run = { ...d, assembly: { ...d.assembly, foil: "" } };
  const base = rollUp(run);
  expect(
    whatIf(run, base).foils.map((f) => [
      f.value,
      f.isChosen,
      f.cannot !== undefined,
      Number((f.perGood * base.expectedGood).toFixed(2)),
    ]),
  ).toEqual([
    ["", true, false, 0],
    ["f", false, true, 0],
    ["g", false, false, -22],
  ]);
});

test("what differs is said in words", () => {
  const v = { says: "new", of: 9, matched: 5, changed: 1, missing: 2, extra: 3, harmful: 3 } as const;
  expect(changeWords(v)).toBe("1 opening moved or of another size, 2 missing in it, 3 too many");
  expect(changeWords({ ...v, changed: 0, missing: 0, extra: 0 })).toBe("all openings match");
});

test("what gets no paste: not fitted, by hand, not soldered, each on its own board", () => {
  const d = madeRun({
    boards: ["a", "b"].map((id) => ({ id, name: id, perProduct: 1, measure: madeMeasure() })),
    lines: [
      madeLine("1", ["R1"], { board: "a" }),
      madeLine("2", ["R2"], { board: "a", dnp: true }),
      madeLine("3", ["R3"], { board: "b", dnp: true }),
      madeLine("4", ["J1"], { mount: "hand" }),
      madeLine("5", ["S1"], { mount: "none" }),
    ],
  });
  expect(leftOffPaste(d, "a")).toEqual([
    { ref: "R2", because: "is not fitted" },
    { ref: "J1", because: "is soldered by hand" },
    { ref: "S1", because: "is not soldered" },
  ]);
  expect(leftOffPaste(d, "b").map((w) => w.ref)).toEqual(["R3", "J1", "S1"]);
});

// one line of two chips: on paste 2 × 6 s to place, 60 to print, 360 / 4 to melt, 20 + 0.6 × 4 to look; by iron 2 × 25 s
test("foil, syringe and iron by the time model, and from how many boards on a foil pays", () => {
  const d = { ...doc(measure(row(), { minPitchMm: 0.5 })), lines: [madeLine("r", ["R1", "R2"])] };
  const r = rollUp(d);
  const need = stencilNeed(d, r, 22);
  const way = (key: string) => need.ways.find((w) => w.key === key)!;
  expect(need.openings).toBe(10);
  expect([way("foil").setupMin, way("syringe").setupMin, way("iron").setupMin]).toEqual([35, 10, 15]);
  expect(way("foil").perBoardMin * 60).toBeCloseTo(12 + 60 + 90 + 22.4, 9);
  expect(way("syringe").perBoardMin * 60).toBeCloseTo(12 + 40 + 90 + 22.4, 9);
  expect(way("iron").perBoardMin * 60).toBeCloseTo(50, 9);
  const rate = Number(d.workshop.hourlyRate) / 60;
  expect(way("foil").cost).toBeCloseTo((35 + (r.start * 184.4) / 60) * rate + 22, 9);
  expect(way("syringe").risks).toEqual(["pads 0.5 mm apart: dots by hand run together"]);
  expect(way("iron").risks).toEqual(["pads 0.5 mm apart: bridges to be drawn off with braid"]);
  // with so few joints the iron stays quicker
  expect(need.breakEven).toBeUndefined();
});

test("where the iron is slow, the break-even is where the lines cross", () => {
  const refs = Array.from({ length: 40 }, (_, i) => `R${i + 1}`);
  const d = { ...doc(measure(row(undefined, 80))), lines: [madeLine("r", refs)] };
  // where it is not said, a foil costs what the run has for it
  expect(stencilNeed(d, rollUp(d)).foilCost).toBe(22);
  const need = stencilNeed(d, rollUp(d), 22);
  // a board by iron 40 × 25 = 1000 s; on paste 240 + 60 + 90 + 20 + 48 = 458; by syringe 458 − 60 + 320 = 718
  const rate = Number(d.workshop.hourlyRate) / 60;
  const cross = (setup: number, seconds: number) =>
    Math.ceil(((35 - setup) * rate + 22) / (((seconds - 458) / 60) * rate));
  expect(need.breakEven).toBe(Math.max(cross(10, 718), cross(15, 1000)));
  // a foil that is there costs nothing: only its set-up has to come in
  expect(stencilNeed(d, rollUp(d), 0).breakEven).toBe(Math.ceil((25 * 60) / (718 - 458)));
});

test("hidden pads and balls are named; without a paste layer only the iron is left", () => {
  const d = {
    ...doc(measure(row())),
    lines: [madeLine("q", ["U1"], { package: "QFN-32" }), madeLine("b", ["U2"], { package: "BGA-64" })],
  };
  const way = (x: RunDocument, key: string) => stencilNeed(x, rollUp(x), 22).ways.find((w) => w.key === key)!;
  expect(way(d, "iron").cannot).toBe("U2 has its joints underneath");
  expect(way(d, "iron").risks).toEqual(["U1: an iron does not reach the hidden pad"]);
  expect(way(d, "syringe").risks).toEqual(["U1, U2: too much under a hidden pad lifts the part"]);
  const bare = { ...d, boards: [{ ...d.boards[0]!, measure: madeMeasure({ paste: {} }) }] };
  expect([way(bare, "foil").cannot, way(bare, "syringe").cannot]).toEqual([
    "there is no paste layer",
    "there is no paste layer",
  ]);
  expect(stencilNeed(bare, rollUp(bare), 22).breakEven).toBeUndefined();
});
