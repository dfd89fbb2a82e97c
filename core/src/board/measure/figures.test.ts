import { expect, test } from "@jest/globals";
import { area, drill, flash, layer, measure, rim, stroke } from "../../../test/write-board.ts";
import type { Entry } from "../board-file.ts";
import { PASTE_DENSITY, pasteGrams, stencilFigures, thickestFoil } from "../copper/paste.ts";
import { diffBoards } from "../diff/diff.ts";
import { readBoard } from "../read/read.ts";

// every board here is a few shapes; what follows from them is worked out by hand beside it

const tags = (entries: Entry[]) => measure(entries).findings.map((f) => f.tag);

test("hole walls: √(0.81 + 0.09) − 0.15 − 0.40 (domain.md, example 2.8)", () => {
  const m = measure([
    rim(20, 10),
    drill("b-npth.drl", [
      [0.3, [[5, 5]]],
      [0.8, [[5.9, 5.3]]],
    ]),
  ]);
  expect(m.minHoleToHoleMm).toBeCloseTo(0.3987, 4);
  // the nearest wall to the edge is the larger hole's: 10 − 5.3 − 0.4
  expect(m.minHoleToEdgeMm).toBeCloseTo(4.3, 6);
});

test("the neck of a filled area is a track: two squares joined by a bridge of 0.12", () => {
  const m = measure([
    rim(20, 10),
    layer(
      "b.gtl",
      area(
        [1, 1],
        [4, 1],
        [4, 2],
        [5, 2],
        [5, 1],
        [8, 1],
        [8, 4],
        [5, 4],
        [5, 2.12],
        [4, 2.12],
        [4, 4],
        [1, 4],
      ),
    ),
  ]);
  expect(m.minTrackMm).toBeCloseTo(0.12, 6);
  expect(m.minNeckMm).toBeCloseTo(0.12, 6);
  expect(m.minTrackAt).toContainEqual({
    layer: "top",
    x: expect.closeTo(4.5, 3),
    y: expect.closeTo(2.06, 3),
    mm: 0.12,
  });
});

test("what is far is measured too", () => {
  const m = measure([
    rim(60, 40),
    layer("b.gtl", `%ADD10C,2*%\nD10*\n${flash(20, 20)}${flash(32, 20)}`),
    drill("b-pth.drl", [[1, [[20, 20]]]]),
    drill("b-npth.drl", [[1, [[20, 30]]]]),
  ]);
  // pads of radius 1 at 20 and 32: the nearest edge is 20 below or above, and 20 to the left
  expect(m.minCopperToEdgeMm).toBeCloseTo(19, 6);
  // from the plated wall to the other pad: 12 − 1 − 0.5; from the unplated wall to the first pad: 10 − 1 − 0.5
  expect(m.minDrillToForeignCopperMm).toBeCloseTo(8.5, 6);
  expect(m.minNpthToCopperMm).toBeCloseTo(8.5, 6);
  expect(m.minHoleToHoleMm).toBeCloseTo(9, 6);
  expect(m.minHoleToEdgeMm).toBeCloseTo(9.5, 6);
});

test("the narrowest place of the board itself: a waist of 2 between two wide parts", () => {
  const waist: [number, number][] = [
    [0, 0],
    [20, 0],
    [20, 10],
    [11, 10],
    [11, 2],
    [9, 2],
    [9, 10],
    [0, 10],
  ];
  const edges = waist.map((p, i) => stroke(...p, ...waist[(i + 1) % waist.length]!)).join("");
  const m = measure([layer("b.gko", `%ADD10C,0.1*%\nD10*\n${edges}`)]);
  expect(m.outline).toMatchObject({ areaMm2: 200 - 16, minInnerRadiusMm: 0 });
  expect(m.minBoardNeckMm).toBeCloseTo(2, 6);
  expect(m.minBoardNeckAt![0]!.y).toBeCloseTo(1, 6);
});

test("what clear paint leaves thin is a neck, not a track", () => {
  const m = measure([
    rim(20, 10),
    layer(
      "b.gtl",
      `%ADD10C,2*%\n${area([1, 1], [9, 1], [9, 5], [1, 5])}%LPC*%\nD10*\n${flash(4, 3)}${flash(6.1, 3)}`,
    ),
  ]);
  expect(m.minNeckMm).toBeCloseTo(0.1, 3);
  expect(m.minTrackMm).toBeUndefined();
});

test("drill to foreign copper: a via's wall to the next track, and an unplated hole's to the fill", () => {
  const m = measure([
    rim(20, 10),
    layer(
      "b.gtl",
      `%ADD10C,0.6*%\n%ADD11C,0.2*%\nD10*\n${flash(5, 5)}D11*\n${stroke(3, 5.65, 8, 5.65)}${stroke(12, 5.9, 16, 5.9)}`,
    ),
    layer("b.gbl", `%ADD10C,0.6*%\nD10*\n${flash(5, 5)}`),
    drill("b-pth.drl", [[0.3, [[5, 5]]]]),
    drill("b-npth.drl", [[1, [[14, 5]]]]),
  ]);
  // via: 0.65 − 0.1 − 0.15; unplated: 0.9 − 0.1 − 0.5
  expect(m.minDrillToForeignCopperMm).toBeCloseTo(0.3, 6);
  expect(m.minNpthToCopperMm).toBeCloseTo(0.3, 6);
  expect(m.minDrillToForeignCopperAt!.map((p) => p.mm)).toEqual([
    expect.closeTo(0.3, 6),
    expect.closeTo(0.4, 6),
  ]);
  expect(m.toolingHoles).toBe(1);
});

test("stencil figures and grams (examples 2.12 and 2.13)", () => {
  const rect = (w: number, l: number) => ({
    x: 0,
    y: 0,
    areaMm2: w * l,
    perimeterMm: 2 * (w + l),
    widthMm: w,
    lengthMm: l,
  });
  const circle = {
    x: 0,
    y: 0,
    areaMm2: (Math.PI * 0.28 ** 2) / 4,
    perimeterMm: Math.PI * 0.28,
    widthMm: 0.28,
    lengthMm: 0.28,
  };
  expect(stencilFigures([rect(0.3, 1.5)])["0.12"]).toEqual({
    minAreaRatio: 1.041667,
    minAspectRatio: 2.5,
    below066: 0,
  });
  expect(stencilFigures([circle])).toMatchObject({
    "0.10": { minAreaRatio: 0.7, below066: 0 },
    "0.12": { minAreaRatio: 0.583333, below066: 1 },
  });
  expect(stencilFigures([rect(0.25, 0.9)])["0.15"]!.minAreaRatio).toBeCloseTo(0.652, 3);
  expect(thickestFoil([rect(0.25, 0.9)])).toBeCloseTo(0.1482, 4);
  expect(PASTE_DENSITY).toBeCloseTo(4.263, 3);
  // 120 mm² through 0.12 with a transfer of 0.9: openings whose area ratio lies between 0.66 and 0.8
  const between = { x: 0, y: 0, areaMm2: 120, perimeterMm: 120 / (0.7 * 0.12), widthMm: 1, lengthMm: 1 };
  expect(pasteGrams([between], 0.12)).toBeCloseTo(0.05524, 4);
});

test("a rounded rectangle on the paste layer: area 0.580686, perimeter 2.942478 (example 2.12)", () => {
  const m = measure([
    rim(20, 10),
    layer(
      "b.gtp",
      `%AMRR*21,1,1,0.3,0,0,0*21,1,0.7,0.6,0,0,0*1,1,0.3,0.35,0.15*1,1,0.3,-0.35,0.15*1,1,0.3,0.35,-0.15*1,1,0.3,-0.35,-0.15*%\n%ADD10RR*%\nD10*\n${flash(5, 5)}`,
    ),
  ]);
  expect(m.paste.top!.areaMm2).toBeCloseTo(0.580686, 3);
  expect(m.stencil!.top!.byThicknessMm["0.12"]!.minAreaRatio).toBeCloseTo(1.6445, 2);
});

const grid: [number, number][] = [
  [3, 3],
  [7, 2],
  [12, 4],
  [16, 8],
  [5, 8],
];
const holed = (dx: number, dy: number, mirror = false) => [
  rim(20, 10),
  layer("b.gtl", `%ADD10C,1*%\nD10*\n${grid.map(([x, y]) => flash(x, y)).join("")}`),
  layer("b.gbl", `%ADD10C,1*%\nD10*\n${grid.map(([x, y]) => flash(x, y)).join("")}`),
  drill("b-pth.drl", [[0.5, grid.map(([x, y]) => [(mirror ? -x : x) + dx, y + dy] as const)]]),
];

test("drills beside the copper are found with the move that mends them, and the move mends them", () => {
  const bad = measure(holed(2.5, -1.25));
  const offer = bad.findings.find((f) => f.tag === "layer-misaligned")!.offer!;
  expect(offer).toMatchObject({
    file: "b-pth.drl",
    move: { dxMm: expect.closeTo(-2.5, 6), dyMm: expect.closeTo(1.25, 6) },
  });
  const mended = measure(holed(2.5, -1.25), { moves: { [offer.file]: offer.move } });
  expect(mended.findings.map((f) => f.tag)).not.toContain("layer-misaligned");
  expect(mended.minAnnularMm).toBeCloseTo(0.25, 6);
  const mirrored = measure(holed(20, 0, true)).findings.find((f) => f.tag === "layer-misaligned")!.offer!;
  expect(mirrored.move).toMatchObject({ isMirrored: true, dxMm: expect.closeTo(20, 6) });
});

test("what is said of masks, silkscreen, paste, sets and panels", () => {
  const pads = `%TA.AperFunction,SMDPad,CuDef*%\n%ADD10R,1X1*%\n%TD*%\nD10*\n${flash(5, 5)}${flash(8, 5)}`;
  const base = [rim(20, 10), layer("b.gtl", pads)];
  expect(tags([...base, layer("b.gts", `%ADD10R,1.1X1.1*%\nD10*\n${flash(5, 5)}`)])).toContain(
    "mask-over-pad",
  );
  const open = [...base, layer("b.gts", `%ADD10R,1.1X1.1*%\nD10*\n${flash(5, 5)}${flash(8, 5)}`)];
  expect(tags(open)).not.toContain("mask-over-pad");
  expect(tags([...open, layer("b.gto", `%ADD10C,0.15*%\nD10*\n${stroke(3, 5, 6, 5)}`)])).toContain(
    "legend-over-pad",
  );
  expect(tags([...open, layer("b.gtp", `%ADD10R,1X1*%\nD10*\n${flash(12, 5)}`)])).toContain(
    "paste-without-pad",
  );
  expect(
    tags([...["one", "two"].flatMap((d) => open.map((e) => ({ ...e, path: `${d}/${e.path}` })))]),
  ).toContain("two-sets");
  const box = (x: number) =>
    stroke(x, 0, x + 9, 0) + stroke(x + 9, 0, x + 9, 9) + stroke(x + 9, 9, x, 9) + stroke(x, 9, x, 0);
  expect(tags([layer("b.gko", `%ADD10C,0.1*%\nD10*\n${box(0)}${box(10)}`), layer("b.gtl", pads)])).toContain(
    "already-panel",
  );
});

test("openings of one size stand in one row: 0.3 × 1.5 through 0.12 is 0.45 / (3.6 · 0.12) = 1.0417", () => {
  const m = measure([
    rim(20, 10),
    layer("b.gtl", `%ADD10R,0.3X1.5*%\n%ADD11C,1*%\nD10*\n${flash(5, 5)}${flash(6, 5)}D11*\n${flash(9, 5)}`),
    layer("b.gtp", `%ADD10R,0.3X1.5*%\n%ADD11C,1*%\nD10*\n${flash(5, 5)}${flash(6, 5)}D11*\n${flash(9, 5)}`),
  ]);
  const rows = m.stencil!.top!.apertures!;
  expect(rows.map((r) => [r.count, r.widthMm, r.lengthMm])).toEqual([
    [2, 0.3, 1.5],
    [1, 1, 1],
  ]);
  expect(rows[0]!.areaRatio["0.12"]).toBeCloseTo(1.041667, 6);
  // a round one: D / (4 T)
  expect(rows[1]!.areaRatio["0.10"]).toBeCloseTo(2.5, 6);
});

test("two boards compared: what changed, and whether the stencil serves again", () => {
  const make = (dx: number, pad: number, ink: number) => {
    const at2 = (x: number, y: number) => flash(x + dx, y);
    return readBoard([
      layer(
        "b.gko",
        `%ADD10C,0.1*%\nD10*\n${stroke(dx, 0, 20 + dx, 0)}${stroke(20 + dx, 0, 20 + dx, 10)}${stroke(20 + dx, 10, dx, 10)}${stroke(dx, 10, dx, 0)}`,
      ),
      layer("b.gtl", `%ADD10R,1X1*%\nD10*\n${at2(5, 5)}${at2(8, 5)}`),
      layer("b.gtp", `%ADD10R,${pad}X1*%\nD10*\n${at2(5, 5)}${at2(8, 5)}`),
      layer("b.gto", `%ADD10C,0.15*%\nD10*\n${stroke(3 + dx, ink, 6 + dx, ink)}`),
      drill("b-pth.drl", [[0.5, [[12 + dx, 5]]]]),
    ]);
  };
  const old = make(0, 1, 8);
  expect(diffBoards(make(7.5, 1, 8), old)).toEqual({
    changed: [],
    unchanged: ["copper-top", "drill-plated", "legend-top", "paste-top", "profile"],
    stencilReusable: { top: true },
    stencil: { top: { says: "reuse", of: 2, matched: 2, changed: 0, missing: 0, extra: 0, harmful: 0 } },
    places: {},
    shift: [7.5, 0],
  });
  expect(diffBoards(make(0, 1.004, 8.2), old)).toMatchObject({
    changed: ["legend-top"],
    stencilReusable: { top: true },
  });
  expect(diffBoards(make(0, 1.2, 8), old)).toMatchObject({
    changed: ["paste-top"],
    stencilReusable: { top: false },
  });
});
