import { expect, test } from "@jest/globals";
import { area, drill, entry, flash, layer, rim, stroke, table } from "../../test/write-board.ts";
import type { Corrections, Entry } from "./board-file.ts";
import { diffBoards } from "./diff.ts";
import { measureBoard } from "./measure.ts";
import { pinsOfPackage } from "./package-pins.ts";
import { PASTE_DENSITY, pasteGrams, stencilFigures, thickestFoil } from "./paste.ts";
import { readBoard } from "./read.ts";

// every board here is a few shapes; what follows from them is worked out by hand beside it

const measure = (entries: Entry[], corrections: Corrections = {}) =>
  measureBoard(readBoard(entries, corrections));
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

const two = (net: (k: number) => string) => [
  rim(20, 10),
  layer(
    "b.gtl",
    `%ADD10C,1*%\n%ADD11C,0.2*%\nD10*\n${[1, 2, 3, 4]
      .map((k) => `%TO.P,U${k},1*%\n%TO.N,${net(k)}*%\n${flash(2 + 3 * k, 5)}`)
      .join("")}%TD*%\nD11*\n${stroke(5, 5, 8, 5)}${stroke(8, 5, 11, 5)}`,
  ),
];

test("a netlist against the copper: a short and an open, each named (example 2.15)", () => {
  const point = (net: string, ref: string, x: number) =>
    `327${net.padEnd(14)}   ${ref.padEnd(6)}-1         A01X+${String(Math.round(x * 1000)).padStart(6, "0")}Y+005000X1000Y1000R000S0`;
  const list = (nets: readonly string[]) =>
    entry(
      "b.ipc",
      `P  UNITS CUST 1\n${nets.map((n, k) => point(n, `U${k + 1}`, 5 + 3 * k)).join("\n")}\n999\n`,
    );
  // pads 1, 2 and 3 are joined, pad 4 stands alone
  const bad = measure([...two(() => ""), list(["A", "A", "B", "B"])]);
  expect(bad.netlist).toEqual({ nets: 2, points: 4, agrees: false });
  expect(bad.findings.filter((f) => f.level === "error").map((f) => [f.tag, f.about])).toEqual([
    ["net-short", ["A", "B"]],
    ["net-open", ["B"]],
  ]);
  const good = measure([...two(() => ""), list(["A", "A", "A", "B"])]);
  expect(good.netlist).toMatchObject({ agrees: true });
  // names in the layers that say the same are not told a second time
  const both = measure([...two((k) => (k <= 2 ? "A" : "B")), list(["A", "A", "B", "B"])]);
  expect(both.findings.filter((f) => f.tag.startsWith("net-"))).toHaveLength(2);
  const away = measure([
    ...two(() => ""),
    entry(
      "b.ipc",
      `P  UNITS CUST 1\n${[1, 2, 3, 4].map((k) => point("A", `U${k}`, 300 + k * k)).join("\n")}\n999\n`,
    ),
  ]);
  expect(away.findings.map((f) => f.tag)).toContain("netlist-mismatch");
});

test.each<[string, number, number, number]>([
  ["in inches instead of millimetres", 1 / 25.4, 0, 0],
  ["in millimetres instead of inches", 25.4, 0, 0],
  ["ten times larger", 0.1, 0, 0],
  ["ten times smaller", 10, 0, 0],
  ["in micrometres instead of tenths of a mil", 2.54, 0, 0],
  ["in tenths of a mil instead of micrometres", 1 / 2.54, 0, 0],
  ["shifted by 30.000, -2.500 mm", 1, -30, 2.5],
])(
  "a netlist that fits the copper only %s is read so, says so, and names faults where they are",
  (says, by, dx, dy) => {
    const um = (mm: number) => {
      const v = Math.round(mm * 1000);
      return `${v < 0 ? "-" : "+"}${String(Math.abs(v)).padStart(6, "0")}`;
    };
    const list = (nets: readonly string[]) =>
      entry(
        "b.ipc",
        `P  UNITS CUST 1\n${nets
          .map(
            (net, k) =>
              `327${net.padEnd(14)}   ${`U${k + 1}`.padEnd(6)}-1         A01X${um((5 + 3 * k) * by + dx)}Y${um(5 * by + dy)}`,
          )
          .join("\n")}\n999\n`,
      );
    const good = measure([...two(() => ""), list(["A", "A", "A", "B"])]);
    expect(good.netlist).toMatchObject({ agrees: true });
    expect(good.findings.filter((f) => f.tag === "netlist-mismatch")).toMatchObject([
      { level: "remark", text: `The netlist fits the copper only ${says}; it was read so.` },
    ]);
    // pad 2 is named as another net than pads 1 and 3, which it joins
    const [short] = measure([...two(() => ""), list(["A", "C", "A", "B"])]).findings.filter(
      (f) => f.tag === "net-short",
    );
    expect([short!.at!.x, short!.at!.y].map((v) => Math.round(v * 10) / 10)).toEqual([8, 5]);
  },
);

test("names in the layers against the copper: a short, an open, and the nets listed with their pads", () => {
  const m = measure(two((k) => (k <= 2 ? "A" : "B")));
  expect(m.findings.filter((f) => f.tag.startsWith("net-")).map((f) => [f.tag, f.about])).toEqual([
    ["net-short", ["A", "B"]],
    ["net-open", ["B"]],
  ]);
  expect(m.nets!.islands!.map((n) => [n.net, n.name, n.pads.map((p) => p.x)])).toEqual([
    [1, "A", [5, 8, 11]],
    [2, "B", [14]],
  ]);
  expect(m.nets!.singlePad).toBe(1);
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
