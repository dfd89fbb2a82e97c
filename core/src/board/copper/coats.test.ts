import { expect, test } from "@jest/globals";
import { flash, layer, measure, rim, stroke } from "../../../test/write-board.ts";

test("mask web and expansion: pitch 0.5, pad 0.30, expansion 0.05 leave 0.10 (example 2.9)", () => {
  const row = [0, 1, 2].map((k) => flash(5 + k * 0.5, 5)).join("");
  const m = measure([
    rim(20, 10),
    layer("b.gtl", `%ADD10R,0.3X1*%\nD10*\n${row}`),
    layer("b.gts", `%ADD10R,0.4X1.1*%\nD10*\n${row}`),
  ]);
  expect(m.minMaskWebMm).toBeCloseTo(0.1, 6);
  expect(m.minMaskExpansionMm).toBeCloseTo(0.05, 6);
  expect(m.minPitchMm).toBeCloseTo(0.5, 6);
  expect(m.minNetSpaceMm).toBeCloseTo(0.2, 6);
});

test("a pad that the mask defines has a negative expansion", () => {
  const m = measure([
    rim(20, 10),
    layer("b.gtl", `%ADD10C,1*%\nD10*\n${flash(5, 5)}`),
    layer("b.gts", `%ADD10C,0.8*%\nD10*\n${flash(5, 5)}`),
  ]);
  expect(m.minMaskExpansionMm).toBeCloseTo(-0.1, 6);
});

test.each([
  ["round in round", "C,1", "C,1.2", 0.1],
  ["round in square", "C,1", "R,1.3X1.3", 0.15],
  ["square in square", "R,1X1", "R,1.3X1.1", 0.05],
  // 0.65 less the half diagonal 0.4 √2
  ["square in round", "R,0.8X0.8", "C,1.3", 0.65 - 0.4 * Math.SQRT2],
  // its spine is 1 mm long: 1.1 − 0.5 − 0.5 at the ends, 0.65 − 0.5 beside
  ["long in square", "O,2X1", "R,2.2X1.3", 0.1],
  ["long in long", "O,2X1", "O,2.2X1.3", 0.1],
  ["round in a square that is smaller", "C,1", "R,0.8X0.8", -0.1],
])("expansion of the mask, %s, the worst of several pads", (_, pad, opening, mm) => {
  // wider ones before and behind it
  const at = (stamp: string, wide: string) =>
    `%ADD10${stamp}*%\n%ADD11${wide}*%\nD11*\n${flash(3, 5)}${flash(7, 5)}D10*\n${flash(11, 5)}D11*\n${flash(16, 5)}`;
  const m = measure([rim(20, 10), layer("b.gtl", at(pad, "C,1")), layer("b.gts", at(opening, "R,1.8X1.8"))]);
  expect(m.minMaskExpansionMm).toBeCloseTo(mm, 6);
  expect(m.minMaskExpansionAt?.map((p) => [p.x, Number(p.mm?.toFixed(6))])).toEqual([
    [11, Number(mm.toFixed(6))],
    [3, 0.4],
    [7, 0.4],
    [16, 0.4],
  ]);
});

test("a mask opening beside copper of another net: pad 1, opening 1.2, track 0.2 at 0.75 leave 0.75 − 0.1 − 0.6 = 0.05", () => {
  const made = (y: number, net = "B") =>
    measure([
      rim(20, 10),
      layer(
        "b.gtl",
        `%ADD10R,1X1*%\n%ADD11C,0.2*%\n%TO.N,A*%\nD10*\n${flash(5, 5)}${net === "A" ? stroke(5, 5, 5, y) : `%TO.N,${net}*%\n`}D11*\n${stroke(2, y, 8, y)}`,
      ),
      layer("b.gts", `%ADD10R,1.2X1.2*%\nD10*\n${flash(5, 5)}`),
    ]);
  const beside = made(5.75);
  expect(beside.minOpeningToCopperMm).toBeCloseTo(0.05, 6);
  expect(beside.findings.map((f) => f.tag)).not.toContain("mask-bares-copper");
  const bared = made(5.65);
  expect(bared.minOpeningToCopperMm).toBe(0);
  expect(bared.findings.find((f) => f.tag === "mask-bares-copper")?.at).toMatchObject({ layer: "mask top" });
  // the pad's own track is no stranger
  expect(made(5.65, "A").minOpeningToCopperMm).toBeUndefined();
});
