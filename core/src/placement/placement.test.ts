import { expect, test } from "@jest/globals";
import { readPlacement } from "./placement.ts";

test.each([
  [
    "millimetres by the header",
    [
      ["Designator", "Mid X", "Mid Y", "Rotation", "Layer"],
      ["u1", "1.5mm", "2mm", "-90", "TopLayer"],
    ],
    "mm",
    1.5,
    270,
    "top",
  ],
  [
    "mils by the header",
    [
      ["Ref", "X (mil)", "Y (mil)", "Rot", "Side"],
      ["U1", "100", "200", "450", "bottom"],
    ],
    "mil",
    2.54,
    90,
    "bottom",
  ],
  [
    "blank-separated with a comment header",
    [["# Ref Val Package PosX PosY Rot Side"], ["U1 x y 25.4 1 0 top"]],
    "mm",
    25.4,
    0,
    "top",
  ],
  [
    "decimal commas",
    [
      ["Ref", "X", "Y", "Rot"],
      ["U1", "1,25", "2", "0"],
    ],
    "mm",
    1.25,
    0,
    "top",
  ],
])("%s", (_, cells, unit, x, rotation, side) => {
  const p = readPlacement(cells, "p.csv");
  expect(p.unit).toBe(unit);
  expect(p.parts[0]).toMatchObject({ ref: "U1", xMm: expect.closeTo(x, 9), rotationDeg: rotation, side });
});

test("a row that cannot be read is said and left out", () => {
  const p = readPlacement(
    [
      ["Ref", "X", "Y"],
      ["R1", "far", "2"],
      ["R2", "1", "2"],
    ],
    "p.csv",
  );
  expect(p.parts.map((x) => x.ref)).toEqual(["R2"]);
  expect(p.findings).toEqual([expect.objectContaining({ tag: "placement-bad-row", row: 2, about: ["R1"] })]);
});
