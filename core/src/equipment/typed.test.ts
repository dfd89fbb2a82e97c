import { expect, test } from "@jest/globals";
import { typedDay, typedHeat, typedLength, typedSight, typedSpace, typedTips } from "./typed.ts";

const got = (r: { value: unknown } | { wrong: string }) => ("value" in r ? r.value : "wrong");

test.each([
  ["200x150", [200, 150]],
  ["200 × 150 mm", [200, 150]],
  ["200mm x 150mm", [200, 150]],
  ["20 x 15 cm", [200, 150]],
  ["8 by 6 in", [203.2, 152.4]],
  ['8" x 6"', [203.2, 152.4]],
  ["200*150", [200, 150]],
  ["200 150", [200, 150]],
  ["200,5 x 150", [200.5, 150]],
  ["1,200 x 800", "wrong"],
  ["20 cm x 150 mm", "wrong"],
  ["200", "wrong"],
  ["200 x", "wrong"],
  ["200 x 150 x 60", "wrong"],
  ["0 x 100", "wrong"],
  ["-200 x 150", "wrong"],
  ["a lot", "wrong"],
  ["9000 x 100", "wrong"],
])("room %j is %j", (text, is) => expect(got(typedSpace(text))).toEqual(is));

test.each([
  ["60", 60],
  ["6 cm", 60],
  ["2,5 in", 63.5],
  ["60 x 2", "wrong"],
  ["0", "wrong"],
])("height %j is %j", (text, is) => expect(got(typedLength(text))).toEqual(is));

test.each([
  ["260", 260],
  ["260 °C", 260],
  ["260C", 260],
  ["500 F", 260],
  ["500°F", 260],
  ["260,4", 260],
  ["1,000", "wrong"],
  ["533 K", "wrong"],
  ["100-260", "wrong"],
  ["2600", "wrong"],
  ["", "wrong"],
])("heat %j is %j", (text, is) => expect(got(typedHeat(text))).toEqual(is));

test.each([
  ["5", 5],
  ["x5", 5],
  ["5×", 5],
  ["× 2,5", 2.5],
  ["7 to 20", 20],
  ["x7-x45", 45],
  ["3 D", 1.75],
  ["+3 dioptres", 1.75],
  ["20 to 7", "wrong"],
  ["strong", "wrong"],
  ["0.5", "wrong"],
])("glass %j is %j", (text, is) => expect(got(typedSight(text))).toEqual(is));

test.each([
  ["chisel 2.4", [["chisel", 2.4]]],
  [
    "chisel 2,4, bevel 2",
    [
      ["chisel", 2.4],
      ["bevel", 2],
    ],
  ],
  [
    "2.4 mm chisel; 0,5mm cone",
    [
      ["chisel", 2.4],
      ["cone", 0.5],
    ],
  ],
  [
    "chisel 1.2 2.4\nhoof 3",
    [
      ["chisel", 1.2],
      ["chisel", 2.4],
      ["bevel", 3],
    ],
  ],
  [
    "chisel 1.2/2.4",
    [
      ["chisel", 1.2],
      ["chisel", 2.4],
    ],
  ],
  ["", []],
  ["chisel", "wrong"],
  ["2.4", "wrong"],
  ["chisel bevel 2", "wrong"],
  ["T-16D", "wrong"],
  ["chisel 1/16 in", "wrong"],
  ["chisel 24 mm", "wrong"],
])("tips %j are %j", (text, is) => {
  const r = typedTips(text);
  expect("value" in r ? r.value.map((t) => [t.shape, t.mm]) : "wrong").toEqual(is);
});

test.each([
  ["2026-12-31", "2026-12-31"],
  ["2026/12/31", "2026-12-31"],
  ["31.12.2026", "2026-12-31"],
  ["5.6.2026", "2026-06-05"],
  ["31 Dec 2026", "2026-12-31"],
  ["31. december 2026", "2026-12-31"],
  ["Dec 31, 2026", "2026-12-31"],
  ["Sept 3 2027", "2027-09-03"],
  ["31/12/2026", "2026-12-31"],
  ["12/31/2026", "2026-12-31"],
  ["06/06/2026", "2026-06-06"],
  ["05/06/2026", "wrong"],
  ["12/2026", "2026-12-31"],
  ["2/2028", "2028-02-29"],
  ["Feb 2027", "2027-02-28"],
  ["2026-06", "2026-06-30"],
  ["13/2026", "wrong"],
  ["0/2026", "wrong"],
  ["12/26", "wrong"],
  ["31.12.26", "wrong"],
  ["31.02.2026", "wrong"],
  ["2026", "wrong"],
  ["next spring", "wrong"],
])("a day %j is %j", (text, is) => expect(got(typedDay(text))).toEqual(is));
