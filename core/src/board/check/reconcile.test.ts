import { expect, test } from "@jest/globals";
import { flash, layer, measure, rim, table } from "../../../test/write-board.ts";
import { pinsOfPackage } from "./package-pins.ts";

test("parts list × placement × pads: every disagreement by name", () => {
  const pad = (ref: string, pin: string, x: number, y: number) => `%TO.P,${ref},${pin}*%\n${flash(x, y)}`;
  const pair = (ref: string, x: number, y: number) => pad(ref, "1", x - 1, y) + pad(ref, "2", x + 1, y);
  const board = [
    rim(60, 40),
    layer(
      "b.gtl",
      `%ADD10C,1*%\nD10*\n${pair("R1", 10, 10)}${pair("R2", 20, 10)}${pair("R3", 30, 10)}${pair("R4", 40, 10)}${pair("R9", 50, 30)}${pad("U1", "1", 10, 30)}${pad("U1", "2", 12, 30)}${pad("U1", "3", 14, 30)}`,
    ),
    layer("b.gbl", `%ADD10C,1*%\nD10*\n${pair("C1", 30, 20)}`),
    table("parts.csv", [
      ["Reference", "Quantity", "Value", "Package", "DNP"],
      ["R1 R2 R3 R4", "4", "1k", "0603", ""],
      ["R7", "1", "2k", "0603", ""],
      ["C1", "1", "100n", "0603", ""],
      ["U1", "1", "chip", "SOT-23-5", ""],
      ["R5", "1", "3k", "0603", "DNP"],
    ]),
    table("places.csv", [
      ["Designator", "X", "Y", "Rotation", "Side"],
      ["R1", "10", "10", "0", "top"],
      ["R2", "20", "10", "0", "top"],
      ["R3", "30", "10", "0", "top"],
      ["R4", "40", "10", "90", "top"],
      ["C1", "30", "20", "0", "top"],
      ["U1", "30", "35", "0", "top"],
      ["R5", "30.05", "35", "0", "top"],
    ]),
  ];
  const m = measure(board);
  expect(m.crossCheck).toMatchObject({
    withoutPads: ["R7"],
    padsWithoutPart: ["R9"],
    placedButDnp: ["R5"],
    inBomNotPlaced: ["R7"],
  });
  const about = (tag: string) => m.findings.filter((f) => f.tag === tag).map((f) => f.about);
  expect(about("part-without-pads")).toEqual([["R7"]]);
  expect(about("pads-without-part")).toEqual([["R9"]]);
  expect(about("placement-not-fitted")).toEqual([["R5"]]);
  expect(about("placement-wrong-side")).toEqual([["C1"]]);
  expect(about("placement-off-pads")).toEqual([["U1"]]);
  expect(about("placement-doubled")).toEqual([["U1", "R5"]]);
  expect(about("footprint-turned")).toEqual([["R4"]]);
  expect(about("pin-count-odd")).toEqual([["U1"]]);
});

test("pins by the package's name, where it says them", () => {
  expect(
    [
      "SOIC-8",
      "QFN32",
      "0603",
      "R_0805",
      "SOT-23",
      "SOT-23-5",
      "TSSOP-16",
      "module",
      "SOT-223",
      "CAP 100",
    ].map(pinsOfPackage),
  ).toEqual([8, 32, 2, 2, 3, 5, 16, undefined, undefined, undefined]);
});
