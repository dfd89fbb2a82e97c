import { expect, test } from "@jest/globals";
import { madeMeasure } from "../made-up.fixture.ts";
import { twoSided } from "../two-sided.fixture.ts";
import { houseTrends, type LotSize, lotSizes } from "./trend.ts";

const size = (kind: LotSize["kind"], mm: number, tolMm: number, ...values: number[]): LotSize => ({
  key: kind,
  kind,
  what: kind,
  mm,
  tolMm,
  values,
});
const lot = (house: string | undefined, ...sizes: LotSize[]) => ({
  ...(house ? { house: { id: house } } : {}),
  sizes,
});

test("lots of a house are counted, not readings: a tendency is said from three lots on, where chance does not make it", () => {
  // worked by hand: means −0.04, −0.05, −0.06 of a tolerance of 0.1: mean −0.5, s 0.1, t·s/√3 = 4.303 · 0.1 / 1.732 = 0.248
  const lots = [
    lot("h", size("plated", 1, 0.1, 0.95, 0.97)),
    lot("h", size("plated", 1, 0.1, 0.95)),
    lot("h", size("plated", 3, 0.1, 2.94)),
  ];
  const [t] = houseTrends(lots);
  expect(t).toMatchObject({ house: "h", kind: "plated", lots: 3, readings: 4, outside: 0, tends: "under" });
  expect(t!.offMm).toBeCloseTo(-0.05, 12);
  expect(t!.offShare).toBeCloseTo(-0.5, 12);
  // two of them, or three readings of one, say nothing
  expect(houseTrends(lots.slice(1))[0]!.tends).toBeUndefined();
  expect(houseTrends([lot("h", size("plated", 1, 0.1, 0.95, 0.95, 0.95))])[0]!.tends).toBeUndefined();
  // −0.2, −0.5, −0.8: s 0.3, 4.303 · 0.3 / 1.732 = 0.745 > 0.5
  const wide = [0.98, 0.95, 0.92].map((v) => lot("h", size("plated", 1, 0.1, v)));
  expect(houseTrends(wide)[0]).toMatchObject({ lots: 3 });
  expect(houseTrends(wide)[0]!.tends).toBeUndefined();
  // −0.25, −0.45, −0.65: s 0.2 of two degrees of freedom (0.163 of three), 4.303 · 0.2 / 1.732 = 0.497 > 0.45
  const near = [0.975, 0.955, 0.935].map((v) => lot("h", size("plated", 1, 0.1, v)));
  expect(houseTrends(near)[0]!.tends).toBeUndefined();
  // sure, and too little to be anybody's concern
  const little = [0.991, 0.991, 0.991].map((v) => lot("h", size("plated", 1, 0.1, v)));
  expect(houseTrends(little)[0]!.tends).toBeUndefined();
  const over = [1.02, 1.02, 1.02].map((v) => lot("h", size("plated", 1, 0.1, v)));
  expect(houseTrends(over)[0]!.tends).toBe("over");
});

test("kinds and houses are kept apart, a lot of no house says nothing, what is outside is counted with its bounds", () => {
  const t = houseTrends([
    lot("h", size("slot", 1.5, 0.15, 1.65, 1.66), size("thickness", 1.6, 0.16, 1.6)),
    lot(undefined, size("slot", 1.5, 0.15, 9)),
    lot("k", size("slot", 2, 0.1, 2)),
    // an order that allowed nothing has no share of it
    lot("k", size("slot", 2, 0, 2.1)),
  ]);
  expect(t.map((x) => [x.house, x.kind, x.readings, x.outside])).toEqual([
    ["h", "thickness", 1, 0],
    ["h", "slot", 2, 1],
    ["k", "slot", 1, 0],
  ]);
});

test("sizes of a lot are those of its own order: thickness as it was chosen, holes by how they are made", () => {
  const made = twoSided({});
  const measure = {
    ...madeMeasure(),
    extentMm: [10, 20, 70, 60] as [number, number, number, number],
    slots: [{ from: [20, 25], to: [20, 35], widthMm: 1.6, lengthMm: 11.6, plated: false }],
    drillTable: [
      {
        file: "d",
        diameterMm: 3.2,
        plated: false,
        holes: 1,
        slots: 0,
        at: [{ layer: "drill", x: 13, y: 23 }],
      },
      { file: "d", diameterMm: 4, plated: true, holes: 1, slots: 0, at: [{ layer: "drill", x: 40, y: 40 }] },
    ],
  };
  const thickness = made.house!.options.thickness.at(-1)!.value;
  const doc = {
    ...made,
    boards: [{ ...made.boards[0]!, measure: measure as never }],
    options: { ...made.options, thickness },
  };
  const read = (label: string, readings: Record<string, number[]>, item = "b") => ({
    id: label,
    item,
    label,
    on: "2026-12-01",
    readings,
    looks: {},
    note: "",
  });
  const sizes = lotSizes(
    doc,
    [
      read("1", {
        thickness: [1.5],
        "slot 10.00 10.00": [1.58, 1.6],
        "hole 3.00 3.00": [3.2],
        "hole 30.00 20.00": [4],
      }),
      read("2", { thickness: [1.52], "slot 99.00 1.00": [7] }),
      read("1", { thickness: [9] }, "another"),
    ],
    0,
  );
  expect(sizes.map((s) => [s.kind, s.mm, s.values])).toEqual([
    ["thickness", Number.parseFloat(thickness), [1.5, 1.52]],
    ["slot", 1.6, [1.58, 1.6]],
    ["plated", 4, [4]],
    ["unplated", 3.2, [3.2]],
  ]);
  expect(lotSizes(doc, [], 0)).toEqual([]);
});
