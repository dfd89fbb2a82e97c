import { expect, test } from "@jest/globals";
import type { RunDocument } from "@kobbin/core";
import { litPlaces } from "./litPlaces.ts";

const place = (ref: string, side: string, board?: string) => ({
  ref,
  xMm: 1,
  yMm: 2,
  rotationDeg: 0,
  side,
  ...(board ? { board } : {}),
});
const doc = {
  boards: [{ id: "a" }, { id: "b" }],
  lines: [
    { id: "caps", refs: ["C1", "C2", "C3", "C9"] },
    { id: "other", refs: ["C1"], board: "b" },
    { id: "screws", refs: [] },
  ],
  placements: [
    place("C1", "top"),
    place("C2", "bottom"),
    place("C3", "bottom", "a"),
    place("C1", "top", "b"),
    place("R1", "bottom"),
  ],
} as unknown as RunDocument;
const refs = (lines: string[]) => {
  const lit = litPlaces(doc, lines);
  return lit && { ...lit, places: lit.places.map((p) => p.ref) };
};

test("the side and board where most of a line's parts sit, and how many are elsewhere or have no place", () => {
  expect(refs(["caps"])).toEqual({
    board: 0,
    side: "bottom",
    places: ["C2", "C3"],
    elsewhere: 1,
    unplaced: 1,
  });
});

test("the same reference on another board is another part", () => {
  expect(refs(["other"])).toEqual({ board: 1, side: "top", places: ["C1"], elsewhere: 0, unplaced: 0 });
  expect(refs(["caps", "other"])).toMatchObject({ elsewhere: 2, unplaced: 1 });
});

test("a line nothing of which is on a board lights nothing", () => {
  expect(refs(["screws"])).toBeUndefined();
  expect(refs([])).toBeUndefined();
});
