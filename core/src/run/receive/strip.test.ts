import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { countByLength } from "./strip.ts";

test.each<[string, number, number, object]>([
  ["400", 4, 0, { pieces: 100, openTo: 0 }],
  ["400 mm", 4, 3, { pieces: 97, openTo: 0 }],
  // within a millimetre of 401 it is 100; 401.4 may be 402.4, which is nearer to 101
  ["401", 4, 0, { pieces: 100, openTo: 0 }],
  [
    "401.4",
    4,
    0,
    { pieces: 100, openTo: 1, doubt: "401.4 does not come out even at 4 mm: is the spacing right?" },
  ],
  [
    "40,0 cm + 118,5",
    4,
    0,
    { pieces: 130, openTo: 1, doubt: "118,5 does not come out even at 4 mm: is the spacing right?" },
  ],
  ["400; 120, 80", 4, 0, { pieces: 150, openTo: 0 }],
  ["12 in", 8, 0, { pieces: 38, openTo: 0 }],
  ["1", 4, 0, { pieces: 0, openTo: 0, doubt: "1 does not come out even at 4 mm: is the spacing right?" }],
  ["1,2 m", 2, 0, { pieces: 600, openTo: 0 }],
  ["1.204 m", 4, 0, { pieces: 301, openTo: 0 }],
  // at 2 mm a millimetre is half a piece
  ["101", 2, 0, { pieces: 51, openTo: 1 }],
  [
    "300",
    3,
    0,
    { pieces: 100, openTo: 0, doubt: "3 mm is no usual spacing: tape has 2 mm or a multiple of 4." },
  ],
])("strips of %s at %d mm, %d empty", (text, apart, empty, is) =>
  expect(countByLength(text, apart, empty)).toEqual(is),
);

test.each<[string, number, number]>([
  ["", 4, 0],
  ["long", 4, 0],
  ["-40", 4, 0],
  ["400 V", 4, 0],
  ["1.200,5", 4, 0],
  // 12.4 mm or 12,400 of them
  ["12.400", 4, 0],
  ["1,200 mm", 4, 0],
  ["400", 0, 0],
  ["4000", 600, 0],
  ["400", Number.NaN, 0],
  ["400", 4, -1],
  ["400", 4, 1.5],
  ["40", 4, 11],
  ["0", 4, 0],
])("“%s” at %d mm, %d empty is refused", (...given) =>
  expect(countByLength(...given)).toHaveProperty("wrong"),
);

test("law: the true number lies within what is left open, however the ruler is read within its millimetre", () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 1, max: 400 }), fc.double({ min: -1, max: 1, noNaN: true })), {
        minLength: 1,
        maxLength: 5,
      }),
      fc.constantFrom(2, 4, 8, 12, 16),
      (strips, apart) => {
        const typed = strips.map(([n, off]) => Math.max(0.1, n * apart + off).toFixed(2)).join(" + ");
        const found = countByLength(typed, apart, 0);
        const n = strips.reduce((sum, [k]) => sum + k, 0);
        if ("wrong" in found) throw new Error(found.wrong);
        expect(Math.abs(found.pieces - n)).toBeLessThanOrEqual(found.openTo);
      },
    ),
  );
});
