import { describe, expect, test } from "@jest/globals";
import { drill, flash, layer, listedPoint, netlist, rim, stroke } from "../../test/write-board.ts";
import type { Entry } from "../board/board-file.ts";
import { readBoard } from "../board/read/read.ts";
import { railOf } from "../netlist/rails.ts";
import { probeBoard } from "./probe.ts";

describe("a rail is known by the names people give", () => {
  test.each([
    ...["GND", "/power/GND", "AGND", "gnd_iso", "GNDA", "PGND1", "0V", "0V_A", "VSS", "EARTH", "CHASSIS"].map(
      (n) => [n, "ground"] as const,
    ),
    ...[
      "+3V3",
      "3.3V",
      "+5V",
      "5V0",
      "5VA",
      "-12V",
      "+24VDC",
      "P1V8",
      "0V9",
      "VCC",
      "vdd_io",
      "AVDD33",
      "VDDCORE",
    ].map((n) => [n, "supply"] as const),
    ...["VBAT", "BAT+", "V+", "VIN", "VBUS", "VM", "V", "V5", "V33", "VIN_SW"].map(
      (n) => [n, "supply"] as const,
    ),
    // about a rail, or like one, and none
    ...[
      "VIN_SENSE",
      "3V3_EN",
      "VBUS_DET",
      "GND_DETECT",
      "VSYNC",
      "VREF",
      "V1",
      "Net-(U1-GND)",
      "SDA",
      "VINP",
      "",
    ].map((n) => [n, undefined] as const),
  ])("%s: %s", (name, rail) => expect(railOf(name)).toBe(rail));
});

/**
 * 20 × 10 mm. GND: pads left and right at y 3, joined below through two single vias. VCC: one track above at y 8. SIG at
 * y 8.5 and SIG2 at y 9 between x 6 and 14. Pads are 0.3 across, tracks 0.2: between the pads of SIG and SIG2 0.2, from
 * SIG's pads to VCC's track 0.25, nothing else nearer than 0.4. Mask lies over the right pad of SIG2.
 */
const pads = [
  ["GND", "J1", "1", 2, 3],
  ["GND", "U1", "2", 18, 3],
  ["VCC", "J1", "2", 2, 8],
  ["VCC", "U1", "1", 18, 8],
  ["SIG", "R1", "1", 6, 8.5],
  ["SIG", "R2", "1", 14, 8.5],
  ["SIG2", "R3", "1", 6, 9],
  ["SIG2", "R4", "1", 14, 9],
] as const;
const vias = [
  [4, 3],
  [16, 3],
] as const;
const openings = (of: readonly (readonly [string, string, string, number, number])[]) =>
  layer("b.gts", `%ADD10C,0.4*%\nD10*\n${of.map(([, , , x, y]) => flash(x, y)).join("")}`);
const topOf = `%ADD10C,0.3*%\n%ADD11C,0.2*%\n%ADD12C,0.6*%\nD10*\n${pads.map(([, , , x, y]) => flash(x, y)).join("")}D12*\n${vias.map(([x, y]) => flash(x, y)).join("")}D11*\n${stroke(2, 3, 4, 3)}${stroke(16, 3, 18, 3)}${stroke(2, 8, 18, 8)}${stroke(6, 8.5, 14, 8.5)}${stroke(6, 9, 14, 9)}`;
const board: Entry[] = [
  rim(20, 10),
  layer("b.gtl", topOf),
  layer(
    "b.gbl",
    `%ADD11C,0.2*%\n%ADD12C,0.6*%\nD12*\n${vias.map(([x, y]) => flash(x, y)).join("")}D11*\n${stroke(4, 3, 16, 3)}`,
  ),
  openings(pads.slice(0, 7)),
  drill("b-pth.drl", [[0.3, vias]]),
];
const names = netlist(...pads.map((p) => listedPoint(p[0], p[1], p[2], p[3], p[4])));
const listOf = (entries: readonly Entry[], minutes?: number) => probeBoard(readBoard(entries), minutes);
const short = (d: ReturnType<typeof listOf>) =>
  d.probes.map((p) => `${p.a.pad ?? "?"} ${p.b.pad ?? "?"} ${p.expect}`);

test("rails first, then breaks and shorts in turn, the likeliest and most harmful first", () => {
  const d = listOf([...board, names]);
  expect(short(d)).toEqual([
    "J1.1 J1.2 apart",
    "U1.2 J1.1 joined",
    "J1.2 R1.1 apart",
    "U1.1 J1.2 joined",
    "R1.1 R3.1 apart",
    "R2.1 R1.1 joined",
  ]);
  expect(d.probes.map((p) => p.because)).toEqual([
    "supply against ground",
    "ground, end to end 16 mm, through 2 single vias",
    expect.stringMatching(/^0.25 mm apart on the top near \d/),
    "supply, end to end 16 mm",
    expect.stringMatching(/^0.2 mm apart on the top near \d/),
    "end to end 8 mm",
  ]);
  expect(d.probes[0]).toMatchObject({
    nets: ["GND", "VCC"],
    a: { layer: "top", x: 2, y: 3 },
    b: { x: 2, y: 8 },
  });
  // six statements of eleven seconds
  expect(d.minutes).toBe(1.1);
  expect(d.covers).toEqual({ nets: 3, ofNets: 3, pairs: 3, ofPairs: 3 });
  // mask lies over one end of it
  expect(d.outOfReach).toEqual(["SIG2"]);
});

test("of neighbours the nearer come first, and a rail among them counts more", () => {
  // SIG3's pads at y 9.65: 0.35 from those of SIG2, which is within twice the least
  const more = [
    ["SIG3", "R5", "1", 6, 9.65],
    ["SIG3", "R6", "1", 14, 9.65],
  ] as const;
  const wider = board.map((e) =>
    e.path === "b.gtl"
      ? layer(
          "b.gtl",
          `${topOf}D10*\n${more.map(([, , , x, y]) => flash(x, y)).join("")}D11*\n${stroke(6, 9.65, 14, 9.65)}`,
        )
      : e,
  );
  const d = listOf([
    ...wider.filter((e) => e.path !== "b.gts"),
    openings([...pads, ...more]),
    netlist(...[...pads, ...more].map((p) => listedPoint(p[0], p[1], p[2], p[3], p[4]))),
  ]);
  const apart = d.probes.filter((p) => p.expect === "apart").slice(1);
  expect(apart.map((p) => p.nets.join(" "))).toEqual(["VCC SIG", "SIG SIG2", "SIG2 SIG3"]);
});

test("less time keeps the first statements, and says what it leaves", () => {
  const d = listOf([...board, names], 0.4);
  expect(short(d)).toEqual(["J1.1 J1.2 apart", "U1.2 J1.1 joined"]);
  expect(d.covers).toEqual({ nets: 1, ofNets: 3, pairs: 1, ofPairs: 3 });
});

test("without names the guess is said, and so is a board without mask", () => {
  const d = listOf(board.filter((e) => e.path !== "b.gts"));
  expect(d.probes[0]!.because).toBe("the two nets of most pads, likely supply and ground");
  expect(d.findings.map((f) => f.tag)).toEqual(["layer-missing", "rails-unknown"]);
  // every pad is taken as bare then
  expect(d.outOfReach).toEqual([]);
  expect(d.covers.ofNets).toBe(4);
});

test("a side whose mask is missing is said, and no needle is sent there", () => {
  const bottom = layer("b.gbl", `%ADD12C,1*%\nD12*\n${flash(10, 5)}${flash(15, 5)}`);
  const d = listOf([...board.filter((e) => e.path !== "b.gbl"), bottom, names]);
  expect(d.findings.map((f) => f.text)).toEqual([expect.stringContaining("mask of the bottom")]);
  expect(d.probes.flatMap((p) => [p.a.layer, p.b.layer])).not.toContain("bottom");
});

test("two holes between the layers are no single via, and a hole that is not plated is no place to touch", () => {
  const twice = [...vias, [3.6, 3]] as const;
  const d = listOf([
    ...board.filter((e) => !/drl|gbl/.test(e.path)),
    layer(
      "b.gbl",
      `%ADD12C,0.6*%\n%ADD11C,0.2*%\nD12*\n${twice.map(([x, y]) => flash(x, y)).join("")}D11*\n${stroke(4, 3, 16, 3)}`,
    ),
    drill("b-pth.drl", [[0.2, twice.map(([x, y]): readonly [number, number] => [x, y])]]),
    drill("b-npth.drl", [[0.2, [[18, 8]]]]),
    names,
  ]);
  const ground = d.probes.find((p) => p.expect === "joined" && p.nets[0] === "GND")!;
  expect(ground.because).toBe("ground, end to end 16 mm, through a single via");
  expect(d.probes.flatMap((p) => [p.a.pad, p.b.pad])).not.toContain("U1.1");
});

test("a board without copper is refused with the reason, and so are minutes that are none", () => {
  expect(listOf([rim(20, 10)])).toMatchObject({
    outcome: "reject",
    reason: "No file holds copper.",
    probes: [],
  });
  expect(() => listOf(board, 0)).toThrow("minutes");
  expect(() => listOf(board, Number.NaN)).toThrow("minutes");
});

test("a listed point names the pad that it lies within 0.05 mm of", () => {
  // a pad at 0 / 3, where a twentieth is just that
  const moved = board.map((e) =>
    e.path === "b.gtl" ? layer("b.gtl", `${topOf}D10*\n${flash(0, 3)}D11*\n${stroke(0, 3, 2, 3)}`) : e,
  );
  const open = moved.filter((e) => e.path !== "b.gts");
  const padsAt = (x: number) => {
    const list = netlist(
      listedPoint("GND", "J9", "1", x, 3),
      ...pads.map((p) => listedPoint(p[0], p[1], p[2], p[3], p[4])),
    );
    return listOf([...open, list]).probes.flatMap((p) => [p.a.pad, p.b.pad]);
  };
  expect(padsAt(0.05)).toContain("J9.1");
  expect(padsAt(-0.05)).toContain("J9.1");
  expect(padsAt(0.051)).not.toContain("J9.1");
});
