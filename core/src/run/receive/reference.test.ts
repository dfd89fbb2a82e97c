import { expect, test } from "@jest/globals";
import { photosOf, spotPhotosOf } from "../document/record.ts";
import { madeMeasure } from "../made-up.fixture.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { referenceSpots } from "./reference.ts";

const at = (x: number, y: number, mm: number, layer = "top") => ({ layer, x, y, mm });
const withMeasure = (more: object, errata: object[] = []) => {
  const doc = twoSided({});
  const measure = { ...madeMeasure(), copperLayers: 2, extentMm: [10, 20, 70, 60], slots: [], ...more };
  return { ...doc, boards: [{ ...doc.boards[0]!, measure: measure as never }], errata: errata as never };
};
const said = (more: object, errata: object[] = []) =>
  referenceSpots(withMeasure(more, errata), 0).map((s) => [s.key, s.side, s.what]);
const WHOLE = [
  ["whole top", "top", "all of the top side"],
  ["whole bottom", "bottom", "all of the bottom side"],
];

test("both sides, then the worst places that can be seen: inside the board nothing is photographed", () => {
  expect(
    said({
      minNetSpaceAt: [at(30, 30, 0.1, "inner 1"), at(50, 50, 0.15)],
      minAnnularAt: [at(20, 30, 0.12, "bottom")],
      minMaskWebAt: [at(60, 22, 0.1, "mask top")],
      slots: [
        { from: [15, 25], to: [15, 30], widthMm: 2, lengthMm: 7, plated: false },
        { from: [65, 55], to: [65, 58], widthMm: 1.5, lengthMm: 4, plated: false },
      ],
    }),
  ).toEqual([
    ...WHOLE,
    // the corner is at (10, 20)
    ["top 40.00 30.00", "top", "closest copper, 0.15 mm apart"],
    ["bottom 10.00 10.00", "bottom", "thinnest ring, 0.12 mm"],
    ["top 50.00 2.00", "top", "narrowest web of mask, 0.1 mm"],
    ["top 55.00 35.00", "top", "slot, 1.5 mm wide"],
  ]);
});

test("what lies in one close-up is one photo with both reasons; on the other side it is another", () => {
  expect(
    said({
      minNetSpaceAt: [at(30, 30, 0.15)],
      minMaskWebAt: [at(32, 31, 0.1, "mask top")],
      minAnnularAt: [at(30, 30, 0.12, "bottom")],
      minPitchAt: [at(33.1, 30, 0.5)],
    }).slice(2),
  ).toEqual([
    ["top 20.00 10.00", "top", "closest copper, 0.15 mm apart; narrowest web of mask, 0.1 mm"],
    ["bottom 20.00 10.00", "bottom", "thinnest ring, 0.12 mm"],
    ["top 23.10 10.00", "top", "finest pads, 0.5 mm apart"],
  ]);
});

test("the same spot of a board drawn elsewhere has the same key", () => {
  const keys = (dx: number) =>
    said({ extentMm: [10 + dx, 20, 70 + dx, 60], minNetSpaceAt: [at(30 + dx, 30, 0.15)] }).map((s) => s[0]);
  expect(keys(100)).toEqual(keys(0));
});

test("what was found wrong before comes first, from the corner or where its part is", () => {
  const doc = twoSided({});
  const placed = doc.placements[0]!;
  const spots = said({ minNetSpaceAt: [at(50, 50, 0.15)] }, [
    { title: "slot too narrow", spot: { at: [5, 6], side: "bottom", diameterMm: 3 } },
    { title: "wrong way round", spot: { ref: `${placed.ref}.2`, side: "top", diameterMm: 3 } },
    { title: "of another board", spot: { board: "another", at: [1, 1], side: "top", diameterMm: 3 } },
    { title: "the whole of it", spot: { side: "top", diameterMm: 3 } },
  ]);
  const ofPart = `top ${(placed.xMm - 10).toFixed(2)} ${(placed.yMm - 20).toFixed(2)}`;
  expect(spots.slice(2)).toEqual([
    ["bottom 5.00 6.00", "bottom", "found wrong before: slot too narrow"],
    [ofPart, "top", "found wrong before: wrong way round"],
    ["top 40.00 30.00", "top", "closest copper, 0.15 mm apart"],
  ]);
});

test("photos of how a delivery came, and of the board kept back at its spots, are told apart", () => {
  const photo = (id: string, more: object) => ({ id, order: "boards x", item: "b", ...more }) as never;
  const record = {
    ...{ purchases: [], receipts: [], work: [] },
    photos: [photo("box", {}), photo("slot", { spot: "slot" }), photo("other", { item: "c", spot: "slot" })],
  };
  expect(photosOf(record, "boards x", "b").map((p) => p.id)).toEqual(["box"]);
  expect(spotPhotosOf(record, "boards x", "b").map((p) => p.id)).toEqual(["slot"]);
});
