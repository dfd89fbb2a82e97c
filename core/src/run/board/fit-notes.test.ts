import { expect, test } from "@jest/globals";
import { USUAL_TOLERANCES } from "../../fab/tolerances.ts";
import type { FitRow } from "../../fit/row.ts";
import type { Note } from "../document/note.ts";
import { FAR, madeMeasure, madeRun } from "../made-up.fixture.ts";
import { judgeFits } from "../stage/fits.ts";
import { fitNotes } from "./fit-notes.ts";

const edge = (allowsMm: [number, number], more: Partial<FitRow> = {}): FitRow => ({
  id: "e",
  label: "Socket",
  spec: { kind: "edge", allowsMm },
  ...more,
});
const EXACT = { ...FAR, id: "exact", name: "EXACT", tolerances: { thicknessShare: 0.05 } };
const doc = (...fits: FitRow[]) =>
  madeRun({
    boards: [{ name: "Main", perProduct: 1, measure: madeMeasure() }],
    fits,
    house: FAR,
    houses: [FAR, EXACT],
    options: { thickness: "1.6" },
  });
function notes(d: ReturnType<typeof doc>): Partial<Note>[] {
  const out: Partial<Note>[] = [];
  fitNotes(d, (stage, key, level, text, more) => out.push({ stage, key, level, text, ...more }));
  return out;
}

test("what always fits says nothing; what often fails blocks, with the ways out: a thickness, a house", () => {
  expect(notes(doc(edge([1.37, 1.77])))).toEqual([]);
  // 1.6 ± 0.16 in 1.5 to 1.7: 0.1 nominal, sigma 0.0533, so Φ(−1.875) = 3.04 %; at 5 % of the thickness 0.02 is left
  const [caution] = notes(doc(edge([1.5, 1.7])));
  expect(caution).toMatchObject({
    stage: "board",
    key: "fit e may-not-fit",
    level: "warning",
    text: "Socket does not always fit: 0.06 mm are missing at worst, 3 % do not go together. Board 1.6 mm thick ± 0.16: room from −0.06 to 0.26 mm.",
    do: "EXACT holds it.",
  });
  // 1.55 to 1.65: Φ(−0.9375) = 17.4 %
  expect(notes(doc(edge([1.55, 1.65])))[0]).toMatchObject({ level: "error" });
  expect(notes(doc(edge([0.8, 1.2])))[0]).toMatchObject({
    level: "error",
    // a reason given for what sometimes fails is none for what always does
    key: "fit e does-not-fit",
    text: expect.stringContaining("Socket does not fit."),
    do: "Order thickness 1 mm instead of 1.6.",
  });
});

test("a house that would make it of another thickness does not hold this board", () => {
  // only 1.6 at the other house, where 1.0 is chosen: its boards fit, but they are no boards of 1.0
  const thick = { ...EXACT, options: { ...EXACT.options, thickness: [{ value: "1.6", label: "1.6 mm" }] } };
  const d = { ...doc(edge([1.5, 1.7])), houses: [FAR, thick], options: { thickness: "1.0" } };
  expect(judgeFits(d)[0]).toMatchObject({ verdict: "does-not-fit", heldBy: [] });
});

test("play beyond what is wanted is a caution, and so is what cannot be judged", () => {
  expect(notes(doc(edge([1.3, 1.9], { playMm: 0.4 })))[0]).toMatchObject({
    level: "warning",
    text: expect.stringContaining("up to 0.46 mm of play where 0.4 mm are wanted"),
  });
  expect(notes(doc(edge([1.37, 1.77], { board: "Lid" })))[0]).toMatchObject({
    level: "warning",
    text: "Socket cannot be judged: The product has no board called Lid.",
  });
});

test("a row is about the board it names", () => {
  const row = edge([1.37, 1.77], {
    board: "Lid",
    spec: { kind: "outline", across: "width", openingMm: 61, openingTolMm: 0 },
  });
  const d = doc(row);
  const lid = { id: "b2", name: "Lid", perProduct: 1, measure: madeMeasure({ extentMm: [0, 0, 60, 40] }) };
  const two = {
    ...d,
    boards: [
      ...d.boards,
      { ...lid, measure: { ...lid.measure, outline: { ...lid.measure.outline!, widthMm: 60 } } },
    ],
  };
  expect(judgeFits(two)[0]).toMatchObject({ verdict: "fits", board: "board 60 mm wide ± 0.2" });
});

test("holes over posts: the share that is told and that blocks is of all of them, not of the tightest alone", () => {
  const spots = [
    [4, 4],
    [46, 4],
    [46, 36],
    [4, 36],
  ] as const;
  const house = { ...FAR, tolerances: { ...USUAL_TOLERANCES, holeMm: 0, placeMm: 0.1 } };
  const at = (diameterMm: number) => {
    const holes = {
      file: "a",
      diameterMm,
      plated: false,
      holes: 4,
      slots: 0,
      at: spots.map(([x, y]) => ({ layer: "drill", x, y })),
    };
    const measure = madeMeasure({ extentMm: [0, 0, 50, 40], drillTable: [holes] } as never);
    return notes({
      ...doc({
        id: "e",
        label: "Posts",
        spec: {
          kind: "pattern",
          holes: spots.map(([x, y]) => [x, y]),
          posts: spots.map(([x, y]) => ({ x, y, diameterMm: 3 })),
          postTolMm: 0.1,
        },
      }),
      house,
      boards: [{ id: "b1", name: "Main", perProduct: 1, measure }],
    })[0];
  };
  // EX 5.10: all four of 3.2 go on in 0.640, of 3.3 in 0.975; by its tightest clearance alone it were 6.7 % and 1.2 %
  expect(at(3.2)).toMatchObject({ level: "error", text: expect.stringContaining("36 % do not go together") });
  expect(at(3.3)).toMatchObject({
    level: "warning",
    text: expect.stringContaining("2.5 % do not go together"),
  });
});
